import { compareText } from '../kit';
import type { CaseGoal, Estate, Goal, System } from '../estate';

/** Goals by team; a team without one has that of the estate. */
export class GoalIndex {
  readonly #byTeam = new Map<string | undefined, Goal>();
  /** By the goal that keeps some back: its twin for those, and their ids. */
  readonly #keptBack = new Map<Goal, { readonly goal: CaseGoal; readonly ids: ReadonlySet<string> }>();

  constructor({ goals, systems }: Pick<Estate, 'goals' | 'systems'>) {
    for (const goal of [...goals].sort((a, b) => compareText(a.id, b.id)))
      if (!this.#byTeam.has(goal.team)) this.#byTeam.set(goal.team, goal);
    if (!goals.some((g) => g.keepBack)) return;
    const members = new Map<Goal, System[]>();
    for (const system of systems) {
      const goal = this.#ofTeam(system.team);
      if (!goal?.keepBack) continue;
      const list = members.get(goal);
      if (list) list.push(system);
      else members.set(goal, [system]);
    }
    for (const [goal, list] of members)
      this.#keptBack.set(goal, {
        goal: { ...goal, ...keptOf(goal) },
        ids: new Set(findKeptBack(goal, list))
      });
  }

  /** The goal of a system's team, else the one without a team. Throws when there is none at all: the schema's reader adds one. */
  of({ id, team }: System): CaseGoal {
    const goal = this.#ofTeam(team);
    if (!goal) throw new Error('an estate needs a goal without a team');
    const kept = this.#keptBack.get(goal);
    return kept?.ids.has(id) ? kept.goal : goal;
  }

  /** Whether the goal of a system keeps some of its systems back. */
  keepsBack({ team }: System): boolean {
    return this.#ofTeam(team)?.keepBack !== undefined;
  }

  #ofTeam(team: string | undefined): Goal | undefined {
    return this.#byTeam.get(team) ?? this.#byTeam.get(undefined);
  }
}

function keptOf({ keepBack }: Goal): Pick<CaseGoal, 'kept'> {
  if (!keepBack) return {};
  const { until, ranDays = 0 } = keepBack;
  return { kept: until === undefined ? { ranDays } : { until } };
}

/**
 * Ids of the systems that a goal keeps back among those it is for: those it names, else of each team and product the last by name
 * (then by id), so many. A system whose product nobody knows is never one.
 */
export function findKeptBack({ keepBack }: Goal, systems: readonly System[]): string[] {
  if (!keepBack) return [];
  const known = systems.filter((s) => 'is' in s.product && s.stage === undefined);
  if (keepBack.named) {
    const named = new Set(keepBack.named);
    return known.filter((s) => named.has(s.id)).map((s) => s.id);
  }
  const groups = new Map<string, System[]>();
  for (const system of known) {
    const { team, product } = system;
    const key = `${team === undefined ? '' : `of ${team}`}\u0001${'is' in product ? product.is : ''}`;
    const group = groups.get(key);
    if (group) group.push(system);
    else groups.set(key, [system]);
  }
  return [...groups.values()].flatMap((group) =>
    group
      .sort((a, b) => compareText(a.name, b.name) || compareText(a.id, b.id))
      .slice(-keepBack.systems)
      .map((s) => s.id)
  );
}
