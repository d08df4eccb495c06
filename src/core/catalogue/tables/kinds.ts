import { foldText } from '../../version';
import type { Catalogue, Product } from '../schema';
import { cleanCell, isDated, type ReleaseTable } from './cells';
import { companionsReader } from './companions';
import { listReader } from './compat-list';
import { editionsReader, looksLikeEditions } from './editions';
import { featuresReader } from './features';
import { hopsReader, readHopGrid } from './hop-grid';
import { lifeCycleReader } from './life-cycle';
import { placesOfProduct } from './places';
import { problemsReader } from './problems';
import type { TableKind, TableReader } from './reader';
import { requirementsReader } from './requirements';

export const TABLE_READERS: Readonly<Record<TableKind, TableReader>> = {
  'life cycle': lifeCycleReader,
  hops: hopsReader,
  editions: editionsReader,
  requirements: requirementsReader,
  list: listReader,
  companions: companionsReader,
  problems: problemsReader,
  features: featuresReader
};

const PROBLEMS = /\b(problem|issue|fault|defect|bug|known|work.?around|symptom)s?\b/i;
const NEEDS = /\b(least|minimum|min\.?|recommended|requirements?|required|needs)\b/i;
const FEATURES =
  /\b(features?|new|brings|gains?|added|introduced|drops|dropped|removed|deprecated|lost|instead)\b/i;
const THINGS =
  /\b(devices?|applications?|extensions?|plug.?ins?|drivers?|add.?ons?|programs?|compatib\w*|third.party|sources?)\b/i;
const LISTS = /\b(processors?|cpus?|models?|hardware list|supported)\b/i;

/** What a table is most likely about, from its title, its headings and its cells; `product`: what it is of, where that is known. */
export function suggestKind({
  title,
  table,
  product
}: {
  readonly title: string;
  readonly table: ReleaseTable;
  readonly product?: Product;
}): TableKind {
  const { head, rows } = table;
  const names = product ? [product.name, ...(product.aliases ?? [])] : [];
  if (looksLikeEditions(table, product)) return 'editions';
  if (readHopGrid(table, { names })) return 'hops';
  const words = `${title} ${head.join(' ')}`;
  const dated = head.filter((_, i) => {
    const cells = rows.map((r) => cleanCell(r[i] ?? '')).filter((c) => c !== '');
    return (
      cells.length > 0 && cells.filter((c) => isDated(c) && !/^\d{4}$/.test(c)).length >= cells.length / 2
    );
  }).length;
  if (head.filter((h) => PROBLEMS.test(h)).length > 0) return 'problems';
  if (dated > 0 && !head.some((h) => NEEDS.test(h))) return 'life cycle';
  if (head.some((h) => NEEDS.test(h))) return 'requirements';
  const places = product && placesOfProduct(product);
  const along = head.filter((h) => places?.find(h) !== undefined).length;
  if (THINGS.test(head.join(' ')) || (along > 0 && THINGS.test(title))) return 'companions';
  if (head.filter((h) => FEATURES.test(h)).length > 0) return 'features';
  if (head.filter((h) => h.trim() !== '').length <= 3 && LISTS.test(words)) return 'list';
  if (PROBLEMS.test(title)) return 'problems';
  return 'life cycle';
}

/** A table that has a column of products, or labels with their names before them, parted by them; others as they are. */
export function partByProduct<T extends ReleaseTable & { readonly title: string }>(
  table: T,
  known: readonly string[] = []
): T[] {
  const roles = lifeCycleReader.suggestRoles(table, { product: NOBODY, lists: [], facts: [] });
  const [column, release] = [roles.indexOf('product'), roles.indexOf('release')];
  const fold = (text: string): string => text.toLowerCase();
  const longest = [...known].sort((a, b) => b.length - a.length);
  const productOf = (row: readonly string[]): string =>
    column >= 0
      ? cleanCell(row[column] ?? '')
      : (longest.find((n) => fold(cleanCell(row[release] ?? '')).startsWith(`${fold(n)} `)) ?? '');
  if (release < 0) return [table];
  const groups = new Map<string, (readonly string[])[]>();
  for (const row of table.rows) {
    const name = productOf(row);
    if (name === '') return [table];
    const group = groups.get(name);
    if (group) group.push(row);
    else groups.set(name, [row]);
  }
  const isParted = column >= 0 ? groups.size < table.rows.length || groups.size === 1 : groups.size > 1;
  if (!isParted) return [table];
  return [...groups].map(([name, rows]) => ({ ...table, title: name, rows }));
}

const NOBODY: Product = { id: 'x', name: '', publisher: '', releases: [], hopTable: 'partial' };

/** The product whose name stands in a text; the longest of several. */
export function productNamedIn(catalogue: Catalogue | undefined, text: string): Product | undefined {
  const folded = ` ${foldText(text).replace(/[:,;.()]+(?=\s|$)/g, ' ')} `;
  const found = (catalogue?.products ?? []).flatMap((p) =>
    [p.name, ...(p.aliases ?? [])]
      .filter((n) => folded.includes(` ${foldText(n)} `))
      .map((n) => ({ p, length: n.length }))
  );
  return found.sort((a, b) => b.length - a.length)[0]?.p;
}
