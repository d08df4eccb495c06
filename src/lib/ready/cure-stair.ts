import type { CureTread } from '$core/ready';

/** One tread on the drawing: how far up, and where its words stand. */
export interface DrawnTread {
  readonly tread: CureTread;
  readonly x0: number;
  readonly x1: number;
  readonly y: number;
  readonly before: number;
}

export interface CureStairLayout {
  readonly treads: readonly DrawnTread[];
  readonly width: number;
  /** Where the budget ends: after the last tread that is chosen; undefined where all are, or none. */
  readonly post: number | undefined;
  readonly ground: number;
}

const LEAST_WIDTH = 104;
const LEFT = 44;
const TOP = 40;
const FOOT = 58;

/** Treads of even width from left to right, as high as the systems that are open once they are had. */
export function layOutCures(treads: readonly CureTread[], room: number, height: number): CureStairLayout {
  const most = Math.max(1, treads[treads.length - 1]?.opened ?? 1);
  const each = Math.max(LEAST_WIDTH, (room - LEFT - 12) / Math.max(1, treads.length));
  const ground = height - FOOT;
  const y = (opened: number): number => ground - ((ground - TOP) * opened) / most;
  const drawn = treads.map((tread, i) => ({
    tread,
    x0: LEFT + i * each,
    x1: LEFT + (i + 1) * each,
    y: y(tread.opened),
    before: y(treads[i - 1]?.opened ?? 0)
  }));
  const last = drawn.findLastIndex((d) => d.tread.chosen);
  return {
    treads: drawn,
    width: Math.max(room, LEFT + treads.length * each + 12),
    post: last >= 0 && last < drawn.length - 1 ? drawn[last]?.x1 : undefined,
    ground
  };
}
