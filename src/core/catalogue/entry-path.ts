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

/** The parts of such a path, outermost first; undoes `joinEntryPath`. */
export const splitEntryPath = (path: string): string[] =>
  path.split('/').map((p) => p.replaceAll('%2F', '/'));
