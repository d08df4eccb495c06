import type { Issue } from '../kit';
import { describeConditionFault } from './condition';

const WORDS: Readonly<Record<string, string>> = {
  'too-big': 'The file is larger than the limit of {detail}.',
  'not-text': 'This is not a text file: it holds zero bytes.',
  'not-utf-8': 'This line is not text in UTF-8.',
  'other-number': 'The first line says how many systems follow: {detail}. Part of the file may be missing.',
  empty: 'There is nothing in it.',
  syntax: 'It cannot be read: {detail}',
  'too-deep': 'It is nested deeper than {detail} levels.',
  'too-many-aliases': 'It repeats itself through more than {detail} aliases.',
  'key-forbidden': 'The name "{detail}" is not allowed here.',
  'not-an-object': 'It should be one object, and is not.',
  'wrong-format': 'This is not a file of the kind "{detail}".',
  'newer-version': 'It was written by a newer version (format version {detail}).',
  invalid: '{detail}',
  'missing-field': 'The field "{detail}" is missing here.',
  'id-characters':
    'An id is letters, digits, dots, dashes and underscores, and starts with a letter or digit.',
  'id-reserved': 'This word cannot be an id.',
  'date-text':
    'This is not a date. Write 2031-06-30, 2031-06, 2031-Q2, 2031 or unknown, with announced or expected before it if so.',
  'range-text': 'This is not a range. Write for example: from 4/r2 to before 6.',
  'condition-text':
    'This is not a condition{fault}. Write for example: memory at least 8 GB and security-part is on.',
  'figure-text': 'This is not a figure. Write for example: 8 GB.',
  currency: 'A currency is three capital letters.',
  day: 'This is not a day. Write it as 2031-06-30.',
  'duplicate-id': 'The id "{detail}" is used twice.',
  'not-a-calendar': 'This is no calendar file with entries in it (RFC 5545).',
  'too-large': 'This is larger than what is read.',
  'window-zone': 'The time zone of this window is none that is known.',
  'window-start': 'The start of this window is no day and time.',
  'window-rule': 'The rule of this window cannot be read.',
  'window-not an instance': 'This window starts on a day its own rule does not name.',
  'freeze-order': 'This freeze ends before it begins.',
  'wall-clock': 'Not a day and time like 2031-03-10T22:00.',
  'no-such-release': 'There is no release or patch level "{detail}" in this product.',
  mends: '“{detail}” mends something that is installed, and is nothing by itself',
  'older-reading': 'an older reading of the same machine; row {detail} is newer',
  'no-such-edition': 'There is no edition "{detail}" in this product.',
  'no-such-architecture': 'There is no architecture "{detail}" in this product.',
  'no-such-line': 'There is no line "{detail}" in this product.',
  'no-such-branch': 'There is no branch "{detail}" in this product.',
  'no-such-feature': 'There is no feature "{detail}" in this product.',
  'no-such-hop': 'There is no hop "{detail}" in this product.',
  'no-such-product': 'There is no product "{detail}" in this catalogue.',
  'no-such-caution': 'There is no caution "{detail}" in this product.',
  'no-such-fact': 'There is no kind of fact "{detail}": declare it under facts.',
  'no-such-list': 'There is no list "{detail}" in this catalogue.',
  'no-such-switch': 'A switch is on, off, absent or present, not "{detail}".',
  'wrong-measure': 'The measure does not fit: {detail}.',
  'cure-neither': 'A cure either sets its fact or raises it.',
  'caution-loop': 'The work-arounds of "{detail}" wait for each other in a circle.',
  'no-such-source': 'There is no source "{detail}" in this file.',
  'two-currencies': 'The prices are in two currencies ({detail}), so the catalogues cannot be one.',
  'draft-broken': 'The text cannot be read as it stands; put it right first.',
  'edit-failed': 'The change could not be made in the text.',
  'price-missing': 'A right of kind purchase needs priceCents.',
  'crosses-architecture': 'A hop in place never changes architecture.',
  'ambiguous-name': 'The name "{detail}" stands for more than one thing in this product.',
  'successor-loop': 'The successors of "{detail}" run in a circle.',
  catalogue: 'In the catalogue it carries: {within}',
  'no-header': 'No row of column names was found.',
  'no-rows': 'There are no rows below the column names.',
  'too-many-rows': 'There are more than {detail} rows.',
  'too-many-columns': 'There are more than {detail} columns.',
  'unreadable-sheet': 'The spreadsheet cannot be read: {detail}',
  'missing-name': 'no name',
  'same-name': 'same name as row {detail}, which says otherwise',
  repeats: 'repeats row {detail}',
  'web-address': 'A link starts with http:// or https://.',
  'no-os-release': 'No os-release text was found: it needs at least NAME, ID or VERSION_ID.',
  'no-record': 'No record was found: each begins with a line "orange-stair-record".',
  'no-table': 'No table with a heading and rows was found in it.',
  'no-list': 'No list of machines was found in it.',
  'no-machines': 'It names no machine, operating system or firmware.',
  'other-version': 'This version of the format, {detail}, is not read here.',
  'missing-part': 'The request needs "{detail}".',
  'bad-today': 'The day "{detail}" is not a day. Write it as 2031-06-30.',
  'took-too-long': 'It took longer than {detail} seconds and was ended.',
  'took-too-much': 'It took more memory than {detail} and was ended.',
  'too-many-wait': 'Too many are being planned; try again a little later.',
  'too-many-parts': 'It holds more than {detail} parts.',
  'bad-signs': 'It holds signs that are no text (a zero byte, or half of a sign).',
  superseded: 'A newer plan was asked for.',
  'cannot-plan': 'Planning stopped: {detail}'
};

/** The sentence for an issue, with its place. */
export function describeIssue(issue: Issue): string {
  const { fault, within } = issue;
  const sentence = (WORDS[issue.code] ?? issue.code)
    .replace('{detail}', () => issue.detail ?? '')
    .replace('{fault}', () => (fault ? describeConditionFault(fault) : ''))
    .replace('{within}', () => (within ? describeIssue(within) : ''));
  const place =
    issue.line === undefined
      ? formatPath(issue.path ?? [])
      : `line ${issue.line}, column ${issue.column ?? 1}`;
  return place ? `${place}: ${sentence}` : sentence;
}

/** True where the catalogue of wording knows the code. */
export const isKnownCode = (code: string): boolean => Object.hasOwn(WORDS, code);

function formatPath(path: readonly (string | number)[]): string {
  return path.map((p) => (typeof p === 'number' ? `[${p + 1}]` : p)).join(' > ');
}
