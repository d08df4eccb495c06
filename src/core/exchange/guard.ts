import type { Issue } from '../kit';

export const MAX_FILE_BYTES = 256 * 1024 * 1024;
export const MAX_NESTING = 64;
export const MAX_ALIASES = 100;
const FORBIDDEN_KEYS = new Set(['__proto__', 'constructor', 'prototype']);

/** What is wrong with a text before it is parsed at all; undefined when nothing is. */
export function findTextFault(text: string, kind: 'nested' | 'flat' = 'nested'): Issue | undefined {
  if (text.length > MAX_FILE_BYTES)
    return { code: 'too-big', detail: `${Math.round(MAX_FILE_BYTES / 1024 / 1024)} MB` };
  if (text.includes('\0')) return { code: 'not-text' };
  if (text.trim() === '') return { code: 'empty' };
  return kind === 'nested' && hasDeepBrackets(text)
    ? { code: 'too-deep', detail: String(MAX_NESTING) }
    : undefined;
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

/** Walks a parsed value without recursion: too deep, or a key that could reach an object's prototype. */
export function findValueFault(root: unknown): Issue | undefined {
  const queue: { value: unknown; path: (string | number)[] }[] = [{ value: root, path: [] }];
  for (let next = queue.pop(); next; next = queue.pop()) {
    const { value, path } = next;
    if (typeof value !== 'object' || value === null) continue;
    if (path.length > MAX_NESTING) return { code: 'too-deep', detail: String(MAX_NESTING) };
    for (const key of Object.keys(value)) {
      if (FORBIDDEN_KEYS.has(key)) return { code: 'key-forbidden', detail: key, path };
      const child = (value as Record<string, unknown>)[key];
      if (typeof child === 'object' && child !== null)
        queue.push({ value: child, path: [...path, Array.isArray(value) ? Number(key) : key] });
    }
  }
  return undefined;
}
