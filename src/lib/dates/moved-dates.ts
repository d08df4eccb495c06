import type { Catalogue, Product } from '$core/catalogue';
import { type Day, parseDateText, readDay } from '$core/date';
import type { Plan } from '$core/plan';

/** A day that is stated otherwise than before, and whom it touches. */
export interface MovedDate {
  readonly product: string;
  readonly release: string;
  /** The phase whose end it is; absent: the day it is out. */
  readonly phase?: string;
  readonly before: Day;
  readonly now: Day;
  /** Systems that stand on it, or whose goal it is. */
  readonly systems: readonly string[];
}

type Said = { readonly release: string; readonly phase?: string; readonly was: string; readonly now: string };

/** Days of the catalogue that were stated otherwise before, as far as they touch something installed; the latest days first. */
export function movedDates(catalogue: Catalogue, plan: Plan, countsExpected: boolean): MovedDate[] {
  const read = (text: string): Day | undefined => {
    const date = parseDateText(text);
    const day = date && readDay(date, countsExpected);
    return typeof day === 'number' ? day : undefined;
  };
  const found = catalogue.products.flatMap((product) =>
    saidOf(product).flatMap(({ release, phase, was, now }): MovedDate[] => {
      const [before, after] = [read(was), read(now)];
      if (before === undefined || after === undefined || before === after) return [];
      const systems = plan.cases
        .filter(
          (c) =>
            c.product === product.id &&
            (phase === undefined ? c.goal?.release === release : c.start?.release === release)
        )
        .flatMap((c) => c.systems);
      const about = { product: product.id, release, ...(phase === undefined ? {} : { phase }) };
      return systems.length > 0 ? [{ ...about, before, now: after, systems }] : [];
    })
  );
  return found.sort((a, b) => b.systems.length - a.systems.length || a.now - b.now);
}

/** What a product says, and said last before; phases of a line stand for its releases. */
function saidOf({ releases, lines }: Product): Said[] {
  return releases.flatMap((release) => {
    const service = release.service ?? lines?.find((l) => l.id === release.line)?.service ?? [];
    const ends = service.flatMap(({ phase, until, was }): Said[] => {
      const last = was?.at(-1);
      const text = typeof last === 'string' ? last : last?.until;
      return text === undefined ? [] : [{ release: release.id, phase, was: text, now: until }];
    });
    const out = typeof release.published === 'string' ? release.published : release.published.general;
    const last = release.publishedWas?.at(-1);
    return last === undefined || out === undefined
      ? ends
      : [...ends, { release: release.id, was: last, now: out }];
  });
}
