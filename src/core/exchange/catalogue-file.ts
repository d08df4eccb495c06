import { isAlias, isMap, isScalar, isSeq, LineCounter, parseDocument, visit, type Document } from 'yaml';
import { checkCatalogue } from '../catalogue/check';
import { migrateCatalogue } from '../catalogue/migrate';
import {
  CATALOGUE_FORMAT,
  CATALOGUE_VERSION,
  catalogueSchema,
  NUMBER_KEYS,
  type Catalogue
} from '../catalogue/schema';
import { parseCondition } from '../condition/parse-condition';
import { describeConditionFault } from '../wording/condition';
import { findTextFault, findValueFault, MAX_ALIASES, MAX_NESTING } from './guard';
import { fail, succeed, type Issue, type Result } from '../issue';
import { issuesOfZod } from './zod-issues';

/**
 * Reads a catalogue from YAML or JSON text (JSON is YAML). Issues carry line and column.
 * Numbers outside the few numeric keys keep their spelling, so a release may be written `4.50` without quotes.
 */
export function parseCatalogue(text: string): Result<Catalogue> {
  const fault = findTextFault(text);
  if (fault) return fail(fault);
  const lines = new LineCounter();
  const read = readDocument(text, lines);
  if (!read.ok) return read;
  const locate = (issue: Issue): Issue => withPlace(issue, read.value, lines);
  const value = toValue(read.value);
  if (!value.ok) return value;
  const valueFault = findValueFault(value.value) ?? findFormatFault(value.value);
  if (valueFault) return fail(locate(valueFault));
  const parsed = catalogueSchema.safeParse(migrateCatalogue(value.value));
  if (!parsed.success) return fail(...issuesOfZod(parsed.error).map(locate));
  const issues = checkCatalogue(parsed.data);
  return issues.length > 0 ? fail(...issues.map(locate)) : succeed(parsed.data);
}

/** The value of a catalogue's text with every spelling kept, unchecked; undefined where the text cannot be read. */
export function readCatalogueValue(text: string): unknown {
  const read = findTextFault(text) ? undefined : readDocument(text, new LineCounter());
  const value = read?.ok ? toValue(read.value) : undefined;
  return value?.ok && !findValueFault(value.value) ? value.value : undefined;
}

function readDocument(text: string, lineCounter: LineCounter): Result<Document.Parsed> {
  try {
    const document = parseDocument(text, { lineCounter, uniqueKeys: true, merge: false });
    const first = document.errors[0];
    if (!first) return succeed(document);
    const at = lineCounter.linePos(first.pos[0]);
    // The reader reports its own overflow as an error in the text.
    if (first.message.startsWith('Maximum call stack'))
      return fail({ code: 'too-deep', detail: String(MAX_NESTING), line: at.line, column: at.col });
    return fail({
      code: 'syntax',
      detail: first.message.split('\n')[0] ?? '',
      line: at.line,
      column: at.col
    });
  } catch (error) {
    return fail(thrownIssue(error));
  }
}

function toValue(document: Document.Parsed): Result<unknown> {
  let aliases = 0;
  try {
    visit(document, {
      Alias: () => {
        if (++aliases > MAX_ALIASES) return visit.BREAK;
      },
      Pair: (_, pair) => {
        const key = isScalar(pair.key) ? String(pair.key.value) : '';
        if (!NUMBER_KEYS.has(key)) keepSpelling(pair.value);
      }
    });
    if (aliases > MAX_ALIASES) return fail({ code: 'too-many-aliases', detail: String(MAX_ALIASES) });
    return succeed(document.toJS({ maxAliasCount: MAX_ALIASES }));
  } catch (error) {
    return fail(thrownIssue(error));
  }
}

function keepSpelling(node: unknown): void {
  if (isSeq(node)) node.items.forEach(keepSpelling);
  else if (isScalar(node) && typeof node.value === 'number' && node.source !== undefined)
    node.value = node.source;
}

/** The YAML reader throws on what it will not expand; a RangeError means nesting. */
function thrownIssue(error: unknown): Issue {
  const message = error instanceof Error ? error.message : String(error);
  if (error instanceof RangeError) return { code: 'too-deep', detail: String(MAX_NESTING) };
  return /alias/i.test(message)
    ? { code: 'too-many-aliases', detail: String(MAX_ALIASES) }
    : { code: 'syntax', detail: message };
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
  return { ...issue, ...(fault ? { detail: fault.words } : {}), line: place.line, column: place.col };
}

/** Where in a scalar its condition breaks off, and what would have fitted. */
function findFaultIn(node: unknown): { at: number; words: string } | undefined {
  if (!isScalar(node) || typeof node.value !== 'string') return undefined;
  const parsed = parseCondition(node.value);
  if (!('fault' in parsed)) return undefined;
  const quoted = node.type === 'QUOTE_DOUBLE' || node.type === 'QUOTE_SINGLE';
  const length = (node.range?.[1] ?? 0) - (node.range?.[0] ?? 0) - (quoted ? 2 : 0);
  // A text with escapes or line breaks has no plain offset; its start will do.
  const at = length === node.value.length ? parsed.fault.at + (quoted ? 1 : 0) : 0;
  return { at, words: describeConditionFault(parsed.fault) };
}

function offsetOf(node: unknown): number | undefined {
  const range = typeof node === 'object' && node !== null && 'range' in node ? node.range : undefined;
  return Array.isArray(range) && typeof range[0] === 'number' ? range[0] : undefined;
}
