// `npm run timed`: from a clean clone to the demo in one command, from an own list to verdicts, from there to a night's worksheet; by the clock.
// A person is played: every action waits as long as one takes to see what is there and to act on it.
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { installChromium, root } from './install.mjs';

/** Seconds a person takes for an action. */
const PERSON_S = 4;
const folder = mkdtempSync(join(tmpdir(), 'orange-stair-timed-'));
const clone = join(folder, 'clone');
let failed = false;
let started = Date.now();
let actions = 0;

/** Tells how long it took, and whether that is within its bar, where it has one. */
function told(what, barS) {
  const took = (Date.now() - started) / 1000;
  const isOver = barS !== undefined && took > barS;
  failed ||= isOver;
  const bar = barS === undefined ? '' : `, at most ${barS} s`;
  console.log(
    `${what}: ${took.toFixed(0)} s${actions ? `, ${actions} actions` : ''}${bar}${isOver ? ': TOO LONG' : ''}`
  );
}

const freePort = () =>
  new Promise((done) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => done(port));
    });
  });

if (spawnSync('git', ['clone', '--quiet', root, clone], { stdio: 'inherit' }).status !== 0) process.exit(1);
const port = await freePort();
started = Date.now();
const server = spawn('npm', ['start'], {
  cwd: clone,
  stdio: ['ignore', 'ignore', 'inherit'],
  detached: true,
  env: { ...process.env, PORT: String(port), HOST: '127.0.0.1' }
});
const address = `http://127.0.0.1:${port}`;
const answers = () =>
  fetch(`${address}/estate`).then(
    (a) => a.ok,
    () => false
  );
while (!(await answers())) {
  if (server.exitCode !== null) throw new Error(`npm start ended with ${server.exitCode}`);
  await new Promise((done) => setTimeout(done, 300));
}

const browser = await chromium.launch({
  executablePath: installChromium(),
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking']
});

/** A page of somebody who was never here, with what they do. */
async function newcomer() {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  page.setDefaultTimeout(60_000);
  actions = 0;
  const act = async (what) => {
    actions++;
    await page.waitForTimeout(PERSON_S * 1000);
    await what();
  };
  return {
    page,
    click: (name, role = 'button') => act(() => page.getByRole(role, { name }).first().click()),
    act
  };
}

const planned = async (page) => {
  await page.locator('[data-case]').first().waitFor();
  await page.getByText(/^Planning[:…]/).waitFor({ state: 'detached' });
};

const LIST = [
  'host;runs;where',
  ...Array.from(
    { length: 12 },
    (_, i) => `quay-${i + 1};Kestrel Panel ${['2.9', '2.10', '3'][i % 3]};North quay`
  ),
  ...Array.from({ length: 8 }, (_, i) => `gate-${i + 1};Gatehouse ${['5', '6'][i % 2]};Gates`)
].join('\n');

const rows = (lines) => lines.map((l) => `| ${l.join(' | ')} |`).join('\n');
const PAGES = [
  [
    '# Kestrel Panel: support of releases',
    rows([
      ['Release', 'Out', 'Supported until'],
      ['---', '---', '---'],
      ['2.9', '13 January 2022', '30 June 2027'],
      ['2.10', '4 March 2023', '30 June 2028'],
      ['3', '2 February 2024', '31 March 2030'],
      ['4', '1 June 2026', '31 May 2033']
    ])
  ],
  [
    '# Gatehouse: support of releases',
    rows([
      ['Release', 'Out', 'Supported until'],
      ['---', '---', '---'],
      ['5', 'May 2021', '31 December 2026'],
      ['6', 'May 2023', '31 December 2028'],
      ['7', 'May 2025', '31 December 2031']
    ])
  ]
].map((parts) => parts.join('\n\n'));

try {
  // The demo, in one command.
  {
    const { page, click } = await newcomer();
    await page.goto(address);
    await click('Open the demo');
    await planned(page);
    told('clean clone to the demo’s verdicts, by one command', 600);
    await page.context().close();
  }
  // An own list, nothing in the catalogue.
  started = Date.now();
  const { page, click, act } = await newcomer();
  await page.goto(address);
  await click('Bring in a list', 'link');
  await act(() =>
    page
      .locator('input[type=file]')
      .setInputFiles({ name: 'machines.csv', mimeType: 'text/csv', buffer: Buffer.from(LIST) })
  );
  await click(/^Take in 20 systems/);
  await planned(page);
  await click(/systems of no product yet/, 'link');
  for (const [i, text] of PAGES.entries()) {
    await act(() =>
      page.getByLabel('Table of dates').evaluate((box, pasted) => {
        const clipboardData = new DataTransfer();
        clipboardData.setData('text/plain', pasted);
        box.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
      }, text)
    );
    await page.locator('[data-ready=true]').nth(i).waitFor();
  }
  await click(/^Take \d tables?/);
  await click('All: each to the next');
  await click('Make them and plan');
  await planned(page);
  told('own list to verdicts', 120);
  // A night's worksheet from it.
  await act(() => page.locator('[data-case]').first().click());
  await click('Take this way');
  // Who decides is asked once.
  await click('Without a name');
  await click(/^(Make its worksheet|Only for)/);
  await page.locator('[data-worksheet]').waitFor();
  const items = await page.locator('[data-item]').count();
  told(`own list to a night’s worksheet of ${items} items`, 300);
} catch (error) {
  failed = true;
  console.log(String(error));
  for (const context of browser.contexts())
    for (const page of context.pages()) console.log(await page.locator('main').innerText());
} finally {
  await browser.close();
  process.kill(-server.pid, 'SIGTERM');
  if (!process.env.KEEP) rmSync(folder, { recursive: true, force: true });
}
process.exit(failed ? 1 : 0);
