import type { ProductModel } from '../catalogue/model';
import { comparisonsOf } from '../condition/condition';
import { evaluateCondition, unknownFactsOf, type Evaluation } from '../condition/evaluate-condition';
import { formatCondition } from '../condition/format-condition';
import { evidenceAlong, afterUse } from './along';
import type { Finding } from './judge';
import type { Move } from './move';
import { idsOfPlace } from './place-ids';
import type { Terms } from './terms';
import { saySeen } from '../wording/condition';
import type { Reason } from './types';

type Told = Partial<Pick<Reason, 'seen' | 'demanded' | 'source' | 'unknown'>>;

/** What was seen and demanded where a clause asked of the system does not hold, on whose word. */
export function explainAsked(terms: Terms, move: Move, finding: Finding): Told {
  const { needs } = terms.model;
  switch (finding.code) {
    case 'requirement':
    case 'site demand':
      return explainDemand(terms, move, finding);
    case 'space':
      return {
        demanded: move.hop?.hop.uses?.[finding.subject] ?? '',
        ...seenOf(terms, move, [finding.subject])
      };
    case 'cure limit': {
      const cure = move.asked.cures.find((c) => c.cure.id === finding.subject)?.cure;
      return {
        demanded: `${cure?.fact ?? ''} ${cure?.raise ?? ''}`.trim(),
        ...seenOf(terms, move, ['model'])
      };
    }
    case 'companion': {
      const model = needs.companions.find((c) => c.companion.id === finding.subject);
      const fare = model?.fares.find((f) => f.at[move.to.release]?.[move.to.patch] === true)?.fare;
      const source = fare?.source ?? model?.companion.source;
      const told = terms.asking.companions.some((c) => model?.names.has(c.name));
      return {
        demanded: model?.companion.name ?? finding.subject,
        seen: [fare?.verdict ?? 'not listed', ...(told ? [] : ['nobody has said whether it is there'])].join(
          '; '
        ),
        ...(source === undefined ? {} : { source })
      };
    }
    case 'offer': {
      const offer = move.hop && needs.offers.get(move.hop.hop.id)?.offer;
      return {
        seen: 'not said',
        ...(offer?.source === undefined ? {} : { source: offer.source }),
        unknown: [`offer.${offer?.id ?? ''}`]
      };
    }
    case 'withheld':
      return { seen: move.hop?.hop.withheld?.because ?? '', demanded: move.hop?.hop.withheld?.from ?? '' };
    case 'pairing': {
      const pairing = needs.pairings.find((p) => p.pairing.id === finding.subject)?.pairing;
      return {
        demanded: pairing ? `${pairing.kind} ${pairing.other}` : finding.subject,
        seen: finding.truth === 'unknown' ? 'not known' : 'does not fit, and cannot be brought there',
        ...(pairing?.source === undefined ? {} : { source: pairing.source })
      };
    }
    default:
      return {};
  }
}

function explainDemand(terms: Terms, move: Move, { code, subject }: Finding): Told {
  const demand = terms.model.needs.demands.find(
    (d) => d.requirement.id === subject && d.isSite === (code === 'site demand')
  );
  if (!demand) return {};
  const source = demand.isSite ? demand.requirement.site?.source : demand.requirement.source;
  const own = source === undefined ? {} : { source };
  if (demand.needs === 'unknown')
    return { demanded: 'unknown', seen: 'the rule is known, its figure is not', ...own };
  const evaluation = evaluateAt(terms, move, demand.needs);
  const failing = failingFacts(evaluation);
  const linked = failingLinks(evaluation);
  const when = demand.when && demand.when !== 'unknown' ? evaluateAt(terms, move, demand.when) : undefined;
  const unknown = [...new Set([...unknownFactsOf(evaluation), ...(when ? unknownFactsOf(when) : [])])];
  return {
    demanded: formatCondition(demand.needs),
    ...seenOf(terms, move, failing.length + linked.length > 0 ? failing : factsIn(demand.needs), linked),
    ...own,
    ...(unknown.length > 0 ? { unknown } : {})
  };
}

function evaluateAt(
  terms: Terms,
  move: Move,
  condition: Parameters<typeof evaluateCondition>[0]
): Evaluation {
  const { kinds } = terms.model.needs;
  const base = terms.asking.evidence(idsOfPlace(terms, move.to));
  const along = afterUse(move.asked.before, move.hop?.hop, base, kinds);
  return evaluateCondition(condition, evidenceAlong(along, base, kinds), kinds);
}

/** The facts of the comparisons that keep a condition from holding, each once. */
function failingFacts({ condition, parts, truth }: Evaluation): string[] {
  if (truth === 'yes' || condition.kind === 'linked' || condition.kind === 'range') return [];
  const own = 'fact' in condition ? [condition.fact] : [];
  return [...new Set([...own, ...parts.flatMap(failingFacts)])];
}

/** What is asked of linked systems and does not hold of them, in words. */
function failingLinks({ condition, parts, truth }: Evaluation): string[] {
  if (truth === 'yes') return [];
  if (condition.kind !== 'linked') return [...new Set(parts.flatMap(failingLinks))];
  const which =
    condition.members === 'every' ? 'not every' : condition.members === 'some' ? 'no' : 'not the lowest';
  return [
    truth === 'no'
      ? `${which} linked ${condition.link}`
      : `linked ${condition.link}: ${parts.length === 0 ? 'nobody has said' : 'not known of each'}`
  ];
}

const factsIn = (condition: Parameters<typeof evaluateCondition>[0]): string[] =>
  comparisonsOf(condition)
    .filter((c) => c.kind !== 'range')
    .map((c) => c.fact);

function seenOf(terms: Terms, move: Move, facts: readonly string[], linked: readonly string[] = []): Told {
  const { kinds } = terms.model.needs;
  const base = terms.asking.evidence(idsOfPlace(terms, move.to));
  const evidence = evidenceAlong(move.asked.before, base, kinds);
  const words = [...new Set(facts)].map(
    (id) => `${kinds.find(id)?.name ?? id} ${saySeen(evidence.fact(id))}`
  );
  words.push(...linked);
  return words.length > 0 ? { seen: words.join(', ') } : {};
}

/** A risk as it is told: the token of a search with the name of what it is about. */
export function sayRisk({ needs }: ProductModel, token: string): string {
  const [word = '', ...rest] = token.split(' ');
  const id = rest.join(' ');
  switch (word) {
    case 'caution':
      return `caution: ${needs.cautions.find((c) => c.caution.id === id)?.caution.name ?? id}`;
    case 'companion':
      return `may not work: ${nameOfCompanion(needs, id)}`;
    case 'with':
      return `with less: ${nameOfCompanion(needs, rest.slice(1).join(' '))}`;
    case 'no':
      return 'gives up the way back';
    default: {
      const [requirement = ''] = rest;
      const found = needs.demands.find(
        (d) => d.requirement.id === requirement && d.isSite === (rest[1] === 'site')
      );
      const wanted = !found || found.needs === 'unknown' ? requirement : formatCondition(found.needs);
      const { name, feature } = found?.requirement ?? {};
      if (word === 'loses') return `a feature is lost: ${feature ?? name ?? requirement}`;
      return `${word === 'degrades' ? 'works badly without' : 'advised'}: ${name ?? wanted}`;
    }
  }
}

const nameOfCompanion = ({ companions }: ProductModel['needs'], id: string): string =>
  companions.find((c) => c.companion.id === id)?.companion.name ?? id;
