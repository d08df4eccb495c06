import type { Issue } from '../kit';

export const MAX_FILE_BYTES = 256 * 1024 * 1024;
export const MAX_NESTING = 64;
export const MAX_ALIASES = 100;
/** Values in a YAML text, each of which becomes an object with its place; a catalogue of sixty products has some 50,000. */
const MAX_YAML_PARTS = 1_000_000;
const FORBIDDEN_KEYS = new Set(['__proto__', 'constructor', 'prototype']);

/** What is wrong with a text before it is parsed at all; undefined when nothing is. */
export function findTextFault(text: string, kind: 'json' | 'yaml' | 'flat' = 'json'): Issue | undefined {
  if (text.length > MAX_FILE_BYTES)
    return { code: 'too-big', detail: `${Math.round(MAX_FILE_BYTES / 1024 / 1024)} MB` };
  if (text.includes('\0')) return { code: 'not-text' };
  if (text.trim() === '') return { code: 'empty' };
  if (kind === 'flat') return undefined;
  if (hasDeepBrackets(text)) return { code: 'too-deep', detail: String(MAX_NESTING) };
  return kind === 'yaml' && hasManyParts(text) ? { code: 'too-many-parts', detail: '1,000,000' } : undefined;
}

/** Counts open brackets outside double-quoted strings: stops a nesting bomb before a recursive parser meets it. */
function hasDeepBrackets(text: string): boolean {
  let depth = 0;
  let quoted = false;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (quoted) {
      if (c === 92) i++;
      else if (c === 34 || c === 10) quoted = false;
    } else if (c === 34) quoted = true;
    else if (c === 91 || c === 123) {
      if (++depth > MAX_NESTING * 4) return true;
    } else if (c === 93 || c === 125) depth = Math.max(0, depth - 1);
  }
  return false;
}

/** Counts commas, lines, colons and openings, in strings or not: more of them than parts there may be. */
function hasManyParts(text: string): boolean {
  if (text.length <= MAX_YAML_PARTS) return false;
  let parts = 0;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if ((c === 10 || c === 44 || c === 58 || c === 91 || c === 123) && ++parts > MAX_YAML_PARTS * 4)
      return true;
  }
  return false;
}

/** Escapes that may stand for what is no text. */
const ODD_ESCAPE = /\\(?:0|x00|u0000|u[dD][89a-fA-F]|U)/;
/** A zero byte, or half of a sign of two halves. */
const NO_TEXT = /\0|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;

interface Visited {
  readonly value: object;
  readonly above: Visited | undefined;
  readonly key: string | number;
  readonly depth: number;
}

/**
 * Walks what was read from a text without recursion: too deep, a key that could reach an object's prototype, or - where the
 * text has escapes that may stand for it - a string that is no text.
 */
export function findValueFault(root: unknown, text: string): Issue | undefined {
  const looksAtStrings = ODD_ESCAPE.test(text);
  const queue: Visited[] = [];
  const enter = (value: unknown, above: Visited | undefined, key: string | number): void => {
    if (typeof value === 'object' && value !== null)
      queue.push({ value, above, key, depth: (above?.depth ?? -1) + 1 });
  };
  enter(root, undefined, '');
  for (let next = queue.pop(); next; next = queue.pop()) {
    const { value, depth } = next;
    if (depth > MAX_NESTING) return { code: 'too-deep', detail: String(MAX_NESTING) };
    const isList = Array.isArray(value);
    for (const key in value) {
      if (FORBIDDEN_KEYS.has(key)) return { code: 'key-forbidden', detail: key, path: pathOf(next) };
      const child = (value as Record<string, unknown>)[key];
      if (looksAtStrings && (NO_TEXT.test(key) || (typeof child === 'string' && NO_TEXT.test(child))))
        return { code: 'bad-signs', path: [...pathOf(next), isList ? Number(key) : key] };
      enter(child, next, isList ? Number(key) : key);
    }
  }
  return undefined;
}

const pathOf = (visited: Visited): (string | number)[] =>
  visited.above === undefined ? [] : [...pathOf(visited.above), visited.key];
