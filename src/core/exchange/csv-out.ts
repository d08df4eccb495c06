/**
 * Writes separated values (RFC 4180: comma, CRLF, quotes doubled). A cell that a spreadsheet could take for a formula
 * or a command - one that starts with = + - @, a tab or a return, also behind spaces - gets an apostrophe in front.
 * Plain numbers keep their sign.
 */
export function formatCsv(rows: readonly (readonly (string | number)[])[]): string {
  return rows.map((row) => row.map(formatCell).join(',')).join('\r\n') + '\r\n';
}

const NUMBER = /^-?\d+(\.\d+)?$/;
/** Behind spaces of any kind and signs that are not seen; signs of full width do as well. */
const RISKY = /^'*[\s\p{Z}\p{Cf}]*[=+\-@\t\r\uff1d\uff0b\uff0d\uff20]/u;

/** The text of a cell as no spreadsheet takes it for a formula; `restoreCell` undoes it. */
export const guardCell = (text: string): string =>
  RISKY.test(text) && !NUMBER.test(text) ? `'${text}` : text;

function formatCell(value: string | number): string {
  const safe = guardCell(typeof value === 'number' ? String(value) : value);
  return /[",\r\n]/.test(safe) || safe !== safe.trim() ? `"${safe.replaceAll('"', '""')}"` : safe;
}

/** The text behind a cell as `formatCsv` guards it: without the apostrophe it put in front. */
export const restoreCell = (text: string): string =>
  text.startsWith("'") && RISKY.test(text.slice(1)) && !NUMBER.test(text.slice(1)) ? text.slice(1) : text;
