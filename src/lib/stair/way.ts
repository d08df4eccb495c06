import { type CasePlan, isThere } from '$core/plan';
import { isCounted } from '$core/route';
import type { Names } from '$core/catalogue';
import { shorten, shortestReason } from '$core/wording';

/** One tread of the small stair in a table row. */
export interface WayTread {
  readonly x0: number;
  readonly x1: number;
  readonly y: number;
  readonly label: string;
  readonly ink: boolean;
  readonly last: boolean;
  /** How it is reached: a whole riser, a broken one with a ledge, a change of edition on the same height. */
  readonly riser?: 'whole' | 'broken' | 'edition';
  readonly patched: boolean;
}

export interface WayDrawing {
  readonly treads: readonly WayTread[];
  readonly end: 'reached' | 'closed' | 'cannot tell' | 'not yet' | 'here';
  readonly words: string;
  readonly width: number;
}

const CHAR = 7.4;
const LEAST = 44;
const LONGEST_LABEL = 16;
const MOST_WIDTH = 268;
const LEAST_STEP = 7;
const STEP = 9;
const FLOOR = 33;
const HEADROOM = 14;
const FLOOR_ONE_LINE = 18;

/** The way to the goal in the drawing language, for a row of the estate; `verdict`: as it is said of the case. */
export function drawWay(plan: CasePlan, names: Names, oneLine: boolean, verdict: string): WayDrawing {
  const standing = shorten(plan.start && plan.startIsSure ? names.level(plan.start) : '?', LONGEST_LABEL);
  const steps = plan.goalPlan?.route?.steps.filter(isCounted) ?? [];
  const patched = new Set(
    plan.goalPlan?.route?.steps.flatMap((s) => (s.kind === 'patch' ? [s.to.release] : []))
  );
  const floor = oneLine ? FLOOR_ONE_LINE : FLOOR;
  const climbs = steps.filter((s) => s.kind !== 'edition change').length;
  const rise = Math.min(oneLine ? 3 : STEP, (floor - HEADROOM) / Math.max(1, climbs));
  const first = {
    x0: 0,
    x1: widthOf(standing),
    y: floor,
    label: standing,
    ink: true,
    last: false,
    patched: plan.start !== undefined && patched.has(plan.start.release)
  };
  const treads: WayTread[] = [first];
  steps.forEach((step, i) => {
    const before = treads[treads.length - 1] as WayTread;
    const isEdition = step.kind === 'edition change';
    const label = shorten(
      isEdition ? names.edition(step.to.edition) : names.release(step.to.release),
      LONGEST_LABEL
    );
    const y = isEdition ? before.y : before.y - rise;
    const riser = isEdition
      ? ('edition' as const)
      : step.kind === 'fresh install'
        ? ('broken' as const)
        : ('whole' as const);
    treads.push({
      x0: before.x1,
      x1: before.x1 + widthOf(label),
      y,
      label,
      ink: false,
      last: i === steps.length - 1,
      riser,
      patched: patched.has(step.to.release)
    });
  });
  const end = endOf(plan);
  const words = wordsOf(plan, end, names, verdict);
  const fitted = fitWidth(treads);
  return { treads: fitted, end, words, width: (fitted[fitted.length - 1]?.x1 ?? 0) + 8 };
}

/** A long way keeps the names of where it starts and ends; the steps between are pressed together and unnamed. */
function fitWidth(treads: readonly WayTread[]): readonly WayTread[] {
  const [first, last] = [treads[0], treads[treads.length - 1]];
  if (!first || !last || treads.length < 4 || last.x1 <= MOST_WIDTH) return treads;
  const between = (MOST_WIDTH - (first.x1 - first.x0) - (last.x1 - last.x0)) / (treads.length - 2);
  let x = 0;
  return treads.map((tread) => {
    const keeps = tread === first || tread === last;
    const width = keeps ? tread.x1 - tread.x0 : Math.max(LEAST_STEP, between);
    const placed = { ...tread, x0: x, x1: x + width, label: keeps ? tread.label : '' };
    x += width;
    return placed;
  });
}

/** A closed goal says why, and names the best target that is open. */
function wordsOf(plan: CasePlan, end: WayDrawing['end'], names: Names, verdict: string): string {
  if (end === 'reached') return '';
  if (end !== 'closed' || !plan.goalPlan) return verdict;
  const best = plan.bestOpen ? `; best open: ${names.target(plan.bestOpen)}` : '';
  return `${verdict}: ${shortestReason(plan.goalPlan)}${best}`;
}

const widthOf = (label: string): number => Math.max(LEAST, label.length * CHAR + 16);

function endOf({ verdict, goalPlan }: CasePlan): WayDrawing['end'] {
  if (goalPlan && isThere(goalPlan)) return 'here';
  return verdict === 'closed' || verdict === 'cannot tell' || verdict === 'not yet' || verdict === 'here'
    ? verdict
    : 'reached';
}
