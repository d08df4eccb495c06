import {
  type FactKind,
  FactKinds,
  figureIn,
  isOrdered,
  parseFigure,
  readSwitch,
  type Seen
} from '../condition';
import { type Day, parseDay } from '../date';
import { foldText } from '../version';
import { compareText } from '../kit';
import type { Decision, Fact, FactValue, Statement, System } from './schema';

/** The fact as recorded; undefined where nobody has said anything of it. */
export const findFact = (system: Pick<System, 'facts'>, id: string): Fact | undefined =>
  system.facts && Object.hasOwn(system.facts, id) ? system.facts[id] : undefined;

/** What sources state of a fact; none where it is unknown. */
export const statementsOf = (fact: Fact | undefined): readonly Statement[] =>
  !fact || 'unknown' in fact ? [] : 'statements' in fact ? fact.statements : [fact];

/** The same value, whatever unit or spelling it is written in. */
export function isSameValue(kind: FactKind | undefined, a: FactValue, b: FactValue): boolean {
  if (a === b) return true;
  if (kind?.measure === 'switch') {
    const word = readSwitch(a);
    return word !== undefined && word === readSwitch(b);
  }
  if (kind && isOrdered(kind.measure)) {
    const [x, y] = [a, b].map((v) => {
      const figure = parseFigure(String(v));
      return figure && figureIn(kind.measure, figure);
    });
    return x !== undefined && x === y;
  }
  return foldText(String(a)) === foldText(String(b));
}

/**
 * A fact after one more reading. The same source said again takes the place of what it said before; a value everybody
 * agrees on stays one statement, with its latest day. Sources that differ make the fact disputed - but where what stood
 * there was past its shelf life on the day of the new reading, it gives way. What is not known never covers what is.
 */
export function addReading(kind: FactKind | undefined, before: Fact | undefined, next: Fact): Fact {
  if ('unknown' in next) return before && !('unknown' in before) ? before : next;
  const added = statementsOf(next);
  const day = added.map((s) => parseDay(s.day ?? '')).find((d) => d !== undefined);
  const kept = statementsOf(before).filter(
    (old) =>
      !added.some((s) => (s.source ?? '') === (old.source ?? '')) &&
      (day === undefined || !isStale(kind, old, day))
  );
  return joinStatements(kind, [...kept, ...added]);
}

/** Two people's records of a fact as one, every source with its latest statement; in either order the same. */
export function mergeFacts(a: Fact | undefined, b: Fact | undefined): Fact | undefined {
  const statements = [...statementsOf(a), ...statementsOf(b)].sort(compareStatements);
  if (statements.length > 0) {
    const latest = [...new Map(statements.map((s) => [s.source ?? '', s])).values()].sort(compareStatements);
    const [only] = latest;
    return latest.length === 1 && only ? only : { statements: latest.slice(-20) };
  }
  if (!a || !b) return a ?? b;
  return [a, b].sort((x, y) => compareText(unknownKey(x), unknownKey(y)))[1];
}

const unknownKey = (fact: Fact): string =>
  'unknown' in fact ? `${fact.day ?? ''} ${fact.unknown} ${fact.source ?? ''}` : '';

/** By day, then by what is said, then by who says it: the last one stands. */
const compareStatements = (a: Statement, b: Statement): number =>
  compareText(a.day ?? '', b.day ?? '') ||
  compareText(`${typeof a.value} ${String(a.value)}`, `${typeof b.value} ${String(b.value)}`) ||
  compareText(a.source ?? '', b.source ?? '');

function joinStatements(kind: FactKind | undefined, statements: readonly Statement[]): Fact {
  const sorted = [...statements].sort(compareStatements);
  const distinct: Statement[] = [];
  for (const s of sorted) {
    const same = distinct.findIndex((d) => isSameValue(kind, d.value, s.value));
    if (same < 0) distinct.push(s);
    else distinct[same] = s;
  }
  const [only] = distinct;
  return distinct.length === 1 && only ? only : { statements: distinct.slice(-20).sort(compareStatements) };
}

/** Rulings and assumptions on facts that are in force on a day; of two on one fact the later wins. */
export class FactDecisions {
  readonly #byFact = new Map<string, Decision>();

  constructor(decisions: readonly Decision[], today: string) {
    const inForce = decisions.filter((d) => d.until === undefined || d.until >= today);
    for (const d of [...inForce].sort((a, b) => compareText(a.day, b.day) || compareText(a.id, b.id)))
      if ('fact' in d.scope && (d.kind === 'rule' || d.kind === 'assume'))
        this.#byFact.set(`${d.scope.system}\u0001${d.scope.fact}`, d);
  }

  find(system: string, fact: string): Decision | undefined {
    if (this.#byFact.size === 0) return undefined;
    return this.#byFact.get(`${system}\u0001${fact}`);
  }
}

export const NO_DECISIONS = new FactDecisions([], '');

/** What one source states of a fact that nobody has decided anything about; undefined where there is more to look at. */
export function plainOf(system: System, id: string, decided: FactDecisions): Statement | undefined {
  if (decided.find(system.id, id)) return undefined;
  const fact = findFact(system, id);
  return fact && 'value' in fact ? fact : undefined;
}

/** What is to be taken for a fact: what is recorded, with rulings and assumptions applied. */
export function seenOf(system: System, id: string, decided: FactDecisions = NO_DECISIONS): Seen {
  const decision = decided.find(system.id, id);
  if (decision?.kind === 'assume' && decision.value !== undefined)
    return { kind: 'known', value: decision.value, day: decision.day, source: 'assumed' };
  const fact = findFact(system, id);
  if (fact && 'value' in fact) return knownOf(fact);
  return seenOfFact(fact, decision?.holds, BUILT_IN.find(id));
}

const BUILT_IN = new FactKinds();

/** The same of a fact by itself; `holds` is the source a ruling lets hold. Sources that agree are no dispute. */
export function seenOfFact(fact: Fact | undefined, holds?: string, kind?: FactKind): Seen {
  if (!fact) return { kind: 'unknown', why: 'not asked' };
  if ('unknown' in fact) return { kind: 'unknown', why: fact.unknown };
  const statements = statementsOf(fact);
  const ruled = statements.find((s) => s.source !== undefined && s.source === holds);
  const last = statements[statements.length - 1];
  if (last && (ruled || isAgreed(fact, kind))) return knownOf(ruled ?? last);
  return { kind: 'disputed', statements: statements.map(knownOf) };
}

/** True where one source speaks, or all say the same. */
export function isAgreed(fact: Fact | undefined, kind: FactKind | undefined): boolean {
  const [first, ...rest] = statementsOf(fact);
  return first !== undefined && rest.every((s) => isSameValue(kind, first.value, s.value));
}

function knownOf({ value, day, source }: Statement): Seen {
  if (day === undefined)
    return source === undefined ? { kind: 'known', value } : { kind: 'known', value, source };
  return source === undefined ? { kind: 'known', value, day } : { kind: 'known', value, day, source };
}

/** True once the observation is older than its kind's shelf life. What has no day is not called stale. */
export function isStale(kind: FactKind | undefined, said: { readonly day?: string }, today: Day): boolean {
  const day = said.day === undefined ? undefined : parseDay(said.day);
  return kind !== undefined && day !== undefined && today - day > kind.shelfLifeDays;
}

/** The kinds a catalogue has; its own first. Made once a catalogue. */
export function kindsOf(catalogue: { readonly facts?: readonly FactKind[] } | undefined): FactKinds {
  if (!catalogue) return BUILT_IN;
  const known = KINDS.get(catalogue) ?? new FactKinds(catalogue.facts);
  KINDS.set(catalogue, known);
  return known;
}

const KINDS = new WeakMap<object, FactKinds>();
