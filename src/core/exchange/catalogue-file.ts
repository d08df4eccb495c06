import { isAlias, isMap, isScalar, isSeq, type Document, type LineCounter } from 'yaml';
import {
  type Catalogue,
  CATALOGUE_FORMAT,
  CATALOGUE_VERSION,
  catalogueSchema,
  checkCatalogue,
  migrateCatalogue
} from '../catalogue';
import { type ConditionFault, parseCondition } from '../condition';
import { fail, type Issue, type Result, succeed } from '../kit';
import { readYaml } from './read-yaml';
import { issuesOfZod } from './zod-issues';

/**
 * Reads a catalogue from YAML or JSON text (JSON is YAML). Issues carry line and column.
 * Numbers outside the few numeric keys keep their spelling, so a release may be written `4.50` without quotes.
 */
export function parseCatalogue(text: string): Result<Catalogue> {
  const read = readYaml(text);
  if (!read.ok) return read;
  const { document, lines, value } = read.value;
  const locate = (issue: Issue): Issue => withPlace(issue, document, lines);
  const formatFault = findFormatFault(value);
  if (formatFault) return fail(locate(formatFault));
  const parsed = catalogueSchema.safeParse(migrateCatalogue(value));
  if (!parsed.success) return fail(...issuesOfZod(parsed.error, value).map(locate));
  const issues = checkCatalogue(parsed.data);
  return issues.length > 0 ? fail(...issues.map(locate)) : succeed(parsed.data);
}

/** The line a path of the file leads to, from 1; undefined where the text cannot be read. */
export function findLine(text: string, path: readonly (string | number)[]): number | undefined {
  const read = readYaml(text);
  return read.ok ? withPlace({ code: '', path }, read.value.document, read.value.lines).line : undefined;
}

function findFormatFault(value: unknown): Issue | undefined {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return { code: 'not-an-object' };
  const { format, version } = value as Record<string, unknown>;
  if (format !== CATALOGUE_FORMAT) return { code: 'wrong-format', detail: CATALOGUE_FORMAT };
  if (typeof version === 'number' && version > CATALOGUE_VERSION)
    return { code: 'newer-version', detail: String(version) };
  return undefined;
}

/** The line and column of the innermost node that exists on the issue's path. */
function withPlace(issue: Issue, document: Document.Parsed, lines: LineCounter): Issue {
  let node: unknown = document.contents;
  let offset = offsetOf(node);
  for (const step of issue.path ?? []) {
    if (isAlias(node)) node = node.resolve(document);
    if (!isMap(node) && !isSeq(node)) break;
    node = node.get(step, true);
    const at = offsetOf(node);
    if (at === undefined) break;
    offset = at;
  }
  if (offset === undefined) return issue;
  const fault = issue.code === 'condition-text' ? findFaultIn(node) : undefined;
  const place = lines.linePos(offset + (fault?.at ?? 0));
  return { ...issue, ...(fault ? { fault: fault.fault } : {}), line: place.line, column: place.col };
}

/** Where in a scalar its condition breaks off, and what would have fitted. */
function findFaultIn(node: unknown): { at: number; fault: ConditionFault } | undefined {
  if (!isScalar(node) || typeof node.value !== 'string') return undefined;
  const parsed = parseCondition(node.value);
  if (!('fault' in parsed)) return undefined;
  const quoted = node.type === 'QUOTE_DOUBLE' || node.type === 'QUOTE_SINGLE';
  const length = (node.range?.[1] ?? 0) - (node.range?.[0] ?? 0) - (quoted ? 2 : 0);
  // A text with escapes or line breaks has no plain offset; its start will do.
  const at = length === node.value.length ? parsed.fault.at + (quoted ? 1 : 0) : 0;
  return { at, fault: parsed.fault };
}

function offsetOf(node: unknown): number | undefined {
  const range = typeof node === 'object' && node !== null && 'range' in node ? node.range : undefined;
  return Array.isArray(range) && typeof range[0] === 'number' ? range[0] : undefined;
}
