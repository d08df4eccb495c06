import { idsOfPlace, type Place, type ProductModel, targetKey } from '../compile';
import type { Target } from '../estate';
import {
  type Chosen,
  type Ends,
  findChosen,
  findRoutes,
  isBetter,
  shutFor,
  type Terms,
  type Verdict,
  verdictOf
} from '../route';
import { compareReleases } from '../version';

/** Every (release, edition, architecture) the product comes in, in sequence. */
export function targetsOf(model: ProductModel): Place[] {
  return model.releases.flatMap((r) =>
    r.editions.flatMap((edition) =>
      r.architectures.map((architecture) => ({ release: r.index, patch: 0, edition, architecture }))
    )
  );
}

/** A place as a target by the catalogue's ids, whatever its patch level. */
export const targetOf = (terms: Terms, place: Place): Target => {
  const { release, edition, architecture } = idsOfPlace(terms, place);
  return { release, edition, architecture };
};

/** Whether a target's release comes before the one it would be reached from, in the product's sequence. */
export const isOlder = (terms: Terms, target: Place, start: Place): boolean => {
  const id = (release: number): string => terms.model.releases[release]?.release.id ?? '';
  return compareReleases(terms.model.sequence, id(target.release), id(start.release)) === -1;
};

/** The best run's choice of a target, with empty cells counted or not. */
export const bestTo = (terms: Terms, start: Place, target: Place, cells: boolean): Chosen =>
  findChosen(terms, { start, target }, 'best', { cells });

/** Targets asked for one by one before all are looked at together. */
const ASKED_ALONE = 4;

/**
 * The newest open target behind where it stands, of the goal's edition first: what `bestOpenOf` finds among all targets planned. `not known`: the
 * search was cut.
 */
export function findBestOpen(terms: Terms, start: Place, goal: Place): Place | undefined | 'not known' {
  const shut = shutFor(terms);
  const behind = targetsOf(terms.model)
    .filter((p) => p.release !== start.release && !shut[p.release] && !isOlder(terms, p, start))
    .reverse();
  const inOrder = [
    ...behind.filter((p) => p.edition === goal.edition),
    ...behind.filter((p) => p.edition !== goal.edition)
  ].filter((p) => targetKey(p) !== targetKey(goal));
  for (const target of inOrder.slice(0, ASKED_ALONE)) {
    const { verdict, met, cut } = findChosen(terms, { start, target }, 'sure');
    if (cut) return 'not known';
    if (isShownOpen(terms, { start, target }, verdict, met)) return target;
  }
  const left = inOrder.slice(ASKED_ALONE);
  if (left.length === 0) return undefined;
  const sure = findRoutes(terms, start, 'sure');
  if (sure.cut) return 'not known';
  return left.find((target) => {
    const verdict = verdictOf(terms, sure.routes.get(targetKey(target)) ?? []);
    return isShownOpen(terms, { start, target }, verdict, sure.met);
  });
}

/** One that opens later shows as open only where nothing better may turn out. */
const isShownOpen = (
  terms: Terms,
  { start, target }: Ends,
  verdict: Verdict,
  met: ReadonlySet<string>
): boolean =>
  verdict !== 'closed' &&
  (verdict !== 'not yet' ||
    met.size === 0 ||
    !isBetter(bestTo(terms, start, target, true).verdict, 'not yet'));
