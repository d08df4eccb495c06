import type { Catalogue } from '../catalogue/schema';
import { formatDay } from '../date/day';
import { parseMessyDay } from '../date/messy';
import { readInstalled, type InstalledUnderstanding } from '../estate/read-installed';
import { situationKey } from '../estate/standing';
import type { Fact, System } from '../estate/schema';
import type { Issue } from '../issue';
import { foldText } from '../version/words';
import type { ImportField, Mapping } from './mapping';

/** What becomes of one row of the file. */
export interface ImportedRow {
  /** From 1, as a spreadsheet counts. */
  readonly row: number;
  readonly fate: 'new' | 'update' | 'same' | 'not taken';
  readonly reason?: Issue;
  readonly system?: System;
  /** Words of the installed text that nothing accounts for. */
  readonly leftOver: readonly string[];
  /** What was read in a way that could also be meant otherwise. */
  readonly remarks: readonly string[];
}

export interface ImportPreview {
  readonly rows: readonly ImportedRow[];
  readonly taken: readonly System[];
}

export interface ImportContext {
  readonly catalogue: Catalogue;
  readonly existing: readonly System[];
  /** The file's name; kept with every system as its source. */
  readonly source: string;
}

/**
 * What taking these rows in would do, row by row, without doing it. Names decide which machine is meant, case and
 * spaces folded. A row that repeats an earlier one is left out; one that contradicts an earlier one is left out with
 * that as its reason. Nothing is guessed: see `parseInstalled`.
 */
export function previewImport(
  rows: readonly (readonly string[])[],
  mapping: Mapping,
  context: ImportContext
): ImportPreview {
  const state = new ImportState(context);
  const result: ImportedRow[] = [];
  rows.forEach((cells, i) => {
    if (i <= mapping.headerRow || cells.every((c) => c === '')) return;
    result.push(state.read(i + 1, cells, mapping));
  });
  return {
    rows: result,
    taken: result.flatMap((r) => (r.system && (r.fate === 'new' || r.fate === 'update') ? [r.system] : []))
  };
}

class ImportState {
  readonly #context: ImportContext;
  readonly #byName: Map<string, System>;
  readonly #ids: Set<string>;
  readonly #seen = new Map<string, { row: number; system: System }>();
  readonly #understood = new Map<string, InstalledUnderstanding>();

  constructor(context: ImportContext) {
    this.#context = context;
    this.#byName = new Map(context.existing.map((s) => [foldText(s.name), s]));
    this.#ids = new Set(context.existing.map((s) => s.id));
  }

  read(row: number, cells: readonly string[], mapping: Mapping): ImportedRow {
    const cell = (field: ImportField): string => cells[mapping.columns[field] ?? -1] ?? '';
    const name = cell('name').slice(0, 300);
    if (name === '')
      return { row, fate: 'not taken', reason: { code: 'missing-name' }, leftOver: [], remarks: [] };
    const before = this.#byName.get(foldText(name));
    const understood = this.#understand(cell);
    const remarks: string[] = [];
    const system = this.#systemOf(name, before, cell, understood, remarks);
    const said = { row, leftOver: understood.leftOver, remarks };
    const earlier = this.#seen.get(foldText(name));
    if (earlier)
      return {
        ...said,
        fate: 'not taken',
        reason: {
          code: saysTheSame(earlier.system, system) ? 'repeats' : 'same-name',
          detail: String(earlier.row)
        }
      };
    this.#seen.set(foldText(name), { row, system });
    return { ...said, system, fate: before ? (saysTheSame(before, system) ? 'same' : 'update') : 'new' };
  }

  /** Equal texts are understood once: a list of thousands holds a few dozen. */
  #understand(cell: (field: ImportField) => string): InstalledUnderstanding {
    const fields = ['installed', 'product', 'version', 'patch', 'build', 'edition', 'architecture'] as const;
    const key = fields.map(cell).join('\u0001');
    let understood = this.#understood.get(key);
    if (!understood) {
      const texts = Object.fromEntries(fields.map((f) => [f, cell(f)]).filter(([, text]) => text !== ''));
      understood = readInstalled(this.#context.catalogue, texts);
      this.#understood.set(key, understood);
    }
    return understood;
  }

  #systemOf(
    name: string,
    before: System | undefined,
    cell: (f: ImportField) => string,
    understood: InstalledUnderstanding,
    remarks: string[]
  ): System {
    const day = cell('observed') === '' ? undefined : parseMessyDay(cell('observed'));
    if (cell('observed') !== '' && !day) remarks.push(`"${cell('observed')}" is not a day`);
    if (day?.also !== undefined) remarks.push(`day ${formatDay(day.day)}; could be ${formatDay(day.also)}`);
    const facts = factsOf(cell('activated'), remarks);
    const nodes = Number(cell('nodes'));
    const text = (field: ImportField): string | undefined =>
      cell(field) === '' ? undefined : cell(field).slice(0, 500);
    const read = {
      team: text('team'),
      site: text('site'),
      installedText: understood.text === '' ? undefined : understood.text.slice(0, 500),
      observed: day && formatDay(day.day),
      nodes: Number.isInteger(nodes) && nodes > 1 && nodes <= 1000 ? nodes : undefined,
      facts,
      note: text('note'),
      source: this.#context.source
    };
    const given = Object.fromEntries(Object.entries(read).filter(([, v]) => v !== undefined));
    return {
      ...before,
      ...given,
      id: before?.id ?? this.#newId(name),
      name: before?.name ?? name,
      ...understood.readings
    };
  }

  #newId(name: string): string {
    const base =
      foldText(name)
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-+|-+$/g, '')
        .slice(0, 80) || 'system';
    let id = base;
    for (let n = 2; this.#ids.has(id); n++) id = `${base}-${n}`;
    this.#ids.add(id);
    return id;
  }
}

const YES = new Set(['yes', 'y', 'true', '1', 'activated', 'active', 'x', 'ok']);
const NO = new Set(['no', 'n', 'false', '0', 'not activated', 'inactive']);

function factsOf(text: string, remarks: string[]): Record<string, Fact> | undefined {
  if (text === '') return undefined;
  const folded = foldText(text);
  if (YES.has(folded)) return { activated: { value: true } };
  if (NO.has(folded)) return { activated: { value: false } };
  remarks.push(`"${text}" is neither yes nor no`);
  return { activated: { unknown: 'not understood' } };
}

/** Equal in what planning and people ask, whatever list it came from. */
function saysTheSame(a: System, b: System): boolean {
  const facts = (s: System): string => JSON.stringify(Object.entries(s.facts ?? {}).sort());
  return (
    situationKey(a) === situationKey(b) &&
    a.site === b.site &&
    (a.nodes ?? 1) === (b.nodes ?? 1) &&
    facts(a) === facts(b) &&
    a.observed === b.observed &&
    a.note === b.note
  );
}
