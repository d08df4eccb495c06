import type { Catalogue } from '../catalogue';
import { readInstalled, type SystemCompanion } from '../estate';
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
  const isByApplication =
    repeated >= named.length * REPEATED && [...groups.values()].some((g) => isOfApplications(g, catalogue));
  if (!isByApplication) return [...named];
  return [...groups.values()]
    .flatMap((group) => (group.length > 1 || groups.size < named.length ? joined(group, catalogue) : group))
    .sort((a, b) => a.row - b.row);
}

/** Rows of one system that name a node each are one record, with what the node says that is furthest behind. */
function ofNodes(records: readonly MachineRecord[]): readonly MachineRecord[] {
  if (!records.some((r) => r.node !== undefined)) return records;
  const byName = new Map<string, MachineRecord[]>();
  for (const r of records) byName.set(foldText(r.name), [...(byName.get(foldText(r.name)) ?? []), r]);
  return [...byName.values()].flatMap((group) => {
    const nodes = new Set(group.map((r) => foldText(r.node ?? '')));
    if (group.length < 2 || nodes.size < group.length) return group;
    const [lowest] = [...group].sort((a, b) => byFigures.compare(versionIn(a), versionIn(b)));
    return lowest && group[0] ? [{ ...group[0], texts: lowest.texts, nodes: group.length }] : group;
  });
}

const byFigures = new Intl.Collator('en', { numeric: true });
const versionIn = ({ texts }: MachineRecord): string =>
  [texts.installed, texts.version, texts.patch, texts.build].filter(Boolean).join(' ');

/** Whether rows of a machine are of different things, with names of their own: most of them nothing the catalogue knows. */
function isOfApplications(group: readonly MachineRecord[], catalogue: Catalogue): boolean {
  const names = new Set(group.map((r) => foldText(wordsIn(r))).filter((n) => /[a-z]{3}/.test(n)));
  const known = group.filter((r) => 'is' in readInstalled(catalogue, r.texts).readings.product);
  return group.length > 1 && names.size > group.length / 2 && known.length * 2 <= group.length;
}

const wordsIn = ({ texts }: MachineRecord): string =>
  [texts.product, texts.installed].filter(Boolean).join(' ');

function joined(group: readonly MachineRecord[], catalogue: Catalogue): MachineRecord[] {
  const known = group.map(
    (r) => 'is' in readInstalled(catalogue, r.texts).readings.product && !MENDS.test(wordsIn(r))
  );
  const at = known.indexOf(true);
  const main = group[at];
  const seen = new Set<string>();
  const left: MachineRecord[] = [];
  const companions: SystemCompanion[] = [];
  group.forEach((record, i) => {
    if (i === at) return;
    const name = wordsIn(record).slice(0, 300);
    const version = record.texts.version ?? record.texts.build;
    const key = foldText(`${name} ${version ?? ''}`);
    if (name === '') return;
    if (MENDS.test(name)) left.push({ ...record, left: { code: 'mends', detail: name } });
    else if (seen.has(key) || known[i])
      left.push({ ...record, left: { code: 'repeats', detail: String(main?.row ?? group[0]?.row ?? '') } });
    else companions.push({ name, ...(version === undefined ? {} : { version }) });
    seen.add(key);
  });
  const [first] = group;
  const base = main ?? (first && { ...first, texts: {} });
  if (!base) return left;
  const all = [...(base.companions ?? []), ...companions];
  return [{ ...base, ...(all.length > 0 ? { companions: all } : {}) }, ...left];
}

/** A host that is named with its domain in one row and without in another is one. */
function shortNames(records: readonly MachineRecord[]): readonly MachineRecord[] {
  const names = new Set(records.map((r) => foldText(r.name)));
  return records.map((record) => {
    const [short = ''] = record.name.split('.');
    return short !== record.name && names.has(foldText(short)) ? { ...record, name: short } : record;
  });
}
