import type { Catalogue } from '../catalogue';
import { type InstalledTexts, readInstalled, type SystemCompanion } from '../estate';
import { foldText } from '../version';
import type { MachineRecord } from './machine-record';

/** Lists with a row an application name each machine several times; from this share of rows on they are read so. */
const REPEATED = 0.3;
/** What mends something that is installed, and is nothing by itself. */
const MENDS =
  /\b(correction|hot ?fix|fix|patch|update|korrektur|correctif|mise a jour)\b.*\b(for|fur|pour)\b/i;

/**
 * Rows of one machine as one record: a long and a short name of one host go by the short one; of a list with a row an application what the
 * catalogue knows is what is installed, and all else runs on it. Rows that say nothing of their own are left, with why.
 */
export function joinRows(records: readonly MachineRecord[], catalogue: Catalogue): MachineRecord[] {
  const named = ofNodes(shortNames(records));
  const groups = new Map<string, MachineRecord[]>();
  for (const record of named) {
    const key = foldText(record.name);
    const group = groups.get(key);
    if (group) group.push(record);
    else groups.set(key, [record]);
  }
  const repeated = named.length - groups.size;
  const isKnown = knownBy(catalogue);
  const isByApplication =
    repeated >= named.length * REPEATED && [...groups.values()].some((g) => isOfApplications(g, isKnown));
  if (!isByApplication) return [...named];
  return [...groups.values()]
    .flatMap((group) => (group.length > 1 || groups.size < named.length ? joined(group, isKnown) : group))
    .sort((a, b) => a.row - b.row);
}

/** Rows of one system that name a node each are one record, with what the node says that is furthest behind. */
function ofNodes(records: readonly MachineRecord[]): readonly MachineRecord[] {
  if (!records.some((r) => r.node !== undefined)) return records;
  const byName = new Map<string, MachineRecord[]>();
  for (const r of records) {
    const group = byName.get(foldText(r.name));
    if (group) group.push(r);
    else byName.set(foldText(r.name), [r]);
  }
  return [...byName.values()].flatMap((group) => {
    const nodes = new Set(group.map((r) => foldText(r.node ?? '')));
    if (group.length < 2 || nodes.size < group.length) return group;
    const [lowest] = [...group].sort((a, b) => byFigures.compare(versionIn(a), versionIn(b)));
    return lowest ? [{ ...together(group), texts: lowest.texts, nodes: group.length }] : group;
  });
}

const byFigures = new Intl.Collator('en', { numeric: true });
const versionIn = ({ texts }: MachineRecord): string =>
  [texts.installed, texts.version, texts.patch, texts.build].filter(Boolean).join(' ');

/** Whether rows of a machine are of different things, with names of their own: most of them nothing the catalogue knows. */
function isOfApplications(group: readonly MachineRecord[], isKnown: IsKnown): boolean {
  const names = new Set(group.map((r) => foldText(wordsIn(r))).filter((n) => /[a-z]{3}/.test(n)));
  const known = group.filter(isKnown);
  return group.length > 1 && names.size > group.length / 2 && known.length * 2 <= group.length;
}

const wordsIn = ({ texts }: MachineRecord): string =>
  [texts.product, texts.installed].filter(Boolean).join(' ');

type IsKnown = (record: MachineRecord) => boolean;

/** Whether the catalogue knows what a row is of; records of one list share the object of equal texts, so that they are understood once. */
function knownBy(catalogue: Catalogue): IsKnown {
  const understood = new Map<InstalledTexts, boolean>();
  return ({ texts }) => {
    let is = understood.get(texts);
    if (is === undefined)
      understood.set(texts, (is = 'is' in readInstalled(catalogue, texts).readings.product));
    return is;
  };
}

/** What several rows say of one machine: of what more than one says, the first; facts and links of all. */
function together(group: readonly MachineRecord[]): MachineRecord {
  const [first] = group as readonly [MachineRecord, ...MachineRecord[]];
  const links = group.flatMap((r) => r.links ?? []);
  return {
    ...group.reduceRight((after, record) => ({ ...after, ...record }), first),
    facts: Object.assign({}, ...group.toReversed().map((r) => r.facts ?? {})) as NonNullable<
      MachineRecord['facts']
    >,
    ...(links.length > 0
      ? {
          links: links.filter((l, i) => links.findIndex((o) => o.kind === l.kind && o.name === l.name) === i)
        }
      : {}),
    remarks: group.flatMap((r) => r.remarks)
  };
}

function joined(group: readonly MachineRecord[], isKnown: IsKnown): MachineRecord[] {
  const known = group.map((r) => isKnown(r) && !MENDS.test(wordsIn(r)));
  const at = known.indexOf(true);
  const main = group[at];
  const seen = new Map<string, number>();
  const left: MachineRecord[] = [];
  const companions: SystemCompanion[] = [];
  group.forEach((record, i) => {
    if (i === at) return;
    const name = wordsIn(record).slice(0, 300);
    const version = record.texts.version ?? record.texts.build;
    const key = foldText(`${name} ${version ?? ''}`);
    if (name === '') return;
    const leave = (code: string, detail: string): void =>
      void left.push({ ...record, left: { code, detail } });
    if (MENDS.test(name)) leave('mends', name);
    else if (seen.has(key)) leave('repeats', String(seen.get(key)));
    else if (known[i]) leave('same-name', String(main?.row ?? record.row));
    else companions.push({ name, ...(version === undefined ? {} : { version }) });
    if (!seen.has(key)) seen.set(key, record.row);
  });
  const whole = together(group);
  const base = { ...whole, row: main?.row ?? whole.row, texts: main?.texts ?? {} };
  const all = [...(base.companions ?? []), ...companions];
  return [{ ...base, ...(all.length > 0 ? { companions: all } : {}) }, ...left];
}

/** A host that is named with its domain in one row and without in another is one. */
function shortNames(records: readonly MachineRecord[]): readonly MachineRecord[] {
  const names = new Set(records.map((r) => foldText(r.name)));
  const longBy = new Map<string, Set<string>>();
  const shortOf = (name: string): string | undefined => {
    const [short = ''] = name.split('.');
    return short !== name && /[a-z]/i.test(short) && names.has(foldText(short)) ? short : undefined;
  };
  for (const { name } of records) {
    const short = shortOf(name);
    if (short === undefined) continue;
    const long = longBy.get(foldText(short));
    if (long) long.add(foldText(name));
    else longBy.set(foldText(short), new Set([foldText(name)]));
  }
  return records.map((record) => {
    const short = shortOf(record.name);
    // Two domains that have such a host leave open which of them is meant.
    return short !== undefined && longBy.get(foldText(short))?.size === 1
      ? { ...record, name: short }
      : record;
  });
}
