/**
 * Writes separated values (RFC 4180: comma, CRLF, quotes doubled). A cell that a spreadsheet could take for a formula
 * or a command - one that starts with = + - @, a tab or a return, also behind spaces - gets an apostrophe in front.
 * Plain numbers keep their sign.
 */
export function formatCsv(rows: readonly (readonly (string | number)[])[]): string {
  return rows.map((row) => row.map(formatCell).join(',')).join('\r\n') + '\r\n';
}

const NUMBER = /^-?\d+(\.\d+)?$/;
const RISKY = /^'*[\s\u00a0\u200b\ufeff]*[=+\-@\t\r\uff1d\uff0b\uff0d\uff20]/;

function formatCell(value: string | number): string {
  const text = typeof value === 'number' ? String(value) : value;
  const safe = RISKY.test(text) && !NUMBER.test(text) ? `'${text}` : text;
  return /[",\r\n]/.test(safe) || safe !== safe.trim() ? `"${safe.replaceAll('"', '""')}"` : safe;
}

/** The text behind a cell as `formatCsv` guards it: without the apostrophe it put in front. */
export const restoreCell = (text: string): string =>
  text.startsWith("'") && RISKY.test(text.slice(1)) && !NUMBER.test(text.slice(1)) ? text.slice(1) : text;
