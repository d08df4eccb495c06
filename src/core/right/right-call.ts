import type { Day } from '../date';
import type { MaybeSum } from './money';

/** One step of one system that takes a right. */
export interface RightCall {
  readonly system: string;
  readonly case: string;
  readonly team?: string;
  readonly site?: string;
  readonly number: MaybeSum;
  /** Of one, or of one pack of units; undefined: it cannot be bought. */
  readonly priceCents: MaybeSum | undefined;
  /** The day the publisher's rule asks for: of the hop, of the order, or of the target's release. */
  readonly day: Day;
  /** The last day to have it. */
  readonly by: Day;
  /** The route rests on nothing unknown. */
  readonly certain: boolean;
}

/** The calls on one right of a product in one edition, and of units in one pool. */
export interface RightCalls {
  readonly product: string;
  readonly right: string;
  readonly edition: string;
  readonly pool?: string;
  /** Units a pack; 1 where it comes in none. */
  readonly pack: number;
  readonly calls: readonly RightCall[];
}

/** Equal for calls on the same right, edition and pool of a product. */
export const keyOfCalls = ({ product, right, edition, pool }: Omit<RightCalls, 'calls' | 'pack'>): string =>
  [product, right, edition, pool ?? ''].join('/');
