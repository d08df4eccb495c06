import { idsOfPlace } from '../../compile';
import {
  type Condition,
  type Evaluation,
  type Evidence,
  factsIn,
  formatConditionWith,
  type NameInCondition,
  unknownFactsOf
} from '../../condition';
import { evidenceAlong } from '../along';
import type { AskedStep } from '../step/ask-clauses';
import type { AskedClause } from '../asked';
import type { Finding } from '../days/judge';
import type { Move } from '../move';
import { clausesOf } from '../step/replay';
import type { Terms } from '../terms';
import { bareSeen, type Demanded, type Reason, type SeenPart } from '../reason';

/** What a reason says beside its clause. */
export type Told = Omit<Reason, 'code' | 'subject'>;

/** A move as it was asked: with the facts the moves before it left. */
const askedStepOf = (terms: Terms, moves: readonly Move[], at: number): AskedStep => {
  const move = moves[at] as Move;
  return { opening: move, level: move.level, along: moves[at - 1]?.asked.after ?? terms.along };
};

/** What was seen and demanded where a clause asked of the system does not hold, on whose word; by names, never identifiers. */
export function explainAsked(terms: Terms, moves: readonly Move[], finding: Finding): Told {
  const move = moves[finding.move] as Move;
  const step = askedStepOf(terms, moves, finding.move);
  const clause = clausesOf(terms, step, move.asked.cures).find((c) => isAbout(c, finding));
  return clause ? explainClause(terms, move, clause) : explainOther(terms, move, finding);
}

function isAbout(clause: AskedClause, { code, subject }: Finding): boolean {
  switch (clause.kind) {
    case 'demand':
      return (
        clause.demand.requirement.id === subject &&
        code === (clause.demand.isSite ? 'site demand' : 'requirement')
      );
    case 'space':
      return code === 'space' && clause.fact === subject;
    case 'companion':
      return code === 'companion' && clause.companion.companion.id === subject;
    case 'caution':
      return code === 'caution' && clause.caution.caution.id === subject;
    default:
      return code === clause.kind && clause.cure.cure.id === subject;
  }
}

function explainClause(terms: Terms, move: Move, clause: AskedClause): Told {
  const nameOf = nameIn(terms);
  switch (clause.kind) {
    case 'demand':
      return explainDemand(terms, move, clause);
    case 'space':
      return {
        demanded: { kind: 'figure', fact: '', figure: clause.wanted },
        ...seenOf(terms, move, [clause.fact])
      };
    case 'cure': {
      const { cure, when } = clause.cure;
      const facts = when && when !== 'unknown' ? factsIn([when]) : [cure.fact];
      return { ...named(cure.how.replace(/\.$/, '')), ...seenOf(terms, move, facts), unknown: facts };
    }
    case 'cure limit': {
      const { cure } = clause.cure;
      const seen = seenOf(terms, move, ['model']);
      return { demanded: { kind: 'figure', fact: nameOf(cure.fact), figure: cure.raise ?? '' }, ...seen };
    }
    case 'companion': {
      const { companion } = clause.companion;
      const fare = clause.fares.at(-1);
      const seen: SeenPart = {
        kind: 'fare',
        verdict: fare?.fare.verdict ?? 'not listed',
        isSure: fare === undefined || fare.truth === 'yes',
        has: clause.has === 'yes'
      };
      return { ...named(companion.name), seen: [seen], ...sourced(fare?.fare.source ?? companion.source) };
    }
    case 'caution':
      return { ...named(clause.caution.caution.name), ...sourced(clause.caution.caution.source) };
  }
}

const named = (name: string): { demanded: Demanded } => ({ demanded: { kind: 'named', name } });

const sourced = (source: string | undefined): { source?: string } => (source === undefined ? {} : { source });

function explainOther(terms: Terms, move: Move, finding: Finding): Told {
  const { needs } = terms.model;
  switch (finding.code) {
    case 'offer': {
      const offer = move.hop && needs.offers.get(move.hop.hop.id)?.offer;
      return {
        seen: [{ kind: 'not said' }],
        ...sourced(offer?.source),
        unknown: [`offer.${offer?.id ?? ''}`]
      };
    }
    case 'withheld':
      return {
        seen: [{ kind: 'published', text: move.hop?.hop.withheld?.because ?? '' }],
        ...named(move.hop?.hop.withheld?.from ?? '')
      };
    case 'pairing': {
      const pairing = needs.pairings.find((p) => p.pairing.id === finding.subject)?.pairing;
      const gates = terms.gates(move.to, 'sure', terms.today, terms.from);
      return {
        ...named(pairing?.kind ?? finding.subject),
        seen: [
          {
            kind: 'no fit',
            isKnown: finding.truth !== 'unknown',
            systems: gates.find((g) => g.pairing === finding.subject)?.failing ?? []
          }
        ],
        ...sourced(pairing?.source)
      };
    }
    default:
      return {};
  }
}

function explainDemand(terms: Terms, move: Move, clause: Extract<AskedClause, { kind: 'demand' }>): Told {
  const { demand, needs, when } = clause;
  const own = sourced(demand.isSite ? demand.requirement.site?.source : demand.requirement.source);
  if (!needs || demand.needs === 'unknown')
    return { demanded: { kind: 'unstated' }, seen: [{ kind: 'no figure' }], ...own };
  const failing = failingSeen(needs, nameIn(terms));
  const unknown = [...new Set([...unknownFactsOf(needs), ...(when ? unknownFactsOf(when) : [])])];
  const facts = factsIn([demand.needs]);
  const names = namesIn(demand.needs, terms.model.needs.nameOf);
  return {
    demanded: { kind: 'condition', condition: demand.needs, names },
    ...(failing.length > 0 ? { seen: failing } : seenOf(terms, move, facts)),
    ...own,
    ...(unknown.length > 0 ? { unknown } : {})
  };
}

/** The names of what a condition speaks of, by how it is written there. */
function namesIn(condition: Condition, nameOf: NameInCondition): Readonly<Record<string, string>> {
  const names: Record<string, string> = {};
  formatConditionWith(condition, (id, kind) => (names[id] = nameOf(id, kind)));
  return names;
}

type NameOf = (fact: string) => string;

/** What was seen of the comparisons that keep a condition from holding, and of which linked systems they do. */
function failingSeen({ condition, parts, truth, seen, of }: Evaluation, nameOf: NameOf): SeenPart[] {
  if (truth === 'yes' || condition.kind === 'range') return [];
  if (condition.kind === 'linked') return failingLinks(condition, { parts, truth, of }, nameOf);
  const own: SeenPart[] =
    'fact' in condition && seen ? [{ kind: 'fact', name: nameOf(condition.fact), seen: bareSeen(seen) }] : [];
  return [...own, ...parts.flatMap((p) => failingSeen(p, nameOf))];
}

/** Of linked systems those by name in which it does not hold. */
function failingLinks(
  { link, members }: Extract<Condition, { kind: 'linked' }>,
  { parts, truth, of }: Pick<Evaluation, 'parts' | 'truth' | 'of'>,
  nameOf: NameOf
): SeenPart[] {
  if (parts.length === 0) return [{ kind: 'no link', link, isKnown: truth === 'no' }];
  if (members === 'some' && truth === 'no') return [{ kind: 'no link', link, isKnown: true }];
  const bad = parts.flatMap((part, i): SeenPart[] =>
    part.truth === 'yes'
      ? []
      : [{ kind: 'linked', name: of?.[i] ?? link, parts: failingSeen(part, nameOf), truth: part.truth }]
  );
  const rest: SeenPart[] = bad.length > MOST_NAMED ? [{ kind: 'more', number: bad.length - MOST_NAMED }] : [];
  return [...bad.slice(0, MOST_NAMED), ...rest];
}

const MOST_NAMED = 3;

const nameIn =
  ({ model }: Terms): NameOf =>
  (fact) =>
    model.needs.kinds.find(fact)?.name ?? fact;

function seenOf(terms: Terms, move: Move, facts: readonly string[]): Told {
  const { kinds } = terms.model.needs;
  const base = terms.asking.evidence(idsOfPlace(terms, move.to));
  const evidence: Evidence = evidenceAlong(move.asked.before, base, kinds);
  const seen = [...new Set(facts)].map((id): SeenPart => ({
    kind: 'fact',
    name: nameIn(terms)(id),
    seen: bareSeen(evidence.fact(id))
  }));
  return seen.length > 0 ? { seen } : {};
}
