import { compareText } from '../kit';
import { readSwitch, type Truth, truthOf } from '../condition';
import type { CaseKeys } from './case-key';
import { CalendarIndex } from './calendar-index';
import { GoalIndex } from './goal-index';
import {
  type CaseGoal,
  type Decision,
  type Estate,
  FactDecisions,
  NO_DECISIONS,
  seenOf,
  situationKey,
  type System
} from '../estate';

/** Systems of a situation whose rule-relevant inputs are equal (RECKONING A2): the unit of planning. */
export interface Case {
  readonly id: string;
  readonly situation: string;
  /** The first system by id; stands for all. */
  readonly system: System;
  readonly systems: readonly string[];
  readonly nodes: number;
  readonly activated: Truth;
  /** ISO day on which support ends by the machine's own word; only where the catalogue does not know its product. */
  readonly supportEnds?: string;
  readonly goal: CaseGoal;
  /** Decisions in force on the day that touch this case. */
  readonly decisions: readonly Decision[];
}

export interface Gathering {
  readonly cases: readonly Case[];
  readonly situations: number;
}

/** Gathers systems into cases, sorted by id. The order of the input changes nothing. Cost: O(systems log systems). */
export function gatherCases(estate: Estate, today: string, keys?: CaseKeys): Gathering {
  const decisions = new DecisionIndex(estate.decisions, today);
  const decided = new FactDecisions(estate.decisions, today);
  const goals = new GoalIndex(estate);
  const calendars = new CalendarIndex(estate);
  const groups = new Map<string, System[]>();
  for (const system of estate.systems) {
    if (system.stage === 'retired') continue;
    const situation = situationKey(system);
    const touching = decisions.touching(system.id, situation);
    const { kept } = goals.of(system);
    let key = `${situation}#${keys?.keyOf(system) ?? ''}`;
    key += told('s', supportEndOf(system, decided));
    if (system.nodes !== undefined && system.nodes !== 1) key += told('n', String(system.nodes));
    const activated = activatedOf(system, decided);
    if (activated !== 'unknown') key += told('a', activated);
    if (touching.length > 0) key += told('d', touching.map((d) => d.id).join(','));
    if (kept) key += told('k', JSON.stringify(kept));
    key += told('c', calendars.keyOf(system));
    const group = groups.get(key);
    if (group) group.push(system);
    else groups.set(key, [system]);
  }
  const cases = [...groups].map(([id, systems]) => caseOf({ id, group: systems, decisions, decided, goals }));
  const situations = new Set(cases.map((c) => c.situation)).size;
  return { cases: cases.sort((a, b) => compareText(a.id, b.id)), situations };
}

/** A part of a key, where there is anything to tell. */
const told = (what: string, text: string | undefined): string => (text ? `#${what} ${text}` : '');

interface CaseSource {
  readonly id: string;
  readonly group: readonly System[];
  readonly decisions: DecisionIndex;
  readonly decided: FactDecisions;
  readonly goals: GoalIndex;
}

function caseOf({ id, group, decisions, decided, goals }: CaseSource): Case {
  const systems = group.map((s) => s.id).sort();
  const system = group.find((s) => s.id === systems[0]) as System;
  const situation = situationKey(system);
  const supportEnds = supportEndOf(system, decided);
  return {
    id,
    situation,
    system,
    systems,
    nodes: system.nodes ?? 1,
    activated: activatedOf(system, decided),
    ...(supportEnds === undefined ? {} : { supportEnds }),
    goal: goals.of(system),
    decisions: decisions.touching(system.id, situation)
  };
}

/** The fact a carried right asks for; anything but a stated yes or no is unknown. */
export function activatedOf(system: System, decided: FactDecisions = NO_DECISIONS): Truth {
  const seen = seenOf(system, 'activated', decided);
  const word = seen.kind === 'known' ? readSwitch(seen.value) : undefined;
  return word === undefined ? 'unknown' : truthOf(word === 'on');
}

function supportEndOf(system: System, decided: FactDecisions): string | undefined {
  if ('is' in system.product) return undefined;
  const seen = seenOf(system, 'support.ends', decided);
  return seen.kind === 'known' && typeof seen.value === 'string' ? seen.value : undefined;
}

/** A decision counts until the end of its last day; then what it settled is open again. */
export class DecisionIndex {
  readonly #bySituation = new Map<string, Decision[]>();
  readonly #bySystem = new Map<string, Decision[]>();
  readonly #everywhere: Decision[] = [];

  constructor(decisions: readonly Decision[], today: string) {
    const inForce = decisions.filter((d) => d.until === undefined || d.until >= today);
    for (const decision of [...inForce].sort(
      (a, b) => compareText(a.day, b.day) || compareText(a.id, b.id)
    )) {
      if ('situation' in decision.scope) push(this.#bySituation, decision.scope.situation, decision);
      else if ('system' in decision.scope && !('fact' in decision.scope))
        push(this.#bySystem, decision.scope.system, decision);
      else if ('estate' in decision.scope) this.#everywhere.push(decision);
    }
  }

  /** From the widest scope to the narrowest, oldest first: of two that disagree the last wins. */
  touching(system: string, situation: string): readonly Decision[] {
    const [ofSituation, ofSystem] = [this.#bySituation.get(situation), this.#bySystem.get(system)];
    if (!ofSituation && !ofSystem) return this.#everywhere;
    return [...this.#everywhere, ...(ofSituation ?? []), ...(ofSystem ?? [])];
  }
}

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}
