import type { Case } from '../bind';
import type { Catalogue } from '../catalogue';
import type { Day } from '../date';
import type { Estate } from '../estate';
import type { PlanCache } from './plan-cache';
import type { Scope } from './plan-case';
import type { CasePlan } from './plan-types';
import { Planning } from './planning';
import { findRestsOn } from './rests-on';

/** Plans one case, with the disputed entries its verdict rests on. */
export function planOne(planning: Planning, one: Case, scope: Scope, cache: PlanCache): CasePlan {
  const planned = cache.plan(planning, one, scope);
  const restsOn = findRestsOn(planned, planning.modelFor(one.system)?.product, planning.disputes);
  return restsOn.length > 0 ? { ...planned, restsOn } : planned;
}

/** What cases that hang on no other system are planned by, beside themselves; small enough to be sent to another worker. */
export interface Around {
  readonly catalogue: Catalogue;
  readonly estate: Pick<Estate, 'site' | 'goals' | 'decisions' | 'rightsHeld' | 'calendars'>;
  readonly today: Day;
}

export const estateAround = ({
  site,
  goals,
  decisions,
  rightsHeld,
  calendars
}: Estate): Around['estate'] => ({
  site,
  goals,
  decisions,
  rightsHeld,
  ...(calendars ? { calendars } : {})
});

/** Whether a case can be planned elsewhere by what is around it alone: nothing is linked with it, and nothing asks for links. */
export function mayBeShared(planning: Planning, { system }: Case): boolean {
  const model = planning.modelFor(system);
  return (
    model !== undefined &&
    model.needs.pairings.length === 0 &&
    !planning.asksLinks(system) &&
    !planning.links.isLinked(system.id)
  );
}

/** A planning of nothing, by which cases are planned that another planning has gathered. */
export const planningAround = ({ catalogue, estate, today }: Around): Planning =>
  new Planning({ catalogue, estate: { ...estate, systems: [] }, today });

/** A case as it is sent: whom it is of is known where it comes from. */
export const withoutSystems = <T extends { readonly systems: readonly string[] }>(one: T): T => ({
  ...one,
  systems: []
});
