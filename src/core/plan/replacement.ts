import type { Planning } from './planning';
import { isThere, type Replacement, type TargetPlan } from './plan-types';
import {
  findRoutes,
  isBeatenWhateverItRestsOn,
  NOTHING_KNOWN,
  routeOf,
  startAlong,
  type Terms
} from '../route';
import { NOTHING, type Place, targetKey } from '../compile';

/**
 * Replacing the machine as a way of its own: the price of a new one, by a published replacement for this
 * product or by the site, and the set-up from nothing on a machine of which nothing is known yet. Undefined where
 * nobody has named a price, or nothing is to be done.
 */
export function findReplacement(
  planning: Planning,
  terms: Terms,
  target: Place | undefined,
  goal: TargetPlan
): Replacement | undefined {
  const { newMachineCents, replaceShare } = planning.estate.site;
  const published = (terms.model.product.requirements ?? [])
    .flatMap((r) => r.cures ?? [])
    .flatMap((c) => (c.kind === 'replacement' && c.costCents !== undefined ? [c.costCents] : []));
  const price = published.length > 0 ? Math.min(...published) : newMachineCents;
  if (price === undefined || !target || isThere(goal)) return undefined;
  // Money that is only perhaps spent never makes a new machine advised.
  const cures = (goal.route?.steps ?? []).reduce(
    (sum, s) => sum + (s.kind === 'cure' && !s.ifNeeded && s.costCents !== 'unknown' ? s.costCents : 0),
    0
  );
  const share = replaceShare === undefined ? Infinity : (price * replaceShare) / 100;
  const advised = goal.verdict === 'closed' || (cures > 0 && cures >= share);
  const fresh: Terms = {
    ...terms,
    asking: { ...terms.asking, evidence: NOTHING_KNOWN },
    along: startAlong(),
    memo: new Map(),
    gates: () => []
  };
  const start = { release: NOTHING, patch: 0, edition: target.edition, architecture: target.architecture };
  const found =
    findRoutes(fresh, start, 'best', { target, cells: true, beats: isBeatenWhateverItRestsOn }).routes.get(
      targetKey(target)
    ) ?? [];
  const route = found[0] && routeOf(fresh, found[0], 'best');
  const right = route ? (route.unknownSums.length > 0 ? 'unknown' : route.costCents) : 0;
  return { costCents: right === 'unknown' ? right : price + right, ...(route ? { route } : {}), advised };
}
