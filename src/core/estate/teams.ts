import type { Decision, Estate, Goal, System } from './schema';
import { situationKey } from './situation';

/** Systems of a team that go into another, which may be new; all of them where none are named: then two teams become one. */
export interface TeamMove {
  readonly from: string;
  readonly to: string;
  readonly systems?: readonly string[];
}

/**
 * The estate with systems moved to another team. A team that is new aims where the old one did; the goal of a team that is left
 * without systems goes with it, and what was held for it is the other's then. A decision on a situation follows its systems: it is
 * moved where none stays behind and copied else, unless one of its kind stands there already.
 */
export function moveToTeam(estate: Estate, { from, to, systems }: TeamMove): Estate {
  const named = systems && new Set(systems);
  const moves = (s: System): boolean => s.team === from && (named?.has(s.id) ?? true);
  if (from === to || to.trim() === '') return estate;
  const moved = estate.systems.map((s) => (moves(s) ? { ...s, team: to } : s));
  const isEmptied = !moved.some((s) => s.team === from);
  return {
    ...estate,
    systems: moved,
    goals: goalsAfter(estate, { from, to, isEmptied }),
    decisions: decisionsAfter(estate, moved, moves),
    rightsHeld: isEmptied
      ? estate.rightsHeld.map((r) => (r.team === from ? { ...r, team: to } : r))
      : estate.rightsHeld
  };
}

function goalsAfter(
  { goals, systems }: Estate,
  { from, to, isEmptied }: { readonly from: string; readonly to: string; readonly isEmptied: boolean }
): Goal[] {
  const own = goals.find((g) => g.team === from);
  const isNew = !goals.some((g) => g.team === to) && !systems.some((s) => s.team === to);
  const kept = goals.filter((g) => !(isEmptied && g === own));
  return own && isNew ? [...kept, { ...own, id: freeId(`${own.id} ${to}`, goals), team: to }] : kept;
}

function decisionsAfter(estate: Estate, moved: readonly System[], moves: (s: System) => boolean): Decision[] {
  /** Where the systems of a situation have gone. */
  const gone = new Map<string, string>();
  estate.systems.forEach((s, i) => {
    if (moves(s)) gone.set(situationKey(s), situationKey(moved[i] as System));
  });
  if (gone.size === 0) return estate.decisions;
  const left = new Set(moved.map(situationKey));
  const all = [...estate.decisions];
  const stands = (d: Decision, situation: string): boolean =>
    estate.decisions.some(
      (o) =>
        'situation' in o.scope && o.scope.situation === situation && o.kind === d.kind && o.about === d.about
    );
  estate.decisions.forEach((decision, i) => {
    const situation = 'situation' in decision.scope ? gone.get(decision.scope.situation) : undefined;
    if (situation === undefined || !('situation' in decision.scope) || stands(decision, situation)) return;
    const next = { ...decision, scope: { situation } };
    if (left.has(decision.scope.situation)) all.push({ ...next, id: freeId(decision.id, all) });
    else all[i] = next;
  });
  return all;
}

/** An id like one, that nothing in a list has; at most 200 letters long. */
function freeId(like: string, list: readonly { readonly id: string }[]): string {
  const taken = new Set(list.map((item) => item.id));
  const base = like.slice(0, 190);
  let id = base;
  for (let n = 2; taken.has(id); n++) id = `${base} ${n}`;
  return id;
}
