import { type Day, parseDateText, readDay } from '../date';
import { matchesRange, parseRange, sequenceOf, type Standing } from '../version';
import type { Product } from './schema';

/** A preview track a system stands on, or would: how it is left, and what is forfeited. */
export interface OnTrack {
  readonly id: string;
  readonly name: string;
  readonly leaving: 'at the general release' | 'fresh install' | 'no way out';
  readonly forfeits?: string;
}

const LEAVING: readonly OnTrack['leaving'][] = ['at the general release', 'fresh install', 'no way out'];

/**
 * The preview track of a release and patch level, while it is not out in general on a day. Of several tracks that lead there the one that
 * is hardest to leave.
 */
export function findTrack(
  product: Product,
  at: Pick<Standing, 'release' | 'patch'>,
  { today, countsExpected }: { readonly today: Day; readonly countsExpected: boolean }
): OnTrack | undefined {
  const release = product.releases.find((r) => r.id === at.release);
  if (!release || !product.tracks?.length) return undefined;
  const { published } = release;
  const text = typeof published === 'string' ? published : published.general;
  const date = text === undefined ? undefined : parseDateText(text);
  const general = date && readDay(date, countsExpected);
  if (typeof general === 'number' && general <= today) return undefined;
  const sequence = sequenceOf(product);
  const [track] = product.tracks
    .filter((t) => {
      const parsed = parseRange(t.releases);
      return 'range' in parsed && matchesRange(sequence, parsed.range, at);
    })
    .sort((a, b) => LEAVING.indexOf(b.leaving) - LEAVING.indexOf(a.leaving));
  if (!track) return undefined;
  const { id, name, leaving, forfeits } = track;
  return { id, name, leaving, ...(forfeits === undefined ? {} : { forfeits }) };
}
