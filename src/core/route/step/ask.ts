import type { CureModel } from '../../compile';
import type { Run } from '../../condition';
import { onArrival } from '../along';
import { askClassOf, binds } from './ask-class';
import { askWith, cureTruth, isUnpriced, type AskedStep } from './ask-clauses';
import type { Asked, AskedWays, AskFinding, Outlay } from '../asked';
import { CureSets, isWithin } from './cure-sets';
import { findWork } from './find-work';
import { NOTHING_KNOWN, type Terms } from '../terms';
import { clauseKey } from '../reason';

/**
 * What a step asks of the system, once for every inclusion-minimal set of cures with which all that
 * closes holds in this run; where none does, once without cures, with what does not hold.
 * At most one cure a fact. Demands are asked of the facts before the step, less what the step uses. A cure that some
 * reading of what nobody has read makes needless is told as needed only perhaps.
 * What was met on the way goes into the notes of the search. Cost: `CureSets.findLeast`, once a step and state.
 */
export function askStep(terms: Terms, step: AskedStep, run: Run): readonly Asked[] {
  if (asksNothing(terms)) return askNothing(terms, step);
  return remembered(terms, `${keyOf(terms, step)}${run}`, () => askCured(terms, step, run));
}

/** Most clauses lifted together at one step, and on one route. */
export const MAX_LIFTED = 3;

/** The same once for every set of cures that may be of use where clauses are lifted; `left`: those that are already. */
export function askEveryWay(terms: Terms, step: AskedStep, left: readonly string[]): readonly Asked[] {
  if (asksNothing(terms)) return askNothing(terms, step);
  return remembered(terms, `${keyOf(terms, step)}all ${left.join('|')}`, () => {
    const { sets, met } = setsFor(terms, step, 'sure');
    const ways = sets.findUseful(MAX_LIFTED, left);
    return { ways, met: [...met], cut: sets.cut, work: sets.asked };
  });
}

function remembered(terms: Terms, key: string, make: () => AskedWays): readonly Asked[] {
  let known = terms.memo.get(key);
  if (!known) terms.memo.set(key, (known = inClauses(terms, make())));
  terms.notes.add(known);
  return known.ways;
}

/** Work in sets of cures as work in clauses asked. */
function inClauses({ model: { needs } }: Terms, made: AskedWays): AskedWays {
  const { demands, cautions, companions } = needs;
  return { ...made, work: made.work * (1 + demands.length + cautions.length + companions.length) };
}

/** Equal for steps that ask the same in the same state. */
const keyOf = ({ model }: Terms, { opening, level, along }: AskedStep): string =>
  `${askClassOf(model, opening, level)}|${along.key}|`;

/** Whether a clause holds in this run; decisions let pass what they were made for, those that end or not. */
const isMetIn =
  (run: Run, countsEnding: boolean) =>
  (f: AskFinding): boolean =>
    (f.passesUntil !== undefined && (countsEnding || f.passesUntil === Infinity)) ||
    (f.truth === 'unknown' && run === 'best');

/** No requirement, companion or cure, nor a failure of a check about nothing that is known. */
const asksNothing = ({ model, asking }: Terms): boolean =>
  model.needs.isEmpty && asking.checked.unplaced.length === 0;

function askNothing(terms: Terms, { along, opening }: AskedStep): readonly Asked[] {
  const { kinds } = terms.model.needs;
  const fresh = opening.hop?.hop.kind === 'fresh install';
  const key = fresh ? `${along.key}fresh ${opening.id} ${opening.from.release < 0}` : along.key;
  const known = terms.memo.get(key);
  if (known) return known.ways;
  const work = findWork(terms, opening, NOTHING_KNOWN(NOWHERE));
  const minutes = work.reduce((sum, w) => sum + w.minutes, 0) * terms.nodes;
  const outlay: Outlay = { typicalMinutes: minutes, carefulMinutes: minutes, costCents: 0, unknownSums: [] };
  const asked: Asked = {
    ...outlay,
    cures: [],
    ifNeeded: new Set(),
    least: outlay,
    findings: [],
    risks: [],
    cautions: [],
    times: [],
    work,
    leadDays: 0,
    activated: along.onlyHardware ? 'unknown' : terms.activated,
    withheld: 'no',
    before: along,
    after: fresh ? onArrival(along, opening.hop?.hop, NOTHING_KNOWN(NOWHERE), kinds) : along
  };
  terms.memo.set(key, { ways: [asked], met: [], cut: false, work: 0 });
  return [asked];
}

const NOWHERE = { release: '', patch: '', edition: '', architecture: '' };

interface Sets {
  readonly sets: CureSets;
  readonly met: Set<string>;
}

/** The cures that may be taken before a step in a run: of requirements that bind there, and ones for this system. */
function setsFor(terms: Terms, step: AskedStep, run: Run, among?: readonly CureModel[]): Sets {
  const met = new Set<string>();
  const { demands, cures } = terms.model.needs;
  const requirements = new Set(
    demands.filter((d) => binds(terms.model, d, step.opening)).map((d) => d.requirement.id)
  );
  const possible = [...requirements]
    .flatMap((id) => cures.get(id) ?? [])
    .filter((cure) => {
      if (among && !among.includes(cure)) return false;
      const truth = cureTruth(terms, step, cure);
      if (truth === 'unknown') met.add(clauseKey({ code: 'cure', subject: cure.cure.id }));
      return truth === 'yes' || (truth === 'unknown' && run === 'best');
    });
  const ask = (set: readonly CureModel[]): Asked => askWith(terms, step, set, { run, met });
  return { sets: new CureSets(terms.model, possible, ask), met };
}

function askCured(terms: Terms, step: AskedStep, run: Run): AskedWays {
  const { sets, met } = setsFor(terms, step, run);
  const plain = sets.ask([]);
  if (plain.findings.every(isMetIn(run, false))) return { ways: [plain], met: [...met], cut: false, work: 1 };
  // A decision may have run out by the day of the step: least sets with those that end counted, and without.
  const loose = sets.findLeast(isMetIn(run, true));
  const ends = plain.findings.some((f) => f.passesUntil !== undefined && f.passesUntil !== Infinity);
  const strict = ends ? sets.findLeast(isMetIn(run, false)) : [];
  const found = [...loose, ...strict.filter((a) => !loose.includes(a))];
  let work = 0;
  const ways =
    found.length > 0
      ? found.map((a) => {
          const least = withLeast(terms, step, a, run);
          work += least.work;
          return least.asked;
        })
      : [plain];
  return { ways, met: [...met], cut: sets.cut, work: work + sets.asked };
}

/**
 * What is needed only perhaps: the cheapest subset of the cures with which the best run holds at this step,
 * what is stale taken for unread; each cure that some such least subset does without is needed only perhaps.
 */
function withLeast(
  terms: Terms,
  step: AskedStep,
  asked: Asked,
  run: Run
): { readonly asked: Asked; readonly work: number } {
  if (run === 'best' || asked.cures.length === 0) return { asked, work: 0 };
  const { sets } = setsFor(unread(terms), step, 'best', asked.cures);
  const least = sets.findLeast(isMetIn('best', true));
  const ifNeeded = asked.cures.filter((c) => least.some((l) => !l.cures.includes(c)));
  const work = sets.asked;
  if (ifNeeded.length === 0) return { asked, work };
  const [cheapest] = [...least].sort(compareOutlays);
  const extra = cheapest?.cures ?? [];
  const spared = asked.cures.filter((c) => !extra.includes(c));
  const sum = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0);
  const minutes = sum(spared.map((c) => c.cure.minutes)) * terms.nodes;
  const told: Asked = {
    ...asked,
    ifNeeded: new Set(ifNeeded.map((c) => c.cure.id)),
    least: {
      costCents: asked.costCents - sum(spared.map((c) => c.cure.costCents ?? 0)) * terms.nodes,
      unknownSums: asked.unknownSums.filter((id) => !spared.some((c) => isUnpriced(c) && c.cure.id === id)),
      typicalMinutes: asked.typicalMinutes - minutes,
      carefulMinutes: asked.carefulMinutes - minutes
    }
  };
  return { asked: told, work };
}

/** Cheapest first: an unknown sum last, then its known part, minutes, number and ids of cures. */
const compareOutlays = (a: Asked, b: Asked): number =>
  a.unknownSums.length - b.unknownSums.length ||
  a.costCents - b.costCents ||
  a.carefulMinutes - b.carefulMinutes ||
  a.cures.length - b.cures.length ||
  compareIds(a.cures, b.cures);

function compareIds(a: readonly CureModel[], b: readonly CureModel[]): number {
  const [x, y] = [a, b].map((cures) => cures.map((c) => c.cure.id).join(' ')) as [string, string];
  return x < y ? -1 : x > y ? 1 : 0;
}

/** The same terms with what is past its shelf life taken for unread. */
function unread(terms: Terms): Terms {
  const { asking } = terms;
  if (!asking.hasStale) return terms;
  return {
    ...terms,
    asking: {
      ...asking,
      evidence: (standing) => {
        const base = asking.evidence(standing);
        return {
          ...base,
          fact: (id) => (asking.isStale(id) ? { kind: 'unknown', why: 'past its shelf life' } : base.fact(id))
        };
      }
    }
  };
}

export { isWithin };
