import { isScalar, isSeq, LineCounter, parseDocument, visit, type Document } from 'yaml';
import { NUMBER_KEYS } from '../catalogue';
import { fail, type Issue, type Result, succeed } from '../kit';
import { findTextFault, findValueFault, MAX_ALIASES, MAX_NESTING } from './guard';

/** A YAML text as read: its document, for places; its value, with every spelling kept. */
export interface ReadYaml {
  readonly document: Document.Parsed;
  readonly lines: LineCounter;
  readonly value: unknown;
}

/** Texts read last, since a text is read, changed and read again while it is being worked on. */
const RECENT = 3;
const recent: { readonly text: string; readonly read: Result<ReadYaml> }[] = [];

/**
 * Reads YAML or JSON text (JSON is YAML) past the guards every file passes. Numbers outside the few numeric keys keep their
 * spelling. The document is shared between readings of one text: whoever wants to change it parses a copy.
 */
export function readYaml(text: string): Result<ReadYaml> {
  const at = recent.findIndex((r) => r.text === text);
  const known = at >= 0 ? recent.splice(at, 1)[0] : undefined;
  const entry = known ?? { text, read: readAnew(text) };
  recent.unshift(entry);
  recent.length = Math.min(recent.length, RECENT);
  return entry.read;
}

function readAnew(text: string): Result<ReadYaml> {
  const fault = findTextFault(text, 'yaml');
  if (fault) return fail(fault);
  const lines = new LineCounter();
  const read = readDocument(text, lines);
  if (!read.ok) return read;
  const value = toValue(read.value);
  if (!value.ok) return value;
  const valueFault = findValueFault(value.value, text);
  return valueFault ? fail(valueFault) : succeed({ document: read.value, lines, value: value.value });
}

/** The value of a text, unchecked; undefined where it cannot be read. */
export function readYamlValue(text: string): unknown {
  const read = readYaml(text);
  return read.ok ? read.value.value : undefined;
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
      detail: (first.message.split('\n')[0] ?? '').replace(/ at line \d+, column \d+:?$/, ''),
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
