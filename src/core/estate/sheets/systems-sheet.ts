import { BASE_PATCH, foldText, ONLY } from '../../version';
import { Names, type Product } from '../../catalogue';
import { formatDay, parseMessyDay } from '../../date';
import { readInstalled } from '../read-installed';
import { newSystemId } from '../system-id';
import { STAGES, UNKNOWN_WHY, type Reading, type System } from '../schema';
import {
  editsByRow,
  isNewRow,
  type CellEdit,
  type Refusal,
  type Sheet,
  type SheetColumn,
  type SheetSource
} from './sheet';

const BLANK: Reading = { unknown: 'not asked' };

/** One row a system: what is installed, where it stands and whose it is. */
export function systemsSheet(source: SheetSource): Sheet {
  const { catalogue, estate, systems } = source;
  const products = new Map(catalogue.products.map((p) => [p.id, p]));
  const byId = new Map(systems.map((s) => [s.id, s]));
  const teams = [...new Set(estate.systems.flatMap((s) => s.team ?? []))].sort();
  const column = (id: string, name: string, width: number, choices?: readonly string[]): SheetColumn => ({
    id,
    name,
    width,
    ...(choices ? { choices } : {})
  });
  return {
    columns: [
      column('name', 'name', 150),
      column(
        'product',
        'product',
        150,
        catalogue.products.map((p) => p.name)
      ),
      column('release', 'release', 90),
      column('patch', 'patch level', 86),
      column('edition', 'edition', 90),
      column('architecture', 'architecture', 96),
      column('team', 'team', 130, teams),
      column('site', 'site', 110),
      column('nodes', 'nodes', 56),
      column('stage', 'stage', 86, ['in use', ...STAGES]),
      column('observed', 'read on', 100),
      column('installedText', 'text as read', 190),
      column('note', 'note', 240)
    ],
    rows: systems.map((s) => s.id),
    read: (row, id) => {
      const system = byId.get(row);
      return system ? readCell(system, id, productOf(products, system)) : '';
    },
    apply: (edits) => applyEdits(edits, source, products, byId)
  };
}

const productOf = (products: ReadonlyMap<string, Product>, system: System): Product | undefined =>
  'is' in system.product ? products.get(system.product.is) : undefined;

function readCell(system: System, column: string, product: Product | undefined): string {
  const names = new Names(product);
  switch (column) {
    case 'product':
      return product?.name ?? readingText(system.product, (id) => id);
    case 'release':
      return readingText(system.release, (id) => names.release(id));
    case 'patch':
      return readingText(system.patch, (id) =>
        id === BASE_PATCH ? BASE_PATCH : names.patch('is' in system.release ? system.release.is : '', id)
      );
    case 'edition':
      return readingText(system.edition, (id) => names.edition(id));
    case 'architecture':
      return readingText(system.architecture, (id) => names.architecture(id));
    case 'nodes':
      return system.nodes === undefined ? '' : String(system.nodes);
    case 'stage':
      return system.stage ?? 'in use';
    default:
      return String(system[column as 'name' | 'team' | 'site' | 'observed' | 'installedText' | 'note'] ?? '');
  }
}

/** `4`, `4 or 5`, `? no access`; empty where nobody asked. */
function readingText(reading: Reading, name: (id: string) => string): string {
  if ('is' in reading) return name(reading.is);
  if ('oneOf' in reading) return reading.oneOf.map(name).join(' or ');
  return reading.unknown === 'not asked' ? '' : `? ${reading.unknown}`;
}

function applyEdits(
  edits: readonly CellEdit[],
  source: SheetSource,
  products: ReadonlyMap<string, Product>,
  byId: ReadonlyMap<string, System>
): ReturnType<Sheet['apply']> {
  const refused: Refusal[] = [];
  const changed: System[] = [];
  const ids = new Set(source.estate.systems.map((s) => s.id));
  const taken = new Map(source.estate.systems.map((s) => [foldText(s.name), s.id]));
  let added = 0;
  let cells = 0;
  for (const [row, list] of editsByRow(edits)) {
    const before = byId.get(row);
    const name = list
      .find((e) => e.column === 'name')
      ?.text.trim()
      .slice(0, 300);
    if (!before && (!isNewRow(row) || !name)) {
      for (const edit of list)
        if (edit.text.trim() !== '') refused.push({ ...edit, why: 'a new row needs a name' });
      continue;
    }
    if (name !== undefined && name !== '' && (taken.get(foldText(name)) ?? row) !== row) {
      refused.push(...list.map((edit) => ({ ...edit, why: `there is a system called ${name} already` })));
      continue;
    }
    let system = before ?? newSystem(name ?? '', ids, source.today);
    let hits = 0;
    for (const edit of ordered(list)) {
      const next = setCell(system, edit, source, products);
      if (typeof next === 'string') refused.push({ ...edit, why: next });
      else if (next !== system) [system, hits] = [next, hits + 1];
    }
    if (before && hits === 0) continue;
    taken.set(foldText(system.name), before ? row : system.id);
    cells += hits;
    if (!before) added++;
    changed.push(before ? withHistory(before, system, source) : system);
  }
  return { systems: changed, added, cells, refused };
}

/** The text first, then product before release before level: what is more exact is read last. */
const ORDER = ['name', 'installedText', 'product', 'release', 'patch', 'edition', 'architecture'];
const ordered = (edits: readonly CellEdit[]): CellEdit[] => {
  const rank = ({ column }: CellEdit): number => {
    const at = ORDER.indexOf(column);
    return at < 0 ? ORDER.length : at;
  };
  return [...edits].sort((a, b) => rank(a) - rank(b));
};

/** A system of which only the name is known; its id is made from the name and added to those taken. */
export function newSystem(name: string, ids: Set<string>, today: string): System {
  return {
    id: newSystemId(name, ids),
    name,
    product: BLANK,
    release: BLANK,
    patch: BLANK,
    edition: BLANK,
    architecture: BLANK,
    history: [{ day: today, kind: 'added' }]
  };
}

/** The system with one cell set; the same one where nothing changes; a sentence where the text does not fit. */
function setCell(
  system: System,
  { column, text }: CellEdit,
  source: SheetSource,
  products: ReadonlyMap<string, Product>
): System | string {
  const product = productOf(products, system);
  const clean = text.trim();
  if (readCell(system, column, product) === clean) return system;
  switch (column) {
    case 'name':
      return clean === '' ? 'a system needs a name' : { ...system, name: clean.slice(0, 300) };
    case 'installedText':
      return clean === '' ? without(system, 'installedText') : readText(system, clean, source);
    case 'product':
      return setProduct(system, clean, source);
    case 'release':
    case 'patch':
    case 'edition':
    case 'architecture':
      return setPart(system, column, clean, product);
    case 'nodes':
      return setNodes(system, clean);
    case 'stage':
      return setStage(system, clean);
    case 'observed': {
      if (clean === '') return without(system, 'observed');
      const read = parseMessyDay(clean);
      return !read ? 'not a day' : { ...system, observed: formatDay(read.day) };
    }
    case 'team':
    case 'site':
      return clean === '' ? without(system, column) : { ...system, [column]: clean.slice(0, 500) };
    case 'note':
      return clean === '' ? without(system, 'note') : { ...system, note: clean.slice(0, 5000) };
    default:
      return 'this column cannot be changed';
  }
}

function without<K extends keyof System>(system: System, key: K): System {
  const { [key]: _gone, ...rest } = system;
  void _gone;
  return rest as System;
}

/** What runs something is neither bare nor a candidate any more. */
function inUse(system: System): System {
  if (system.stage === undefined || system.stage === 'retired') return system;
  return without(without(system, 'stage'), 'meantFor');
}

const readText = (system: System, text: string, { catalogue }: SheetSource): System => ({
  ...inUse(system),
  installedText: text.slice(0, 500),
  ...readInstalled(catalogue, { installed: text.slice(0, 500) }).readings
});

function setProduct(system: System, text: string, { catalogue }: SheetSource): System | string {
  const rest = { release: BLANK, patch: BLANK, edition: BLANK, architecture: BLANK };
  if (text === '') return { ...system, product: BLANK, ...rest };
  const { readings } = readInstalled(catalogue, { product: text });
  if (!('is' in readings.product)) return 'not a product of the catalogue';
  return { ...inUse(system), ...readings };
}

function setPart(
  system: System,
  part: 'release' | 'patch' | 'edition' | 'architecture',
  text: string,
  product: Product | undefined
): System | string {
  if (!product) return 'set the product first';
  const why = UNKNOWN_WHY.find((w) => text === `? ${w}`);
  const reading =
    text === '' || text === '?' ? BLANK : why ? { unknown: why } : findPart(system, part, text, product);
  if (!reading) return `${product.name} has no ${part === 'patch' ? 'patch level' : part} ${text}`;
  // Another release: its levels are others; with none but its base that is the one.
  if (part === 'release') {
    const release = product.releases.find((r) => 'is' in reading && r.id === reading.is);
    const patch: Reading = release && (release.patches ?? []).length === 0 ? { is: BASE_PATCH } : BLANK;
    return { ...system, release: reading, patch };
  }
  return { ...system, [part]: reading };
}

function findPart(
  system: System,
  part: 'release' | 'patch' | 'edition' | 'architecture',
  text: string,
  product: Product
): Reading | undefined {
  const release = product.releases.find((r) => 'is' in system.release && r.id === system.release.is);
  const lists = {
    release: product.releases,
    patch: [{ id: BASE_PATCH }, ...(release?.patches ?? [])],
    edition: product.editions ?? [{ id: ONLY }],
    architecture: product.architectures ?? [{ id: ONLY }]
  };
  const find = (word: string): string | undefined =>
    (lists[part] as readonly { id: string; name?: string; aliases?: readonly string[] }[]).find((e) =>
      [e.name ?? e.id, e.id, ...(e.aliases ?? [])].some((n) => foldText(n) === foldText(word))
    )?.id;
  const ids = text.split(/\s+or\s+/).map(find);
  if (ids.some((id) => id === undefined)) return undefined;
  const [only] = ids as string[];
  return ids.length === 1 && only !== undefined ? { is: only } : { oneOf: ids as string[] };
}

function setNodes(system: System, text: string): System | string {
  if (text === '' || text === '1') return without(system, 'nodes');
  const nodes = Number(text);
  return Number.isInteger(nodes) && nodes > 1 && nodes <= 1000
    ? { ...system, nodes }
    : 'a whole number from 1 to 1,000';
}

function setStage(system: System, text: string): System | string {
  if (text === '' || text === 'in use') return without(system, 'stage');
  const stage = STAGES.find((s) => s === text);
  return stage ? { ...system, stage } : `one of in use, ${STAGES.join(', ')}`;
}

/** What stood there before is kept, when what is installed or the stage changed. */
function withHistory(before: System, system: System, source: SheetSource): System {
  const { today, who } = source;
  const was = source.describe(before);
  const by = who === '' ? {} : { who };
  const events = [...(system.history ?? [])];
  if (before.stage !== system.stage && (before.stage === 'retired' || system.stage === 'retired'))
    events.push({ day: today, kind: system.stage === 'retired' ? 'retired' : 'brought back', ...by });
  if (was !== source.describe(system))
    events.push({ day: today, kind: 'changed', was: was.slice(0, 500), ...by });
  return events.length === (system.history ?? []).length
    ? system
    : { ...system, history: events.slice(-500) };
}
