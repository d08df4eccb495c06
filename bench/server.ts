/** `npm run bench:server`: fifty requests of every kind at once; how soon others are answered, and what memory stays. */
import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { request } from 'node:http';
import { writePart } from './sections';

const PORT = 4189;
const AT = `http://127.0.0.1:${PORT}`;
const MEMORY_REST_MS = 5000;

const started = JSON.parse(readFileSync('scripts/memory.json', 'utf8')) as {
  flags: string[];
  env: Record<string, string>;
};
const server = spawn('node', [...started.flags, 'scripts/serve.mjs'], {
  env: { ...started.env, ...process.env, HOST: '127.0.0.1', PORT: String(PORT) },
  stdio: 'ignore'
});
const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** Memory the server's process holds, in MB. */
const memory = (): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;

const post = async (body: string): Promise<number> =>
  (await fetch(`${AT}/api/plan`, { method: 'POST', headers: { 'content-type': 'application/json' }, body }))
    .status;

/** A body that comes in drops. */
const drip = (body: string): Promise<number> =>
  new Promise((done, fail) => {
    const sent = request(
      `${AT}/api/plan`,
      { method: 'POST', headers: { 'content-type': 'application/json' } },
      (answer) => {
        answer.resume();
        answer.on('end', () => done(answer.statusCode ?? 0));
      }
    );
    sent.on('error', fail);
    void (async () => {
      for (const part of body.match(/[\s\S]{1,20000}/g) ?? []) {
        sent.write(part);
        await pause(50);
      }
      sent.end();
    })();
  });

function demoBody(): string {
  const demo = JSON.parse(readFileSync('demo/saltmarsh.json', 'utf8')) as Record<string, unknown>;
  const { catalogue, format: _format, version: _version, ...estate } = demo;
  void [_format, _version];
  return JSON.stringify({ catalogue: (catalogue as { text: string }).text, estate });
}

const good = demoBody();
const KINDS: readonly (readonly [name: string, send: () => Promise<number>, status: number])[] = [
  ['good', () => post(good), 200],
  ['huge', () => post(`{"catalogue":"","estate":{"systems":[${'[1,1,1],'.repeat(3_000_000)}1]}}`), 400],
  ['malformed', () => post(good.slice(0, 5000)), 400],
  ['slow', () => drip(good), 200],
  ['too big', () => post(' '.repeat(33 * 1024 * 1024)), 413]
];

for (let tries = 0; tries < 50; tries++) {
  if (
    await fetch(AT).then(
      (r) => r.ok,
      () => false
    )
  )
    break;
  await pause(200);
}
await post(good);
// A server at work: the page has been asked for as often as it is going to be.
for (let i = 0; i < 3000; i++) await (await fetch(AT)).text();
await pause(MEMORY_REST_MS);
const base = memory();
let isDone = false;
const took: number[] = [];
const watching = (async () => {
  while (!isDone) {
    const before = performance.now();
    await (await fetch(AT)).text();
    took.push(performance.now() - before);
    await pause(10);
  }
})();
const answers = await Promise.all(
  Array.from({ length: 50 }, async (_, i) => {
    const [name, send, wanted] = KINDS[i % KINDS.length] as (typeof KINDS)[number];
    const status = await send().catch((error: unknown) => (name === 'too big' ? 413 : String(error)));
    return { name, status, isRight: status === wanted };
  })
);
isDone = true;
await watching;
await pause(MEMORY_REST_MS);
const after = memory();
server.kill('SIGTERM');
took.sort((a, b) => a - b);
const at = (share: number): string => (took[Math.floor(took.length * share)] ?? 0).toFixed(0);
const wrong = answers.filter((a) => !a.isRight);
writePart('The server', [
  'Written by `npm run bench:server`. Fifty requests at once: good, huge, malformed, slow and too big ones, ten of each.',
  '',
  '| what | measured | bar |',
  '|---|---:|---:|',
  `| answered as they should be | ${answers.length - wrong.length} of ${answers.length} | all |`,
  `| \`GET /\` meanwhile, median and 99th, ms (${took.length} times) | ${at(0.5)}, ${at(0.99)} | 99th under 100 |`,
  `| memory before and after, MB | ${base.toFixed(0)}, ${after.toFixed(0)} (${((after / base - 1) * 100).toFixed(0)} %) | back within 20 % |`
]);
if (wrong.length > 0) console.error(wrong);
