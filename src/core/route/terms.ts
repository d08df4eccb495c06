import { findPublication, serviceEndOf, type ProductModel } from '../catalogue/model';
import type { Truth } from '../condition/truth';
import type { Day } from '../date/day';
import type { MaybeDay } from '../date/interval';
import type { Goal } from '../estate/schema';

/** What a route is judged by: one product, one goal, one case's own inputs, one day. */
export interface Terms {
  readonly model: ProductModel;
  readonly goal: Goal;
  readonly countsExpected: boolean;
  /** Unknown days are later than this one. */
  readonly today: Day;
  /** The first day on which work may be done: today, or another day when looking for the latest start. */
  readonly from: Day;
  readonly nodes: number;
  /** Whether the installed product is activated, so that it can carry its right. */
  readonly activated: Truth;
  /** Ids of agreements and other rights the estate holds. */
  readonly held: ReadonlySet<string>;
  /** Per release: its publication for the goal's maturities; undefined when it comes in none. */
  readonly publication: readonly (MaybeDay | undefined)[];
  /** Per release: published only as a preview or early build. */
  readonly isPreview: readonly boolean[];
  readonly serviceEnd: readonly MaybeDay[];
}

export interface CaseInputs {
  readonly nodes: number;
  readonly activated: Truth;
  readonly held: ReadonlySet<string>;
}

/** Gathers the terms of one case. */
export function termsOf(
  model: ProductModel,
  goal: Goal,
  countsExpected: boolean,
  today: Day,
  inputs: CaseInputs
): Terms {
  const publications = model.releases.map((r) => findPublication(r, goal.maturities, countsExpected));
  return {
    model,
    goal,
    countsExpected,
    today,
    from: today,
    ...inputs,
    publication: publications.map((p) => p?.day),
    isPreview: publications.map((p) => p !== undefined && p.maturity !== 'general'),
    serviceEnd: model.releases.map((r) => serviceEndOf(r, goal.phase, countsExpected))
  };
}
