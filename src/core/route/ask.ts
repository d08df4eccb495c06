import type {
  CautionModel,
  CompanionModel,
  CureModel,
  DemandModel,
  NeedModel
} from '../catalogue/need-model';
import type { Condition } from '../condition/condition';
import { evaluateCondition, readSwitch } from '../condition/evaluate-condition';
import type { Evidence } from '../condition/evidence';
import { figureIn, parseFigure } from '../condition/measure';
import { and, collapse, not, or, truthOf, type Run, type Truth } from '../condition/truth';
import type { Day } from '../date/day';
import { foldText } from '../version/words';
import { afterCures, afterUse, evidenceAlong, onArrival, seenAlong, type Along } from './along';
import type { AskFinding, Asked } from './asked';
import type { Opening } from './move';
import { idsOfPlace } from './place-ids';
import type { Terms } from './terms';
import { clauseKey } from './types';

/** Most combinations of cures tried at one step. */
const MAX_COMBINATIONS = 2048;

/**
 * What a step asks of the system (RECKONING B4-B6), once for every inclusion-minimal set of cures with which all that
 * closes holds in this run; where none does, once without cures, with what does not hold.
 * At most one cure a fact. Demands are asked of the facts before the step, less what the step uses.
 */
export function askStep(
  terms: Terms,
  opening: Opening,
  level: number,
  along: Along,
  run: Run
): readonly Asked[] {
  const { needs } = terms.model;
  if (needs.isEmpty) return askNothing(terms, along, opening);
  const key = `${keyOf(opening, level, along)}${run}`;
  const known = terms.memo.get(key);
  if (known) return known;
  const plain = askWith(terms, opening, level, along, [], run);
  const asked = isMet(plain, run, false) ? [plain] : askCured(terms, { opening, level, along, run }, plain);
  terms.memo.set(key, asked);
  return asked;
}

/** The same once for every set of cures that may be of use, none of them larger than it must be for what it brings. */
export function askEveryWay(terms: Terms, opening: Opening, level: number, along: Along): readonly Asked[] {
  const plain = askStep(terms, opening, level, along, 'sure')[0] as Asked;
  if (terms.model.needs.isEmpty) return [plain];
  const key = `${keyOf(opening, level, along)}all`;
  const known = terms.memo.get(key);
  if (known) return known;
  const bare = askWith(terms, opening, level, along, [], 'sure');
  const kept: Asked[] = [];
  for (const cures of curesFor(terms, opening)) {
    const asked = cures.length === 0 ? bare : askWith(terms, opening, level, along, cures, 'sure');
    if (!kept.some((k) => isWithin(k.cures, asked.cures) && isWithinFindings(k, asked))) kept.push(asked);
  }
  terms.memo.set(key, kept);
  return kept;
}

const isWithin = (a: readonly CureModel[], b: readonly CureModel[]): boolean => a.every((c) => b.includes(c));
const isWithinFindings = (a: Asked, b: Asked): boolean =>
  a.findings.every((f) => b.findings.some((g) => g.code === f.code && g.subject === f.subject));

const keyOf = ({ id, from, to }: Opening, level: number, along: Along): string =>
  `${id}|${from.release}.${level}.${from.edition}.${from.architecture}|${to.release}.${to.patch}.${to.edition}.${to.architecture}|${along.key}|`;

/** Whether everything that closes holds in this run; decisions let pass what they were made for, those that end or not. */
const isMet = ({ findings }: Asked, run: Run, countsEnding: boolean): boolean =>
  findings.every(
    (f) =>
      (f.passesUntil !== undefined && (countsEnding || f.passesUntil === Infinity)) ||
      (f.truth === 'unknown' && run === 'best')
  );

function askNothing(terms: Terms, along: Along, { hop }: Opening): readonly Asked[] {
  const { kinds } = terms.model.needs;
  const key = hop?.hop.kind === 'fresh install' ? `${along.key}fresh` : along.key;
  const known = terms.memo.get(key);
  if (known) return known;
  const asked: Asked = {
    cures: [],
    findings: [],
    risks: [],
    cautions: [],
    typicalMinutes: 0,
    carefulMinutes: 0,
    leadDays: 0,
    costCents: 0,
    unknownSums: [],
    activated: along.onlyHardware ? 'unknown' : terms.activated,
    withheld: 'no',
    before: along,
    after: hop?.hop.kind === 'fresh install' ? onArrival(along, hop.hop, kinds) : along
  };
  terms.memo.set(key, [asked]);
  return [asked];
}

interface Step {
  readonly opening: Opening;
  readonly level: number;
  readonly along: Along;
  readonly run: Run;
}

function askCured(terms: Terms, { opening, level, along, run }: Step, plain: Asked): readonly Asked[] {
  // A decision may have run out by the day of the step: least sets with those that end counted, and without.
  const loose: Asked[] = isMet(plain, run, true) ? [plain] : [];
  const strict: Asked[] = [];
  for (const cures of curesFor(terms, opening)) {
    if (cures.length === 0 || strict.some((f) => isWithin(f.cures, cures))) continue;
    const asked = askWith(terms, opening, level, along, cures, run);
    if (isMet(asked, run, false)) strict.push(asked);
    if (isMet(asked, run, true) && !loose.some((f) => isWithin(f.cures, cures))) loose.push(asked);
  }
  const found = [...loose, ...strict.filter((a) => !loose.includes(a))];
  return found.length > 0 ? found : [plain];
}

/** Sets of cures of the requirements that bind at this step, smaller first, at most one a fact. */
function curesFor(terms: Terms, opening: Opening): readonly (readonly CureModel[])[] {
  const byFact = new Map<string, CureModel[]>();
  const requirements = new Set(
    terms.model.needs.demands.filter((d) => binds(terms, d, opening)).map((d) => d.requirement.id)
  );
  for (const id of requirements)
    for (const cure of terms.model.needs.cures.get(id) ?? []) {
      const list = byFact.get(cure.cure.fact);
      if (list) list.push(cure);
      else byFact.set(cure.cure.fact, [cure]);
    }
  let sets: CureModel[][] = [[]];
  for (const cures of byFact.values()) {
    sets = sets.flatMap((set) => [set, ...cures.map((c) => [...set, c])]);
    if (sets.length > MAX_COMBINATIONS) break;
  }
  return sets
    .map((set) => set.sort((a, b) => (a.cure.id < b.cure.id ? -1 : 1)))
    .sort((a, b) => a.length - b.length || (idsOf(a) < idsOf(b) ? -1 : 1));
}

const idsOf = (cures: readonly CureModel[]): string => cures.map((c) => c.cure.id).join(' ');

/** Whether a demand is made at a step at all, its `when` apart: changes of edition are asked only what is of editions. */
function binds(terms: Terms, demand: DemandModel, { kind, to }: Opening): boolean {
  const { methods, editions } = demand.requirement;
  if (demand.at[to.release]?.[to.patch] !== true) return false;
  if (editions && !editions.includes(terms.model.editions[to.edition] ?? '')) return false;
  if (kind === 'edition change') return editions !== undefined;
  return methods?.some((m) => m === kind) ?? true;
}

function askWith(
  terms: Terms,
  opening: Opening,
  level: number,
  along: Along,
  cures: readonly CureModel[],
  run: Run
): Asked {
  const { needs } = terms.model;
  const { kinds } = needs;
  const hop = opening.hop?.hop;
  const left = terms.asking.evidence(idsOfPlace(terms, { ...opening.from, patch: level }));
  const arrived = terms.asking.evidence(idsOfPlace(terms, opening.to));
  const before = afterCures(along, cures, arrived, kinds);
  const used = afterUse(before, hop, arrived, kinds);
  const evidence = evidenceAlong(used, arrived, kinds);
  const ask: Ask = { terms, needs, evidence, opening, findings: [], risks: [], run };
  for (const demand of needs.demands) if (binds(terms, demand, opening)) askDemand(ask, demand);
  askSpace(ask, before, arrived);
  askLimits(ask, cures);
  const cautions: CautionModel[] = [];
  if (opening.kind !== 'edition change') {
    for (const companion of needs.companions) askCompanion(ask, companion);
    const beforeLeft = evidenceAlong(before, left, kinds);
    for (const caution of needs.cautions)
      if (isHit(ask, caution, level, beforeLeft)) {
        ask.risks.push(`caution ${caution.caution.id}`);
        if (caution.caution.workAround) cautions.push(caution);
      }
  }
  if (cures.some((c) => c.cure.closesWayBack)) ask.risks.push(`no way back ${idsOf(cures)}`);
  const activated =
    readActivated(seenAlong(before, left, kinds, 'activated')) ??
    (along.onlyHardware ? 'unknown' : terms.activated);
  const offer = hop && needs.offers.get(hop.id);
  const withheld = hop && needs.withheld.get(hop.id);
  const ownEvidence = evidenceAlong(before, left, kinds);
  return {
    cures,
    findings: ask.findings.flatMap((f) => settledFinding(terms, f)),
    risks: [...new Set(ask.risks)].sort(),
    cautions: inOrder(cautions),
    ...workOf(cures, cautions),
    activated,
    ...(offer
      ? {
          offer: {
            made: learnedOr(terms, `offer ${hop.id}`, switchTruth(ownEvidence, `offer.${offer.offer.id}`)),
            first: offer.firstTo === undefined ? ('no' as const) : truthIn(ask, offer.firstTo, ownEvidence)
          }
        }
      : {}),
    withheld:
      withheld === undefined
        ? 'no'
        : not(learnedOr(terms, `withheld ${hop?.id ?? ''}`, not(truthIn(ask, withheld, ownEvidence)))),
    before,
    after: onArrival(used, hop, kinds)
  };
}

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

interface Ask {
  readonly terms: Terms;
  readonly needs: NeedModel;
  readonly evidence: Evidence;
  readonly opening: Opening;
  readonly findings: AskFinding[];
  readonly risks: string[];
  readonly run: Run;
}

const truthIn = ({ needs }: Ask, condition: Condition | 'unknown', evidence: Evidence): Truth =>
  condition === 'unknown' ? 'unknown' : evaluateCondition(condition, evidence, needs.kinds).truth;

/** A requirement holds where it does not concern the system, or what it needs is there. */
function askDemand(ask: Ask, { requirement, isSite, grade, when, needs }: DemandModel): void {
  const { decided } = ask.terms.asking;
  const concerns = when === undefined ? 'yes' : truthIn(ask, when, ask.evidence);
  const truth = concerns === 'no' ? 'yes' : or(not(concerns), truthIn(ask, needs, ask.evidence));
  if (truth === 'yes') return;
  const closes = grade === 'blocks' || grade === 'warning';
  const accepted = grade === 'warning' ? decided.accepted.get(requirement.id) : undefined;
  const waived = isSite || grade !== 'blocks' ? decided.waived.get(requirement.id) : undefined;
  const passesUntil = later(accepted, waived);
  if (closes)
    ask.findings.push({
      code: isSite ? 'site demand' : 'requirement',
      subject: requirement.id,
      truth,
      ...(passesUntil === undefined ? {} : { passesUntil })
    });
  else if (waived === undefined)
    askRisk(ask, truth, `${grade} ${requirement.id}${isSite ? ' site' : ''}`, {
      code: isSite ? 'site demand' : 'requirement',
      subject: requirement.id
    });
}

/** A risk in the sure run where it may be one; in the best run what is unknown is taken for none, and rested on. */
function askRisk(ask: Ask, truth: Truth, risk: string, clause: Pick<AskFinding, 'code' | 'subject'>): void {
  if (!collapse(truth, ask.run, 'demand')) ask.risks.push(risk);
  else if (truth === 'unknown') ask.findings.push({ ...clause, truth });
}

const later = (a: Day | undefined, b: Day | undefined): Day | undefined =>
  a === undefined ? b : b === undefined ? a : Math.max(a, b);

/** Before a step as much must be there as it uses. */
function askSpace(ask: Ask, before: Along, base: Evidence): void {
  const { kinds } = ask.needs;
  for (const [id, figure] of Object.entries(ask.opening.hop?.hop.uses ?? {})) {
    const measure = kinds.find(id)?.measure;
    const wanted = measure && figureIn(measure, parseFigure(figure) ?? { amount: '' });
    const seen = seenAlong(before, base, kinds, id);
    const had =
      measure && (seen.kind === 'known' || seen.kind === 'at least')
        ? figureIn(measure, parseFigure(String(seen.value)) ?? { amount: '' })
        : undefined;
    const truth: Truth =
      wanted === undefined || had === undefined
        ? 'unknown'
        : had >= wanted
          ? 'yes'
          : seen.kind === 'known'
            ? 'no'
            : 'unknown';
    if (truth !== 'yes') ask.findings.push({ code: 'space', subject: id, truth });
  }
}

/** No more than the model can take; a model that is not listed, or not known, is unknown. */
function askLimits(ask: Ask, cures: readonly CureModel[]): void {
  for (const { cure } of cures) {
    const truth = limitTruth(ask, cure);
    if (truth !== 'yes') ask.findings.push({ code: 'cure limit', subject: cure.id, truth });
  }
}

function limitTruth({ terms, needs, evidence }: Ask, cure: CureModel['cure']): Truth {
  const measure = needs.kinds.find(cure.fact)?.measure;
  if (cure.raise === undefined || !measure) return 'yes';
  const wanted = figureIn(measure, parseFigure(cure.raise) ?? { amount: '' });
  const seen = evidence.fact('model');
  const model = seen.kind === 'known' ? foldText(String(seen.value)) : undefined;
  const fits = (limit: string | undefined): Truth => {
    const most = limit === undefined ? undefined : figureIn(measure, parseFigure(limit) ?? { amount: '' });
    return most === undefined || wanted === undefined ? 'unknown' : truthOf(wanted <= most);
  };
  const entry = (terms.model.product.models ?? []).find(
    (m) => model !== undefined && [m.id, m.name ?? m.id, ...(m.aliases ?? [])].map(foldText).includes(model)
  );
  const limit = entry?.limits && Object.hasOwn(entry.limits, cure.fact) ? entry.limits[cure.fact] : undefined;
  // Where only the product's models state limits, one that is not among them, or states none, is unknown.
  const isStated = (terms.model.product.models ?? []).some(
    (m) => m.limits && Object.hasOwn(m.limits, cure.fact)
  );
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

/** How a companion fares on the release arrived at; closes where it is essential and does not work. */
function askCompanion(ask: Ask, { companion, names, fares }: CompanionModel): void {
  const { asking } = ask.terms;
  const own = asking.companions.find((c) => names.has(c.name));
  const has: Truth = own ? 'yes' : asking.companionsWhole ? 'no' : 'unknown';
  if (has === 'no') return;
  const verdicts: { verdict: string; certain: boolean }[] = [];
  for (const { fare, at, when } of fares) {
    if (at[ask.opening.to.release]?.[ask.opening.to.patch] !== true) continue;
    const applies = when === undefined ? 'yes' : truthIn(ask, when, ask.evidence);
    if (applies === 'no') continue;
    verdicts.push({ verdict: fare.verdict, certain: applies === 'yes' });
    if (applies === 'yes') break;
  }
  const settled = verdicts.at(-1)?.certain === true;
  const works: Truth = !settled
    ? 'unknown'
    : verdicts.every((v) => v.verdict !== 'does not work')
      ? 'yes'
      : verdicts.every((v) => v.verdict === 'does not work')
        ? 'no'
        : 'unknown';
  const truth = or(not(has), works);
  const ignoredUntil = asking.decided.ignored.get(companion.id);
  if (own?.essential ?? companion.essential) {
    if (truth !== 'yes')
      ask.findings.push({
        code: 'companion',
        subject: companion.id,
        truth,
        ...(ignoredUntil === undefined ? {} : { passesUntil: ignoredUntil })
      });
  } else if (ignoredUntil === undefined)
    askRisk(ask, truth, `companion ${companion.id}`, { code: 'companion', subject: companion.id });
  const less: Truth = verdicts.some((v) => v.verdict === 'with less')
    ? verdicts.length === 1 && settled
      ? has
      : 'unknown'
    : 'no';
  if (ignoredUntil === undefined)
    askRisk(ask, not(less), `with less ${companion.id}`, { code: 'companion', subject: companion.id });
}

/** Whether a caution hits: the hop leaves and arrives where it lies, and its condition holds of what is left. */
function isHit(ask: Ask, caution: CautionModel, level: number, evidence: Evidence): boolean {
  const { from, to } = ask.opening;
  if (caution.to[to.release]?.[to.patch] !== true) return false;
  if (caution.from && caution.from[from.release]?.[level] !== true) return false;
  if (ask.terms.asking.decided.ignored.has(caution.caution.id)) return false;
  const truth = caution.when === undefined ? 'yes' : truthIn(ask, caution.when, evidence);
  const key = { code: 'caution', subject: caution.caution.id } as const;
  const settled = learnedOr(ask.terms, clauseKey(key), not(truth));
  if (settled === 'unknown' && ask.run === 'best') ask.findings.push({ ...key, truth: 'unknown' });
  return !collapse(settled, ask.run, 'demand');
}

/** Work-arounds in the order the catalogue wants of them; what waits for none of the others first, then by id. */
function inOrder(cautions: readonly CautionModel[]): readonly CautionModel[] {
  const open = [...cautions].sort((a, b) => (a.caution.id < b.caution.id ? -1 : 1));
  const done: CautionModel[] = [];
  while (open.length > 0) {
    const free = open.findIndex(
      (c) => !(c.caution.after ?? []).some((id) => open.some((o) => o.caution.id === id))
    );
    done.push(...open.splice(Math.max(0, free), 1));
  }
  return done;
}

function workOf(
  cures: readonly CureModel[],
  cautions: readonly CautionModel[]
): Pick<Asked, 'typicalMinutes' | 'carefulMinutes' | 'leadDays' | 'costCents' | 'unknownSums'> {
  const sum = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0);
  const cureMinutes = sum(cures.map((c) => c.cure.minutes));
  return {
    typicalMinutes: cureMinutes + sum(cautions.map((c) => c.caution.workAround?.typicalMinutes ?? 0)),
    carefulMinutes: cureMinutes + sum(cautions.map((c) => c.caution.workAround?.carefulMinutes ?? 0)),
    leadDays: Math.max(0, ...cures.map((c) => c.cure.leadDays ?? 0)),
    costCents: sum(cures.map((c) => c.cure.costCents ?? 0)),
    unknownSums: cures.filter((c) => isUnpriced(c)).map((c) => c.cure.id)
  };
}

/** A purchase nobody has priced. */
const isUnpriced = ({ cure }: CureModel): boolean => cure.costCents === undefined && cure.kind === 'purchase';

function switchTruth(evidence: Evidence, id: string): Truth {
  const seen = evidence.fact(id);
  const word = seen.kind === 'known' ? readSwitch(seen.value) : undefined;
  return word === undefined ? 'unknown' : truthOf(word === 'on');
}

function readActivated(seen: ReturnType<Evidence['fact']>): Truth | undefined {
  if (seen.kind !== 'known') return undefined;
  const word = readSwitch(seen.value);
  return word === undefined ? 'unknown' : truthOf(word === 'on');
}
