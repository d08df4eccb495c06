import { evaluateCondition, type Evaluation } from '../condition/evaluate-condition';
import { FactKinds } from '../condition/fact-kind';
import { parseCondition } from '../condition/parse-condition';
import type { Truth } from '../condition/truth';
import { evidenceOf, type Surroundings } from '../estate/evidence';
import type { System } from '../estate/schema';
import type { Standing } from '../route/types';
import { foldText } from '../version/words';
import { matchesRange, parseRange } from '../version/range';
import { sequenceOf } from '../version/sequence';
import type { Catalogue, Caution, Companion, Product, Requirement } from './schema';

/** What the catalogue asks and warns of along a route, seen against what is known of one system. */
export interface Demands {
  readonly requirements: readonly {
    readonly requirement: Requirement;
    readonly truth: Truth;
    readonly evaluation?: Evaluation;
    /** How the value this site goes by comes out, where it has one. */
    readonly site?: { readonly truth: Truth; readonly evaluation?: Evaluation };
  }[];
  /** Cautions that hit, or may hit. */
  readonly cautions: readonly { readonly caution: Caution; readonly truth: Truth }[];
  /** Companions that do not simply work on the last release, with how they fare there. */
  readonly companions: readonly {
    readonly companion: Companion;
    /** `may`: nobody has said whether the system has it. */
    readonly has: 'yes' | 'may';
    readonly verdict: string;
    readonly needsKey?: boolean;
    /** What to have on a medium beforehand. */
    readonly driver?: string;
    readonly loses?: string;
  }[];
}

export interface DemandsOf {
  readonly catalogue: Catalogue;
  readonly product: Product;
  readonly system: System;
  /** Links and decisions on facts; none where absent. */
  readonly around?: Surroundings;
  readonly start: Standing;
  readonly steps: readonly { readonly kind: string; readonly to: Standing }[];
}

/**
 * Requirements of every release the steps arrive at, each once, with the worst it comes out at; cautions met; companions.
 * The catalogue is the settled one (settle.ts), in which a rule without figure, or stated two ways, is unknown. In the order of the catalogue, what fails first.
 */
export function findDemands(of: DemandsOf): Demands {
  const arrivals = of.steps
    .map((step, i) => ({ ...step, from: of.steps[i - 1]?.to ?? of.start }))
    .filter((s) => s.kind !== 'patch' && s.kind !== 'cure' && s.kind !== 'work-around');
  const requirements = (of.product.requirements ?? []).flatMap((requirement) => {
    const found = arrivals.filter((a) => binds(of, requirement, a)).map((a) => judge(of, requirement, a.to));
    const worst = found.sort((a, b) => rank(a.truth) - rank(b.truth))[0];
    const last = arrivals.findLast((a) => binds(of, requirement, a));
    const own = requirement.site && last && truthOfText(of, requirement.site.needs, last.to);
    return worst ? [{ requirement, ...worst, ...(own ? { site: own } : {}) }] : [];
  });
  const last = arrivals[arrivals.length - 1]?.to;
  return {
    requirements: requirements.sort((a, b) => rank(a.truth) - rank(b.truth)),
    cautions: (of.product.cautions ?? []).flatMap((caution) => {
      const met = arrivals.some(
        (a) =>
          inRange(of.product, caution.to, a.to) &&
          (!caution.from || inRange(of.product, caution.from, a.from))
      );
      const truth = caution.when === undefined ? 'yes' : truthOfText(of, caution.when, of.start).truth;
      return met && truth !== 'no' ? [{ caution, truth }] : [];
    }),
    companions: last ? (of.product.companions ?? []).flatMap((companion) => fareOf(of, companion, last)) : []
  };
}

const rank = (truth: Truth): number => ['no', 'unknown', 'yes'].indexOf(truth);

function inRange(product: Product, text: string, place: Standing): boolean {
  const parsed = parseRange(text);
  return 'range' in parsed && matchesRange(sequenceOf(product), parsed.range, place);
}

function binds(of: DemandsOf, requirement: Requirement, arrival: { kind: string; to: Standing }): boolean {
  const { methods, editions, when, at } = requirement;
  if (!inRange(of.product, at, arrival.to)) return false;
  if (methods && !methods.some((m) => m === arrival.kind)) return false;
  if (editions && !editions.includes(arrival.to.edition)) return false;
  return when === undefined || truthOfText(of, when, arrival.to).truth !== 'no';
}

function judge(
  of: DemandsOf,
  requirement: Requirement,
  at: Standing
): { truth: Truth; evaluation?: Evaluation } {
  return requirement.needs === 'unknown' ? { truth: 'unknown' } : truthOfText(of, requirement.needs, at);
}

function truthOfText(of: DemandsOf, text: string, at: Standing): { truth: Truth; evaluation?: Evaluation } {
  const parsed = parseCondition(text);
  if (!('condition' in parsed)) return { truth: 'unknown' };
  const kinds = new FactKinds(of.catalogue.facts);
  const evaluation = evaluateCondition(
    parsed.condition,
    evidenceOf(of.catalogue, of.product, of.system, at, of.around),
    kinds
  );
  return { truth: evaluation.truth, evaluation };
}

/** Whether the system has it, by its name, an alias or its id; what is left off a whole list is not there. */
function hasCompanion({ system }: DemandsOf, companion: Companion): 'yes' | 'no' | 'may' {
  const names = new Set([companion.name, companion.id, ...(companion.aliases ?? [])].map(foldText));
  if ((system.companions ?? []).some((c) => names.has(foldText(c.name)))) return 'yes';
  return system.companionsWhole ? 'no' : 'may';
}

function fareOf(of: DemandsOf, companion: Companion, at: Standing): Demands['companions'][number][] {
  const has = hasCompanion(of, companion);
  if (has === 'no') return [];
  const fare = companion.fares.find(
    (f) =>
      inRange(of.product, f.at, at) && (f.when === undefined || truthOfText(of, f.when, at).truth !== 'no')
  );
  if (!fare) return [{ companion, has, verdict: 'not listed' }];
  return fare.verdict === 'works'
    ? []
    : [
        {
          companion,
          has,
          verdict: fare.verdict,
          ...(fare.needsKey ? { needsKey: true } : {}),
          ...(fare.driver ? { driver: fare.driver } : {}),
          ...(fare.loses ? { loses: fare.loses } : {})
        }
      ];
}
