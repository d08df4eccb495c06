import { setReaderWays } from '$core/wording';

/** Figures and days as the reader's browser writes them, on screens and on what is made to be read by people; tables and calendars taken out are the same for all (`inFiles`). */
export function followReader(locale: string = navigator.language): void {
  const parts = (number: number): Intl.NumberFormatPart[] =>
    new Intl.NumberFormat(locale, { minimumFractionDigits: 1 }).formatToParts(number);
  const one = (type: string, none: string): string =>
    parts(1_234_567.5).find((p) => p.type === type)?.value ?? none;
  const [first] = new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'numeric' })
    .formatToParts(0)
    .filter((p) => p.type === 'day' || p.type === 'month');
  // Month first is how some write it in English; elsewhere the words are read as English of the other kind.
  const monthFirst = /^en\b/.test(locale) && first?.type === 'month';
  setReaderWays({ group: one('group', ''), point: one('decimal', '.'), monthFirst });
}
