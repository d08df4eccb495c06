import { isMap, isScalar, isSeq, type Document, type Pair, type YAMLMap, type YAMLSeq } from 'yaml';
import type { Edit } from '../catalogue';
import { renderBlock, renderInline, renderItem, renderPair } from './render-yaml';

/** A stretch of text to be replaced. */
export interface Splice {
  readonly from: number;
  readonly to: number;
  readonly text: string;
}

type Collection = YAMLMap | YAMLSeq;

/** The stretch of a YAML text that an edit replaces, in the style of what stands around; undefined where there is no plain one. */
export function spliceOf(text: string, document: Document, edit: Edit): Splice | undefined {
  const last = edit.path[edit.path.length - 1];
  if (edit.kind === 'insert') {
    const list: unknown = document.getIn(edit.path, true);
    return isSeq(list) && list.items.length > 0
      ? insertItems(text, list, edit.at, edit.values)
      : spliceOf(text, document, { kind: 'set', path: edit.path, value: edit.values });
  }
  const parent: unknown =
    edit.path.length === 1 ? document.contents : document.getIn(edit.path.slice(0, -1), true);
  if (last === undefined || (!isMap(parent) && !isSeq(parent))) return undefined;
  const at = isMap(parent) ? parent.items.findIndex((p) => keyOf(p) === String(last)) : Number(last);
  if (edit.kind === 'remove') return removeItem(text, parent, at);
  const item = parent.items[at];
  if (item === undefined) return isMap(parent) ? addPair(text, parent, String(last), edit.value) : undefined;
  return isMap(parent)
    ? replacePair(text, parent, item as Pair, edit.value)
    : replaceItem(text, item, edit.value);
}

const keyOf = (pair: Pair): string | undefined =>
  isScalar(pair.key) ? String(pair.key.source ?? pair.key.value) : undefined;

function rangeOf(node: unknown): readonly [from: number, to: number] | undefined {
  const range =
    typeof node === 'object' && node !== null && 'range' in node
      ? (node.range as number[] | undefined)
      : undefined;
  return range ? [range[0] ?? 0, range[1] ?? 0] : undefined;
}

/** From the start of an element to the end of its value, without the white space behind it. */
function spanOf(text: string, item: unknown): readonly [from: number, to: number] | undefined {
  const pair = typeof item === 'object' && item !== null && 'key' in item ? (item as Pair) : undefined;
  const start = rangeOf(pair ? pair.key : item);
  const end = rangeOf(pair?.value ?? pair?.key ?? item);
  if (!start || !end) return undefined;
  let to = Math.max(end[1], start[1]);
  while (to > start[0] && /\s/.test(text[to - 1] ?? '')) to--;
  return [start[0], to];
}

const lineStart = (text: string, at: number): number => text.lastIndexOf('\n', at - 1) + 1;
const lineEnd = (text: string, at: number): number =>
  text.indexOf('\n', at) < 0 ? text.length : text.indexOf('\n', at);
const pad = (indent: number): string => ' '.repeat(indent);

function replacePair(text: string, map: YAMLMap, pair: Pair, value: unknown): Splice | undefined {
  const key = spanOf(text, pair.key);
  const span = spanOf(text, pair);
  if (!key || !span) return undefined;
  const indent = key[0] - lineStart(text, key[0]);
  const colon = text.indexOf(':', key[1]);
  if (colon < 0) return undefined;
  const old = rangeOf(pair.value);
  const isEmpty = !old || old[1] <= old[0];
  if (!map.flow && isBlockValue(value, indent)) {
    const lines = renderBlock(value, indent + 2).map((l) => `\n${pad(indent + 2)}${l}`);
    return { from: colon + 1, to: Math.max(colon + 1, span[1]), text: lines.join('') };
  }
  const startsBelow = old !== undefined && /^\s*\n\s*$/.test(text.slice(colon + 1, old[0]));
  if (startsBelow) return { from: colon + 1, to: span[1], text: ` ${renderInline(value)}` };
  return isEmpty
    ? { from: colon + 1, to: colon + 1, text: ` ${renderInline(value)}` }
    : { from: old[0], to: span[1], text: renderInline(value) };
}

const isBlockValue = (value: unknown, indent: number): boolean =>
  typeof value === 'object' && value !== null && renderPair('', value, indent).length > 1;

function replaceItem(text: string, item: unknown, value: unknown): Splice | undefined {
  const span = spanOf(text, item);
  return span && { from: span[0], to: span[1], text: renderInline(value) };
}

function addPair(text: string, map: YAMLMap, key: string, value: unknown): Splice | undefined {
  const last = map.items[map.items.length - 1];
  if (map.flow || !last) return addToFlow(text, map, `${renderInline(key)}: ${renderInline(value)}`);
  const first = spanOf(text, map.items[0]);
  const span = spanOf(text, last);
  if (!first || !span) return undefined;
  const indent = first[0] - lineStart(text, first[0]);
  const at = lineEnd(text, span[1]);
  return {
    from: at,
    to: at,
    text: renderPair(key, value, indent)
      .map((l) => `\n${pad(indent)}${l}`)
      .join('')
  };
}

/** Behind the last element of a flow collection, before the bracket that ends it. */
function addToFlow(text: string, collection: Collection, addition: string): Splice | undefined {
  const range = rangeOf(collection);
  if (!range) return undefined;
  const last = spanOf(text, collection.items[collection.items.length - 1]);
  const at = last ? last[1] : range[0] + 1;
  return { from: at, to: at, text: last ? `, ${addition}` : addition };
}

function insertItems(
  text: string,
  list: YAMLSeq,
  at: number,
  values: readonly unknown[]
): Splice | undefined {
  if (list.flow) {
    const inline = values.map(renderInline).join(', ');
    const next = spanOf(text, list.items[at]);
    return next ? { from: next[0], to: next[0], text: `${inline}, ` } : addToFlow(text, list, inline);
  }
  const dash = dashOf(text, list.items[Math.min(at, list.items.length - 1)]);
  if (dash === undefined) return undefined;
  const indent = dash - lineStart(text, dash);
  const lines = values.flatMap((v) => renderItem(v, indent)).map((l) => pad(indent) + l);
  if (at < list.items.length) {
    const from = lineStart(text, dash);
    return { from, to: from, text: lines.map((l) => `${l}\n`).join('') };
  }
  const span = spanOf(text, list.items[list.items.length - 1]);
  const end = span && lineEnd(text, span[1]);
  return end === undefined ? undefined : { from: end, to: end, text: lines.map((l) => `\n${l}`).join('') };
}

/** The place of the dash before an element of a block list. */
function dashOf(text: string, item: unknown): number | undefined {
  const span = spanOf(text, item);
  if (!span) return undefined;
  let at = span[0] - 1;
  while (at >= 0 && /\s/.test(text[at] ?? '')) at--;
  return text[at] === '-' && /^[ ]*$/.test(text.slice(lineStart(text, at), at)) ? at : undefined;
}

/** The only element goes: the collection stays, with nothing in it. */
function emptied(
  text: string,
  parent: Collection,
  span: readonly [from: number, to: number]
): Splice | undefined {
  if (parent.flow) return { from: span[0], to: span[1], text: '' };
  const whole = rangeOf(parent);
  const before = whole && text.slice(0, whole[0]).trimEnd().length;
  return before && text[before - 1] === ':'
    ? { from: before, to: span[1], text: isSeq(parent) ? ' []' : ' {}' }
    : undefined;
}

function removeItem(text: string, parent: Collection, at: number): Splice | undefined {
  const span = spanOf(text, parent.items[at]);
  if (!span) return undefined;
  if (parent.items.length < 2) return emptied(text, parent, span);
  const next = spanOf(text, parent.items[at + 1]);
  if (parent.flow) {
    const before = spanOf(text, parent.items[at - 1]);
    if (next) return { from: span[0], to: next[0], text: '' };
    return before && { from: before[1], to: span[1], text: '' };
  }
  const start = isSeq(parent) ? dashOf(text, parent.items[at]) : span[0];
  if (start === undefined) return undefined;
  const from = lineStart(text, start);
  if (/^[ ]*$/.test(text.slice(from, start)))
    return { from, to: Math.min(text.length, lineEnd(text, span[1]) + 1), text: '' };
  // The first key behind a dash: what follows moves up to its place.
  return next && !text.slice(span[1], next[0]).includes('#')
    ? { from: span[0], to: next[0], text: '' }
    : undefined;
}
