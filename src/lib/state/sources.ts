import type { Catalogue, Product } from '$core/catalogue';
import { parseDateText } from '$core/date';
import { sayDay } from '$core/wording';

/** Who says so, of an entry of a product: title, publisher, standing, when it was written and read. */
export function describeSource(
  catalogue: Catalogue | undefined,
  product: Product | undefined,
  id: string
): string {
  const entries = [
    ...(product?.hops ?? []),
    ...(product?.editionChanges ?? []),
    ...(product?.releases ?? []),
    ...(product?.requirements ?? []),
    ...(product?.companions ?? []),
    ...(product?.cautions ?? []),
    ...(product?.pairings ?? []),
    ...(product?.rights ?? [])
  ];
  const entry = entries.find((e) => e.id === id);
  const sourceId = entry?.source ?? product?.source;
  const source = catalogue?.sources?.find((s) => s.id === sourceId);
  const note = entry && 'note' in entry && entry.note ? ` ${entry.note}` : '';
  if (!source) return `The catalogue names no source for this.${note}`;
  const dates = [
    source.written && `written ${sayText(source.written)}`,
    source.read && `read ${sayText(source.read)}`
  ].filter(Boolean);
  return `${[`“${source.title}”`, source.by, source.standing, ...dates].filter(Boolean).join(', ')}.${note}`;
}

/** A catalogue date in words; as written where it is not a single day. */
export function sayText(text: string): string {
  const date = parseDateText(text);
  return date && date.certainty === 'published' && date.first === date.last ? sayDay(date.first) : text;
}
