/** The name an element of a list goes by: its id, or the phase of a service. Undefined for lists of plain values. */
export function entryKey(value: unknown): string | undefined {
  if (typeof value !== 'object' || value === null) return undefined;
  const { id, phase } = value as { id?: unknown; phase?: unknown };
  if (typeof id === 'string') return id;
  return typeof phase === 'string' ? phase : undefined;
}

/** One entry of a catalogue by ids, outermost first: `box/hops/box-3-4`, `box/lines/l1/service/full`. */
export const joinEntryPath = (parts: readonly string[]): string =>
  parts.map((p) => p.replaceAll('/', '%2F')).join('/');

/** A path of the file (`products`, 0, `hops`, 2, `levels`) as the path of the entry that holds it. */
export function entryPathOf(root: unknown, path: readonly (string | number)[]): string {
  const parts: string[] = [];
  let node: unknown = root;
  let length = 0;
  for (const [i, step] of path.entries()) {
    node =
      typeof node === 'object' && node !== null
        ? (node as Record<string | number, unknown>)[step]
        : undefined;
    const key = typeof step === 'number' ? entryKey(node) : undefined;
    if (typeof step === 'number' && key === undefined) break;
    if (i === 0 && step === 'products') continue;
    parts.push(key ?? String(step));
    if (key !== undefined) length = parts.length;
  }
  return joinEntryPath(parts.slice(0, length));
}
