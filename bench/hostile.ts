/**
 * `npm run bench:hostile`: 100,000 mutated inputs to the condition parser, the catalogue reader and every way in of
 * machines. Every one must come back as a value or as issues, none may throw, none may take a second; exits with 1 where
 * one does. `npm run bench:hostile -- 5000` makes another number, `npm run bench:hostile -- but catalogue` leaves out what
 * has one of the words in its name and keeps its old line. Written to docs/benchmarks.md.
 */
import { readFileSync } from 'node:fs';
import { parseCondition } from '../src/core/condition/parse-condition';
import { parseCatalogue } from '../src/core/exchange/catalogue-file';
import { importersOf } from '../tests/support/importers';
import { mutateText } from '../tests/support/mutate-text';
import { Random } from '../tests/support/random';
import { readPart, writePart } from './sections';

const COUNT = Number(process.argv.slice(2).find((a) => /^\d+$/.test(a)) ?? 100_000);
const words = process.argv.slice(2);
const leftOut = words.includes('but') ? words.slice(words.indexOf('but') + 1) : [];
const said: string[] = [];
const old = readPart('Spoilt inputs').split('\n');
const SLOW_MS = 1000;
const catalogue = readFileSync('tests/fixtures/formats/catalogue-2.yaml', 'utf8');
const workspace = readFileSync('tests/fixtures/formats/workspace-3.json', 'utf8');
const read = parseCatalogue(readFileSync('demo/catalogue.yaml', 'utf8'));
if (!read.ok) throw new Error('the demo cannot be read');
const demo = read.value;
const conditions = [
  'memory at least 8 GB and (model is one of (P3, "P 4") or not every linked peer (release in (from 4/r2 to before 6, 9 on blue)))',
  'disk.free.system above 20.5 GiB or lowest linked host (firmware.level at most 3) and security-part is not present'
];

function run(name: string, texts: readonly string[], read: (text: string) => boolean): boolean {
  if (leftOut.some((word) => name.includes(word))) {
    said.push(...old.filter((line) => line.startsWith(`| ${name} |`)));
    return true;
  }
  const random = new Random(41);
  let slowest = 0;
  let taken = 0;
  let bad = 0;
  const start = performance.now();
  for (let i = 0; i < COUNT; i++) {
    let text = mutateText(random, random.pick(texts));
    while (random.chance(0.4)) text = mutateText(random, text);
    const before = performance.now();
    try {
      if (read(text)) taken++;
    } catch (error) {
      bad++;
      console.error(`${name} escaped: ${String(error)}\n${JSON.stringify(text.slice(0, 400))}`);
    }
    slowest = Math.max(slowest, performance.now() - before);
  }
  const seconds = (performance.now() - start) / 1000;
  said.push(`| ${name} | ${COUNT} | ${taken} | ${bad} | ${slowest.toFixed(0)} | ${seconds.toFixed(0)} |`);
  console.log(said.at(-1));
  return bad === 0 && slowest < SLOW_MS;
}

const fine = [
  run('condition parser', conditions, (text) => 'condition' in parseCondition(text)),
  run('catalogue reader', [catalogue], (text) => parseCatalogue(text).ok),
  ...importersOf(demo, workspace).map((i) => run(i.name, [i.text], (text) => i.read(text)))
];
const table = [
  'Written by `npm run bench:hostile`: texts spoilt in one or several places, from a seed. Escaped: came out as a throw.',
  '',
  '| reader | inputs | still read | escaped | slowest, ms | all, s |',
  '|---|---:|---:|---:|---:|---:|',
  ...said
];
writePart('Spoilt inputs', table);
process.exit(fine.every(Boolean) ? 0 : 1);
