import { type CasePlan, daysLeft } from '$core/plan';

/** A band of the estate: how soon work must start. */
export interface Band {
  readonly name: string;
  readonly plans: readonly CasePlan[];
  readonly systems: number;
}

const BANDS: readonly { readonly name: string; readonly holds: (plan: CasePlan) => boolean }[] = [
  {
    name: 'Too late to start',
    holds: (p) => (daysLeft(p) ?? 0) < 0
  },
  { name: 'Next 30 days', holds: (p) => p.slack !== undefined && p.slack <= 30 },
  { name: 'Next 90 days', holds: (p) => p.slack !== undefined && p.slack <= 90 },
  { name: 'Next 12 months', holds: (p) => p.slack !== undefined && p.slack <= 365 },
  { name: 'Later', holds: (p) => p.slack !== undefined },
  { name: 'Already there', holds: (p) => p.verdict === 'here' },
  { name: 'No way or no date yet', holds: () => true }
];
/** What stands last is what needs thought, not what is done. */
const ORDER = [
  'Too late to start',
  'Next 30 days',
  'Next 90 days',
  'Next 12 months',
  'No way or no date yet',
  'Later',
  'Already there'
];

/** The cases in bands by slack; empty bands left out. */
export function bandsOf(plans: readonly CasePlan[]): Band[] {
  const byName = new Map<string, CasePlan[]>();
  for (const plan of plans) {
    const name = BANDS.find((b) => b.holds(plan))?.name ?? '';
    byName.set(name, [...(byName.get(name) ?? []), plan]);
  }
  return ORDER.flatMap((name) => {
    const list = byName.get(name) ?? [];
    return list.length === 0
      ? []
      : [{ name, plans: list, systems: list.reduce((sum, p) => sum + p.systems.length, 0) }];
  });
}

/** One line of the long table, with its place from the top in px. */
export type Line = (
  | { readonly kind: 'band'; readonly band: Band }
  | { readonly kind: 'row'; readonly plan: CasePlan; readonly index: number }
) & {
  readonly top: number;
  readonly height: number;
};

const BAND_HEIGHT = 34;
const ROW_HEIGHT = 40;
const ONE_LINE_HEIGHT = 22;
const NARROW_HEIGHT = 136;

/** How a row stands: on two lines, on one, or as a card on a narrow screen. */
export type RowForm = 'two lines' | 'one line' | 'narrow';
const HEIGHTS: Readonly<Record<RowForm, number>> = {
  'two lines': ROW_HEIGHT,
  'one line': ONE_LINE_HEIGHT,
  narrow: NARROW_HEIGHT
};

/** Bands and rows laid one below the other, so that only those in sight need be drawn. */
export function layLines(bands: readonly Band[], form: RowForm): Line[] {
  const lines: Line[] = [];
  let top = 0;
  let index = 0;
  for (const band of bands) {
    lines.push({ kind: 'band', band, top, height: BAND_HEIGHT });
    top += BAND_HEIGHT;
    for (const plan of band.plans) {
      const height = HEIGHTS[form];
      lines.push({ kind: 'row', plan, index: index++, top, height });
      top += height;
    }
  }
  return lines;
}

/** The lines between two places, found by halving. */
export function linesBetween(lines: readonly Line[], from: number, to: number): readonly Line[] {
  const firstAt = (place: number): number => {
    let low = 0;
    let high = lines.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      const line = lines[middle];
      if (line && line.top + line.height <= place) low = middle + 1;
      else high = middle;
    }
    return low;
  };
  return lines.slice(firstAt(from), firstAt(to) + 1);
}
