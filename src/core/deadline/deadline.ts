import type { Day, PhaseName } from '../date';
import type { Kept } from '../catalogue';
import { compareText } from '../kit';

/** What ends, and what missing it costs. */
export interface Contributor {
  readonly kind:
    | 'service of installed'
    | 'service on the way'
    | 'closing'
    | 'patch'
    | 'right'
    | 'newer patch'
    | 'service of host'
    | 'hardware model'
    | 'certificate'
    | 'activation'
    | 'pairing'
    | 'decision';
  /** The release, hop, patch level or right that ends. */
  readonly subject: string;
  readonly day: Day;
  /** The earliest day an imprecise or uncertain date may mean, where that differs. */
  readonly early?: Day;
  readonly certainty?: 'published' | 'announced' | 'expected';
  /** Of service: the phase that ends; of the goal's own phase it counts, of a later one it is listed. */
  readonly phase?: PhaseName;
  /** It is stated in several ways and nobody has ruled: the earliest counts. */
  readonly disputed?: boolean;
  readonly source?: string;
  /** Listed contributors cost money only and do not set the deadline. */
  readonly sets: boolean;
  readonly cost: MissingCost;
}

export type MissingCost =
  | { readonly code: 'no service' }
  | { readonly code: 'out of reach' }
  | { readonly code: 'keeps less'; readonly kept: Kept }
  | { readonly code: 'another way' }
  | { readonly code: 'stops' }
  | { readonly code: 'units'; readonly pool: string; readonly number: number | 'unknown' }
  | { readonly code: 'money'; readonly cents: number | 'unknown' };

export interface Deadline {
  /** Absent when nothing known sets one. */
  readonly day?: Day;
  readonly setBy?: Contributor;
  /** The next one after today, where the deadline itself is past. */
  readonly next?: Contributor;
  /** All, earliest first. */
  readonly contributors: readonly Contributor[];
}

/** The deadline from its contributors: the earliest that sets it. Ties: kind, then subject. */
export function deadlineOf(contributors: readonly Contributor[], today: Day): Deadline {
  const sorted = [...contributors].sort(
    (a, b) => a.day - b.day || compareText(a.kind, b.kind) || compareText(a.subject, b.subject)
  );
  const setting = sorted.filter((c) => c.sets);
  const [setBy] = setting;
  const isSame = (a: Contributor, b: Contributor): boolean =>
    a.kind === b.kind && a.subject === b.subject && a.day === b.day;
  // What both closes the chosen way and sets the deadline is told once, as what it sets.
  const told = sorted.filter(
    (c, i) =>
      (c.sets || !setting.some((s) => isSame(s, c))) &&
      sorted.findIndex((o) => o.sets === c.sets && isSame(o, c)) === i
  );
  if (!setBy) return { contributors: told };
  const next = setBy.day < today ? setting.find((c) => c.day >= today) : undefined;
  return { day: setBy.day, setBy, ...(next ? { next } : {}), contributors: told };
}
