import type { Terms } from '../route';
import { NOTHING, type Place, serviceEndOf } from '../compile';
import { type Day, monthsBetween, parseDay } from '../date';
import type { Goal, Target } from '../estate';

/** What a rule chooses among: releases from the installed one on, each in the edition and architecture it would be had in. */
interface Choosing {
  readonly terms: Terms;
  /** In sequence; the installed release among them where it qualifies. */
  readonly candidates: readonly Place[];
  readonly installed: number;
  /** What the way to a place costs: known sums before unknown, out of reach last. */
  readonly costOf: (place: Place) => number;
}

/**
 * The target a rule goal aims at (RECKONING E5). It chooses among the releases on the installed one's strand, from the installed
 * one on, that are published, settled and of an allowed maturity today, in the edition the goal names, else the installed edition
 * or its successor; on the goal's architecture, else the installed one where the release has it, else the release's first.
 * Releases decided to be passed over are left out. From nothing any strand will do, and any edition where none is named.
 * Without regard to reach, but for the cheapest; never behind what is installed: the installed release always qualifies.
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
  const all = terms.model.releases.flatMap((_, i) => placeAt(terms, start, i, passedOver) ?? []);
  const ahead = all.filter((p) => p.release >= start.release);
  const newest = all.at(-1);
  if (ahead.length === 0 || !newest) return newest;
  const choosing = { terms, candidates: ahead, installed: start.release, costOf };
  return RULES[terms.goal.rule](choosing) ?? newest;
}

/** A release as a target, where it may be one; undefined where not. */
function placeAt(terms: Terms, start: Place, i: number, passedOver: ReadonlySet<string>): Place | undefined {
  const { model, goal, today } = terms;
  const release = model.releases[i];
  const strand = start.release === NOTHING ? undefined : model.releases[start.release]?.strand;
  if (!release || (strand !== undefined && release.strand !== strand)) return undefined;
  if (i !== start.release) {
    const settled = terms.settled[i];
    const isSettled = typeof settled === 'number' && settled <= today;
    if (!isSettled || passedOver.has(release.release.id)) return undefined;
  }
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
    candidates.find((p) => isInFullService(terms, p.release)),
  'longest served': ({ terms, candidates }) => least(candidates, (p) => -endOf(terms, p.release)),
  'cheapest in service': ({ terms, candidates, costOf }) =>
    least(
      candidates.filter((p) => isInService(terms, p.release)),
      costOf
    ),
  'leave alone while near': ({ terms, candidates, installed }) =>
    candidates.filter((p) => p.release > installed).length <= (terms.goal.behind ?? 0)
      ? candidates.find((p) => p.release === installed)
      : undefined,
  'stay until a day': ({ terms, candidates, installed }) =>
    terms.today <= (parseDay(terms.goal.stayUntil ?? '') ?? -Infinity)
      ? candidates.find((p) => p.release === installed)
      : undefined
};

/** The place of least worth; of equals the latest. */
const least = (places: readonly Place[], worth: (place: Place) => number): Place | undefined =>
  places.reduce<Place | undefined>((best, p) => (best && worth(best) < worth(p) ? best : p), undefined);

/** The last day of the counted phase; one nobody has told of is shorter than any that is known. */
function endOf({ serviceEnd }: Terms, release: number): number {
  const end = serviceEnd[release];
  return typeof end === 'number' ? end : -Infinity;
}

/** An unknown end counts as in service, as everywhere. */
function isInService({ serviceEnd, today }: Terms, release: number): boolean {
  const end = serviceEnd[release];
  return typeof end !== 'number' || end >= today;
}

/** As many months of service left today as the goal demands; an unknown end passes. */
function hasServiceLeft({ goal, serviceEnd, today }: Terms, release: number): boolean {
  const end = serviceEnd[release];
  return end === undefined || end === 'unknown' || monthsBetween(today, end) >= (goal.monthsLeft ?? 0);
}

/** An unknown end counts as in service, as everywhere. */
function isInFullService({ model, countsExpected, today }: Terms, release: number): boolean {
  const found = model.releases[release];
  const end = found && serviceEndOf(found, 'full', countsExpected);
  return end === undefined || end === 'unknown' || end >= today;
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
    if (successor === undefined) return undefined;
    edition = model.editions.indexOf(successor);
  }
  return offered.includes(edition) ? edition : undefined;
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
