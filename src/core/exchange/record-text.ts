import { FactKinds } from '../condition';
import { formatDay, parseMessyDay } from '../date';
import { type Fact, parseFactText, type SystemCompanion } from '../estate';
import { fail, type Result, succeed } from '../kit';
import { foldText } from '../version';
import { findTextFault } from './guard';
import { clip, type MachineRecord, type NamedLink } from './machine-record';

/** The first line of a record, as the collector prints it and the form has it. */
export const RECORD_HEAD = 'orange-stair-record';
const MAX_RECORDS = 100_000;

const TEXT_LABELS = {
  installed: 'installed',
  'what it runs': 'installed',
  product: 'product',
  version: 'version',
  release: 'version',
  'patch level': 'patch',
  patch: 'patch',
  build: 'build',
  edition: 'edition',
  architecture: 'architecture'
} as const;
const LINK_KINDS: readonly NamedLink['kind'][] = ['hosted on', 'managed by', 'content of', 'peer of'];

/** True where the text holds at least one record. */
export const looksLikeRecord = (text: string): boolean => /^\s*orange-stair-record\b/m.test(text);

/**
 * Reads records as the collector prints them and people copy them from the printed form: a head line, then `label: value`
 * lines, many records below each other. Labels are those of the form or ids of facts; empty values are left out; labels
 * nobody knows become remarks. A record without a name is refused by the preview, not here.
 *
 *     orange-stair-record 1
 *     name: draw-01
 *     read on: 2031-03-10
 *     installed: Garnock Desk 4 r1 Studio
 *     memory: 16 GB
 */
export function parseRecords(text: string, kinds: FactKinds): Result<MachineRecord[]> {
  const fault = findTextFault(text, 'flat');
  if (fault) return fail(fault);
  const labels = new Map(
    kinds.all().flatMap((k) => [k.id, k.name].map((n): [string, string] => [foldText(n), k.id]))
  );
  const records: MachineRecord[] = [];
  let open: Building | undefined;
  for (const [i, raw] of text.split(/\r?\n/).entries()) {
    const line = raw.trim().replace(/^[>|]\s*/, '');
    if (foldText(line).startsWith(RECORD_HEAD)) {
      if (open) records.push(open.done());
      open = new Building(i + 1, kinds, labels);
      if (records.length > MAX_RECORDS) return fail({ code: 'too-many-rows', detail: String(MAX_RECORDS) });
      continue;
    }
    const match = /^([^:]{1,100}):(.*)$/.exec(line);
    if (open && match) open.add(match[1] ?? '', (match[2] ?? '').trim());
  }
  if (open) records.push(open.done());
  return records.length === 0 ? fail({ code: 'no-record' }) : succeed(records);
}

/** One record while its lines come in. */
class Building {
  readonly #row: number;
  readonly #kinds: FactKinds;
  readonly #labels: ReadonlyMap<string, string>;
  readonly #fields: Record<string, string> = {};
  readonly #texts: Record<string, string> = {};
  readonly #facts: Record<string, Fact> = {};
  readonly #companions: SystemCompanion[] = [];
  readonly #links: NamedLink[] = [];
  readonly #remarks: string[] = [];

  constructor(row: number, kinds: FactKinds, labels: ReadonlyMap<string, string>) {
    this.#row = row;
    this.#kinds = kinds;
    this.#labels = labels;
  }

  add(label: string, value: string): void {
    const folded = foldText(label);
    if (value === '' || /^[_.\s]+$/.test(value)) return;
    const link = LINK_KINDS.find((k) => k === folded);
    const fact = this.#labels.get(folded) ?? (this.#kinds.find(folded) ? folded : undefined);
    if (Object.hasOwn(TEXT_LABELS, folded))
      this.#texts[TEXT_LABELS[folded as keyof typeof TEXT_LABELS]] = value.slice(0, 500);
    else if (
      ['name', 'team', 'site', 'nodes', 'read on', 'note', 'purl', 'cpe', 'asked over'].includes(folded)
    )
      this.#fields[folded] = value;
    else if (folded === 'companion') this.#addCompanion(value);
    else if (link) this.#links.push({ kind: link, name: value.slice(0, 300) });
    else if (fact !== undefined) this.#addFact(fact, value);
    else this.#remarks.push(`"${label.slice(0, 60)}" is not known here`);
  }

  #addCompanion(value: string): void {
    const [name = '', version] = value.split(/\s*,\s*version\s+/i);
    if (name.trim() !== '' && this.#companions.length < 2000)
      this.#companions.push({
        name: name.trim().slice(0, 300),
        ...(version ? { version: version.slice(0, 300) } : {})
      });
  }

  #addFact(id: string, value: string): void {
    const fact = parseFactText(this.#kinds.find(id), value);
    if (!fact)
      this.#remarks.push(`"${value.slice(0, 80)}" is no value for ${this.#kinds.find(id)?.name ?? id}`);
    this.#facts[id] = fact ?? { unknown: 'not understood' };
  }

  done(): MachineRecord {
    const f = this.#fields;
    const day = f['read on'] === undefined ? undefined : parseMessyDay(f['read on']);
    if (f['read on'] !== undefined && !day) this.#remarks.push(`"${f['read on'].slice(0, 60)}" is not a day`);
    const nodes = Number(f['nodes']);
    const given = {
      team: clip(f['team']),
      site: clip(f['site']),
      note: clip(f['note'], 5000),
      purl: clip(f['purl']),
      cpe: clip(f['cpe']),
      asked: clip(f['asked over']),
      observed: day && formatDay(day.day),
      nodes: Number.isInteger(nodes) && nodes > 1 && nodes <= 1000 ? nodes : undefined,
      facts: Object.keys(this.#facts).length > 0 ? this.#facts : undefined,
      companions: this.#companions.length > 0 ? this.#companions : undefined,
      links: this.#links.length > 0 ? this.#links : undefined
    };
    return {
      row: this.#row,
      name: (f['name'] ?? '').slice(0, 300).trim(),
      texts: this.#texts,
      ...Object.fromEntries(Object.entries(given).filter(([, v]) => v !== undefined)),
      remarks: this.#remarks
    };
  }
}
