/** From edition to the editions a hop may arrive in, as the catalogue writes it; absent: every edition to itself. */
export type EditionTable = Readonly<Record<string, string | readonly string[]>> | undefined;

/** The editions one may arrive in from `from`. */
export const arrivesIn = (table: EditionTable, from: string): readonly string[] => {
  if (!table) return [from];
  const to = table[from];
  return to === undefined ? [] : typeof to === 'string' ? [to] : to;
};

/** The table with a pair taken in or out; written whole, so that what was meant before is said. */
export function withPair(
  table: EditionTable,
  editions: readonly string[],
  [from, to]: readonly [from: string, to: string],
  isOn: boolean
): Readonly<Record<string, string | readonly string[]>> {
  const rows = editions.map((edition): [string, string | readonly string[]] => {
    const before = arrivesIn(table, edition);
    const after = edition !== from ? before : editions.filter((e) => (e === to ? isOn : before.includes(e)));
    return [edition, after.length === 1 ? (after[0] ?? '') : after];
  });
  return Object.fromEntries(rows.filter(([, to]) => to.length > 0));
}
