import type { ItemState, WorkEntry, WorkItem, Worksheet } from '../estate';

/** What has become of an item: its latest entry stands. */
export interface ItemProgress {
  readonly state: ItemState;
  /** The entry that says so; none where nothing was entered. */
  readonly by?: WorkEntry;
  /** Where it is running: since when, as its entry says. */
  readonly since?: string;
}

/** Later, then the greater id: the same whoever joins two halves. */
export const compareEntries = (a: WorkEntry, b: WorkEntry): number =>
  a.at < b.at ? -1 : a.at > b.at ? 1 : a.id < b.id ? -1 : a.id > b.id ? 1 : 0;

/** The progress of every item by its id; those that are not needed for the target are told as such. */
export function progressOf({
  items,
  entries
}: Pick<Worksheet, 'items' | 'entries'>): ReadonlyMap<string, ItemProgress> {
  const latest = new Map<string, WorkEntry>();
  for (const entry of [...entries].sort(compareEntries))
    if (entry.state !== undefined) latest.set(entry.item, entry);
  return new Map(
    items.map((item) => {
      const by = latest.get(item.id);
      const state = by?.state ?? (item.needless === undefined ? 'open' : 'not needed');
      return [
        item.id,
        { state, ...(by ? { by } : {}), ...(state === 'running' && by ? { since: by.at } : {}) }
      ];
    })
  );
}

/** It went as it should, or need not be done. */
export const isDone = (state: ItemState): boolean =>
  state === 'passed' || state === 'passed with a warning' || state === 'not needed';

/** What has to be met before a hop. */
const GATES = [
  'back-up',
  'access',
  'checks',
  'work-arounds',
  'the step before',
  'what it hangs on',
  'the same hop elsewhere'
] as const;
export type GateName = (typeof GATES)[number];

export interface Gate {
  readonly name: GateName;
  readonly isOpen: boolean;
  /** Items that keep it shut. */
  readonly shutBy: readonly string[];
  /** Linked systems that are not there yet, or those on which the same hop has failed. */
  readonly waitsFor: readonly string[];
  /** Who decided to go through it all the same. */
  readonly opened?: WorkEntry;
  /** The back-up is older than it may be. */
  readonly isStale?: boolean;
}

/** Days after which a back-up is too old for a hop. */
export const BACK_UP_DAYS = 7;

export interface GateAsking {
  /** The minute it is, as entries have it. */
  readonly now: string;
  /** Whether a linked system stands where it has to. */
  isThere(system: string, release: string): boolean;
  /** Other systems on which the same hop has failed: those behind stop until somebody decides. */
  failedOn(worksheet: Worksheet, hop: WorkItem): readonly string[];
}

const FAILED = new WeakMap<readonly Worksheet[], ReadonlyMap<string, readonly string[]>>();

/** Systems whose worksheet says that a hop failed and has not gone through since, but for the worksheet's own. */
export function failedElsewhere(
  all: readonly Worksheet[],
  worksheet: Worksheet,
  hop: WorkItem
): readonly string[] {
  let by = FAILED.get(all);
  if (!by) {
    const found = new Map<string, string[]>();
    for (const sheet of all) {
      if (sheet.entries.length === 0) continue;
      const progress = progressOf(sheet);
      for (const item of sheet.items)
        if (item.kind === 'hop' && progress.get(item.id)?.state === 'failed') {
          const key = `${sheet.product} ${item.about}`;
          const known = found.get(key) ?? [];
          if (!known.includes(sheet.system)) found.set(key, [...known, sheet.system]);
        }
    }
    by = found;
    FAILED.set(all, by);
  }
  return (by.get(`${worksheet.product} ${hop.about}`) ?? []).filter((s) => s !== worksheet.system);
}

/** The gates before a hop; empty for anything else. */
export function gatesBefore(
  worksheet: Worksheet,
  hop: WorkItem,
  { now, isThere, failedOn }: GateAsking
): readonly Gate[] {
  if (hop.kind !== 'hop') return [];
  const progress = progressOf(worksheet);
  const stateOf = (i: WorkItem): ItemState => progress.get(i.id)?.state ?? 'open';
  const needed = worksheet.items.filter((i) => i.needless === undefined);
  const shut = (of: (i: WorkItem) => boolean): string[] =>
    needed.filter((i) => of(i) && !isDone(stateOf(i))).map((i) => i.id);
  const step = hop.step ?? 0;
  const ready = (i: WorkItem): boolean => i.step === step;
  const isBefore = (i: WorkItem): boolean =>
    (i.step !== undefined &&
      i.step < step &&
      (i.kind === 'hop' || i.kind === 'verify' || i.kind === 'post-work')) ||
    (i.step === step &&
      i.node !== undefined &&
      hop.node !== undefined &&
      i.node < hop.node &&
      i.kind === 'hop') ||
    (i.step === step && i.kind === 'hand-over' && i.node === hop.node);
  const waitsFor =
    step === 0
      ? (worksheet.needsFirst ?? []).filter((n) => !isThere(n.system, n.release)).map((n) => n.system)
      : [];
  const backUp = needed.find((i) => i.kind === 'back up');
  const madeAt = backUp && progress.get(backUp.id)?.by?.at;
  const isStale =
    madeAt !== undefined && Date.parse(now) - Date.parse(madeAt) > BACK_UP_DAYS * 24 * 60 * 60 * 1000;
  const lists: Readonly<Record<GateName, readonly string[]>> = {
    'back-up': shut((i) => i.kind === 'back up' || i.kind === 'prove' || (i.kind === 'snapshot' && ready(i))),
    access: shut((i) => i.kind === 'access' || i.kind === 'fetch'),
    checks: shut((i) => i.kind === 'check'),
    'work-arounds': shut(
      (i) =>
        ready(i) &&
        (i.kind === 'work-around' || i.kind === 'follow-on' || i.kind === 'cure' || i.kind === 'patch')
    ),
    'the step before': shut(isBefore),
    'what it hangs on': [],
    'the same hop elsewhere': []
  };
  const waiting: Readonly<Partial<Record<GateName, readonly string[]>>> = {
    'what it hangs on': waitsFor,
    'the same hop elsewhere': failedOn(worksheet, hop)
  };
  return GATES.map((name) => {
    const opened = worksheet.entries
      .filter((e) => e.item === hop.id && e.gate === name)
      .sort(compareEntries)
      .at(-1);
    const shutBy = lists[name];
    const stale = name === 'back-up' && isStale;
    const waits = waiting[name] ?? [];
    return {
      name,
      isOpen: opened !== undefined || (shutBy.length === 0 && waits.length === 0 && !stale),
      shutBy,
      waitsFor: waits,
      ...(opened ? { opened } : {}),
      ...(stale ? { isStale: true } : {})
    };
  });
}

export interface Standing {
  /** Items that are done, of those there are. */
  readonly done: number;
  readonly of: number;
  /** The item that is next, running ones first; absent where all are done. */
  readonly next?: WorkItem;
  readonly failed: readonly WorkItem[];
  /** Counted steps whose every node is through. */
  readonly steps: number;
}

/** How far a worksheet is. */
export function standingOf(worksheet: Worksheet): Standing {
  const progress = progressOf(worksheet);
  const needed = worksheet.items.filter((i) => i.needless === undefined);
  const stateOf = (i: WorkItem): ItemState => progress.get(i.id)?.state ?? 'open';
  // Nothing behind a hop that failed is next: that hop is.
  const next =
    needed.find((i) => stateOf(i) === 'running') ??
    needed.find((i) => stateOf(i) === 'open' || (i.kind === 'hop' && stateOf(i) === 'failed'));
  const steps = new Set(needed.flatMap((i) => (i.kind === 'hop' ? (i.step ?? []) : [])));
  const through = [...steps].filter((k) =>
    needed.filter((i) => i.kind === 'hop' && i.step === k).every((i) => isDone(stateOf(i)))
  );
  return {
    done: needed.filter((i) => isDone(stateOf(i))).length,
    of: needed.length,
    ...(next ? { next } : {}),
    failed: needed.filter((i) => stateOf(i) === 'failed'),
    steps: through.length
  };
}
