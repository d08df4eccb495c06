import type { Catalogue, Product } from '../catalogue';
import type { FactKinds } from '../condition';
import {
  addReading,
  type Difference,
  type Fact,
  findDifferences,
  formatFactText,
  type ImportRecord,
  type InstalledTexts,
  type InstalledUnderstanding,
  isSameValue,
  kindsOf,
  type Link,
  newSystemId,
  readInstalled,
  statementsOf,
  type System,
  type SystemCompanion
} from '../estate';
import type { Issue } from '../kit';
import { foldText } from '../version';
import type { MachineRecord } from './machine-record';

/** What becomes of one machine of the file. */
export interface ImportedRow {
  /** From 1, as a spreadsheet counts. */
  readonly row: number;
  readonly fate: 'new' | 'update' | 'same' | 'not taken';
  readonly reason?: Issue;
  readonly name: string;
  readonly system?: System;
  /** Of an update: what changes, in words. */
  readonly changes: readonly string[];
  /** Words of the installed text that nothing accounts for. */
  readonly leftOver: readonly string[];
  /** Name, patch level and build that do not agree: all of them stay candidates. */
  readonly contradiction?: readonly string[];
  readonly remarks: readonly string[];
}

export interface ImportPreview {
  readonly rows: readonly ImportedRow[];
  /** Systems as they will stand; new and changed ones only. */
  readonly taken: readonly System[];
  /** Systems that came from this list before and are no longer on it. */
  readonly vanished: readonly System[];
}

/** How what is compared reads: of what was installed, as it is kept in a system's history, and of what changes. */
export interface ImportWords {
  readonly installed: (system: System, product: Product | undefined) => string;
  readonly difference: (difference: Difference) => string;
}

export interface ImportContext {
  readonly catalogue: Catalogue;
  readonly existing: readonly System[];
  /** The name the list goes by; kept with every system as its source. */
  readonly source: string;
  /** ISO day of the import. */
  readonly today: string;
}

/**
 * What taking these machines in would do, one by one, without doing it. Names decide which machine is meant, case and
 * spaces folded. A machine that repeats an earlier one is left out; one that contradicts an earlier one is left out with
 * that as its reason. What the file does not say stays as it is; facts of other sources become disputed where they differ
 * (see `addReading`). Nothing is guessed: see `parseInstalled`.
 */
export function previewImport(
  records: readonly MachineRecord[],
  context: ImportContext,
  words: ImportWords
): ImportPreview {
  const steps = previewStepwise(records, context, words);
  for (let next = steps.next(); ; next = steps.next()) if (next.done) return next.value;
}

/** The same, telling now and then how many machines are done. */
export function* previewStepwise(
  records: readonly MachineRecord[],
  context: ImportContext,
  words: ImportWords
): Generator<number, ImportPreview> {
  const reader = new Reader(context, records, words);
  const rows: ImportedRow[] = [];
  for (const record of records) {
    rows.push(reader.read(record, rows.length));
    if (rows.length % STEP === 0) yield rows.length;
  }
  return {
    rows,
    taken: rows.flatMap((r) => (r.system && (r.fate === 'new' || r.fate === 'update') ? [r.system] : [])),
    vanished: context.existing.filter(
      (s) =>
        s.source === context.source &&
        s.stage !== 'retired' &&
        s.missingSince === undefined &&
        !reader.hasRead(s.name)
    )
  };
}

const STEP = 500;

/** What the import did, to be read later. Long lists are cut at 2,000 entries. */
export function importRecordOf(
  preview: ImportPreview,
  about: { id: string; list: string; file: string; day: string }
): ImportRecord {
  const most = 2000;
  const of = (fate: ImportedRow['fate']): ImportedRow[] => preview.rows.filter((r) => r.fate === fate);
  return {
    ...about,
    added: of('new')
      .slice(0, most)
      .map((r) => r.name.slice(0, 500)),
    changed: of('update')
      .slice(0, most)
      .map((r) => ({
        system: r.name.slice(0, 500),
        what: r.changes.slice(0, 50).map((c) => c.slice(0, 1000))
      })),
    vanished: preview.vanished.slice(0, most).map((s) => s.name.slice(0, 500)),
    same: of('same').length
  };
}

const NONE: readonly string[] = [];
/** What is taken from a record as it stands there. */
const TAKEN = ['team', 'site', 'observed', 'purl', 'cpe', 'asked'] as const;

/** What goes by one name, case and spaces folded: a system that is there, or the id of the one that will be, and the row that was read of it. */
interface Named {
  readonly before: System | undefined;
  readonly id: string;
  /** The row it was read in, as it was read. */
  row?: number;
  system?: System;
}

class Reader {
  readonly #context: ImportContext;
  readonly #words: ImportWords;
  readonly #kinds: FactKinds;
  readonly #products: ReadonlyMap<string, Product>;
  readonly #byName = new Map<string, Named>();
  /** What goes by the name of each record; undefined where it has none. */
  readonly #named: readonly (Named | undefined)[];
  /** Of what a list names more than once, the reading of the latest day. */
  readonly #newest = new Map<Named, { readonly observed: string; readonly row: number }>();
  /** What is to be said of the record being read beyond its own remarks. */
  #remarks: string[] = [];
  readonly #statements = new Map<Fact, Map<string, Fact>>();
  readonly #fresh = new Map<InstalledUnderstanding, Installed>();
  readonly #understood = new Map<InstalledTexts, InstalledUnderstanding>();

  constructor(context: ImportContext, records: readonly MachineRecord[], words: ImportWords) {
    this.#context = context;
    this.#words = words;
    this.#kinds = kindsOf(context.catalogue);
    this.#products = new Map(context.catalogue.products.map((p) => [p.id, p]));
    const ids = new Set<string>();
    for (const system of context.existing) {
      ids.add(system.id);
      this.#byName.set(foldText(system.name), { before: system, id: system.id });
    }
    // Ids are dealt before rows are read, so that links may point forward.
    this.#named = records.map(({ name }) => {
      if (name === '') return undefined;
      const key = foldText(name);
      let named = this.#byName.get(key);
      if (!named) this.#byName.set(key, (named = { before: undefined, id: newSystemId(name, ids) }));
      return named;
    });
    for (const [i, { observed, row }] of records.entries()) {
      const named = this.#named[i];
      if (!named || observed === undefined) continue;
      if (observed > (this.#newest.get(named)?.observed ?? '')) this.#newest.set(named, { observed, row });
    }
  }

  hasRead(name: string): boolean {
    return this.#byName.get(foldText(name))?.system !== undefined;
  }

  read(given: MachineRecord, index: number): ImportedRow {
    const record = this.#withWordSize(given);
    const { row, name } = record;
    const left = { changes: NONE, leftOver: NONE, remarks: record.remarks };
    const named = this.#named[index];
    if (record.left) return { row, name, fate: 'not taken', reason: record.left, ...left };
    if (!named) return { row, name, fate: 'not taken', reason: { code: 'missing-name' }, ...left };
    const { before } = named;
    const newer = this.#newest.get(named);
    if (newer && record.observed !== undefined && record.observed < newer.observed) {
      const reason = { code: 'older-reading', detail: String(newer.row) };
      return { row, name, fate: 'not taken', reason, ...left };
    }
    const understood = this.#understand(record);
    const { leftOver, contradiction } = understood;
    this.#remarks = [];
    const system = this.#systemOf(record, named, understood);
    const remarks = this.#remarks.length === 0 ? record.remarks : [...record.remarks, ...this.#remarks];
    if (named.system) {
      const code = findDifferences(named.system, system).length === 0 ? 'repeats' : 'same-name';
      const reason = { code, detail: String(named.row) };
      return { row, name, fate: 'not taken', reason, changes: NONE, leftOver, remarks };
    }
    [named.row, named.system] = [row, system];
    const read = { row, name, fate: 'new' as const, system, changes: NONE, leftOver, remarks };
    return this.#compared(contradiction ? { ...read, contradiction } : read, before);
  }

  /** A word size that names no architecture of the product is a fact of the machine. */
  #withWordSize(record: MachineRecord): MachineRecord {
    const [, bits] = /^(32|64)[\s-]*(bits?)?$/i.exec(record.texts.architecture?.trim() ?? '') ?? [];
    if (bits === undefined || record.facts?.['processor.bits']) return record;
    const { readings, stated } = this.#understand(record);
    const product = 'is' in readings.product ? this.#products.get(readings.product.is) : undefined;
    if (product?.architectures || stated.includes('architecture')) return record;
    const fact = { value: `${bits} bit` };
    return { ...record, facts: { ...record.facts, 'processor.bits': fact } };
  }

  /** The row against what is known of the system: changed, or as it is. */
  #compared(row: ImportedRow & { readonly system: System }, before: System | undefined): ImportedRow {
    if (!before) return row;
    const changes = findDifferences(before, row.system);
    if (changes.length === 0) return { ...row, fate: 'same', system: before };
    const system = this.#withHistory(before, row.system);
    return { ...row, fate: 'update', system, changes: changes.map(this.#words.difference) };
  }

  /** Records of one list share the object of equal texts, so that they are understood once. */
  #understand({ texts }: MachineRecord): InstalledUnderstanding {
    const known = this.#understood.get(texts);
    if (known) return known;
    const understood = readInstalled(this.#context.catalogue, texts);
    this.#understood.set(texts, understood);
    return understood;
  }

  #systemOf(record: MachineRecord, { before, id }: Named, understood: InstalledUnderstanding): System {
    const { source } = this.#context;
    const facts = this.#factsOf(record, before);
    const companions = companionsOf(record, before, source);
    const links = this.#linksOf(record, before);
    if (
      before &&
      facts === before.facts &&
      !companions &&
      !links &&
      this.#saysNoMore(record, before, understood)
    )
      return before;
    const installed = before ? this.#installedOf(before, understood) : this.#freshOf(understood);
    const system: Writable<System> = before
      ? { ...before, ...installed, source }
      : { id, name: record.name, source, ...installed };
    if (before?.missingSince !== undefined) {
      delete system.missingSince;
      this.#remarks.push('back on its list');
    }
    if (before?.stage === 'retired') this.#remarks.push('retired here, and still on the list');
    if ((before?.stage === 'bare' || before?.stage === 'candidate') && understood.text !== '') {
      delete system.stage;
      delete system.meantFor;
    }
    for (const field of TAKEN) if (record[field] !== undefined) system[field] = record[field];
    if (record.nodes !== undefined) system.nodes = record.nodes;
    if (facts && facts !== before?.facts) system.facts = facts;
    if (companions) system.companions = companions;
    if (links) system.links = links;
    if (record.note !== undefined && record.note !== before?.note?.trim()) system.note = record.note;
    return system;
  }

  /** Whether a record says of a system in use what stands there already, facts, companions and links apart. */
  #saysNoMore(record: MachineRecord, before: System, { text }: InstalledUnderstanding): boolean {
    return (
      before.source === this.#context.source &&
      before.stage === undefined &&
      before.missingSince === undefined &&
      (text === '' || text === before.installedText) &&
      TAKEN.every((field) => record[field] === undefined || record[field] === before[field]) &&
      (record.nodes === undefined || record.nodes === before.nodes) &&
      (record.note === undefined || record.note === before.note)
    );
  }

  /** What the file says of the version; where it says nothing, or the very words that were read before, what stood there stays. */
  #installedOf(before: System, { readings, stated, text: whole }: InstalledUnderstanding): Installed {
    const text = whole === '' ? undefined : whole.slice(0, 500);
    if (text === undefined || text === before.installedText) return pickInstalled(before);
    const sameProduct =
      'is' in before.product && 'is' in readings.product && before.product.is === readings.product.is;
    const sameRelease =
      sameProduct &&
      (!('is' in readings.release) || ('is' in before.release && before.release.is === readings.release.is));
    // What the texts do not name themselves takes nothing back that is known of level, edition and architecture.
    const keep = <P extends 'release' | 'patch' | 'edition' | 'architecture'>(part: P): System[P] =>
      (part === 'patch' ? sameRelease : sameProduct) && !stated.includes(part)
        ? before[part]
        : readings[part];
    return {
      installedText: text,
      product: readings.product,
      release: keep('release'),
      patch: keep('patch'),
      edition: keep('edition'),
      architecture: keep('architecture')
    };
  }

  /** What a new system has installed; one object for equal texts. */
  #freshOf(understood: InstalledUnderstanding): Installed {
    let fresh = this.#fresh.get(understood);
    if (!fresh) {
      const text = understood.text.slice(0, 500);
      fresh = { ...(text === '' ? {} : { installedText: text }), ...understood.readings };
      this.#fresh.set(understood, fresh);
    }
    return fresh;
  }

  /** The facts of a system with those of the record; the very same object where nothing is new. */
  #factsOf({ facts, observed }: MachineRecord, before: System | undefined): System['facts'] {
    if (!facts) return before?.facts;
    let next: Record<string, Fact> | undefined;
    for (const id in facts) {
      const fact = facts[id] as Fact;
      const was = before?.facts && Object.hasOwn(before.facts, id) ? before.facts[id] : undefined;
      const now = was
        ? this.#readAgain(id, fact, was, observed === before?.observed ? undefined : observed)
        : this.#stated(fact, observed);
      if (now === was) continue;
      next ??= { ...before?.facts };
      next[id] = now;
    }
    return next ?? before?.facts;
  }

  /** A fact as this list states it; one object for what is equal. */
  #stated(fact: Fact, observed: string | undefined): Fact {
    const day = ('day' in fact ? fact.day : undefined) ?? observed ?? this.#context.today;
    let days = this.#statements.get(fact);
    if (!days) this.#statements.set(fact, (days = new Map()));
    let stated = days.get(day);
    if (!stated) days.set(day, (stated = { ...fact, day, source: this.#context.source } as Fact));
    return stated;
  }

  /** A fact that is known already, with one more reading of it; the same one where that is no news. */
  #readAgain(id: string, fact: Fact, was: Fact, newDay: string | undefined): Fact {
    const kind = this.#kinds.find(id);
    // A dispute set out as it stands is none of its values.
    if ('statements' in was && 'value' in fact && fact.value === formatFactText(was)) return was;
    const day = ('day' in fact ? fact.day : undefined) ?? newDay;
    // The same said again without a later day is no news.
    if (day === undefined && isKnownAlready(fact, was, (a, b) => isSameValue(kind, a, b))) return was;
    return addReading(kind, was, this.#stated(fact, day));
  }

  #linksOf({ links }: MachineRecord, before: System | undefined): Link[] | undefined {
    if (!links) return undefined;
    const next: Link[] = [...(before?.links ?? [])];
    for (const { kind, name } of links) {
      const folded = foldText(name);
      if (folded === 'none') {
        if (!next.some((l) => l.kind === kind)) next.push({ kind, absent: true });
        continue;
      }
      const to = this.#byName.get(folded)?.id;
      if (to === undefined) this.#remarks.push(`${kind} "${name}": no system of that name`);
      else if (!next.some((l) => 'to' in l && l.kind === kind && l.to === to)) next.push({ kind, to });
    }
    return next;
  }

  /** An update of what is installed leaves what stood there before in the history. */
  #withHistory(before: System, system: System): System {
    const was = this.#describe(before);
    if (was === this.#describe(system)) return system;
    const event = {
      day: this.#context.today,
      kind: 'changed' as const,
      was: was.slice(0, 500),
      source: this.#context.source
    };
    return { ...system, history: [...(before.history ?? []), event].slice(-500) };
  }

  #describe(system: System): string {
    return this.#words.installed(
      system,
      'is' in system.product ? this.#products.get(system.product.is) : undefined
    );
  }
}

type Writable<T> = { -readonly [K in keyof T]: T[K] };

type Installed = Pick<System, 'installedText' | 'product' | 'release' | 'patch' | 'edition' | 'architecture'>;

function pickInstalled({ installedText, product, release, patch, edition, architecture }: System): Installed {
  const readings = { product, release, patch, edition, architecture };
  return installedText === undefined ? readings : { installedText, ...readings };
}

function isKnownAlready(
  fact: Fact,
  was: Fact,
  same: (a: string | number | boolean, b: string | number | boolean) => boolean
): boolean {
  if ('unknown' in fact) return true;
  const said = statementsOf(was);
  return statementsOf(fact).every((s) => said.some((w) => same(w.value, s.value)));
}

/** Companions are added to those there, by name; a version given again takes the place of the one before. */
function companionsOf(
  record: MachineRecord,
  before: System | undefined,
  source: string
): SystemCompanion[] | undefined {
  if (!record.companions) return undefined;
  const next = new Map((before?.companions ?? []).map((c) => [companionKey(c.name), c]));
  for (const companion of record.companions) {
    // A name that ends in a figure is no name with a version.
    const whole = companionKey(`${companion.name} ${companion.version ?? ''}`.trim());
    if (companion.version !== undefined && next.has(whole)) continue;
    const was = next.get(companionKey(companion.name));
    if (was && (companion.version === undefined || was.version === companion.version)) continue;
    next.set(companionKey(companion.name), {
      ...was,
      source,
      ...companion,
      name: was?.name ?? companion.name
    });
  }
  return [...next.values()].slice(0, 2000);
}

const companionKey = (name: string): string => foldText(name.replace(/[;|\n]+/g, ','));
