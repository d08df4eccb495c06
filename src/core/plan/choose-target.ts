import type { Terms } from '../route';
import { NOTHING, type Place, serviceEndOf } from '../compile';
import { monthsBetween } from '../date';
import type { Goal, Target } from '../estate';

/**
 * The target a rule goal aims at (RECKONING E5): the newest release (or the nearest in full service, from the installed one on; the newest where none is) on the installed one's strand that is published,
 * settled and of an allowed maturity today, in the edition the goal names, else the installed edition or its
 * successor; on the goal's architecture, else the installed one where the release has it, else the release's first.
 * Releases decided to be passed over are left out. From nothing any strand will do, and any edition where none is named.
 * Without regard to reach, but never behind what is installed: the installed release always qualifies.
 * Undefined when no release does.
 */
export function findGoalTarget(
  terms: Terms,
  start: Place,
  passedOver: ReadonlySet<string> = new Set()
): Place | undefined {
  const { model, goal, today } = terms;
  const strand = start.release === NOTHING ? undefined : model.releases[start.release]?.strand;
  const last = model.releases.length - 1;
  for (let n = 0; n <= last; n++) {
    const nearest = goal.rule === 'nearest in full service';
    const i = nearest ? n : last - n;
    if (nearest && (i < start.release || !isInFullService(terms, i))) continue;
    if (goal.rule === 'newest with service left' && i !== start.release && !hasServiceLeft(terms, i))
      continue;
    const release = model.releases[i];
    if (release && i !== start.release && passedOver.has(release.release.id)) continue;
    const published = terms.publication[i];
    if (!release || (strand !== undefined && release.strand !== strand)) continue;
    const settled = typeof published === 'number' && published + goal.settlingDays <= today;
    if (!settled && i !== start.release) continue;
    const edition = findEdition(terms, goal, start.edition, release.editions);
    const architecture = findArchitecture(terms, goal, start.architecture, release.architectures);
    if (edition !== undefined && architecture !== undefined)
      return { release: i, patch: 0, edition, architecture };
  }
  return goal.rule === 'newest'
    ? undefined
    : findGoalTarget({ ...terms, goal: { ...goal, rule: 'newest' } }, start, passedOver);
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
