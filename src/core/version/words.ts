/** Text folded for comparing names: case and runs of spaces do not count. */
export const foldText = (text: string): string =>
  PLAIN.test(text) ? text : text.trim().replace(/\s+/g, ' ').toLowerCase();

/** Most names of machines: nothing to fold. */
const PLAIN = /^[a-z0-9._-]*$/;

/** The folded text cut into words at spaces, commas, semicolons, brackets and slashes. */
export const wordsOf = (text: string): string[] =>
  foldText(text)
    .split(/[\s,;()[\]/|]+/)
    .filter(Boolean);
