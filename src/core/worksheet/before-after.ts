import { factAfter, factsLeft } from '../after';
import type { FactKinds, Seen } from '../condition';
import { findFeatureDifference, type Product } from '../catalogue';
import type { System, Worksheet } from '../estate';
import { leavesOf } from './finish';
import { isDone, progressOf } from './progress';

/** What was told of a system at a time. */
export type ToldThen = NonNullable<Worksheet['before']>;

/** One thing that is otherwise than it was, or was to be otherwise and is not. */
export interface Difference {
  readonly kind: 'release' | 'patch' | 'edition' | 'architecture' | 'fact' | 'companion' | 'gained' | 'lost';
  /** The fact, the companion or the feature it is about; its kind else. */
  readonly what: string;
  readonly before?: string;
  readonly after?: string;
  /** Whether the way said that it would be so. */
  readonly isExpected: boolean;
  /** Of a feature that is lost: what takes its place. */
  readonly instead?: string;
}

/** What is told of a system now, as texts. */
export function seenOf({ facts = {}, companions = [] }: System): ToldThen {
  const told = Object.entries(facts).flatMap(([id, reading]) =>
    'value' in reading && reading.value !== undefined
      ? [[id, String(reading.value).slice(0, 300)] as const]
      : []
  );
  return { facts: Object.fromEntries(told), companions: companions.map((c) => c.name) };
}

/**
 * The sheet of before and after: how a system stood when its worksheet was made and how it stands now, with each difference expected or
 * not, and the features gained and lost on the way.
 */
export function beforeAndAfter(
  sheet: Worksheet,
  system: System,
  { product, kinds }: { readonly product: Product; readonly kinds: FactKinds }
): readonly Difference[] {
  const progress = progressOf(sheet);
  const through = sheet.items.filter(
    (i) => (i.kind === 'hop' || i.kind === 'patch') && isDone(progress.get(i.id)?.state ?? 'open')
  );
  const reached = through.at(-1)?.to ?? sheet.start;
  const found: Difference[] = [];
  for (const kind of ['release', 'patch', 'edition', 'architecture'] as const) {
    const reading = system[kind];
    const after = reading && 'is' in reading ? reading.is : undefined;
    const [before, expected] = [sheet.start[kind], reached[kind]];
    if (before === after && before === expected) continue;
    found.push({
      kind,
      what: kind,
      before,
      ...(after === undefined ? {} : { after }),
      isExpected: after === expected
    });
  }
  const cured = sheet.items.filter((i) => i.cure && isDone(progress.get(i.id)?.state ?? 'open'));
  if (sheet.before)
    found.push(...toldOtherwise(sheet.before, seenOf(system), { kinds, steps: [...cured, ...through] }));
  const now = 'is' in system.release ? system.release.is : undefined;
  if (now !== undefined) {
    const edition = system.edition && 'is' in system.edition ? system.edition.is : sheet.start.edition;
    const { gained, lost } = findFeatureDifference(product, sheet.start, { release: now, edition });
    for (const what of gained) found.push({ kind: 'gained', what, isExpected: true });
    for (const { name, instead } of lost)
      found.push({
        kind: 'lost',
        what: name,
        isExpected: true,
        ...(instead === undefined ? {} : { instead })
      });
  }
  return found;
}

/** Facts and companions that are told otherwise than before; what the steps that are through set is expected. */
function toldOtherwise(
  before: ToldThen,
  after: ToldThen,
  { kinds, steps }: { readonly kinds: FactKinds; readonly steps: readonly Worksheet['items'][number][] }
): Difference[] {
  const inTurn = [...steps].sort((a, b) => (a.step ?? 0) - (b.step ?? 0));
  // A hop on several nodes is one.
  const once = new Map(inTurn.map((i) => [`${i.kind} ${i.step} ${i.about} ${i.cure?.id}`, i]));
  const leaves = [...once.values()].map(leavesOf);
  const ids = [
    ...new Set([...Object.keys(before.facts), ...Object.keys(after.facts), ...leaves.flatMap(factsLeft)])
  ].sort();
  /** What a fact is behind all of them; undefined where nobody can tell. */
  const expectedOf = (id: string): string | undefined => {
    const was = before.facts[id];
    const told: Seen =
      was === undefined ? { kind: 'unknown', why: 'not asked' } : { kind: 'known', value: was };
    const seen = leaves.reduce<Seen>((s, l) => factAfter(l, id, s, kinds), told);
    return seen.kind === 'known' || seen.kind === 'at least' ? String(seen.value) : undefined;
  };
  const facts = ids.flatMap((what): Difference[] => {
    const [was, is, expected] = [before.facts[what], after.facts[what], expectedOf(what)];
    if (was === is && is === expected) return [];
    return [
      {
        kind: 'fact',
        what,
        ...(was === undefined ? {} : { before: was }),
        ...(is === undefined ? {} : { after: is }),
        isExpected: is === expected
      }
    ];
  });
  const gone = before.companions.filter((c) => !after.companions.includes(c));
  const come = after.companions.filter((c) => !before.companions.includes(c));
  return [
    ...facts,
    ...gone.map((what): Difference => ({ kind: 'companion', what, before: what, isExpected: false })),
    ...come.map((what): Difference => ({ kind: 'companion', what, after: what, isExpected: false }))
  ];
}
