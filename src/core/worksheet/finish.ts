import type { RightHeld, System, WorkEntry, WorkItem, Worksheet } from '../estate';
import { isDone, progressOf } from './progress';

/** What an item that went well changes: where the system stands then, and facts that have other values. */
export interface Effect {
  readonly to: NonNullable<WorkItem['to']>;
  readonly sets: Readonly<Record<string, string>>;
  readonly draws?: NonNullable<WorkItem['draws']>;
}

/**
 * What is installed once an entry is made: a patch that is on, a hop through on every node. Undefined where it changes nothing, or what
 * is installed does not hang on it.
 */
export function effectOf(worksheet: Worksheet, entry: WorkEntry): Effect | undefined {
  const item = worksheet.items.find((i) => i.id === entry.item);
  if (!item?.to || (item.kind !== 'hop' && item.kind !== 'patch')) return undefined;
  if (entry.state !== 'passed' && entry.state !== 'passed with a warning') return undefined;
  const after = progressOf({ ...worksheet, entries: [...worksheet.entries, entry] });
  const nodes = worksheet.items.filter(
    (i) => i.kind === item.kind && i.step === item.step && i.about === item.about
  );
  return nodes.every((i) => isDone(after.get(i.id)?.state ?? 'open'))
    ? { to: item.to, sets: item.sets ?? {}, ...(item.draws ? { draws: item.draws } : {}) }
    : undefined;
}

/** A system with what a finished step has made of it, and a word in its history of what it was before. */
export function systemAfter(
  system: System,
  { to, sets }: Effect,
  {
    day,
    who,
    was,
    note
  }: { readonly day: string; readonly who?: string; readonly was: string; readonly note: string }
): System {
  const { installedText: _text, purl: _purl, cpe: _cpe, missingSince: _missing, ...kept } = system;
  void [_text, _purl, _cpe, _missing];
  const source = 'worksheet';
  const facts = Object.entries(sets).map(([fact, value]) => [fact, { value, day, source }] as const);
  const members = system.members?.map(({ release: _release, patch: _patch, ...m }) => {
    void [_release, _patch];
    return m;
  });
  return {
    ...kept,
    observed: day,
    source,
    release: { is: to.release },
    patch: { is: to.patch },
    edition: { is: to.edition },
    architecture: { is: to.architecture },
    ...(facts.length > 0 ? { facts: { ...system.facts, ...Object.fromEntries(facts) } } : {}),
    ...(members ? { members } : {}),
    history: [
      ...(system.history ?? []),
      { day, kind: 'changed' as const, was, note, ...(who === undefined ? {} : { who }) }
    ].slice(-500)
  };
}

/**
 * What is held once a step has taken its units: of what serves its team, else its site, else all, what lapses first. What is short was
 * bought for it and is not held any more either. A number nobody knows stays so.
 */
export function heldAfter(
  held: readonly RightHeld[],
  { right, edition, number }: NonNullable<Effect['draws']>,
  {
    team,
    site,
    day
  }: { readonly team?: string | undefined; readonly site?: string | undefined; readonly day: string }
): readonly RightHeld[] {
  const rank = (h: RightHeld): number => (h.team !== undefined ? 0 : h.site !== undefined ? 1 : 2);
  const serves = (h: RightHeld): boolean =>
    h.right === right &&
    h.held !== 'unknown' &&
    (h.edition === undefined || h.edition === edition || edition === undefined) &&
    (h.team === undefined || h.team === team) &&
    (h.team !== undefined || h.site === undefined || h.site === site) &&
    (h.until === undefined || h.until >= day);
  const sorted = held
    .filter(serves)
    .sort((a, b) => rank(a) - rank(b) || ((a.until ?? '9') < (b.until ?? '9') ? -1 : 1));
  const taken = new Map<RightHeld, number>();
  let left = number;
  for (const h of sorted) {
    const some = Math.min(left, h.held === 'unknown' ? 0 : h.held);
    taken.set(h, some);
    left -= some;
  }
  return held.map((h) => {
    const some = taken.get(h) ?? 0;
    return some === 0 || h.held === 'unknown' ? h : { ...h, held: h.held - some };
  });
}
