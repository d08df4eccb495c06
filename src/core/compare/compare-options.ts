import { type FeatureDifference, findFeatureDifference, type Product } from '../catalogue';
import { type Day, monthsBetween, parseDay } from '../date';
import type { Deadline } from '../deadline';
import type { Target, WayStep } from '../estate';
import { type Explored, exploreSystem, Planning, sameTarget, type TargetPlan } from '../plan';
import { serviceEndOf } from '../compile';
import { isSameWay, type Reason, type Route, type ShownVerdict, wayOf } from '../route';
import { matchesRelease, parseRange, sequenceOf } from '../version';

/** What one system may do. */
export type Option =
  | { readonly kind: 'target'; readonly target: Target }
  /** One of the ways to a target. */
  | { readonly kind: 'route'; readonly target: Target; readonly way: readonly WayStep[] }
  | { readonly kind: 'stay' }
  /** Nothing is done until that day. */
  | { readonly kind: 'wait'; readonly until: string; readonly target?: Target }
  | { readonly kind: 'replace' }
  | { readonly kind: 'track'; readonly track: string };

/** One option with everything it comes to. */
export interface Side {
  readonly option: Option;
  readonly target?: Target;
  readonly verdict: ShownVerdict | 'stay' | 'replace';
  readonly route?: Route;
  readonly reasons: readonly Reason[];
  /** What the machine costs, where it is replaced. */
  readonly machineCents?: number | 'unknown';
  /** Where it ends up: the last day of the phase that counts; unknown where nobody has said. */
  readonly serviceEnd: Day | 'unknown';
  /** Months of that left on arrival, or today where nothing is done; negative past it. */
  readonly monthsLeft?: number;
  readonly deadline: Deadline;
  readonly slack?: number;
  readonly features: FeatureDifference;
  /** Preview tracks: how it is left, and what is forfeited on it. */
  readonly leaving?: string;
  readonly forfeits?: string;
  /** The day it is seen from. */
  readonly asOf: Day;
}

/**
 * Options of one system side by side (FIELD-NOTES N19, N42, N58, N60). An option that is not there - a target the product does
 * not have, a day that cannot be read - is left out. Cost: one look in depth an option.
 */
export function compareOptions(planning: Planning, system: string, options: readonly Option[]): Side[] {
  return options.flatMap((option) => {
    const found = sideOf(planning, system, option);
    return found ? [found] : [];
  });
}

function sideOf(planning: Planning, id: string, option: Option): Side | undefined {
  const now = exploreSystem(planning, id);
  const system = planning.system(id);
  const product = system && planning.modelFor(system)?.product;
  if (!now?.plan.start || !product) return undefined;
  const seen = { planning, id, product, now };
  switch (option.kind) {
    case 'stay':
      return base(seen, option, {
        verdict: 'stay',
        target: now.plan.start,
        reasons: [],
        from: planning.today
      });
    case 'replace': {
      const { replace, goal } = now.plan;
      if (!replace) return undefined;
      const arrival = replace.route?.finish.last ?? planning.today;
      return base(seen, option, {
        verdict: 'replace',
        ...(goal ? { target: goal } : {}),
        ...(replace.route ? { route: replace.route } : {}),
        machineCents: replace.costCents,
        reasons: [],
        from: arrival
      });
    }
    case 'wait': {
      const today = parseDay(option.until);
      if (today === undefined) return undefined;
      const later = new Planning({ catalogue: planning.catalogue, estate: planning.estate, today });
      const target = option.target ?? now.plan.goal;
      return target && ofTarget({ ...seen, planning: later }, option, target);
    }
    case 'track':
      return ofTrack(seen, option);
    case 'route': {
      const side = ofTarget(seen, option, option.target, option.way);
      return side?.route ? side : undefined;
    }
    case 'target':
      return ofTarget(seen, option, option.target);
  }
}

interface Seen {
  readonly planning: Planning;
  readonly id: string;
  readonly product: Product;
  readonly now: Explored;
}

function ofTarget(seen: Seen, option: Option, target: Target, way?: readonly WayStep[]): Side | undefined {
  const explored = exploreSystem(seen.planning, seen.id, target);
  const found: TargetPlan | undefined =
    explored && sameTarget(explored.plan.goal, target)
      ? explored.plan.goalPlan
      : explored?.plan.targets.find((t) => sameTarget(t.target, target));
  if (!explored || !found) return undefined;
  const route = way ? explored.looked?.routes.find((r) => isSameWay(wayOf(r), way)) : found.route;
  return base({ ...seen, now: explored }, option, {
    verdict: found.verdict,
    target,
    ...(route ? { route } : {}),
    reasons: found.reasons,
    from: route?.finish.last ?? seen.planning.today
  });
}

/** A preview track: its newest release, in a goal that takes its maturity. */
function ofTrack(seen: Seen, option: Extract<Option, { kind: 'track' }>): Side | undefined {
  const { planning, product, now, id } = seen;
  const track = product.tracks?.find((t) => t.id === option.track);
  const range = track && parseRange(track.releases);
  if (!track || !range || !('range' in range)) return undefined;
  const sequence = sequenceOf(product);
  const release = product.releases.findLast((r) => matchesRelease(sequence, range.range, r.id));
  const edition = now.plan.goal?.edition ?? now.plan.start?.edition;
  const target = now.plan.targets
    .map((t) => t.target)
    .filter((t) => t.release === release?.id)
    .sort((a, b) => Number(b.edition === edition) - Number(a.edition === edition))[0];
  if (!target) return undefined;
  const estate = {
    ...planning.estate,
    goals: planning.estate.goals.map(({ afterFirstPatch: _wait, ...g }) => {
      void _wait;
      return {
        ...g,
        maturities: [...new Set([...g.maturities, track.maturity])],
        settlingDays: 0
      };
    })
  };
  const joined = new Planning({ catalogue: planning.catalogue, estate, today: planning.today });
  const side = ofTarget({ ...seen, planning: joined, id }, option, target);
  return (
    side && {
      ...side,
      leaving: track.leaving,
      ...(track.forfeits === undefined ? {} : { forfeits: track.forfeits })
    }
  );
}

interface Coming {
  readonly verdict: Side['verdict'];
  readonly target?: Target;
  readonly route?: Route;
  readonly machineCents?: number | 'unknown';
  readonly reasons: readonly Reason[];
  readonly from: Day;
}

function base({ planning, product, now, id }: Seen, option: Option, coming: Coming): Side {
  const { from, ...told } = coming;
  const system = planning.system(id);
  const model = system && planning.modelFor(system);
  const release = model?.releases.find((r) => r.release.id === coming.target?.release);
  const goal = planning.gather().cases.find((c) => c.systems.includes(id))?.goal;
  const end =
    release && goal ? serviceEndOf(release, goal.phase, planning.estate.site.countsExpected) : 'unknown';
  const { start, deadline, slack } = now.plan;
  return {
    option,
    ...told,
    serviceEnd: end,
    ...(end === 'unknown'
      ? {}
      : { monthsLeft: end < from ? -monthsBetween(end, from) : monthsBetween(from, end) }),
    deadline,
    ...(slack === undefined ? {} : { slack }),
    features:
      start && coming.target
        ? findFeatureDifference(product, start, coming.target)
        : { gained: [], lost: [] },
    asOf: planning.today
  };
}
