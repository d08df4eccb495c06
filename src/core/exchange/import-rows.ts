import type { Catalogue } from '../catalogue';
import type { FactKind, FactKinds } from '../condition';
import { formatDay, parseMessyDay } from '../date';
import {
  type Fact,
  type InstalledTexts,
  parseFactText,
  saysNothing,
  splitUnit,
  type SystemCompanion
} from '../estate';
import { restoreCell } from './csv-out';
import { joinRows } from './join-rows';
import { clip, type MachineRecord, type NamedLink } from './machine-record';
import { isFactKey, type ImportField, type Mapping } from './mapping';

const LINKS: readonly [ImportField, NamedLink['kind']][] = [
  ['hostedOn', 'hosted on'],
  ['managedBy', 'managed by'],
  ['contentOf', 'content of'],
  ['peerOf', 'peer of']
];
const TEXTS = ['installed', 'product', 'version', 'patch', 'build', 'edition', 'architecture'] as const;
const MAX_LISTED = 500;

/**
 * The machines of a list, row by row; rows above the column names and empty rows are left out. Equal cells are understood
 * once: a list of thousands holds a few dozen texts, days and figures. With a catalogue rows of one machine are joined.
 */
export function readRows(
  rows: readonly (readonly string[])[],
  mapping: Mapping,
  kinds: FactKinds,
  catalogue?: Catalogue
): MachineRecord[] {
  const reader = new RowReader(rows, mapping, kinds);
  const records: MachineRecord[] = [];
  const above: string[] = [];
  const name = mapping.columns.name ?? 0;
  const isStaircase = fillsDown(rows.slice(mapping.headerRow + 1), name);
  for (let i = mapping.headerRow + 1; i < rows.length; i++) {
    const given = rows[i];
    if (!given?.some((c) => c !== '')) continue;
    const cells =
      isStaircase && given[name] ? given.map((c, at) => (at < name ? c || (above[at] ?? '') : c)) : given;
    for (let at = 0; at < name; at++) above[at] = cells[at] ?? '';
    records.push(reader.read(i + 1, cells));
  }
  return catalogue ? joinRows(records, catalogue) : records;
}

/** Whether blank cells before the name mean "as above": the first column has gaps, and what stands in one row leaves no gap to its right. */
function fillsDown(rows: readonly (readonly string[])[], name: number): boolean {
  const own = rows.filter((r) => (r[name] ?? '') !== '');
  if (name === 0 || own.length < 2 || own[0]?.[0] === '') return false;
  if (!own.some((r) => r[0] === '')) return false;
  return own.every((r) => {
    const first = r.findIndex((c) => c !== '');
    return r.slice(first, name).every((c) => c !== '');
  });
}

/** The day a list as a whole is of, from what stands above its headings. */
function dayAbove(rows: readonly (readonly string[])[], headerRow: number): string | undefined {
  for (const cell of rows.slice(0, headerRow).flat()) {
    const found =
      /\b(\d{4}-\d{2}-\d{2}|\d{1,2}\.? [A-Za-z]{3,9}\.? \d{4}|[A-Za-z]{3,9} \d{1,2}, \d{4}|\d{1,2}\.\d{1,2}\.\d{4})\b/.exec(
        cell
      );
    const read = found?.[1] === undefined ? undefined : parseMessyDay(found[1]);
    if (read && read.also === undefined) return formatDay(read.day);
  }
  return undefined;
}

/** A line that adds up or counts, and one that says that there is no machine. */
const NO_MACHINE =
  /^(total|totals|sum|summe|gesamt|somme|totaux)\b|^\(.*\)$|^\d+ (nodes|machines|systems|rows|hosts|devices|rechner|postes)\b/i;
/** What a list writes where it has no answer from the machine itself. */
const NOT_REACHED = /^(unreachable|not reachable|offline|no answer|nicht erreichbar|injoignable)$/i;

interface FactColumn {
  readonly id: string;
  readonly at: number;
  readonly read: (text: string) => Understood<Fact | undefined>;
}

/** What a cell's text comes to, and what is to be said of it. */
interface Understood<T> {
  readonly value: T;
  readonly remark?: string;
  /** Facts that the same cell states beside it. */
  readonly also?: readonly (readonly [id: string, fact: Fact])[];
}

class RowReader {
  readonly #columns: Mapping['columns'];
  readonly #facts: readonly FactColumn[];
  readonly #texts = new Map<string, InstalledTexts>();
  readonly #textColumns: readonly (readonly [(typeof TEXTS)[number], number])[];
  readonly #linkColumns: readonly (readonly [NamedLink['kind'], number])[];
  readonly #day = once(readDay);
  readonly #listDay: string | undefined;

  constructor(
    rows: readonly (readonly string[])[],
    { headerRow, columns, headings }: Mapping,
    kinds: FactKinds
  ) {
    this.#columns = columns;
    this.#listDay = dayAbove(rows, headerRow);
    this.#textColumns = TEXTS.flatMap((f) => (columns[f] === undefined ? [] : [[f, columns[f]] as const]));
    this.#linkColumns = LINKS.flatMap(([f, kind]) =>
      columns[f] === undefined ? [] : [[kind, columns[f]] as const]
    );
    const facts = Object.entries(columns).flatMap(([key, at]): FactColumn[] => {
      if (!isFactKey(key) || at === undefined) return [];
      const id = key.slice('fact.'.length);
      const { unit } = splitUnit(headings?.[at] ?? rows[headerRow]?.[at] ?? '');
      return [{ id, at, read: once((text) => readCell(kinds, id, text, unit)) }];
    });
    const { activated } = columns;
    this.#facts =
      activated === undefined
        ? facts
        : [
            { id: 'activated', at: activated, read: once((text) => readFact(ACTIVATED, 'activated', text)) },
            ...facts
          ];
  }

  read(row: number, cells: readonly string[]): MachineRecord {
    const cell = (field: ImportField): string => {
      const at = this.#columns[field];
      return at === undefined ? '' : restoreCell(cells[at] ?? '');
    };
    const said: string[] = [];
    const facts = this.#readFacts(cells, said);
    const observed = this.#day(cell('observed'));
    if (observed.remark !== undefined) said.push(observed.remark);
    const remarks = said.length === 0 ? NONE : said;
    const nodes = Number(cell('nodes'));
    const links = this.#linkColumns.flatMap(([kind, at]) =>
      listOf(restoreCell(cells[at] ?? '')).map((name): NamedLink => ({ kind, name }))
    );
    const companions = listOf(cell('companions')).map(companionOf);
    const record: Writable<MachineRecord> = {
      row,
      name: NO_MACHINE.test(cell('name')) ? '' : cell('name').slice(0, 300).trim(),
      texts: this.#textsOf(cells),
      remarks
    };
    const orNothing = (text: string): string => (/^([-–—?]+|n\/a|unknown)$/i.test(text) ? '' : text);
    const [team, site] = [clip(orNothing(cell('team'))), clip(orNothing(cell('site')))];
    const note = clip(cell('note'), 5000);
    const [purl, cpe] = [clip(cell('purl')), clip(cell('cpe'))];
    if (team !== undefined) record.team = team;
    if (site !== undefined) record.site = site;
    if (note !== undefined) record.note = note;
    if (purl !== undefined) record.purl = purl;
    if (cpe !== undefined) record.cpe = cpe;
    const node = clip(cell('nodeName'));
    if (node !== undefined) record.node = node;
    const seenOn = observed.value ?? this.#listDay;
    if (seenOn !== undefined) record.observed = seenOn;
    if (Number.isInteger(nodes) && nodes > 1 && nodes <= 1000) record.nodes = nodes;
    if (facts) record.facts = facts;
    if (links.length > 0) record.links = links;
    if (companions.length > 0) record.companions = companions;
    return record;
  }

  /** The same object for equal texts, so that they are understood once. */
  #textsOf(cells: readonly string[]): InstalledTexts {
    let key = '';
    for (const [, at] of this.#textColumns) key += `${cells[at] ?? ''}\u0001`;
    let texts = this.#texts.get(key);
    if (!texts) {
      const given = this.#textColumns.map(([f, at]) => [f, restoreCell(cells[at] ?? '')] as const);
      texts = Object.fromEntries(
        given.filter(([f, text]) => !saysNothing(text) && (f === 'patch' || !NOT_REACHED.test(text)))
      );
      this.#texts.set(key, texts);
    }
    return texts;
  }

  #readFacts(cells: readonly string[], remarks: string[]): Record<string, Fact> | undefined {
    let facts: Record<string, Fact> | undefined;
    for (const { id, at, read } of this.#facts) {
      const text = cells[at] ?? '';
      if (text === '') continue;
      const { value, remark, also } = read(text);
      if (remark !== undefined) remarks.push(remark);
      facts ??= {};
      if (value) facts[id] = value;
      for (const [other, fact] of also ?? []) facts[other] ??= fact;
    }
    return facts;
  }
}

const NONE: readonly string[] = [];

/** A thing with the version that stands behind its name. */
function companionOf(text: string): SystemCompanion {
  const [, name, version] = /^(.*\S)\s+v?(\d[\w.-]*)$/.exec(text) ?? [];
  return name !== undefined && version !== undefined ? { name, version } : { name: text };
}

type Writable<T> = { -readonly [K in keyof T]: T[K] };

/** The function, remembering what it made of each text; not more than so many. */
function once<T>(read: (text: string) => T): (text: string) => T {
  const known = new Map<string, T>();
  return (text) => {
    const was = known.get(text);
    if (was !== undefined) return was;
    const made = read(text);
    if (known.size < 50_000) known.set(text, made);
    return made;
  };
}

function readDay(text: string): Understood<string | undefined> {
  if (text === '') return { value: undefined };
  const read = parseMessyDay(text);
  if (!read) return { value: undefined, remark: `"${text.slice(0, 80)}" is not a day` };
  const value = formatDay(read.day);
  return read.also === undefined
    ? { value }
    : { value, remark: `day ${value}; could be ${formatDay(read.also)}` };
}

/** A cell that may state several facts at once. */
function readCell(kinds: FactKinds, id: string, cell: string, unit?: string): Understood<Fact | undefined> {
  const text = restoreCell(cell).trim();
  const one = (of: string, said: string): readonly [string, Fact] | undefined => {
    const fact = parseFactText(kinds.find(of), said);
    return fact && [of, fact];
  };
  if (id === 'security-part') {
    const [, generation] = /(?:^|\s)v?(\d(?:\.\d)?)(?=$|[\s,;])/.exec(text) ?? [];
    const also = generation === undefined ? undefined : one('security-part.generation', generation);
    const rest = text.replace(generation ?? '', '').replace(/^[\s,;v]+|[\s,;]+$/g, '');
    const known = also ? { also: [also] } : {};
    if (also && rest === '') return { value: undefined, ...known };
    // That there is one does not say whether it is on.
    if (/^(yes|y|present|x|ja|oui|vorhanden)$/i.test(rest))
      return {
        value: { unknown: 'not asked' },
        remark: `"${rest}": there is one, not whether it is on`,
        ...known
      };
    if (/^(no|non|nein)$/i.test(rest)) return { value: { value: 'absent' } };
    return { ...readFact(kinds.find(id), id, rest), ...known };
  }
  if (id === 'processor.model') {
    if (/^(virtual|vm|virtuell|virtuel)$/i.test(text))
      return { value: undefined, remark: `"${text}" is no processor` };
    const [, model, speed] = /^(.*\S)\s+@?\s*(\d+(?:[.,]\d+)?\s*[GM]Hz)$/i.exec(text) ?? [];
    const also = speed === undefined ? undefined : one('processor.speed', speed);
    if (model && also) return { value: { value: model.replace(/\s*@$/, '') }, also: [also] };
  }
  if (id === 'firmware.kind' && !saysNothing(text)) {
    const fact = parseFactText(SWITCH, text);
    if (fact && 'value' in fact) return { value: { value: fact.value === 'on' ? 'uefi' : 'bios' } };
  }
  return readFact(kinds.find(id), id, cell, unit);
}

function readFact(kind: FactKind | undefined, id: string, cell: string, unit?: string): Understood<Fact> {
  const text = restoreCell(cell);
  const value = parseFactText(kind, text, unit);
  if (value) return { value };
  const words = id === 'activated' ? 'neither yes nor no' : `no value for ${kind?.name ?? id}`;
  return { value: { unknown: 'not understood' }, remark: `"${text.slice(0, 80)}" is ${words}` };
}

const SWITCH: FactKind = {
  id: 'switch',
  name: 'switch',
  measure: 'switch',
  keptBy: 'firmware',
  shelfLifeDays: 365
};

const ACTIVATED: FactKind = {
  id: 'activated',
  name: 'activated',
  measure: 'switch',
  keptBy: 'software',
  shelfLifeDays: 180
};

/** Several names in one cell, between semicolons or bars. */
const listOf = (text: string): string[] =>
  saysNothing(text) || /^\(none\)$/i.test(text)
    ? []
    : text
        .split(/[;|\n]+|\s\+\s/)
        .map((t) => t.trim().slice(0, 300))
        .filter(Boolean)
        .slice(0, MAX_LISTED);
