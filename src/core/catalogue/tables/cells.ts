import { type MessyDate, parseMessyDate } from '../../date';
import { foldText } from '../../version';

export type DateOrder = 'day first' | 'month first';

/** A table as somebody published it: cells as texts, each row as wide as the head. */
export interface ReleaseTable {
  readonly head: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

/** Words of service behind a label, which are no part of it. */
export const SERVICE_WORD = /^(lts|sts|current|stable|preview|esr|eol|supported|latest)$/i;

/** A cell without its marks of footnotes. */
export const cleanCell = (cell: string): string =>
  cell
    .replace(/\s*\[[^\]]*\]\s*/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();

/** The date a cell says, remarks in brackets behind it aside. Undefined where it says none. */
export const dateIn = (cell: string): MessyDate | undefined => {
  const clean = cleanCell(cell);
  if (clean === '') return undefined;
  // A remark in brackets behind the day: `31 May 2031 (paid)`.
  return parseMessyDate(clean) ?? parseMessyDate(clean.replace(/\s*\([^)]*\)\s*/g, ' ').trim());
};

/** Whether a cell says a date, not only that nobody knows. */
export const isDated = (cell: string): boolean => {
  const date = dateIn(cell);
  return date !== undefined && date.text !== 'unknown';
};

/** `22.04 LTS (Quiet heron)`: the label, and what else it is called; without the product's name. Undefined where nothing is left. */
export function labelOf(
  cell: string,
  names: readonly string[]
): { label: string; names: string[] } | undefined {
  let text = cleanCell(cell);
  for (const name of [...names].sort((a, b) => b.length - a.length))
    if (foldText(text).startsWith(`${foldText(name)} `)) {
      text = text.slice(name.length).trim();
      break;
    }
  const whole = text;
  const others: string[] = [];
  text = text.replace(
    /["“”']([^"“”']+)["“”']|\(([^)]*)\)/g,
    (_, quoted: string | undefined, inner: string | undefined) => {
      const said = (quoted ?? inner ?? '').trim();
      if (said !== '' && !said.split(/\s+/).every((w) => SERVICE_WORD.test(w))) others.push(said);
      return ' ';
    }
  );
  const words = text.split(/\s+/).filter(Boolean);
  // `version 7`, `v7`: the word is no part of the label.
  if (words.length > 1 && /^(version|release|ver\.?|v|line|branch|series)$/i.test(words[0] ?? ''))
    words.shift();
  const firstFigure = words.findIndex((w) => /\d/.test(w));
  let kept = words;
  if (firstFigure >= 0) {
    const behind = words.slice(firstFigure + 1);
    const spoken = behind.filter((w) => !SERVICE_WORD.test(w));
    // A code name behind a figure is another name; words that have figures of their own are part of the label.
    if (spoken.length > 0 && spoken.every((w) => !/\d/.test(w)) && spoken.join(' ').length > 2) {
      others.push(spoken.join(' '));
      kept = words.slice(0, firstFigure + 1);
    } else kept = [...words.slice(0, firstFigure + 1), ...spoken];
  }
  const label = kept.join(' ').trim();
  if (label === '') return undefined;
  if (foldText(whole) !== foldText(label)) others.push(whole);
  return { label, names: [...new Set(others)] };
}
