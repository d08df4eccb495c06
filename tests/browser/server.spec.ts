import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';

const HEADERS = ['x-content-type-options', 'referrer-policy', 'cross-origin-opener-policy'];

test('every answer carries the headers, files as they lie there included', async ({ request }) => {
  const page = await (await request.get('/')).text();
  const script = /"(\.?\/_app\/[^"]+\.js)"/.exec(page)?.[1]?.replace(/^\.\//, '/') ?? '';
  expect(script).not.toBe('');
  for (const path of ['/', script, '/mark.svg', '/collector.sh']) {
    const headers = (await request.get(path)).headers();
    for (const name of HEADERS) expect(headers[name], `${path}: ${name}`).toBeTruthy();
    expect(headers['content-type'], path).toBeTruthy();
  }
  expect((await request.get('/collector.sh')).headers()['content-type']).toContain('shellscript');
});

test('requests that are large, deep or odd are refused with a reason, and the server goes on', async ({
  request
}) => {
  const post = async (body: string) => {
    const answer = await request.post('/api/plan', {
      data: Buffer.from(body),
      headers: { 'content-type': 'application/json' },
      timeout: 120_000
    });
    return { status: answer.status(), text: (await answer.text()).slice(0, 500) };
  };
  const many = `products:\n- [${'1,'.repeat(12_000_000)}1]\n`;
  const bodies: Readonly<Record<string, string>> = {
    'many parts in YAML': JSON.stringify({ catalogue: many, estate: {} }),
    'nested numbers for systems': `{"catalogue":"","estate":{"systems":[${'[1,1,1,1],'.repeat(2_500_000)}1]}}`,
    'empty systems': `{"catalogue":"","estate":{"systems":[${'{},'.repeat(400_000)}{}]}}`,
    deep: `{"catalogue":"","estate":${'['.repeat(5000)}${']'.repeat(5000)}}`,
    'half a sign': `{"catalogue":"","estate":{"site":{"name":"\\ud800","countsExpected":true}}}`,
    'a name that reaches the prototype': `{"catalogue":"format: orange-stair-catalogue\\nversion: 3\\nproducts:\\n  - {id: __proto__, name: a, releases: []}","estate":{}}`,
    nothing: ''
  };
  for (const [name, body] of Object.entries(bodies)) {
    const { status, text } = await post(body);
    expect({ name, status }).toEqual({ name, status: 400 });
    expect(text, name).toContain('message');
    if (name.includes('prototype')) expect(text).toContain('__proto__');
  }
  expect((await post(' '.repeat(33 * 1024 * 1024))).status).toBe(413);
  expect((await request.get('/')).status()).toBe(200);
});

test('others are answered while a plan is made, and a plan ends with who asked for it', async ({
  request
}) => {
  const { catalogue, ...rest } = JSON.parse(readFileSync('demo/saltmarsh.json', 'utf8')) as {
    catalogue: { text: string };
    format: string;
    version: number;
  };
  const { format: _format, version: _version, ...estate } = rest;
  void [_format, _version];
  const body = { catalogue: catalogue.text, estate, depth: true };
  let isPlanning = true;
  const planning = request
    .post('/api/plan', { data: body, timeout: 200_000 })
    .finally(() => (isPlanning = false));
  let answered = 0;
  while (isPlanning && answered < 200) {
    expect((await request.get('/')).status()).toBe(200);
    answered++;
  }
  expect((await planning).status()).toBe(200);
  // How soon, `npm run bench:server` measures.
  expect(answered).toBeGreaterThan(5);
});

const PORT_OF_ITS_OWN = 4188;
const AT = `http://127.0.0.1:${PORT_OF_ITS_OWN}`;
const {
  catalogue,
  format: _f,
  version: _v,
  ...estate
} = JSON.parse(readFileSync('demo/saltmarsh.json', 'utf8')) as {
  catalogue: { text: string };
  format: string;
  version: number;
};
void [_f, _v];

/** A server with limits of its own; `work` is done on it, then it is told to end, and ends. */
async function onServer(
  limits: Record<string, string>,
  work: (server: ChildProcess) => Promise<void>
): Promise<void> {
  const server = spawn('node', ['scripts/serve.mjs'], {
    env: { ...process.env, HOST: '127.0.0.1', PORT: String(PORT_OF_ITS_OWN), ...limits },
    stdio: 'ignore'
  });
  await expect
    .poll(() =>
      fetch(AT).then(
        (r) => r.status,
        () => 0
      )
    )
    .toBe(200);
  try {
    await work(server);
  } catch (error) {
    server.kill('SIGKILL');
    throw error;
  }
  server.kill('SIGTERM');
  await new Promise((done) => server.on('exit', done));
}

const askPlan = (signal?: AbortSignal): Promise<Response> =>
  fetch(`${AT}/api/plan`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ catalogue: catalogue.text, estate, depth: true }),
    ...(signal && { signal })
  });

/** Processes that plan for a server. */
const plannersOf = (server: ChildProcess): string[] =>
  spawnSync('pgrep', ['-P', String(server.pid)], { encoding: 'utf8' })
    .stdout.split('\n')
    .filter(Boolean);

/** Whether a process is there; what has ended and waits to be read does not count. */
const isThere = (id: string): boolean =>
  /^State:\s+[^Z]/m.test(spawnSync('cat', [`/proc/${id}/status`], { encoding: 'utf8' }).stdout);

test('a plan ends at its limits of time and memory, with its caller, and with the server', async () => {
  await onServer({ PLAN_MEGABYTES: '20' }, async () => expect((await askPlan()).status).toBe(413));
  await onServer({ PLAN_SECONDS: '0.3' }, async () => expect((await askPlan()).status).toBe(503));
  let planning: string[] = [];
  await onServer({}, async (server) => {
    const leaves = new AbortController();
    const left = askPlan(leaves.signal).catch(() => undefined);
    await expect.poll(() => plannersOf(server).length).toBe(1);
    leaves.abort();
    await left;
    await expect.poll(() => plannersOf(server).length).toBe(0);
    void askPlan().catch(() => undefined);
    await expect.poll(() => (planning = plannersOf(server)).length).toBe(1);
  });
  await expect.poll(() => planning.filter(isThere)).toEqual([]);
});
