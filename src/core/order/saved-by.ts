import { Calendar } from '../date';
import type { Planning } from '../plan';
import { layerOf, type Ledger } from './lay';
import type { Lever, OrderedPart, OrderedWave } from './order-types';
import type { MovingPart } from './parts';
import { placeIn, type Prepared } from './place';
import { findOrder } from './search';

/** Pairs are tried of so many levers, and of components of so many parts that move; larger ones have single levers tried alone. */
const MOST_LEVERS = 16;
const MOST_MOVING = 12;

/**
 * For each part that misses its deadline, or has no room, the smallest set of crews, windows, freezes and locks whose lifting saves it,
 * beside what crews did before it was laid: one, else two, ties by kind and id; undefined where no two do.
 */
export function savedBy(
  planning: Planning,
  laid: Prepared & { readonly before: Ledger },
  told: readonly OrderedPart[]
): readonly (readonly Lever[] | undefined)[] {
  const wanting = told.flatMap((p, i) =>
    p.fate === 'no room' || (p.missed && p.fate === 'reached') ? [i] : []
  );
  const moving = laid.component.parts.filter((p) => p.nodes.length > 1 && !p.stays).length;
  const levers = leversOf(planning, laid.component.parts);
  const pairs =
    levers.length > MOST_LEVERS || moving > MOST_MOVING
      ? []
      : levers.flatMap((a, i) => levers.slice(i + 1).map((b) => [a, b]));
  const saved: (readonly Lever[] | undefined)[] = told.map(() => undefined);
  for (const set of [...levers.map((l) => [l]), ...pairs]) {
    const open = wanting.filter((i) => saved[i] === undefined);
    if (open.length === 0) break;
    const waves = layWithout(laid, set);
    for (const i of open) if (waves && isInTime(laid.component.parts, waves, i)) saved[i] = set;
  }
  return saved;
}

function isInTime(parts: readonly MovingPart[], waves: readonly OrderedWave[], index: number): boolean {
  const part = parts[index];
  const steps = waves.flatMap((w) => w.steps.filter((s) => s.part === index));
  const last = steps.at(-1);
  return (
    part !== undefined &&
    last !== undefined &&
    last.to.release === part.plan.goal?.release &&
    Math.max(...steps.map((s) => s.last)) <= (part.deadline ?? Infinity)
  );
}

function leversOf(planning: Planning, parts: readonly MovingPart[]): Lever[] {
  const found = new Map<string, Lever>();
  const add = (lever: Lever): void => void found.set(`${lever.kind} ${lever.id}`, lever);
  for (const { terms, systems } of parts) {
    for (const w of terms.calendar?.windows ?? [])
      if (w.crewKey !== undefined) add({ kind: 'crew', id: w.crewKey });
    for (const f of terms.calendar?.freezes ?? []) add({ kind: 'freeze', id: `${f.first} ${f.last}`, ...f });
    if (terms.calendar?.hasWindows)
      add({ kind: 'windows', id: planning.calendarOwnerOf(systems[0] ?? '') ?? '' });
    for (const lock of planning.estate.locks ?? [])
      if (lock.systems.some((s) => systems.includes(s))) add({ kind: 'lock', id: lock.id });
  }
  const kinds = ['crew', 'windows', 'freeze', 'lock'];
  return [...found.values()].sort(
    (a, b) => kinds.indexOf(a.kind) - kinds.indexOf(b.kind) || (a.id < b.id ? -1 : 1)
  );
}

/** The order with some of it lifted, found and laid anew. */
function layWithout(
  { component, problem, before }: Prepared & { readonly before: Ledger },
  set: readonly Lever[]
): readonly OrderedWave[] | undefined {
  const parts = component.parts.map((p) => without(p, set));
  const isLifted = (lock: string): boolean => set.some((l) => l.kind === 'lock' && l.id === lock);
  const apart = (problem.apart ?? []).filter((_, i) => !component.apartBy[i]?.every(isLifted));
  const lifted = {
    component: {
      ...component,
      parts,
      ...(component.single
        ? { single: { ...component.single, terms: parts[0]?.terms ?? component.single.terms } }
        : {})
    },
    problem: { ...problem, parts, apart, lay: layerOf(parts) }
  };
  const found = component.single ? undefined : findOrder(lifted.problem);
  return placeIn({ ...lifted, ...(found ? { found } : {}) } as Prepared, before.copy());
}

function without(part: MovingPart, set: readonly Lever[]): MovingPart {
  const { calendar } = part.terms;
  const has = (kind: Lever['kind'], id: string): boolean => set.some((l) => l.kind === kind && l.id === id);
  const locks = (part.locks ?? []).filter((l) => l.id === undefined || !has('lock', l.id));
  const { locks: _old, ...bare } = part;
  void _old;
  if (!calendar) return { ...bare, locks };
  const windows = calendar.windows.map(({ crew, crewKey, ...w }) =>
    crewKey !== undefined && !has('crew', crewKey)
      ? { ...w, crewKey, ...(crew === undefined ? {} : { crew }) }
      : w
  );
  const isAnyTime = !calendar.hasWindows || set.some((l) => l.kind === 'windows');
  const freezes = calendar.freezes.filter((f) => !has('freeze', `${f.first} ${f.last}`));
  return {
    ...bare,
    locks,
    terms: { ...part.terms, calendar: new Calendar(isAnyTime ? undefined : windows, freezes) }
  };
}
