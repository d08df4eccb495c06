import { foldText } from '../../version';
import type { Requirement } from '../schema';
import { freeId } from '../sketch/sketch';
import { cleanCell } from './cells';
import { LEFT_OUT, type TableChange, type TableReader } from './reader';

/** Facts a list of what a release knows can be of. */
export const LIST_FACTS = ['processor.model', 'model', 'drive.kind', 'network.kind'] as const;

/** The fact a list is of, from its title and headings. */
export const listFactOf = (text: string): string =>
  /processor|cpu/i.test(text)
    ? 'processor.model'
    : /network/i.test(text)
      ? 'network.kind'
      : /drive|dis[ck]/i.test(text)
        ? 'drive.kind'
        : 'model';

const FAMILY = 'its family';
const ENTRY = 'on the list';
const MOST = 100_000;

/** Names in one cell; a figure alone carries on the words of the name before it (`Quill 40, 44`). */
function namesIn(cell: string, family: string): string[] {
  const found: string[] = [];
  for (const piece of cell.split(/[,;•\n]/).map(cleanCell)) {
    if (piece === '') continue;
    const before = found.at(-1) ?? family;
    const isShort = /^\w*\d\w*$/.test(piece) && /\s/.test(before);
    const lead = family !== '' && !foldText(piece).startsWith(foldText(family)) ? family : '';
    found.push(
      lead !== '' ? `${lead} ${piece}` : isShort ? `${before.replace(/\s+\S+$/, '')} ${piece}` : piece
    );
  }
  return found;
}

/** A list of processors, models or parts that releases know, and the demand to be on it. */
export const listReader: TableReader = {
  roles: [ENTRY, FAMILY, LEFT_OUT],
  meanings: () => [],
  suggestRoles({ head, rows }) {
    const roles = head.map((h): string => (/famil|series|brand|maker|range/i.test(h) ? FAMILY : LEFT_OUT));
    const named = head.findIndex(
      (h, i) => roles[i] === LEFT_OUT && /model|processor|cpu|name|number|device/i.test(h)
    );
    const filled = head.findIndex((_, i) => roles[i] === LEFT_OUT && rows.some((r) => (r[i] ?? '') !== ''));
    const at = named >= 0 ? named : filled;
    return roles.map((r, i) => (i === at ? ENTRY : r));
  },
  words: () => [],
  suggestMeaning: () => LEFT_OUT,
  take(reading, ground) {
    const [entry, family] = [reading.roles.indexOf(ENTRY), reading.roles.indexOf(FAMILY)];
    const left: number[] = [];
    const names = reading.table.rows.flatMap((row, i) => {
      const found = namesIn(row[entry] ?? '', cleanCell(row[family] ?? ''));
      if (found.length === 0) left.push(i);
      return found.map((n) => n.slice(0, 300));
    });
    const { fact = 'model', at, isWhole = false } = reading.about;
    const known = ground.lists.find(
      (l) => l.source === reading.source || foldText(l.name) === foldText(reading.title)
    );
    const has = new Set((known?.entries ?? []).map(foldText));
    const said = new Set(names.map(foldText));
    const changes: TableChange[] = [
      ...[...new Map(names.map((n) => [foldText(n), n])).values()].map((what): TableChange => ({
        kind: has.has(foldText(what)) ? 'same' : 'new',
        what,
        details: []
      })),
      ...(known?.entries ?? [])
        .filter((e) => !said.has(foldText(e)))
        .map((what): TableChange => ({ kind: 'gone', what, details: [] }))
    ];
    const fresh = changes.filter((c) => c.kind === 'new').map((c) => c.what);
    if (names.length === 0) return { ...ground, changes: [], left, unread: [] };
    const id = known?.id ?? freeId(reading.title || 'list', new Set(ground.lists.map((l) => l.id)));
    const list = {
      ...(known ?? {
        id,
        name: reading.title || 'List',
        ...(isWhole ? {} : { partial: true }),
        source: reading.source
      }),
      entries: [...(known?.entries ?? []), ...fresh].slice(0, MOST)
    };
    const lists = known ? ground.lists.map((l) => (l === known ? list : l)) : [...ground.lists, list];
    const needs = `${fact} is listed in ${id}`;
    const requirements = ground.product.requirements ?? [];
    const isAsked = requirements.some((r) => r.needs.includes(`is listed in ${id}`));
    const asked: Requirement = {
      id: freeId(`${id}-listed`, new Set(requirements.map((r) => r.id))),
      at: at ?? 'any',
      grade: 'blocks',
      needs,
      source: reading.source
    };
    return {
      ...ground,
      lists,
      product: { ...ground.product, ...(isAsked ? {} : { requirements: [...requirements, asked] }) },
      changes,
      left,
      unread: []
    };
  }
};
