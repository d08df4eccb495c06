import type { Case } from '../bind';
import type { Catalogue } from '../catalogue';
import type { Day } from '../date';
import type { Estate } from '../estate';
import type { PlanCache } from './plan-cache';
import type { CasePlan } from './plan-types';
import { Planning } from './planning';
import { withRestsOn } from './rests-on';

/** What cases that hang on no other system are planned by, beside themselves: little enough to be sent. */
export interface Around {
  /** As it was written, not as it is settled. */
  readonly catalogue: Catalogue;
  readonly estate: Omit<Estate, 'systems'>;
  readonly today: Day;
}

/** What is around the cases of a planning, whose catalogue is given as it was written. */
export function aroundOf({ estate, today }: Planning, catalogue: Catalogue): Around {
  const { systems: _systems, ...around } = estate;
  void _systems;
  return { catalogue, estate: around, today };
}

/** A planning of no systems, by which cases are planned that another planning has gathered. */
export const planningAround = ({ catalogue, estate, today }: Around): Planning =>
  new Planning({ catalogue, estate: { ...estate, systems: [] }, today });

/**
 * Cases that nobody has planned and that nothing is linked with, so that they can be planned elsewhere, in parts of so many. Those
 * between which no way can tell lie together, since they share what is remembered of ways; product by product, as they are gathered.
 */
export function partsElsewhere(planning: Planning, size: number): Case[][] {
  const alike = new Map<string, Case[]>();
  for (const one of planning.gather().cases) {
    const model = planning.modelFor(one.system);
    if (!model || planning.planOf(one) || planning.links.isLinked(one.system.id)) continue;
    const key = `${model.product.id} ${planning.alike.turnsOnOf(one)}`;
    const group = alike.get(key);
    if (group) group.push(one);
    else alike.set(key, [one]);
  }
  const parts: Case[][] = [];
  let part: Case[] = [];
  for (const group of alike.values())
    for (const one of group) {
      if (part.length >= size) part = [];
      if (part.length === 0) parts.push(part);
      part.push(one);
    }
  return parts;
}

/** Plans a case beforehand, so that it is there when its turn has come. */
export function planAhead(planning: Planning, one: Case, cache: PlanCache): void {
  planning.keepPlan(one, withRestsOn(planning, one, cache.plan(planning, one, 'goal')));
}

/** A case as it is sent: whose it is is known where it comes from. */
export const unnamed = <T extends Pick<CasePlan, 'id' | 'situation' | 'systems'>>(one: T): T => ({
  ...one,
  id: '',
  situation: '',
  systems: []
});

/** Takes the plan of a case that was made elsewhere, as if it had been made here. */
export function takePlan(planning: Planning, one: Case, plan: CasePlan, cache: PlanCache): void {
  const { id, situation, systems } = one;
  const named = { ...plan, id, situation, systems };
  cache.take(planning, one, 'goal', named);
  planning.keepPlan(one, withRestsOn(planning, one, named));
}
