import { idsOfPlace } from '../../compile';
import {
  type Condition,
  type Evaluation,
  type Evidence,
  factsIn,
  formatConditionWith,
  formatSeen,
  unknownFactsOf
} from '../../condition';
import { evidenceAlong } from '../along';
import type { AskedStep } from '../step/ask-clauses';
import type { AskedClause } from '../asked';
import type { Finding } from '../days/judge';
import type { Move } from '../move';
import { clausesOf } from '../step/replay';
import type { Terms } from '../terms';
import type { Reason } from '../types';

type Told = Partial<Pick<Reason, 'seen' | 'demanded' | 'source' | 'unknown'>>;

/** A move as it was asked: with the facts the moves before it left. */
const askedStepOf = (terms: Terms, moves: readonly Move[], at: number): AskedStep => {
  const move = moves[at] as Move;
  return { opening: move, level: move.level, along: moves[at - 1]?.asked.after ?? terms.along };
};

/** What was seen and demanded where a clause asked of the system does not hold, on whose word; in names, never identifiers. */
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
      return { demanded: clause.wanted, ...seenOf(terms, move, [clause.fact]) };
    case 'cure': {
      const { cure, when } = clause.cure;
      const facts = when && when !== 'unknown' ? factsIn([when]) : [cure.fact];
      return { demanded: cure.how.replace(/\.$/, ''), ...seenOf(terms, move, facts), unknown: facts };
    }
    case 'cure limit': {
      const { cure } = clause.cure;
      const seen = seenOf(terms, move, ['model']);
      return { demanded: `${nameOf(cure.fact)} ${cure.raise ?? ''}`.trim(), ...seen };
    }
    case 'companion': {
      const { companion } = clause.companion;
      const counted = clause.fares.at(-1)?.fare;
      const source = counted?.source ?? companion.source;
      const verdict = counted?.verdict ?? 'not listed';
      const perhaps =
        counted !== undefined && clause.fares.at(-1)?.truth !== 'yes' ? `perhaps ${verdict}` : verdict;
      return {
        demanded: companion.name,
        seen: clause.has === 'yes' ? perhaps : `${perhaps}; nobody has said whether it is there`,
        ...sourced(source)
      };
    }
    case 'caution':
      return { demanded: clause.caution.caution.name, ...sourced(clause.caution.caution.source) };
  }
}

const sourced = (source: string | undefined): { source?: string } => (source === undefined ? {} : { source });

function explainOther(terms: Terms, move: Move, finding: Finding): Told {
  const { needs } = terms.model;
  switch (finding.code) {
    case 'offer': {
      const offer = move.hop && needs.offers.get(move.hop.hop.id)?.offer;
      return { seen: 'not said', ...sourced(offer?.source), unknown: [`offer.${offer?.id ?? ''}`] };
    }
    case 'withheld':
      return { seen: move.hop?.hop.withheld?.because ?? '', demanded: move.hop?.hop.withheld?.from ?? '' };
    case 'pairing': {
      const pairing = needs.pairings.find((p) => p.pairing.id === finding.subject)?.pairing;
      return {
        demanded: pairing?.kind ?? finding.subject,
        seen: finding.truth === 'unknown' ? 'not known' : 'does not fit, and cannot be brought there',
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
    return { demanded: 'unknown', seen: 'the rule is known, its figure is not', ...own };
  const failing = failingSeen(needs, nameIn(terms));
  const unknown = [...new Set([...unknownFactsOf(needs), ...(when ? unknownFactsOf(when) : [])])];
  return {
    demanded: formatConditionWith(demand.needs, nameIn(terms)),
    ...(failing.length > 0
      ? { seen: [...new Set(failing)].join(', ') }
      : seenOf(terms, move, factsIn([demand.needs]))),
    ...own,
    ...(unknown.length > 0 ? { unknown } : {})
  };
}

/** What was seen of the comparisons that keep a condition from holding, and of which linked systems they do. */
function failingSeen(
  { condition, parts, truth, seen, of }: Evaluation,
  nameOf: (fact: string) => string
): string[] {
  if (truth === 'yes' || condition.kind === 'range') return [];
  if (condition.kind === 'linked') return failingLinks(condition, { parts, truth, of }, nameOf);
  const own = 'fact' in condition && seen ? [`${nameOf(condition.fact)} ${formatSeen(seen)}`] : [];
  return [...own, ...parts.flatMap((p) => failingSeen(p, nameOf))];
}

/** Of linked systems those by name in which it does not hold. */
function failingLinks(
  condition: Extract<Condition, { kind: 'linked' }>,
  { parts, truth, of }: Pick<Evaluation, 'parts' | 'truth' | 'of'>,
  nameOf: (fact: string) => string
): string[] {
  if (parts.length === 0)
    return [truth === 'no' ? `no linked ${condition.link}` : `linked ${condition.link}: nobody has said`];
  if (condition.members === 'some' && truth === 'no') return [`no linked ${condition.link}`];
  const bad = parts.flatMap((part, i) => {
    if (part.truth === 'yes') return [];
    const seen = failingSeen(part, nameOf);
    const what = seen.length > 0 ? seen.join(' and ') : part.truth === 'no' ? 'does not' : 'not known';
    return [`${of?.[i] ?? condition.link}: ${what}`];
  });
  return bad.slice(0, MOST_NAMED).concat(bad.length > MOST_NAMED ? [`${bad.length - MOST_NAMED} more`] : []);
}

const MOST_NAMED = 3;

const nameIn =
  ({ model }: Terms) =>
  (fact: string): string =>
    model.needs.kinds.find(fact)?.name ?? fact;

function seenOf(terms: Terms, move: Move, facts: readonly string[]): Told {
  const { kinds } = terms.model.needs;
  const base = terms.asking.evidence(idsOfPlace(terms, move.to));
  const evidence: Evidence = evidenceAlong(move.asked.before, base, kinds);
  const words = [...new Set(facts)].map((id) => `${nameIn(terms)(id)} ${formatSeen(evidence.fact(id))}`);
  return words.length > 0 ? { seen: words.join(', ') } : {};
}
