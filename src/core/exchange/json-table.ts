import { fail, type Result } from '../kit';
import { checkTable, type TableText } from './csv-in';
import { parseJson } from './workspace-file';

const MAX_DEPTH = 4;
const MAX_KEYS = 500;

/**
 * A JSON list of machines as a table: an array of objects, alone or under any one key of an object. Keys of objects
 * inside are joined with a dot (`os.version`); lists of words become one cell.
 */
export function parseJsonTable(text: string): Result<TableText> {
  const json = parseJson(text);
  if (!json.ok) return json;
  const list = findList(json.value);
  if (!list) return fail({ code: 'no-list' });
  const headings = new Map<string, number>();
  const cells = list.map((item) => {
    const flat = new Map<string, string>();
    flatten(item, [], flat);
    for (const key of flat.keys())
      if (!headings.has(key) && headings.size < MAX_KEYS) headings.set(key, headings.size);
    return flat;
  });
  if (headings.size === 0) return fail({ code: 'no-list' });
  const rows = cells.map((flat) => [...headings.keys()].map((key) => flat.get(key) ?? ''));
  return checkTable({ rows: [[...headings.keys()], ...rows] });
}

function findList(value: unknown): readonly unknown[] | undefined {
  if (Array.isArray(value)) return value.some(isObject) ? (value as unknown[]) : undefined;
  if (!isObject(value)) return undefined;
  const lists = Object.values(value).filter((v): v is unknown[] => Array.isArray(v) && v.some(isObject));
  return lists.sort((a, b) => b.length - a.length)[0] ?? [value];
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

function flatten(value: unknown, path: readonly string[], into: Map<string, string>): void {
  if (isObject(value)) {
    if (path.length < MAX_DEPTH) for (const [k, v] of Object.entries(value)) flatten(v, [...path, k], into);
    return;
  }
  if (value === null || value === undefined || path.length === 0) return;
  const text = Array.isArray(value)
    ? value
        .map((v) => (isObject(v) ? [v['name'] ?? '', v['version'] ?? ''].join(' ').trim() : v))
        .filter((v) => typeof v !== 'object' && v !== '')
        .join('; ')
    : String(value);
  into.set(path.join('.').slice(0, 300), text.trim().slice(0, 5000));
}
