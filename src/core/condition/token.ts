/** One word, sign or quoted text of a condition, with its place in the text. */
export interface Token {
  readonly kind: 'word' | 'sign' | 'quoted';
  readonly text: string;
  readonly at: number;
  readonly length: number;
}

const WORD = /[A-Za-z0-9][A-Za-z0-9._/-]*/y;
const SPACE = /\s+/y;
const QUOTED = /"((?:[^"\\\n]|\\["\\])*)"/y;

/** Cuts a condition's text; the place of the first sign that cannot stand there, where there is one. */
export function cutTokens(text: string): { readonly tokens: readonly Token[] } | { readonly at: number } {
  const tokens: Token[] = [];
  let at = 0;
  const match = (pattern: RegExp): RegExpExecArray | null => ((pattern.lastIndex = at), pattern.exec(text));
  while (at < text.length) {
    const space = match(SPACE);
    if (space) {
      at += space[0].length;
      continue;
    }
    const word = match(WORD);
    const quoted = word ? null : match(QUOTED);
    const sign = '(),'.includes(text[at] ?? ' ') ? text[at] : undefined;
    const length = word?.[0].length ?? quoted?.[0].length ?? sign?.length;
    if (length === undefined) return { at };
    const inner = word?.[0] ?? quoted?.[1]?.replace(/\\(["\\])/g, '$1') ?? sign ?? '';
    tokens.push({ kind: word ? 'word' : quoted ? 'quoted' : 'sign', text: inner, at, length });
    at += length;
  }
  return { tokens };
}

/** The value as it is written: bare where it can be, else quoted. */
export function quoteValue(value: string, isReserved: (word: string) => boolean): string {
  WORD.lastIndex = 0;
  const word = WORD.exec(value);
  if (word?.[0] === value && !isReserved(value)) return value;
  return `"${value.replace(/["\\]/g, '\\$&')}"`;
}
