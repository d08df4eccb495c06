import type { Day } from '$core/date';
import { type CasePlan, URGENCY_BANDS, type UrgencyBand, urgencyOf } from '$core/plan';
import { BAND_NAMES } from '$core/wording';

/** A band of the estate: how soon something must be done. */
export interface Band {
  readonly name: string;
  readonly plans: readonly CasePlan[];
  readonly systems: number;
}

/** The cases in bands by urgency, the most urgent first; empty bands left out. */
export function bandsOf(plans: readonly CasePlan[], today: Day): Band[] {
  const byBand = new Map<UrgencyBand, CasePlan[]>();
  for (const plan of plans) {
    const { band } = urgencyOf(plan, today);
    const list = byBand.get(band);
    if (list) list.push(plan);
    else byBand.set(band, [plan]);
  }
  return URGENCY_BANDS.flatMap((band) => {
    const list = byBand.get(band) ?? [];
    const systems = list.reduce((sum, p) => sum + p.systems.length, 0);
    return list.length === 0 ? [] : [{ name: BAND_NAMES[band], plans: list, systems }];
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
