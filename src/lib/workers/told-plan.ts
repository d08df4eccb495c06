import type { CasePlan, Plan } from '$core/plan';

/** A plan as it is sent across: of a case that stands as it stood in the plan told last, its place there. */
export interface ToldPlan {
  /** Another for every plan told. */
  readonly stamp: string;
  readonly cases: readonly (CasePlan | number)[];
  readonly rest: Omit<Plan, 'cases'>;
}

/** `before`: the plan whoever is told has. */
export function tellPlan({ cases, ...rest }: Plan, stamp: string, before: Plan | undefined): ToldPlan {
  if (!before) return { stamp, cases, rest };
  const places = new Map(before.cases.map((one, i) => [one, i]));
  return { stamp, cases: cases.map((one) => places.get(one) ?? one), rest };
}

/** The plan that was told. Throws where a place is of a plan that is not the one before. */
export function readPlan({ cases, rest }: ToldPlan, before: Plan | undefined): Plan {
  return {
    ...rest,
    cases: cases.map((one) => {
      const known = typeof one === 'number' ? before?.cases[one] : one;
      if (!known) throw new Error('a plan that was not told before');
      return known;
    })
  };
}
