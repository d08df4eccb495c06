import { isMap, isScalar, isSeq, parseDocument, type Document } from 'yaml';
import { choicesAt, outlineAt } from '../catalogue';
import { CONDITION_WORDS, type FactKind, FactKinds, unitsOf } from '../condition';
import { RANGE_WORDS } from '../version';

/** Words that would fit at a place in a catalogue's text. */
export interface Completion {
  /** Where the word being typed begins. */
  readonly from: number;
  readonly options: readonly CompletionOption[];
}

export interface CompletionOption {
  readonly label: string;
  readonly kind: 'field' | 'choice' | 'name' | 'word';
  readonly about?: string;
}

type Path = (string | number)[];

const RANGE_FIELDS = new Set(['from', 'to', 'at', 'levels', 'releases', 'own', 'other']);
const CONDITION_FIELDS = new Set(['needs', 'when', 'firstTo']);
const MAX_OPTIONS = 200;

/** What fits at `offset`: fields of the entry the cursor stands in, or values of the field. Never throws; empty where nothing is known. */
export function completeCatalogueText(text: string, offset: number): Completion {
  const line = text.slice(text.lastIndexOf('\n', offset - 1) + 1, offset);
  const word = /[A-Za-z0-9._/-]*$/.exec(line)?.[0] ?? '';
  const from = offset - word.length;
  if (/^\s*#/.test(line)) return { from, options: [] };
  const document = parseDocument(text);
  const path = pathAt(document, text, offset);
  const key = /(?:^|[{,\s-])([A-Za-z]+):\s+[^{}[\]]*$/.exec(line)?.[1];
  const options = key === undefined ? fieldsAt(document, path) : valuesAt(document, path, key);
  const fitting = options.filter(
    (o) => o.label.toLowerCase().startsWith(word.toLowerCase()) && o.label !== word
  );
  return { from, options: fitting.slice(0, MAX_OPTIONS) };
}

/** The path of the innermost map around the offset. By nodes inside brackets, else by indent, so that a line just begun counts too. */
function pathAt(document: Document, text: string, offset: number): Path {
  const lineStart = text.lastIndexOf('\n', offset - 1) + 1;
  const indent = /^[ ]*(?:- )?/.exec(text.slice(lineStart, offset))?.[0].length ?? 0;
  let best: Path = [];
  const walk = (node: unknown, path: Path): void => {
    if (isMap(node)) {
      const [start = 0, end = 0] = node.range ?? [];
      const column = start - text.lastIndexOf('\n', start - 1) - 1;
      const inside = node.flow
        ? offset > start && offset < end
        : start <= offset && (column <= indent || path.length === 0);
      if (inside) best = path;
      if (inside || !node.flow)
        node.items.forEach((p) => isScalar(p.key) && walk(p.value, [...path, String(p.key.value)]));
    } else if (isSeq(node))
      node.items.forEach((item, i) => covers(item, offset, node.items[i + 1]) && walk(item, [...path, i]));
  };
  walk(document.contents, []);
  return best;
}

function covers(node: unknown, offset: number, next: unknown): boolean {
  const start = (n: unknown): number | undefined =>
    typeof n === 'object' && n !== null && 'range' in n ? (n.range as number[] | undefined)?.[0] : undefined;
  const [from, until] = [start(node), start(next)];
  return from !== undefined && offset >= from && (until === undefined || offset < until);
}

function fieldsAt(document: Document, path: Path): CompletionOption[] {
  const node: unknown = path.length === 0 ? document.contents : document.getIn(path, true);
  const present = new Set(
    isMap(node) ? node.items.map((p) => (isScalar(p.key) ? String(p.key.value) : '')) : []
  );
  return outlineAt(path)
    .filter((f) => !present.has(f.key))
    .map((f) => ({ label: f.key, kind: 'field', about: f.about || (f.required ? 'needed' : '') }));
}

function valuesAt(document: Document, path: Path, key: string): CompletionOption[] {
  const choices = choicesAt([...path, key]).map((label): CompletionOption => ({ label, kind: 'choice' }));
  if (CONDITION_FIELDS.has(key)) return [...choices, ...conditionWords(document)];
  const names = namesFor(document, path, key).map((label): CompletionOption => ({ label, kind: 'name' }));
  const words = RANGE_FIELDS.has(key)
    ? [...RANGE_WORDS].map((label): CompletionOption => ({ label, kind: 'word' }))
    : [];
  return [...choices, ...names, ...words];
}

function conditionWords(document: Document): CompletionOption[] {
  const declared = (document.toJS() as { facts?: FactKind[] } | null)?.facts ?? [];
  const facts = new FactKinds(Array.isArray(declared) ? declared : []).all();
  return [
    ...facts.map((f): CompletionOption => ({
      label: f.id,
      kind: 'name',
      about: [f.name, ...unitsOf(f.measure)].join(' ')
    })),
    ...[...CONDITION_WORDS].map((label): CompletionOption => ({ label, kind: 'word' }))
  ];
}

/** Ids the field may name: releases and levels of the product around, its editions, lines and so on; sources of the file. */
function namesFor(document: Document, path: Path, key: string): string[] {
  const ids = (list: unknown): string[] =>
    isSeq(list)
      ? list.items.flatMap((i) => (isMap(i) && typeof i.get('id') === 'string' ? [String(i.get('id'))] : []))
      : [];
  const root = document.contents;
  if (!isMap(root)) return [];
  if (key === 'source') return ids(root.get('sources'));
  const product = path[0] === 'products' && path.length > 1 ? document.getIn(path.slice(0, 2)) : undefined;
  if (!isMap(product)) return [];
  const list: Readonly<Record<string, string>> = {
    line: 'lines',
    branch: 'branches',
    successor: 'editions',
    feature: 'features',
    other: 'products'
  };
  if (key === 'other' && path.includes('pairings')) return ids(root.get('products'));
  if (RANGE_FIELDS.has(key)) return releasesOf(product);
  const named = list[key];
  return named === undefined ? [] : ids(product.get(named));
}

function releasesOf(product: { get(key: string): unknown }): string[] {
  const releases = product.get('releases');
  if (!isSeq(releases)) return [];
  return releases.items.flatMap((r) => {
    if (!isMap(r)) return [];
    const patches = r.get('patches');
    const id = String(r.get('id'));
    const levels = isSeq(patches)
      ? patches.items.flatMap((p) => (isMap(p) ? [`${id}/${String(p.get('id'))}`] : []))
      : [];
    return [id, ...levels];
  });
}
