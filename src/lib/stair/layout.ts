import { modelOf, type ProductModel, type ReleaseModel, serviceEndOf } from '$core/compile';
import type { Product } from '$core/catalogue';
import { type Day, type PhaseName, readDay } from '$core/date';
import { type CasePlan, sameTarget, type TargetPlan } from '$core/plan';
import { type CountedStep, isCounted, type Step } from '$core/route';
import { bendTime, placeOf, ticksOf, type Tick, type TimeScale } from './scale';

export interface StairInput {
  readonly product: Product;
  readonly plan: CasePlan;
  /** The target looked at; the climb is its route. */
  readonly looked: TargetPlan | undefined;
  readonly today: Day;
  readonly countsExpected: boolean;
  readonly width: number;
  readonly height: number;
  /** Where the axis is bent, where somebody has dragged it. */
  readonly bend?: { readonly from: Day; readonly to: Day } | undefined;
  /** The phase whose end counts as the end of service. */
  readonly phase?: PhaseName;
  /** Other cases of the situation: those that deviate. */
  readonly deviating?: readonly CasePlan[];
}

export interface PhaseBand {
  readonly phase: PhaseName;
  readonly x0: number;
  readonly x1: number;
  readonly until: Day;
}

export type TreadState =
  'installed' | 'target' | 'on the way' | 'open' | 'not yet' | 'closed' | 'cannot tell' | 'older' | 'here';

/** One release, from the day it comes out to the end of its last phase. */
export interface Tread {
  readonly release: string;
  readonly y: number;
  readonly x0: number;
  readonly x1: number;
  readonly from: Day | 'unknown';
  readonly to: Day | 'unknown';
  readonly phases: readonly PhaseBand[];
  readonly published: boolean;
  readonly preview: boolean;
  readonly state: TreadState;
  readonly target: TargetPlan | undefined;
}

/** A counted step on the drawing: the foot of its riser and where it arrives. */
export interface Riser {
  readonly step: CountedStep;
  readonly day: Day;
  readonly x: number;
  readonly y0: number;
  readonly y1: number;
  readonly kind: 'whole' | 'broken' | 'edition';
  /** Where a hop over several days ends: a ramp instead of a riser. */
  readonly x1: number;
}

/** A stay, before or between hops, on a release out of service. */
export interface Rest {
  readonly release: string;
  readonly x0: number;
  readonly x1: number;
  readonly y: number;
  readonly since: Day;
  readonly until: Day;
}

/** Where the first hop of a case that deviates is planned; absent where it has none. */
export interface Deviation {
  readonly plan: CasePlan;
  readonly x: number;
  readonly y: number;
}

export interface Dot {
  readonly step: Step;
  readonly day: Day;
  readonly x: number;
  readonly y: number;
}

export interface StairLayout {
  readonly scale: TimeScale;
  readonly ticks: readonly (Tick & { readonly x: number })[];
  readonly treads: readonly Tread[];
  readonly risers: readonly Riser[];
  readonly dots: readonly Dot[];
  readonly today: { readonly day: Day; readonly x: number };
  readonly flag: { readonly day: Day; readonly x: number; readonly y: number } | undefined;
  /** Ink from today to the first hop, then orange to the end of the target's service. */
  readonly stand: { readonly x0: number; readonly x1: number; readonly y: number } | undefined;
  readonly climb: readonly (readonly [x: number, y: number])[];
  readonly olderHidden: number;
  readonly rests: readonly Rest[];
  readonly deviations: readonly Deviation[];
}

const LEFT = 14;
const RIGHT = 18;
const TOP = 78;
const BOTTOM = 44;
const YEARS_SHOWN = 365 * 2;
const UNKNOWN_LENGTH = 400;
const NEAR_DEADLINE = 200;

/** Where everything stands on the stair of one case. Pure: the drawing only paints it. */
export function layOutStair(input: StairInput): StairLayout {
  const { plan, looked, today } = input;
  const model = modelOf(input.product);
  const shown = shownReleases(model, plan, looked);
  const steps = looked?.route?.steps ?? [];
  const scale = scaleOf(input, shown, steps);
  const x = (day: Day): number => placeOf(scale, day);
  const rows = new Map(
    shown.map((r, i) => [
      r.release.id,
      input.height - BOTTOM - 34 - i * rowHeight(input.height, shown.length)
    ])
  );
  const y = (release: string): number => rows.get(release) ?? 0;
  const risers = steps.flatMap((s) => (isCounted(s) ? [riserOf(s, x, y)] : []));
  const dots = steps.flatMap((step) =>
    !isCounted(step) ? [{ step, day: step.days.first, x: x(step.days.first), y: y(step.from.release) }] : []
  );
  const start = plan.start?.release;
  const deadline = plan.deadline.day;
  return {
    scale,
    ticks: thinned(ticksOf(scale).map((t) => ({ ...t, x: x(t.day) }))),
    treads: shown.map((r) => treadOf(input, r, { x, y: y(r.release.id), scale })),
    risers,
    dots,
    today: { day: today, x: x(today) },
    flag:
      deadline === undefined || start === undefined
        ? undefined
        : { day: deadline, x: x(deadline), y: y(start) },
    stand: start === undefined ? undefined : { x0: x(today), x1: risers[0]?.x ?? x(today), y: y(start) },
    climb: climbOf(risers, looked, (release) => endOf(input, model, release, scale)),
    rests: restsOf(input, model, steps, { x, y }),
    deviations: (input.deviating ?? []).map((other, i) => ({
      plan: other,
      x: x(other.goalPlan?.route?.steps.find(isCounted)?.days.first ?? today),
      y: y(start ?? '') + 34 + i * 15
    })),
    olderHidden: olderCount(model, plan) - shown.filter((r) => isBefore(model, r, start)).length
  };
}

/** From today to the first hop, and between hops: what of each stay lies after the end of service. */
function restsOf(
  input: StairInput,
  model: ProductModel,
  steps: readonly Step[],
  { x, y }: { x: (day: Day) => number; y: (release: string) => number }
): Rest[] {
  const stays: { release: string; from: Day; to: Day }[] = [];
  let release = input.plan.start?.release ?? '';
  let from = input.today;
  for (const step of steps.filter(isCounted)) {
    if (step.to.release === release) continue;
    stays.push({ release, from, to: step.days.first });
    [release, from] = [step.to.release, step.days.last];
  }
  return stays.flatMap((stay) => {
    const entry = model.releases[model.sequence.indexById.get(stay.release) ?? -1];
    const end = entry && serviceEndOf(entry, input.phase ?? 'security', input.countsExpected);
    if (end === undefined || end === 'unknown' || stay.to <= end) return [];
    return [
      {
        release: stay.release,
        // What stands out of service already has done so since then, not since today.
        x0: x(stay.release === input.plan.start?.release ? end : Math.max(stay.from, end)),
        x1: x(stay.to),
        y: y(stay.release),
        since: end,
        until: stay.to
      }
    ];
  });
}

const rowHeight = (height: number, rows: number): number =>
  Math.max(46, Math.min(128, (height - TOP - BOTTOM - 34) / Math.max(1, rows - 1)));

/** The least height at which no treads overlap. */
export const leastHeight = (rows: number): number => TOP + BOTTOM + 34 + 46 * Math.max(1, rows - 1);

/** Earliest first: one release older than the installed one, then all that are not. */
function shownReleases(model: ProductModel, plan: CasePlan, looked: TargetPlan | undefined): ReleaseModel[] {
  const start = plan.start?.release;
  const older = model.releases.filter((r) => isBefore(model, r, start));
  const keep = new Set(older.slice(-1).map((r) => r.release.id));
  if (looked) keep.add(looked.target.release);
  return model.releases.filter((r) => !isBefore(model, r, start) || keep.has(r.release.id));
}

function isBefore(model: ProductModel, release: ReleaseModel, start: string | undefined): boolean {
  const at = model.releases[model.sequence.indexById.get(start ?? '') ?? -1];
  return at !== undefined && at.strand === release.strand && release.index < at.index;
}

const olderCount = (model: ProductModel, plan: CasePlan): number =>
  model.releases.filter((r) => isBefore(model, r, plan.start?.release)).length;

function scaleOf(input: StairInput, shown: readonly ReleaseModel[], steps: readonly Step[]): TimeScale {
  const { today, plan } = input;
  const known = shown
    .flatMap((r) => [firstDayOf(input, r), lastDayOf(input, r)])
    .filter((d) => typeof d === 'number');
  const hops = steps.filter((s) => s.days.exact).flatMap((s) => [s.days.first, s.days.last]);
  const work = [today, ...hops];
  const deadline = plan.deadline.day;
  if (deadline !== undefined) known.push(deadline);
  if (deadline !== undefined && deadline > today - NEAR_DEADLINE && deadline < today + NEAR_DEADLINE)
    work.push(deadline);
  const first = Math.min(...known, today - 180, ...work);
  const last = Math.max(...known, today + YEARS_SHOWN, ...work.map((d) => d + 60));
  return bendTime({
    first,
    last,
    work,
    climb: [today, ...hops],
    width: input.width - LEFT - RIGHT,
    left: LEFT,
    ...(input.bend ? { bend: input.bend } : {})
  });
}

function firstDayOf(input: StairInput, { publication }: ReleaseModel): Day | 'unknown' {
  const days = Object.values(publication)
    .map((d) => readDay(d, input.countsExpected))
    .filter((d) => typeof d === 'number');
  return days.length > 0 ? Math.min(...days) : 'unknown';
}

function lastDayOf(input: StairInput, { service }: ReleaseModel): Day | 'unknown' {
  const days = service
    .map((p) => readDay(p.until, input.countsExpected))
    .filter((d) => typeof d === 'number');
  return days.length > 0 ? Math.max(...days) : 'unknown';
}

interface Place {
  readonly x: (day: Day) => number;
  readonly y: number;
  readonly scale: TimeScale;
}

function treadOf(input: StairInput, release: ReleaseModel, { x, y, scale }: Place): Tread {
  const { plan, looked, today } = input;
  const from = firstDayOf(input, release);
  const to = lastDayOf(input, release);
  const last = scale.breaks[scale.breaks.length - 1]?.[0] ?? today;
  const begin = from === 'unknown' ? Math.min(last - UNKNOWN_LENGTH, today + UNKNOWN_LENGTH) : from;
  const target = targetOn(plan, looked, release.release.id);
  let before = x(begin);
  const phases = release.service.flatMap((p): PhaseBand[] => {
    const until = readDay(p.until, input.countsExpected);
    if (until === 'unknown') return [];
    const band = { phase: p.phase, x0: before, x1: Math.max(before, x(until)), until };
    before = band.x1;
    return [band];
  });
  const general = release.publication.general && readDay(release.publication.general, input.countsExpected);
  return {
    release: release.release.id,
    y,
    x0: x(begin),
    x1: to === 'unknown' ? x(last) : x(to),
    from,
    to,
    phases,
    published: from !== 'unknown' && from <= today,
    preview: general === undefined || general === 'unknown' || general > today,
    state: stateOf(plan, looked, release.release.id, target),
    target
  };
}

/** The target a tread stands for: in the looked-at edition where the release has it, else in its best one. */
function targetOn(plan: CasePlan, looked: TargetPlan | undefined, release: string): TargetPlan | undefined {
  if (looked?.target.release === release) return looked;
  const here = plan.targets.filter((t) => t.target.release === release);
  const wanted = looked?.target ?? plan.goal ?? plan.start;
  return (
    here.find((t) => sameTarget(t.target, plan.goal)) ??
    here.find((t) => t.target.edition === wanted?.edition && t.target.architecture === wanted.architecture) ??
    here.find(
      (t) => t.target.edition === plan.start?.edition && t.target.architecture === plan.start.architecture
    ) ??
    here[0]
  );
}

function stateOf(
  plan: CasePlan,
  looked: TargetPlan | undefined,
  release: string,
  target: TargetPlan | undefined
): TreadState {
  if (release === plan.start?.release) return 'installed';
  if (release === looked?.target.release && looked.route) return 'target';
  if (looked?.route?.steps.some((s) => s.to.release === release)) return 'on the way';
  if (target?.older) return 'older';
  switch (target?.verdict) {
    case 'closed':
      return 'closed';
    case 'not yet':
      return 'not yet';
    case 'cannot tell':
    case undefined:
      return 'cannot tell';
    default:
      return 'open';
  }
}

function riserOf(step: CountedStep, x: (day: Day) => number, y: (release: string) => number): Riser {
  const kind =
    step.kind === 'edition change' ? 'edition' : step.kind === 'fresh install' ? 'broken' : 'whole';
  return {
    step,
    day: step.days.first,
    x: x(step.days.first),
    y0: y(step.from.release),
    y1: y(step.to.release),
    x1: x(kind === 'whole' ? step.days.last : step.days.first),
    kind
  };
}

function climbOf(
  risers: readonly Riser[],
  looked: TargetPlan | undefined,
  endOfRelease: (release: string) => number
): (readonly [number, number])[] {
  const [first] = risers;
  if (!first || !looked) return [];
  const points: [number, number][] = [[first.x, first.y0]];
  for (const riser of risers) points.push([riser.x, riser.y0], [riser.x1, riser.y1]);
  const last = points[points.length - 1] as [number, number];
  return [...points, [Math.max(last[0], endOfRelease(looked.target.release)), last[1]]];
}

function endOf(input: StairInput, model: ProductModel, release: string, scale: TimeScale): number {
  const entry = model.releases[model.sequence.indexById.get(release) ?? -1];
  const to = entry ? lastDayOf(input, entry) : 'unknown';
  return placeOf(scale, to === 'unknown' ? (scale.breaks[scale.breaks.length - 1]?.[0] ?? 0) : to);
}

const LEAST_TICK_GAP = 34;

/** Ticks far enough apart for their words, later ones giving way. */
function thinned<T extends { readonly x: number }>(ticks: readonly T[]): T[] {
  const kept: T[] = [];
  for (const tick of ticks)
    if (tick.x - (kept[kept.length - 1]?.x ?? -Infinity) >= LEAST_TICK_GAP) kept.push(tick);
  return kept;
}
