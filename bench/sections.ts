import { readFileSync, writeFileSync } from 'node:fs';

const FILE = 'docs/benchmarks.md';
const HEAD = `# Benchmarks

Ratios within one run on one machine; milliseconds are only there to read them by. Every part is written by its own command
and leaves the others as they are.
`;
/** The parts, in their order. */
const PARTS = [
  'Planning',
  'A million systems',
  'Calendars',
  'Order',
  'Growth',
  'Bringing in',
  'In the browser',
  'The server',
  'Spoilt inputs'
] as const;
type Part = (typeof PARTS)[number];

/** The lines of a part as they stand; empty where it was never written. */
export const readPart = (part: Part): string =>
  readFileSync(FILE, 'utf8')
    .split(/^## /m)
    .find((text) => text.startsWith(`${part}\n`))
    ?.slice(part.length + 1)
    .trim() ?? '';

/** Puts lines in the place of a part of docs/benchmarks.md. */
export function writePart(part: Part, lines: readonly string[]): void {
  const text = (p: Part): string => (p === part ? lines.join('\n').trim() : readPart(p));
  const parts = PARTS.filter((p) => text(p) !== '').map((p) => `## ${p}\n\n${text(p)}\n`);
  writeFileSync(FILE, `${HEAD}\n${parts.join('\n')}`);
}
