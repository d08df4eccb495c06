import { compareText } from '../kit';
import { readSwitch, type Truth, truthOf } from '../condition';
import type { CaseKeys } from './case-key';
import { CalendarIndex } from './calendar-index';
import { GoalIndex } from './goal-index';
import {
  type CaseGoal,
  type Decision,
  FactDecisions,
  NO_DECISIONS,
  seenOf,
  situationKey,
  type System
} from '../estate';

/** Systems of a situation whose rule-relevant inputs are equal: the unit of planning. */
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

/** What cases are told apart by beside the systems themselves. */
export interface GatherBy {
  readonly decisions: DecisionIndex;
  readonly decided: FactDecisions;
  readonly goals: GoalIndex;
  readonly calendars: CalendarIndex;
  readonly keys: CaseKeys;
}

/**
 * Systems gathered into cases, sorted by id; the order of the input changes nothing. The key of each is kept, so that a few that change can be
 * gathered without the rest. Cost: O(systems log systems); of a few, a copy of the keys and the cases.
 */
export class Gathered implements Gathering {
  readonly cases: readonly Case[];
  readonly situations: number;
  /** The id of its case, by place among the systems; none where a system is out of use. */
  readonly #keys: readonly (string | undefined)[];

  /** `before`: gathered by what tells cases apart alike, with the places of the systems that are others since. */
  constructor(
    systems: readonly System[],
    by: GatherBy,
    before?: {
      readonly gathered: Gathered;
      readonly changed: readonly number[];
      system(id: string): System | undefined;
    }
  ) {
    const byId = (a: Case, b: Case): number => compareText(a.id, b.id);
    if (!before) {
      const groups = new Map<string, { readonly id: string; readonly group: System[] }>();
      // One text a case is kept, not one a system.
      this.#keys = systems.map((system) => {
        const key = keyOf(system, by);
        if (key === undefined) return undefined;
        const known = groups.get(key);
        if (known) known.group.push(system);
        else groups.set(key, { id: key, group: [system] });
        return known ? known.id : key;
      });
      this.cases = [...groups.values()].map(({ id, group }) => caseOf(id, group, by)).sort(byId);
    } else {
      const { gathered, changed } = before;
      const keys = [...gathered.#keys];
      const groups = new Map<string, Set<string>>();
      const known = new Map(gathered.cases.map((c) => [c.id, c]));
      const groupOf = (key: string): Set<string> => {
        const group = groups.get(key) ?? new Set(known.get(key)?.systems);
        groups.set(key, group);
        return group;
      };
      for (const i of changed) {
        const system = systems[i] as System;
        const old = keys[i];
        const key = (keys[i] = keyOf(system, by));
        if (old !== undefined) groupOf(old).delete(system.id);
        if (key !== undefined) groupOf(key).add(system.id);
      }
      this.#keys = keys;
      for (const [id, ids] of groups) {
        const group = [...ids].flatMap((one) => before.system(one) ?? []);
        if (group.length === 0) known.delete(id);
        else known.set(id, caseOf(id, group, by));
      }
      this.cases = [...known.values()].sort(byId);
    }
    this.situations = new Set(this.cases.map((c) => c.situation)).size;
  }
}

/** What tells a system's case apart; undefined where it is out of use. */
function keyOf(system: System, { decisions, decided, goals, calendars, keys }: GatherBy): string | undefined {
  if (system.stage === 'retired') return undefined;
  const situation = situationKey(system);
  const touching = decisions.touching(system.id, situation);
  const { kept } = goals.of(system);
  let key = `${situation}#${keys.keyOf(system)}`;
  key += told('s', supportEndOf(system, decided));
  if (system.nodes !== undefined && system.nodes !== 1) key += told('n', String(system.nodes));
  const activated = activatedOf(system, decided);
  if (activated !== 'unknown') key += told('a', activated);
  if (touching.length > 0) key += told('d', touching.map((d) => d.id).join(','));
  if (kept) key += told('k', JSON.stringify(kept));
  return key + told('c', calendars.keyOf(system));
}

/** A part of a key, where there is anything to tell. */
const told = (what: string, text: string | undefined): string => (text ? `#${what} ${text}` : '');

function caseOf(id: string, group: readonly System[], { decisions, decided, goals }: GatherBy): Case {
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
    if (this.#bySituation.size + this.#bySystem.size === 0) return this.#everywhere;
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
