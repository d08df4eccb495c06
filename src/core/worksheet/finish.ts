import type { System, WorkEntry, WorkItem, Worksheet } from '../estate';
import { isDone, progressOf } from './progress';

/** What an item that went well changes: where the system stands then, and facts that have other values. */
export interface Effect {
  readonly to: NonNullable<WorkItem['to']>;
  readonly sets: Readonly<Record<string, string>>;
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
    ? { to: item.to, sets: item.sets ?? {} }
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
