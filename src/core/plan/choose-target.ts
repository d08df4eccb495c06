import type { Terms } from '../route';
import { NOTHING, type Place, serviceEndOf } from '../compile';
import { type Day, monthsBetween, parseDay } from '../date';
import type { Goal, Target } from '../estate';

/** What a rule chooses among: releases from the installed one on, each in the edition and architecture it would be had in. */
interface Choosing {
  readonly terms: Terms;
  /** In sequence; the installed release among them where it qualifies. */
  readonly candidates: readonly Place[];
  /** What is installed, whether it qualifies or not; undefined from nothing. */
  readonly stands: Place | undefined;
  readonly installed: number;
  /** What the way to a place costs: known sums before unknown, out of reach last. */
  readonly costOf: (place: Place) => number;
}

/**
 * The target a rule goal aims at. It chooses among the releases on the installed one's strand, from the installed
 * one on, that are published, settled and of an allowed maturity today, in the edition the goal names, else the installed edition
 * or its successor; on the goal's architecture, else the installed one where the release has it, else the release's first.
 * Releases decided to be passed over are left out. From nothing any strand will do, and any edition where none is named.
 * Without regard to reach, but for the cheapest. What is installed qualifies once it is out, as what the goal wants, or where nobody knows
 * when it came: never is what is installed left for less. One that is not - a preview before its day - may be newer than the target.
 * Where it would be the target and nobody knows that it is still served, releases behind it that may be out are chosen among too.
 * Where no release is as the rule wants it, the newest. Undefined where there is none at all.
 *
 * @param costOf asked by the rule of the cheapest only
 */
export function findGoalTarget(
  terms: Terms,
  start: Place,
  passedOver: ReadonlySet<string> = new Set(),
  costOf: (place: Place) => number = () => 0
): Place | undefined {
  const { model, goal, settled } = terms;
  const all = model.releases.flatMap((_, i) => placeAt(terms, start, i, passedOver) ?? []);
  const isInstalled = (p: Place | undefined): boolean => p?.release === start.release;
  const stands = all.find(isInstalled);
  const among = (isOut: (p: Place) => boolean): Place | undefined => {
    const found = all.filter(isOut);
    const candidates = found.filter((p) => p.release >= start.release);
    return RULES[goal.rule]({ terms, candidates, stands, installed: start.release, costOf }) ?? found.at(-1);
  };
  const qualifies = (p: Place): boolean =>
    isInstalled(p) ? mayBeOut(terms, p.release) : isSettled(terms, p.release);
  const chosen = among(qualifies) ?? stands;
  if (!isInstalled(chosen) || isServed(terms, start.release)) return chosen;
  return (
    among((p) => qualifies(p) || (p.release > start.release && settled[p.release] === 'unknown')) ?? chosen
  );
}

/** Whether a release is out as what the goal wants, as far as anybody knows. */
function mayBeOut({ publication, today }: Terms, release: number): boolean {
  const day = publication[release];
  return day !== undefined && (day === 'unknown' || day <= today);
}

function isSettled({ settled, today }: Terms, release: number): boolean {
  const day = settled[release];
  return typeof day === 'number' && day <= today;
}

/** Known to be served today, in the phase that counts. */
function isServed({ serviceEnd, today }: Terms, release: number): boolean {
  const end = serviceEnd[release];
  return typeof end === 'number' && end >= today;
}

/** A release as a target by its strand, edition and architecture, if it is out; undefined where it cannot be one. */
function placeAt(terms: Terms, start: Place, i: number, passedOver: ReadonlySet<string>): Place | undefined {
  const { model, goal } = terms;
  const release = model.releases[i];
  const strand = start.release === NOTHING ? undefined : model.releases[start.release]?.strand;
  if (!release || (strand !== undefined && release.strand !== strand)) return undefined;
  if (i !== start.release && passedOver.has(release.release.id)) return undefined;
  const edition = findEdition(terms, goal, start.edition, release.editions);
  const architecture = findArchitecture(terms, goal, start.architecture, release.architectures);
  return edition === undefined || architecture === undefined
    ? undefined
    : { release: i, patch: 0, edition, architecture };
}

const RULES: Readonly<Record<Goal['rule'], (choosing: Choosing) => Place | undefined>> = {
  newest: ({ candidates }) => candidates.at(-1),
  'one before the newest': ({ candidates }) => candidates.at(-2) ?? candidates.at(-1),
  'newest with service left': ({ terms, candidates, installed }) =>
    candidates.findLast((p) => p.release === installed || hasServiceLeft(terms, p.release)),
  'nearest in full service': ({ terms, candidates }) =>
    knownFirst(candidates, (p) => isInFullService(terms, p.release)).at(0),
  'longest served': ({ terms, candidates }) => least(candidates, (p) => -endOf(terms, p.release)),
  'cheapest in service': ({ terms, candidates, costOf }) =>
    least(
      knownFirst(candidates, (p) => isInService(terms, p.release)),
      costOf
    ),
  'leave alone while near': ({ terms, candidates, stands, installed }) =>
    candidates.filter((p) => p.release > installed).length <= (terms.goal.behind ?? 0) ? stands : undefined,
  'stay until a day': ({ terms, stands }) =>
    terms.today <= (parseDay(terms.goal.stayUntil ?? '') ?? -Infinity) ? stands : undefined
};

/** The place of least worth; of equals the latest. */
const least = (places: readonly Place[], worth: (place: Place) => number): Place | undefined =>
  places.reduce<Place | undefined>((best, p) => (best && worth(best) < worth(p) ? best : p), undefined);

/** The last day of the counted phase; one nobody has told of is shorter than any that is known. */
function endOf({ serviceEnd }: Terms, release: number): number {
  const end = serviceEnd[release];
  return typeof end === 'number' ? end : -Infinity;
}

/** Those known to be so; where none is known to be, those that may be. */
function knownFirst(places: readonly Place[], isSo: (place: Place) => boolean | 'unknown'): readonly Place[] {
  const known = places.filter((p) => isSo(p) === true);
  return known.length > 0 ? known : places.filter((p) => isSo(p) === 'unknown');
}

function isInService({ serviceEnd, today }: Terms, release: number): boolean | 'unknown' {
  const end = serviceEnd[release];
  return typeof end === 'number' ? end >= today : 'unknown';
}

/** As many months of service left today as the goal demands; an unknown end passes. */
function hasServiceLeft({ goal, serviceEnd, today }: Terms, release: number): boolean {
  const end = serviceEnd[release];
  return end === undefined || end === 'unknown' || monthsBetween(today, end) >= (goal.monthsLeft ?? 0);
}

function isInFullService({ model, countsExpected, today }: Terms, release: number): boolean | 'unknown' {
  const found = model.releases[release];
  const end = found && serviceEndOf(found, 'full', countsExpected);
  return typeof end === 'number' ? end >= today : 'unknown';
}

function findEdition(
  { model }: Terms,
  goal: Goal,
  installed: number,
  offered: readonly number[]
): number | undefined {
  if (goal.edition !== undefined) return offered.find((e) => model.editions[e] === goal.edition);
  if (installed < 0) return offered[0];
  let edition = installed;
  for (let hops = 0; hops <= model.editions.length && !offered.includes(edition); hops++) {
    const successor = model.product.editions?.[edition]?.successor;
    if (successor === undefined) return ledTo(model, edition, offered);
    edition = model.editions.indexOf(successor);
  }
  return offered.includes(edition) ? edition : undefined;
}

/** Of an edition that is gone and names no successor: the first one offered that tables of hops and changes of edition lead to, by the fewest. */
function ledTo(model: Terms['model'], edition: number, offered: readonly number[]): number | undefined {
  const met = new Set([edition]);
  for (const at of met) {
    if (offered.includes(at)) return at;
    const led = [
      ...model.hopsFrom.flat().flatMap((h) => h.editions[at] ?? []),
      ...(model.product.editionChanges ?? [])
        .filter((c) => c.from === model.editions[at])
        .map((c) => model.editions.indexOf(c.to))
    ];
    for (const next of led.sort((a, b) => a - b)) met.add(next);
  }
  return undefined;
}

function findArchitecture(
  { model }: Terms,
  goal: Goal,
  installed: number,
  offered: readonly number[]
): number | undefined {
  if (goal.architecture !== undefined)
    return offered.find((a) => model.architectures[a] === goal.architecture);
  return offered.includes(installed) ? installed : offered[0];
}

/** The target a goal names for the product; in the installed edition or its successor unless it names one. */
export function findNamedTarget(terms: Terms, start: Place): Place | undefined {
  const named = terms.goal.targets?.find((t) => t.product === terms.model.product.id);
  const release = named && terms.model.sequence.indexById.get(named.release);
  const offers = release === undefined ? undefined : terms.model.releases[release];
  if (!named || release === undefined || !offers) return undefined;
  const goal = named.edition === undefined ? terms.goal : { ...terms.goal, edition: named.edition };
  const edition = findEdition(terms, goal, start.edition, offers.editions);
  const architecture = findArchitecture(terms, goal, start.architecture, offers.architectures);
  return edition === undefined || architecture === undefined
    ? undefined
    : { release, patch: 0, edition, architecture };
}

/** A chosen target as a place; undefined when the catalogue no longer has it. */
export function findChosenTarget({ model }: Terms, target: Target): Place | undefined {
  const release = model.sequence.indexById.get(target.release);
  const edition = model.editions.indexOf(target.edition);
  const architecture = model.architectures.indexOf(target.architecture);
  const offers = release === undefined ? undefined : model.releases[release];
  if (
    release === undefined ||
    !offers?.editions.includes(edition) ||
    !offers.architectures.includes(architecture)
  )
    return undefined;
  return { release, patch: 0, edition, architecture };
}

/** Why the release after the one chosen is not chosen: what keeps it out, else the rule; `day`: when that ends. */
export interface NotNext {
  readonly release: string;
  readonly why:
    'not out' | 'settling' | 'first patch' | 'no day' | 'maturity' | 'passed over' | 'edition' | 'rule';
  readonly day?: Day;
}

/** The next release of the strand behind the chosen one, and why not it; undefined where there is none. */
export function whyNotNext(
  terms: Terms,
  start: Place,
  chosen: Place,
  passedOver: ReadonlySet<string>
): NotNext | undefined {
  const { model, today } = terms;
  const strand = model.releases[chosen.release]?.strand;
  const at = model.releases.findIndex((r, i) => i > chosen.release && r.strand === strand);
  const release = model.releases[at]?.release.id;
  if (release === undefined) return undefined;
  const published = terms.publication[at];
  if (published === undefined) return { release, why: 'maturity' };
  if (published === 'unknown') return { release, why: 'no day' };
  if (published > today) return { release, why: 'not out', day: published };
  const settled = terms.settled[at];
  if (settled === undefined || settled === 'unknown') return { release, why: 'first patch' };
  if (settled > today) return { release, why: 'settling', day: settled };
  if (passedOver.has(release)) return { release, why: 'passed over' };
  return { release, why: placeAt(terms, start, at, passedOver) ? 'rule' : 'edition' };
}
