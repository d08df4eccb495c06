import { foldText } from '../version';

const PLAIN_ID = /^[a-z0-9](?:[a-z0-9-]{0,78}[a-z0-9])?$/;

/** An id from a name that no system has yet; it is added to `taken`. */
export function newSystemId(name: string, taken: Set<string>): string {
  const base = PLAIN_ID.test(name)
    ? name
    : foldText(name)
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-+|-+$/g, '')
        .slice(0, 80) || 'system';
  let id = base;
  for (let n = 2; taken.has(id); n++) id = `${base}-${n}`;
  taken.add(id);
  return id;
}
