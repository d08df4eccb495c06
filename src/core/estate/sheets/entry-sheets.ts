import { formatDay, parseMessyDay } from '../../date';
import { foldText } from '../../version';
import { wordOf } from '../links';
import { LINK_KINDS, type Link, type RightHeld, type System, type SystemCompanion } from '../schema';
import {
  editsByRow,
  isNewRow,
  type CellEdit,
  type Refusal,
  type Sheet,
  type SheetColumn,
  type SheetOutcome,
  type SheetSource
} from './sheet';

/** How entries of some kind are shown and set; `set` answers with a sentence where the text does not fit. */
interface EntryKind<T> {
  readonly columns: readonly SheetColumn[];
  readonly key: 'companions' | 'links';
  read(entry: T, column: string): string;
  set(entry: Partial<T>, column: string, text: string): Partial<T> | string;
  /** A sentence where an entry is not whole. */
  check(entry: Partial<T>): string | undefined;
}

/** One row a companion of a system. Clearing its name removes it. */
export function companionsSheet(source: SheetSource): Sheet {
  const choices = [
    ...new Set(source.catalogue.products.flatMap((p) => (p.companions ?? []).map((c) => c.name)))
  ];
  return entrySheet<SystemCompanion>(source, {
    key: 'companions',
    columns: [
      { id: 'name', name: 'companion', width: 240, choices },
      { id: 'version', name: 'version', width: 110 },
      { id: 'essential', name: 'essential', width: 90, choices: ['yes', 'no', ''] },
      { id: 'keyInHand', name: 'key in hand', width: 100, choices: ['yes', 'no', ''] }
    ],
    read: (c, column) => sayValue(c[column as 'name']),
    set: (c, column, text) => {
      if (column === 'essential' || column === 'keyInHand') {
        const folded = foldText(text);
        if (!['yes', 'no', ''].includes(folded)) return 'yes or no';
        const { [column]: _gone, ...rest } = c;
        void _gone;
        return folded === '' ? rest : { ...rest, [column]: folded === 'yes' };
      }
      const { [column as 'version']: _old, ...rest } = c;
      void _old;
      return text === '' ? rest : { ...rest, [column]: text.slice(0, 300) };
    },
    check: (c) => (c.name ? undefined : 'a companion needs a name')
  });
}

/** One row a link. `none` as the other end says that there is no such link; clearing the kind removes it. */
export function linksSheet(source: SheetSource): Sheet {
  const names = new Map(source.estate.systems.map((s) => [s.id, s.name]));
  const ids = new Map(source.estate.systems.map((s) => [foldText(s.name), s.id]));
  return entrySheet<Link>(source, {
    key: 'links',
    columns: [
      { id: 'kind', name: 'is', width: 120, choices: LINK_KINDS },
      { id: 'to', name: 'other system', width: 200 },
      { id: 'as', name: 'called in conditions', width: 150 }
    ],
    read: (l, column) => {
      if (column === 'to') return 'to' in l ? (names.get(l.to) ?? l.to) : 'none';
      return column === 'as' ? wordOf(l) : l.kind;
    },
    set: (l, column, text) => {
      const { as, kind } = l;
      const end =
        'to' in l && l.to !== undefined ? { to: l.to } : 'absent' in l ? { absent: true as const } : {};
      const named = as === undefined ? {} : { as };
      if (column === 'kind') {
        const next = LINK_KINDS.find((k) => k === foldText(text));
        if (text !== '' && !next) return `one of ${LINK_KINDS.join(', ')}`;
        return next
          ? ({ kind: next, ...end, ...named } as Partial<Link>)
          : ({ ...end, ...named } as Partial<Link>);
      }
      const own = kind === undefined ? {} : { kind };
      if (column === 'as')
        return { ...own, ...end, ...(text === '' ? {} : { as: text.slice(0, 300) }) } as Partial<Link>;
      if (foldText(text) === 'none') return { ...own, absent: true, ...named } as Partial<Link>;
      const to = ids.get(foldText(text));
      return to === undefined ? `no system is called ${text}` : ({ ...own, to, ...named } as Partial<Link>);
    },
    check: (l) =>
      l.kind === undefined
        ? 'say how it is linked'
        : 'to' in l || 'absent' in l
          ? undefined
          : 'name the other system'
  });
}

const sayValue = (value: unknown): string =>
  value === undefined ? '' : value === true ? 'yes' : value === false ? 'no' : String(value);

const SEPARATOR = '\u0001';

/** The sheet of entries that systems carry in a list: first the system, then the entry's own columns. */
function entrySheet<T extends object>(source: SheetSource, kind: EntryKind<T>): Sheet {
  const byId = new Map(source.systems.map((s) => [s.id, s]));
  const entriesOf = (system: System): readonly T[] => (system[kind.key] ?? []) as unknown as readonly T[];
  const find = (row: string): { system: System; at: number } | undefined => {
    const [id = '', at = ''] = row.split(SEPARATOR);
    const system = byId.get(id);
    return system && { system, at: Number(at) };
  };
  return {
    columns: [{ id: 'system', name: 'system', width: 170 }, ...kind.columns],
    rows: source.systems.flatMap((s) => entriesOf(s).map((_, i) => `${s.id}${SEPARATOR}${i}`)),
    read: (row, column) => {
      const found = find(row);
      const entry = found && entriesOf(found.system)[found.at];
      if (!found || !entry) return '';
      return column === 'system' ? found.system.name : kind.read(entry, column);
    },
    apply: (edits) => applyEntries(edits, source, kind, find)
  };
}

function applyEntries<T extends object>(
  edits: readonly CellEdit[],
  source: SheetSource,
  kind: EntryKind<T>,
  find: (row: string) => { system: System; at: number } | undefined
): SheetOutcome {
  const byName = new Map(source.estate.systems.map((s) => [foldText(s.name), s]));
  const lists = new Map<string, { system: System; entries: (T | undefined)[] }>();
  const open = (system: System): (T | undefined)[] => {
    const known = lists.get(system.id) ?? {
      system,
      entries: [...((system[kind.key] ?? []) as unknown as T[])]
    };
    lists.set(system.id, known);
    return known.entries;
  };
  const refused: Refusal[] = [];
  let cells = 0;
  let added = 0;
  for (const [row, list] of editsByRow(edits)) {
    const found = find(row);
    const name = list.find((e) => e.column === 'system')?.text.trim() ?? '';
    const system = found?.system ?? byName.get(foldText(name));
    const refuseAll = (why: string): void => void refused.push(...list.map((e) => ({ ...e, why })));
    if (!system || (!found && !isNewRow(row))) {
      if (list.some((e) => e.text.trim() !== ''))
        refuseAll(name === '' ? 'say of which system' : `no system is called ${name}`);
      continue;
    }
    if (found && name !== '' && foldText(name) !== foldText(found.system.name)) {
      refuseAll('an entry stays with its system; remove it and add it there');
      continue;
    }
    const before: Partial<T> = (found && open(system)[found.at]) ?? {};
    let entry = before;
    let hits = 0;
    for (const edit of list) {
      const text = edit.text.trim();
      if (edit.column === 'system' || (found && kind.read(before as T, edit.column) === text)) continue;
      const next = kind.set(entry, edit.column, text);
      if (typeof next === 'string') refused.push({ ...edit, why: next });
      else [entry, hits] = [next, hits + 1];
    }
    if (hits === 0) continue;
    const fault = kind.check(entry);
    const emptied = found && list.some((e) => e.text.trim() === '' && e.column === kind.columns[0]?.id);
    if (fault !== undefined && !emptied) {
      refuseAll(fault);
      continue;
    }
    cells += hits;
    if (!found) added++;
    if (found) open(system)[found.at] = emptied ? undefined : (entry as T);
    else open(system).push(entry as T);
  }
  const systems = [...lists.values()].flatMap(({ system, entries }): System[] => {
    const next = entries.filter((e) => e !== undefined);
    const { [kind.key]: was, ...rest } = system;
    if (JSON.stringify(was ?? []) === JSON.stringify(next)) return [];
    return [(next.length === 0 ? rest : { ...rest, [kind.key]: next }) as System];
  });
  return { systems, added, cells, refused };
}

/** One row a right held. Clearing the right removes the row. */
export function rightsSheet({ catalogue, estate, today, who }: SheetSource): Sheet {
  const rights = catalogue.products.flatMap((p) =>
    (p.rights ?? []).map((r) => ({ id: r.id, product: p.name }))
  );
  const source = who === '' ? 'typed in' : who;
  const at = (row: string): RightHeld | undefined => estate.rightsHeld[Number(row)];
  return {
    columns: [
      { id: 'right', name: 'right', width: 190, choices: rights.map((r) => r.id) },
      { id: 'product', name: 'product', width: 150, readOnly: true },
      { id: 'held', name: 'held', width: 80 },
      { id: 'pool', name: 'pool', width: 150 },
      { id: 'edition', name: 'edition', width: 110 },
      { id: 'team', name: 'for team', width: 130 },
      { id: 'site', name: 'for site', width: 130 },
      { id: 'until', name: 'until', width: 110 },
      { id: 'note', name: 'note', width: 260 }
    ],
    rows: estate.rightsHeld.map((_, i) => String(i)),
    read: (row, column) => {
      const held = at(row);
      if (column === 'product') return rights.find((r) => r.id === held?.right)?.product ?? '';
      return sayValue(held?.[column as 'right']);
    },
    apply: (edits) => {
      const next: (Partial<RightHeld> | undefined)[] = [...estate.rightsHeld];
      const refused: Refusal[] = [];
      let cells = 0;
      let added = 0;
      for (const [row, list] of editsByRow(edits)) {
        const before: Partial<RightHeld> = at(row) ?? {};
        let entry: Partial<RightHeld> = isNewRow(row) ? { held: 0, day: today, source } : before;
        let hits = 0;
        for (const edit of list) {
          const text = edit.text.trim();
          if (
            edit.column === 'product' ||
            (!isNewRow(row) && sayValue(before[edit.column as 'right']) === text)
          )
            continue;
          const set = setRight(entry, edit.column, text);
          if (typeof set === 'string') refused.push({ ...edit, why: set });
          else [entry, hits] = [set, hits + 1];
        }
        if (hits === 0) continue;
        const { right } = entry;
        if (right === undefined && isNewRow(row)) {
          if (list.some((e) => e.text.trim() !== ''))
            refused.push(...list.map((e) => ({ ...e, why: 'name the right' })));
          continue;
        }
        cells += hits;
        if (isNewRow(row)) [added] = [next.push(entry) - estate.rightsHeld.length];
        else next[Number(row)] = right === undefined ? undefined : { ...entry, day: today, source };
      }
      const rightsHeld = next.filter((r): r is RightHeld => r?.right !== undefined);
      return { systems: [], ...(cells > 0 ? { rightsHeld } : {}), added, cells, refused };
    }
  };
}

function setRight(entry: Partial<RightHeld>, column: string, text: string): Partial<RightHeld> | string {
  if (column === 'held') {
    if (/^(\?|unknown)$/i.test(text)) return { ...entry, held: 'unknown' };
    const held = Number(text === '' ? 0 : text);
    return Number.isInteger(held) && held >= 0 && held <= 10_000_000
      ? { ...entry, held }
      : 'a whole number, from 0, or ?';
  }
  if (text === '') return Object.fromEntries(Object.entries(entry).filter(([k]) => k !== column));
  if (column === 'until') {
    const read = parseMessyDay(text);
    return read ? { ...entry, until: formatDay(read.day) } : 'not a day';
  }
  return { ...entry, [column]: text.slice(0, column === 'note' ? 2000 : 300) };
}
