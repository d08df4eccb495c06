import { compareText } from '../../kit';
import {
  type CautionModel,
  type CompanionModel,
  type CureModel,
  type DemandModel,
  idsOfPlace
} from '../../compile';
import { factsNeededBy } from '../../catalogue';
import {
  and,
  besideStated,
  collapse,
  evaluateCondition,
  type Evidence,
  figureIn,
  not,
  or,
  parseFigure,
  readSwitch,
  type Run,
  sayFigure,
  type Seen,
  switchTruth,
  type Truth,
  truthIn,
  truthOf
} from '../../condition';
import { checkKey } from '../../estate';
import { foldText } from '../../version';
import {
  afterCures,
  afterUse,
  evidenceAlong,
  membersAlong,
  onArrival,
  seenAlong,
  type Along
} from '../along';
import type { AskedRisk, AskedClause, Asked, AskFinding } from '../asked';
import { binds } from './ask-class';
import { cautionKeyOf, isClosing, judgeDemand, riskKeyOf } from './ask-demand';
import { faresOn } from './fares';
import { findWork } from './find-work';
import type { Opening } from '../move';
import { isOfferedOnly } from './offer-wait';
import type { Terms } from '../terms';
import { clauseKey } from '../reason';

/** One step as it is asked: from a level, with the facts as they then are. */
export interface AskedStep {
  readonly opening: Opening;
  readonly level: number;
  readonly along: Along;
}

/** The run that is asked in, and what comes of asking beside the answer. */
export interface AskTold {
  readonly run: Run;
  /** Everything that was unknown. */
  readonly met: Set<string>;
  /** Every clause, where somebody wants to tell about them. */
  readonly clauses?: AskedClause[];
}

interface Ask {
  readonly terms: Terms;
  readonly step: AskedStep;
  readonly run: Run;
  readonly told: AskTold;
  /** Facts as the step meets them, cures done and what it uses gone; each node of its own. */
  readonly used: Along;
  readonly arrived: Evidence;
  readonly evidence: Evidence;
  readonly nodes: readonly Evidence[];
  readonly findings: AskFinding[];
  readonly risks: AskedRisk[];
}

/**
 * What a step asks of the system with a set of cures done: requirements and the site's own demands, of
 * every node that states the fact, space, the limits of cures, companions, cautions, offers. Whether the cures are ones for
 * this system is asked beforehand (`cureTruth`). Cost: what the product asks, times nodes.
 */
export function askWith(terms: Terms, step: AskedStep, cures: readonly CureModel[], told: AskTold): Asked {
  const { opening, level, along } = step;
  const { needs } = terms.model;
  const { kinds } = needs;
  const hop = opening.hop?.hop;
  const left = terms.asking.evidence(idsOfPlace(terms, { ...opening.from, patch: level }));
  const arrived = terms.asking.evidence(idsOfPlace(terms, opening.to));
  const before = afterCures(along, cures, arrived, kinds);
  const used = afterUse(before, hop, arrived, kinds);
  const ask: Ask = {
    terms,
    step,
    run: told.run,
    told,
    used,
    arrived,
    evidence: evidenceAlong(used, arrived, kinds),
    nodes: membersAlong(used, arrived, kinds),
    findings: [],
    risks: []
  };
  for (const demand of needs.demands) if (binds(terms.model, demand, opening)) askDemand(ask, demand);
  askSpace(ask, before);
  askCures(ask, cures);
  const offered = askOffer(ask, before, left);
  const cautions: CautionModel[] = [];
  if (opening.kind !== 'edition change') {
    askChecks(ask);
    for (const companion of needs.companions) askCompanion(ask, companion);
    const beforeLeft = membersAlong(before, left, kinds);
    for (const caution of needs.cautions)
      if (isHit(ask, caution, beforeLeft)) {
        const { id } = caution.caution;
        ask.risks.push({ key: cautionKeyOf(id), kind: 'caution', id });
        if (caution.caution.workAround) cautions.push(caution);
      }
  }
  if (cures.some((c) => c.cure.closesWayBack))
    ask.risks.push({ key: `no way back ${idsOf(cures)}`, kind: 'no way back' });
  const ordered = inOrder(cautions);
  const work = findWork(terms, opening, ask.evidence);
  const sum = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0);
  const minutes = (sum(cures.map((c) => c.cure.minutes)) + sum(work.map((w) => w.minutes))) * terms.nodes;
  const times = ordered.map((c) => timesOf(terms, c, left));
  const around = (pick: 'typicalMinutes' | 'carefulMinutes'): number =>
    sum(ordered.map((c, i) => (c.caution.workAround?.[pick] ?? 0) * (times[i] ?? 1)));
  const outlay = {
    typicalMinutes: minutes + around('typicalMinutes'),
    carefulMinutes: minutes + around('carefulMinutes'),
    costCents: sum(cures.map((c) => c.cure.costCents ?? 0)) * terms.nodes,
    unknownSums: cures.filter(isUnpriced).map((c) => c.cure.id)
  };
  return {
    ...outlay,
    cures,
    ifNeeded: NONE,
    least: outlay,
    findings: ask.findings.flatMap((f) => settledFinding(terms, f)),
    risks: distinctRisks(ask.risks),
    cautions: ordered,
    times,
    work,
    leadDays: Math.max(0, ...cures.map((c) => c.cure.leadDays ?? 0)),
    activated: activatedAt(terms, before, left),
    ...offered,
    before,
    after: onArrival(used, hop, arrived, kinds)
  };
}

const NONE: ReadonlySet<string> = new Set();
const idsOf = (cures: readonly CureModel[]): string => cures.map((c) => c.cure.id).join(' ');

/** A purchase nobody has priced. */
export const isUnpriced = ({ cure }: CureModel): boolean =>
  cure.costCents === undefined && cure.kind === 'purchase';

/** What a question is taken for, where the clause itself is unknown. */
const learnedOr = (terms: Terms, key: string, truth: Truth): Truth =>
  truth === 'unknown' ? (terms.learned.get(key) ?? truth) : truth;

/** The finding as it stands with what is lifted and learned; none where it holds by that. */
function settledFinding(terms: Terms, finding: AskFinding): AskFinding[] {
  const key = clauseKey(finding);
  if (terms.lifted.has(key)) return [];
  const learned = finding.truth === 'unknown' ? terms.learned.get(key) : undefined;
  return learned === 'yes' ? [] : learned === 'no' ? [{ ...finding, truth: 'no' }] : [finding];
}

function meet({ told }: Ask, finding: Pick<AskFinding, 'code' | 'subject'>, truth: Truth): void {
  if (truth === 'unknown') told.met.add(clauseKey(finding));
}

const ofDemand = ({ requirement, isSite }: DemandModel): Pick<AskFinding, 'code' | 'subject'> => ({
  code: isSite ? 'site demand' : 'requirement',
  subject: requirement.id
});

/** Where a demand that does not hold closes, it is a finding; of a lower grade a risk. */
function askDemand(ask: Ask, demand: DemandModel): void {
  const judged = judgeDemand(ask.terms, demand, ask.used, ask.nodes);
  const { truth, passesUntil } = judged;
  const finding = ofDemand(demand);
  ask.told.clauses?.push({ kind: 'demand', demand, ...judged });
  meet(ask, finding, truth);
  if (truth === 'yes') return;
  if (isClosing(demand.grade))
    ask.findings.push({ ...finding, truth, ...(passesUntil === undefined ? {} : { passesUntil }) });
  else if (passesUntil === undefined)
    askRisk(ask, truth, { key: riskKeyOf(demand), kind: 'lower grade', demand }, finding);
}

/** A risk in the sure run where it may be one; in the best run what is unknown is taken for none, and rested on. */
function askRisk(
  ask: Ask,
  truth: Truth,
  risk: AskedRisk,
  clause: Pick<AskFinding, 'code' | 'subject'>
): void {
  meet(ask, clause, truth);
  if (!collapse(truth, ask.run, 'demand')) ask.risks.push(risk);
  else if (truth === 'unknown') ask.findings.push({ ...clause, truth });
}

/** By key, each once; of equal keys the first. */
function distinctRisks(risks: readonly AskedRisk[]): readonly AskedRisk[] {
  const byKey = new Map<string, AskedRisk>();
  for (const risk of risks) if (!byKey.has(risk.key)) byKey.set(risk.key, risk);
  return [...byKey.values()].sort((a, b) => compareText(a.key, b.key));
}

/** Before a step as much must be there as it takes while it runs, on every node, and no less than it leaves used. */
function askSpace(ask: Ask, before: Along): void {
  const { kinds } = ask.terms.model.needs;
  const hop = ask.step.opening.hop?.hop;
  if (!hop) return;
  const { uses = {}, takes = {} } = hop;
  for (const id of factsNeededBy(hop)) {
    const measure = kinds.find(id)?.measure;
    const read = (figure: string): number =>
      (measure && figureIn(measure, parseFigure(figure) ?? { amount: '' })) ?? NaN;
    const least = [takes[id] ?? []].flat().reduce((sum, figure) => sum + read(figure), 0);
    const needed = Math.max(least, uses[id] === undefined ? 0 : read(uses[id]));
    const wanted = Number.isNaN(needed) ? undefined : needed;
    const truth = membersAlong(before, ask.arrived, kinds)
      .map((node): Truth => {
        const seen = node.fact(id);
        const had =
          measure && (seen.kind === 'known' || seen.kind === 'at least')
            ? figureIn(measure, parseFigure(String(seen.value)) ?? { amount: '' })
            : undefined;
        if (wanted === undefined || had === undefined) return 'unknown';
        return had >= wanted ? 'yes' : seen.kind === 'known' ? 'no' : 'unknown';
      })
      .reduce(and);
    const told = measure && wanted !== undefined ? sayFigure(measure, wanted) : '';
    ask.told.clauses?.push({ kind: 'space', fact: id, wanted: told, truth });
    const finding = { code: 'space', subject: id } as const;
    meet(ask, finding, truth);
    if (truth !== 'yes') ask.findings.push({ ...finding, truth });
  }
}

/** Each cure is one for this system, and no more than the model can take; what is not listed, or not known, is unknown. */
function askCures(ask: Ask, cures: readonly CureModel[]): void {
  for (const cure of cures) {
    const is = cureTruth(ask.terms, ask.step, cure);
    const fits = ask.nodes.map((node) => limitTruth(ask, node, cure.cure)).reduce(and);
    for (const [code, truth] of [
      ['cure', is],
      ['cure limit', fits]
    ] as const) {
      ask.told.clauses?.push({ kind: code, cure, truth });
      meet(ask, { code, subject: cure.cure.id }, truth);
      if (truth !== 'yes') ask.findings.push({ code, subject: cure.cure.id, truth });
    }
  }
}

/**
 * Whether a cure is one for this system, by the facts before the step: its own condition, where it has one;
 * without one a setting only where the thing is there and off, a part that is bought only where it is absent. Never where its
 * requirement does not concern the system. Of nodes, where it is one for some.
 */
export function cureTruth(terms: Terms, { opening, along }: AskedStep, cure: CureModel): Truth {
  const { kinds } = terms.model.needs;
  const arrived = terms.asking.evidence(idsOfPlace(terms, opening.to));
  const truth = membersAlong(along, arrived, kinds)
    .map((node) => cureTruthAt(terms, node, cure))
    .reduce(or);
  return learnedOr(terms, clauseKey({ code: 'cure', subject: cure.cure.id }), truth);
}

function cureTruthAt(terms: Terms, node: Evidence, { cure, when, guard }: CureModel): Truth {
  const { kinds } = terms.model.needs;
  if (guard !== undefined && truthIn(guard, node, kinds) === 'no') return 'no';
  if (when !== undefined) return truthIn(when, node, kinds);
  const isSwitch = cure.set !== undefined && kinds.find(cure.fact)?.measure === 'switch';
  if (!isSwitch || (cure.kind !== 'setting' && cure.kind !== 'purchase')) return 'yes';
  const there = presenceOf(node.fact(cure.fact));
  // What is on may have to be switched off just as well.
  return cure.kind === 'purchase' ? not(there) : there;
}

/** Whether the thing a switch is about is there, switched on or off; of a disputed one, where all say the same of that. */
function presenceOf(seen: Seen): Truth {
  if (seen.kind === 'disputed') {
    const [first, ...others] = seen.statements.map(presenceOf);
    return first !== undefined && others.every((t) => t === first) ? first : 'unknown';
  }
  const word = seen.kind === 'known' ? readSwitch(seen.value) : undefined;
  return word === undefined ? 'unknown' : truthOf(word !== 'absent');
}

function limitTruth({ terms }: Ask, evidence: Evidence, cure: CureModel['cure']): Truth {
  const { needs, product } = terms.model;
  const measure = needs.kinds.find(cure.fact)?.measure;
  if (cure.raise === undefined || !measure) return 'yes';
  const wanted = figureIn(measure, parseFigure(cure.raise) ?? { amount: '' });
  const seen = evidence.fact('model');
  const model = seen.kind === 'known' ? foldText(String(seen.value)) : undefined;
  const fits = (limit: string | undefined): Truth => {
    const most = limit === undefined ? undefined : figureIn(measure, parseFigure(limit) ?? { amount: '' });
    return most === undefined || wanted === undefined ? 'unknown' : truthOf(wanted <= most);
  };
  const entry = (product.models ?? []).find(
    (m) => model !== undefined && [m.id, m.name ?? m.id, ...(m.aliases ?? [])].map(foldText).includes(model)
  );
  const limit = entry?.limits && Object.hasOwn(entry.limits, cure.fact) ? entry.limits[cure.fact] : undefined;
  // Where only the product's models state limits, one that is not among them, or states none, is unknown.
  const isStated = (product.models ?? []).some((m) => m.limits && Object.hasOwn(m.limits, cure.fact));
  const own = limit !== undefined ? fits(limit) : isStated && !cure.limits ? 'unknown' : 'yes';
  if (!cure.limits) return own;
  const listed = Object.entries(cure.limits).find(
    ([name]) =>
      foldText(name) === model ||
      (entry !== undefined &&
        [entry.id, entry.name ?? '', ...(entry.aliases ?? [])].some((n) => foldText(n) === foldText(name)))
  );
  return and(own, fits(listed?.[1]));
}

/** A failure of a tool that nobody can place shuts every hop, until it is placed or ruled wrong. */
function askChecks(ask: Ask): void {
  const { checked, decided } = ask.terms.asking;
  for (const what of checked.unplaced) {
    const passesUntil = decided.ignored.get(checkKey(what));
    const passes = passesUntil === undefined ? {} : { passesUntil };
    ask.findings.push({ code: 'check', subject: what, truth: 'no', ...passes });
  }
}

/** How a companion fares on the release arrived at; closes where it is essential and does not work. */
function askCompanion(ask: Ask, model: CompanionModel): void {
  const { companion, names } = model;
  const { asking } = ask.terms;
  const own = asking.companions.find((c) => names.has(c.name));
  const has: Truth = own ? 'yes' : asking.companionsWhole ? 'no' : 'unknown';
  if (has === 'no') return;
  const verdicts = faresOn(ask.terms, model, ask.step.opening.to, ask.evidence);
  const settled = verdicts.at(-1)?.truth === 'yes';
  const isBad = (v: (typeof verdicts)[number]): boolean => v.fare.verdict === 'does not work';
  const works: Truth = !settled
    ? 'unknown'
    : !verdicts.some(isBad)
      ? 'yes'
      : verdicts.every(isBad)
        ? 'no'
        : 'unknown';
  const stated = [...names].map((n) => asking.checked.companions.get(n)).find((t) => t !== undefined);
  const truth = or(not(has), besideStated(works, stated));
  const passesUntil = asking.decided.ignored.get(companion.id);
  const passes = passesUntil === undefined ? {} : { passesUntil };
  const essential = own?.essential ?? companion.essential ?? false;
  const finding = { code: 'companion', subject: companion.id } as const;
  ask.told.clauses?.push({
    kind: 'companion',
    companion: model,
    has,
    fares: verdicts,
    essential,
    truth,
    ...passes
  });
  meet(ask, finding, truth);
  if (essential) {
    if (truth !== 'yes') ask.findings.push({ ...finding, truth, ...passes });
  } else if (passesUntil === undefined) {
    const { id } = companion;
    askRisk(ask, truth, { key: `companion ${id}`, kind: 'companion', id, works: truth }, finding);
  }
  const less: Truth = verdicts.some((v) => v.fare.verdict === 'with less')
    ? verdicts.length === 1 && settled
      ? has
      : 'unknown'
    : 'no';
  if (passesUntil === undefined)
    askRisk(
      ask,
      not(less),
      { key: `with less ${companion.id}`, kind: 'with less', id: companion.id },
      finding
    );
}

/** Whether a caution hits: the hop leaves and arrives where it lies, and its condition holds of what is left, on some node. */
function isHit(ask: Ask, caution: CautionModel, left: readonly Evidence[]): boolean {
  const { opening, level } = ask.step;
  const { from, to } = opening;
  if (caution.to[to.release]?.[to.patch] !== true) return false;
  if (caution.from && caution.from[from.release]?.[level] !== true) return false;
  const { when } = caution;
  const seen =
    when === undefined || when === 'unknown'
      ? undefined
      : left
          .map((node) => evaluateCondition(when, node, ask.terms.model.needs.kinds))
          .reduce((a, b) => (or(a.truth, b.truth) === a.truth ? a : b));
  const truth = when === undefined ? 'yes' : (seen?.truth ?? 'unknown');
  const until = ask.terms.asking.decided.ignored.get(caution.caution.id);
  ask.told.clauses?.push({
    kind: 'caution',
    caution,
    truth: not(truth),
    ...(seen ? { when: seen } : {}),
    ...(until === undefined ? {} : { passesUntil: until })
  });
  if (until !== undefined) return false;
  const key = { code: 'caution', subject: caution.caution.id } as const;
  const settled = learnedOr(ask.terms, clauseKey(key), not(truth));
  meet(ask, key, settled);
  if (settled === 'unknown' && ask.run === 'best') ask.findings.push({ ...key, truth: 'unknown' });
  return !collapse(settled, ask.run, 'demand');
}

/** How often a work-around is done: once a node, once for the system, or once for each linked system by a word. */
function timesOf(terms: Terms, { caution }: CautionModel, left: Evidence): number {
  const per = caution.workAround?.per;
  if (per === undefined || per === 'node') return terms.nodes;
  if (per === 'system') return 1;
  const linked = left.linked(per);
  return linked === 'unknown' ? 1 : Math.max(1, linked.members.length);
}

/** Work-arounds in the order the catalogue wants of them; what waits for none of the others first, then by id. */
function inOrder(cautions: readonly CautionModel[]): readonly CautionModel[] {
  const open = [...cautions].sort((a, b) => compareText(a.caution.id, b.caution.id));
  const done: CautionModel[] = [];
  while (open.length > 0) {
    const free = open.findIndex(
      (c) => !(c.caution.after ?? []).some((id) => open.some((o) => o.caution.id === id))
    );
    done.push(...open.splice(Math.max(0, free), 1));
  }
  return done;
}

/** Whether the hop is offered and withheld, asked of what is left. */
function askOffer(ask: Ask, before: Along, left: Evidence): Pick<Asked, 'offer' | 'withheld'> {
  const { terms, step } = ask;
  const { kinds, offers, withheld: held } = terms.model.needs;
  const hop = step.opening.hop?.hop;
  const evidence = evidenceAlong(before, left, kinds);
  const offer = hop && offers.get(hop.id);
  const withheld = hop && held.get(hop.id);
  const withheldTruth: Truth = withheld
    ? not(learnedOr(terms, `withheld ${hop.id}`, not(truthIn(withheld, evidence, kinds))))
    : 'no';
  meet(ask, { code: 'withheld', subject: hop?.id ?? '' }, withheldTruth);
  // Another way carries the fault that it is withheld for as a risk.
  if (hop && !isOfferedOnly(hop))
    askRisk(
      ask,
      not(withheldTruth),
      { key: `withheld ${hop.id}`, kind: 'withheld', hop: hop.id },
      { code: 'withheld', subject: hop.id }
    );
  if (!offer || !hop) return { withheld: withheldTruth };
  const made = learnedOr(terms, `offer ${hop.id}`, switchTruth(evidence.fact(`offer.${offer.offer.id}`)));
  const first = offer.firstTo === undefined ? 'no' : truthIn(offer.firstTo, evidence, kinds);
  meet(ask, { code: 'offer', subject: hop.id }, made);
  return { offer: { made, first }, withheld: withheldTruth };
}

/** Whether an activated source stands before the step. */
function activatedAt(terms: Terms, before: Along, left: Evidence): Truth {
  const seen = seenAlong(before, left, terms.model.needs.kinds, 'activated');
  if (seen.kind !== 'known') return before.onlyHardware ? 'unknown' : terms.activated;
  return switchTruth(seen);
}
