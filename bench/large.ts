/** `npm run bench:large`: a workspace of a million systems, a record a line: read, kept and planned; writes docs/benchmarks.md. */
import { parseCatalogue } from '../src/core/exchange/catalogue-file';
import { formatWorkspaceLines, readWorkspaceLines } from '../src/core/exchange/workspace-lines';
import { plan } from '../src/core/plan/plan';
import { generateWorld } from './generate';
import { writePart } from './sections';

const SYSTEMS = 1_000_000;

/** The file's bytes in pieces, as a disk would give them. */
function writeFile(cases: number): { readonly pieces: Buffer[]; readonly today: number } {
  const { catalogue, estate, today } = generateWorld(7, SYSTEMS, cases);
  const text = { fileName: 'generated.json', text: JSON.stringify(catalogue) };
  return { pieces: [...formatWorkspaceLines(estate, text)].map((piece) => Buffer.from(piece)), today };
}

/** Every line parsed and held, and nothing else. */
function parseBare(pieces: readonly Buffer[]): unknown[] {
  return pieces.flatMap((piece) =>
    piece
      .toString()
      .trimEnd()
      .split('\n')
      .map((line): unknown => JSON.parse(line))
  );
}

function heap(): number {
  (globalThis as { gc?: () => void }).gc?.();
  return process.memoryUsage().heapUsed;
}

async function measure(cases: number): Promise<string> {
  const { pieces, today } = writeFile(cases);
  const before = heap();
  let start = performance.now();
  const bare = parseBare(pieces);
  const bareMs = performance.now() - start;
  const bareBytes = (heap() - before) / bare.length;
  bare.length = 0;
  const empty = heap();
  start = performance.now();
  const read = await readWorkspaceLines(pieces);
  const readMs = performance.now() - start;
  if (!read.ok) throw new Error(JSON.stringify(read.issues));
  const held = heap();
  const { catalogue: carried, format: _format, version: _version, ...estate } = read.value;
  void [_format, _version];
  const catalogue = parseCatalogue(carried.text);
  if (!catalogue.ok) throw new Error(JSON.stringify(catalogue.issues));
  start = performance.now();
  const planned = plan({ catalogue: catalogue.value, estate, today, every: 'goal' });
  const planMs = performance.now() - start;
  const after = heap();
  const size = pieces.reduce((sum, piece) => sum + piece.length, 0);
  const each = (bytes: number): string => (bytes / SYSTEMS).toFixed(0);
  return `| ${planned.cases.length} | ${(size / 1e6).toFixed(0)} | ${(planMs / bareMs).toFixed(2)} | ${(readMs / bareMs).toFixed(1)} | ${(planMs / 1000).toFixed(1)} | ${(readMs / 1000).toFixed(1)} | ${(bareMs / 1000).toFixed(1)} | ${bareBytes.toFixed(0)} | ${each(held - empty)} | ${each(after - held)} |`;
}

async function run(): Promise<void> {
  const rows = [await measure(400), await measure(20_000)];
  const lines = [
    'Written by `npm run bench:large`. A million systems as a file of a record a line: its lines parsed bare and held; read with every guard and',
    'check (`readWorkspaceLines`); planned for the goal, once, on one thread, from a catalogue not looked at before. Bar: planning 400 cases in 0.7 of',
    'parsing the lines bare. Memory is what is held behind each step, in bytes a system, as the engine counts its heap.',
    '',
    '| cases | file, MB | plan / bare parsing | reading / bare parsing | plan, s | reading, s | bare, s | bytes bare | bytes read | bytes more planned |',
    '|---:|---:|---:|---:|---:|---:|---:|---:|---:|---:|',
    ...rows
  ];
  console.log(lines.join('\n'));
  writePart('A million systems', lines);
}

void run();
