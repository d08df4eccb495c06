import { type Day, formatDay } from '../date';
import type { Catalogue } from '../catalogue';
import { isSurelyBefore, spanOfText, type LintFinding } from './finding';

/** After so many days without anybody looking, a source is stale. */
const STALE_DAYS = 365;

/** Sources nobody looked at for a year, nobody refers to, or read before they were written; entries nobody vouches for. */
export function lintSources(catalogue: Catalogue, today: Day, add: (finding: LintFinding) => void): void {
  const used = gatherValues(catalogue.products, 'source');
  for (const value of gatherValues([catalogue.lists, catalogue.facts], 'source')) used.add(value);
  (catalogue.sources ?? []).forEach((source, i) => {
    const path = ['sources', i];
    const detail = { source: source.title, read: source.read ?? '', written: source.written ?? '' };
    if (!used.has(source.id))
      add({ code: 'unused-source', kind: 'note', path, detail, mend: [{ kind: 'remove', path }] });
    const read = spanOfText(source.read ?? source.written);
    if (read && read.last + STALE_DAYS < today)
      add({
        code: 'stale-source',
        kind: 'note',
        path: [...path, source.read === undefined ? 'written' : 'read'],
        detail,
        mend: [{ kind: 'set', path: [...path, 'read'], value: formatDay(today) }]
      });
    if (isSurelyBefore(source.read, source.written))
      add({ code: 'read-before-written', kind: 'fault', path: [...path, 'read'], detail });
  });
  const lists = gatherLists(catalogue);
  (catalogue.lists ?? []).forEach((list, i) => {
    if (!lists.has(list.id))
      add({
        code: 'unused-list',
        kind: 'note',
        path: ['lists', i],
        detail: { list: list.name },
        mend: [{ kind: 'remove', path: ['lists', i] }]
      });
  });
  catalogue.products.forEach((product, i) => {
    if (product.source) return;
    for (const list of ['hops', 'rights', 'requirements', 'cautions', 'pairings', 'companions'] as const)
      product[list]?.forEach((entry, j) => {
        if (!entry.source)
          add({
            code: 'no-source',
            kind: 'hole',
            path: ['products', i, list, j],
            detail: { entry: entry.id }
          });
      });
  });
}

/** Every text under a key, anywhere in a value. */
function gatherValues(root: unknown, wanted: string): Set<string> {
  const found = new Set<string>();
  const walk = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return;
    for (const [key, child] of Object.entries(value)) {
      if (key === wanted && typeof child === 'string') found.add(child);
      else walk(child);
    }
  };
  walk(root);
  return found;
}

/** Lists that some condition names. */
function gatherLists(catalogue: Catalogue): ReadonlySet<string> {
  const found = new Set<string>();
  for (const key of ['needs', 'when', 'from', 'firstTo'])
    for (const text of gatherValues(catalogue.products, key))
      for (const match of text.matchAll(/\blisted in ([A-Za-z0-9._-]+)/g)) found.add(match[1] ?? '');
  return found;
}
