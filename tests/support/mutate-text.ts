import type { Random } from './random';

const JUNK = [
  '\0',
  '"',
  '{',
  '[',
  '&a ',
  '*a',
  ': ',
  '- ',
  '\n\t',
  '\u{1F600}',
  '__proto__: 1\n',
  '1e999',
  '%',
  '!!js/x ',
  '|',
  ')',
  '(',
  ' and ',
  ' not ',
  ' at least ',
  ',',
  '\\',
  ' unknown',
  '0x1',
  '9'.repeat(30)
];

/** A text with a stretch of it replaced by something it should not hold, repeated, or with two stretches swapped. */
export function mutateText(random: Random, text: string): string {
  const at = random.int(0, text.length);
  const kind = random.int(0, 9);
  if (kind === 0) return text.slice(0, at);
  if (kind === 1) {
    const to = random.int(at, Math.min(text.length, at + 200));
    const elsewhere = random.int(0, text.length);
    return text.slice(0, elsewhere) + text.slice(at, to) + text.slice(elsewhere);
  }
  return text.slice(0, at) + random.pick(JUNK).repeat(random.int(1, 5)) + text.slice(at + random.int(0, 40));
}
