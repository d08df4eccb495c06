import { isSeq, parseDocument, type Document } from 'yaml';
import { fail, type Result, succeed } from '../kit';
import { type Edit, editValue, isEqual } from '../catalogue';
import { readYaml } from './read-yaml';
import { spliceOf, type Splice } from './splice-yaml';

/**
 * Makes edits in the text of a YAML or JSON file. In YAML only the edited lines change: every other byte, comments among
 * them, stays. JSON is written anew with the same indent.
 *
 * 1. Edits that do not touch each other are made in one go, as splices of one reading of the text.
 * 2. The result is read back. Where it does not mean what it should, the edits are made one at a time, each read back; one
 *    that cannot be made in place goes through the document, which keeps comments but not spacing.
 *
 * Fails with `edit-failed` where none of that gives the wanted value. Cost: one reading for edits that are apart.
 */
export function editText(text: string, edits: readonly Edit[]): Result<string> {
  if (edits.length === 0) return succeed(text);
  const json = parseJsonOrNothing(text);
  if (json) {
    const indent = /\n([ \t]+)"/.exec(text)?.[1] ?? ' ';
    return succeed(JSON.stringify(edits.reduce(editValue, json.value), null, indent) + '\n');
  }
  const before = valueOf(text);
  const wanted = edits.reduce(editValue, before);
  const together = editTogether(text, edits);
  if (together !== undefined && isEqual(valueOf(together), wanted)) return succeed(together);
  return editOneByOne(text, edits, before);
}

function parseJsonOrNothing(text: string): { value: unknown } | undefined {
  if (!/^\s*[{[]/.test(text)) return undefined;
  try {
    return { value: JSON.parse(text) };
  } catch {
    return undefined;
  }
}

function valueOf(text: string): unknown {
  const read = readYaml(text);
  return read.ok ? read.value.value : undefined;
}

function documentOf(text: string): Document.Parsed | undefined {
  const read = readYaml(text);
  return read.ok ? read.value.document : undefined;
}

/** All edits, in as few readings of the text as their places allow, unchecked; undefined where one has no plain place. */
export function editTogether(text: string, edits: readonly Edit[]): string | undefined {
  let next = text;
  let group = new EditGroup(next, documentOf(next));
  for (const edit of edits) {
    if (group.add(edit)) continue;
    next = group.apply();
    group = new EditGroup(next, documentOf(next));
    if (!group.add(edit)) return undefined;
  }
  return group.apply();
}

type Step = string | number;

/** Edits of one reading of a text. Paths name places after the edits before; the group knows where these were at first. */
class EditGroup {
  readonly #text: string;
  readonly #document: Document.Parsed | undefined;
  readonly #splices: Splice[] = [];
  readonly #touched: string[] = [];
  /** By path of a list: what its elements were at first; undefined: put in since. */
  readonly #moved = new Map<string, (number | undefined)[]>();

  constructor(text: string, document: Document.Parsed | undefined) {
    this.#text = text;
    this.#document = document;
  }

  /** False where the edit touches what another of the group has touched, or has no plain place in the text. */
  add(edit: Edit): boolean {
    const list = edit.kind === 'insert' ? edit.path : edit.path.slice(0, -1);
    const at = edit.kind === 'insert' ? edit.at : edit.path[edit.path.length - 1];
    const here = this.#original(list);
    const place = here && (typeof at === 'number' ? this.#indexIn(here, at) : at);
    if (!here || !this.#document || place === undefined || this.#overlaps(edit, here, place)) return false;
    const moved: Edit =
      edit.kind === 'insert'
        ? { ...edit, path: here, at: Number(place) }
        : { ...edit, path: [...here, place] };
    const splice = spliceOf(this.#text, this.#document, moved);
    if (!splice || this.#splices.some((s) => s.from < splice.to && splice.from < s.to)) return false;
    if (this.#splices.some((s) => splice.from >= s.from && splice.from < s.to)) return false;
    this.#splices.push(splice);
    if (typeof at === 'number') this.#move(here, at, edit);
    if (edit.kind !== 'insert') this.#touched.push(keyOf([...here, place]));
    return true;
  }

  apply(): string {
    const sorted = this.#splices.map((s, i) => ({ ...s, i })).sort((a, b) => b.from - a.from || b.i - a.i);
    return sorted.reduce((text, s) => text.slice(0, s.from) + s.text + text.slice(s.to), this.#text);
  }

  /** Where a path led at first; undefined where it leads into something put in since. */
  #original(path: readonly Step[]): Step[] | undefined {
    const original: Step[] = [];
    for (const step of path) {
      const place = typeof step === 'number' ? this.#indexIn(original, step) : step;
      if (place === undefined) return undefined;
      original.push(place);
    }
    return original;
  }

  #indexIn(list: readonly Step[], index: number): number | undefined {
    const order = this.#moved.get(keyOf(list));
    if (!order) return index;
    return index < order.length ? order[index] : this.#lengthOf(list);
  }

  #lengthOf(list: readonly Step[]): number {
    const node: unknown = this.#document?.getIn(list, true);
    return isSeq(node) ? node.items.length : 0;
  }

  #move(list: readonly Step[], at: number, edit: Edit): void {
    const key = keyOf(list);
    const order = this.#moved.get(key) ?? Array.from({ length: this.#lengthOf(list) }, (_, i) => i);
    if (edit.kind === 'insert') order.splice(at, 0, ...edit.values.map(() => undefined));
    if (edit.kind === 'remove') order.splice(at, 1);
    if (edit.kind !== 'set') this.#moved.set(key, order);
  }

  /** Inside, or around, what is replaced or taken out already. */
  #overlaps(edit: Edit, list: readonly Step[], place: Step): boolean {
    const own = keyOf(edit.kind === 'insert' ? list : [...list, place]);
    const isAround = (t: string): boolean => edit.kind !== 'insert' && t.startsWith(`${own}\n`);
    return this.#touched.some((t) => own === t || own.startsWith(`${t}\n`) || isAround(t));
  }
}

const keyOf = (path: readonly Step[]): string => path.map(String).join('\n');

function editOneByOne(text: string, edits: readonly Edit[], before: unknown): Result<string> {
  let next = text;
  let value = before;
  for (const edit of edits) {
    value = editValue(value, edit);
    const made = [editInPlace, editThroughDocument]
      .map((make) => make(next, edit))
      .find((t) => t !== undefined && isEqual(valueOf(t), value));
    if (made === undefined) return fail({ code: 'edit-failed', path: edit.path });
    next = made;
  }
  return succeed(next);
}

function editInPlace(text: string, edit: Edit): string | undefined {
  const group = new EditGroup(text, documentOf(text));
  return group.add(edit) ? group.apply() : undefined;
}

function editThroughDocument(text: string, edit: Edit): string | undefined {
  const document = parseDocument(text);
  if (document.errors.length > 0) return undefined;
  try {
    changeDocument(document, edit);
    return document.toString({ lineWidth: 0 });
  } catch {
    return undefined; // the path leads through an alias, which the document does not follow
  }
}

function changeDocument(document: Document, edit: Edit): void {
  if (edit.kind === 'set') return document.setIn(edit.path, document.createNode(edit.value));
  if (edit.kind === 'remove') return void document.deleteIn(edit.path);
  const list = document.getIn(edit.path);
  const nodes = edit.values.map((v) => document.createNode(v));
  if (isSeq(list)) list.items.splice(edit.at, 0, ...nodes);
  else document.setIn(edit.path, document.createNode(edit.values));
}
