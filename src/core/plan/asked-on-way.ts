import type { CureModel, Place } from '../compile';
import type { Caution, Companion, Requirement } from '../catalogue';
import { type Evaluation, factsIn, type Truth } from '../condition';
import { type AskedClause, type AskedStep, clausesOf, replay, type Route, type Terms } from '../route';

/** How something that does not hold is dealt with already: by the way, or by a decision in force on its day. */
export type Dealt = 'cured' | 'accepted' | 'waived' | 'ignored';

interface OnWay {
  /** Before cures, at the step at which it comes out worst. */
  readonly truth: Truth;
  readonly dealt?: Dealt;
  /** What deals with it is needed only perhaps. */
  readonly ifNeeded?: boolean;
}

export interface RequirementOnWay extends OnWay {
  readonly requirement: Requirement;
  readonly isSite: boolean;
  /** Absent where the rule's figure is unknown. */
  readonly needs?: Evaluation;
  readonly when?: Evaluation;
}

export interface CompanionOnWay extends OnWay {
  readonly companion: Companion;
  readonly has: Truth;
  /** The verdict of the fare that counts, `not listed` where none does. */
  readonly verdict: string;
  readonly isCertain: boolean;
  readonly essential: boolean;
  readonly needsKey: boolean;
  readonly driver?: string;
  readonly loses?: string;
}

export interface CautionOnWay extends OnWay {
  readonly caution: Caution;
  readonly when?: Evaluation;
}

/** What the steps of a route ask of the system, each thing once; by what is worst, then in the order of the catalogue. */
export interface AskedOnWay {
  readonly requirements: readonly RequirementOnWay[];
  readonly companions: readonly CompanionOnWay[];
  readonly cautions: readonly CautionOnWay[];
}

type Demand = Extract<AskedClause, { kind: 'demand' }>;
type Fare = Extract<AskedClause, { kind: 'companion' }>;
type Hit = Extract<AskedClause, { kind: 'caution' }>;

/** A clause as it comes out at one step before its cures, and with them done. */
interface AtStep<T extends AskedClause = AskedClause> {
  readonly clause: T;
  readonly cured: AskedClause | undefined;
  /** The cures done at that step. */
  readonly cures: readonly CureModel[];
}

/**
 * What a way asks of the system along it: the clauses the search asked, of the facts as they are at each step before its
 * cures. Where there is no way, what a hop onto the target would ask today. Cost: two askings a step.
 */
export function askedOnWay(terms: Terms, start: Place, target: Place, route: Route | undefined): AskedOnWay {
  const steps = route
    ? replay(terms, start, route.steps)
    : [{ step: straightOnto(terms, start, target), cures: [] }];
  const clauses = steps.flatMap(({ step, cures }): AtStep[] => {
    const plain = clausesOf(terms, step);
    const cured = cures.length > 0 ? clausesOf(terms, step, cures) : [];
    return plain.map((clause) => ({ clause, cures, cured: cured.find((c) => nameOf(c) === nameOf(clause)) }));
  });
  const perhaps = new Set(
    (route?.steps ?? []).flatMap((s) => (s.kind === 'cure' && s.ifNeeded ? [s.id] : []))
  );
  const workArounds = new Set((route?.steps ?? []).flatMap((s) => (s.kind === 'work-around' ? [s.id] : [])));
  return {
    requirements: worst<Demand>(clauses, 'demand').map((c) => requirementOf(terms, c, perhaps)),
    companions: worst<Fare>(clauses, 'companion').map((c) => companionOf(c.clause)),
    cautions: worst<Hit>(clauses, 'caution')
      .filter((c) => c.clause.truth !== 'yes')
      .map((c) => cautionOf(c.clause, workArounds))
  };
}

/** A step nobody publishes, onto a target no way leads to: what it would ask is what stands in the way. */
const straightOnto = (terms: Terms, start: Place, target: Place): AskedStep => ({
  opening: { kind: 'in place', id: '', from: start, to: target, asks: [] },
  level: start.patch,
  along: terms.along
});

const RANK: readonly Truth[] = ['no', 'unknown', 'yes'];

function nameOf(clause: AskedClause): string {
  switch (clause.kind) {
    case 'demand':
      return `${clause.demand.isSite ? 'site' : 'demand'} ${clause.demand.requirement.id}`;
    case 'companion':
      return `companion ${clause.companion.companion.id}`;
    case 'caution':
      return `caution ${clause.caution.caution.id}`;
    case 'space':
      return `space ${clause.fact}`;
    default:
      return `${clause.kind} ${clause.cure.cure.id}`;
  }
}

/** Of each thing the clause that comes out worst, of equals the last; what fails first, else in their order. */
function worst<T extends AskedClause>(clauses: readonly AtStep[], kind: T['kind']): AtStep<T>[] {
  const found = new Map<string, AtStep<T>>();
  for (const at of clauses) {
    if (at.clause.kind !== kind) continue;
    const name = nameOf(at.clause);
    const known = found.get(name);
    if (!known || RANK.indexOf(at.clause.truth) <= RANK.indexOf(known.clause.truth))
      found.set(name, at as AtStep<T>);
  }
  return [...found.values()].sort((a, b) => RANK.indexOf(a.clause.truth) - RANK.indexOf(b.clause.truth));
}

function requirementOf(
  { asking }: Terms,
  { clause, cured, cures }: AtStep<Demand>,
  perhaps: ReadonlySet<string>
): RequirementOnWay {
  const { requirement, isSite, grade, needs, when } = clause.demand;
  const { accepted, waived } = asking.decided;
  const isCured = clause.truth !== 'yes' && cured?.truth === 'yes';
  const facts = new Set(factsIn([needs, when]));
  const dealt: Dealt | undefined =
    clause.truth === 'yes'
      ? undefined
      : isCured
        ? 'cured'
        : grade === 'warning' && accepted.has(requirement.id)
          ? 'accepted'
          : (isSite || grade !== 'blocks') && waived.has(requirement.id)
            ? 'waived'
            : undefined;
  const own = cures.filter((c) => facts.has(c.cure.fact));
  return {
    requirement,
    isSite,
    truth: clause.truth,
    ...(clause.needs ? { needs: clause.needs } : {}),
    ...(clause.when ? { when: clause.when } : {}),
    ...(dealt ? { dealt } : {}),
    ...(dealt === 'cured' && own.every((c) => perhaps.has(c.cure.id)) ? { ifNeeded: true } : {})
  };
}

function companionOf({
  companion: { companion },
  has,
  fares,
  essential,
  truth,
  passesUntil
}: Fare): CompanionOnWay {
  const counted = fares.at(-1);
  const fare = counted?.fare;
  return {
    companion,
    has,
    verdict: fare?.verdict ?? 'not listed',
    isCertain: counted?.truth === 'yes' && fares.length === 1,
    essential,
    truth,
    needsKey: fares.some((f) => f.fare.needsKey === true),
    ...(fare?.driver === undefined ? {} : { driver: fare.driver }),
    ...(fare?.loses === undefined ? {} : { loses: fare.loses }),
    ...(passesUntil === undefined ? {} : { dealt: 'ignored' as const })
  };
}

function cautionOf({ caution, truth, when, passesUntil }: Hit, done: ReadonlySet<string>): CautionOnWay {
  const { id } = caution.caution;
  const dealt: Dealt | undefined = passesUntil !== undefined ? 'ignored' : done.has(id) ? 'cured' : undefined;
  return {
    caution: caution.caution,
    truth,
    ...(when ? { when } : {}),
    ...(dealt ? { dealt } : {})
  };
}
