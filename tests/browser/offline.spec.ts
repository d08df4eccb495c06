import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { createServer as createHttp } from 'node:http';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, expect, type Page, test } from '@playwright/test';
import { discard } from './desk';

const freePort = (): Promise<number> =>
  new Promise((done) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const address = server.address();
      server.close(() => done(typeof address === 'object' && address ? address.port : 0));
    });
  });

const killed = (child: ChildProcess): Promise<void> =>
  new Promise((done) => {
    child.once('exit', () => done());
    child.kill('SIGKILL');
  });

/** A browser of its own on a folder, to be killed with no warning. */
async function browse(folder: string): Promise<{ page: Page; kill: () => Promise<void> }> {
  const port = await freePort();
  const child = spawn(
    process.env['CHROMIUM'] ?? '/usr/bin/chromium',
    [
      '--headless=new',
      '--no-sandbox',
      '--disable-gpu',
      '--disable-background-networking',
      '--no-first-run',
      '--window-size=1280,800',
      `--remote-debugging-port=${port}`,
      `--user-data-dir=${folder}`,
      'about:blank'
    ],
    { stdio: 'ignore' }
  );
  const connect = async (): Promise<Awaited<ReturnType<typeof chromium.connectOverCDP>>> => {
    for (let tried = 0; ; tried++)
      try {
        return await chromium.connectOverCDP(`http://127.0.0.1:${port}`);
      } catch (error) {
        if (tried > 100) throw error;
        await new Promise((done) => setTimeout(done, 300));
      }
  };
  const browser = await connect();
  const [context] = browser.contexts();
  const page = context?.pages()[0] ?? (await context!.newPage());
  return { page, kill: () => killed(child) };
}

test(
  'with the network gone, and after the browser is killed, the worksheet is there and is worked on',
  { tag: '@quick' },
  async () => {
    const port = await freePort();
    const server = spawn('node', ['scripts/serve.mjs'], {
      env: { ...process.env, HOST: '127.0.0.1', PORT: String(port) },
      stdio: 'ignore'
    });
    const folder = mkdtempSync(join(tmpdir(), 'stair-'));
    const address = `http://127.0.0.1:${port}`;
    let browser = await browse(folder);
    try {
      const { page } = browser;
      await page.addInitScript(() => localStorage.setItem('orange-stair settings', '{"who":"tester"}'));
      await expect(async () => void (await page.goto(`${address}/estate`))).toPass();
      await page.goto(`${address}/estate`);
      await page.getByRole('button', { name: 'Open the demo' }).click();
      await expect(page.locator('[data-case]').first()).toBeVisible();
      // All of its files are kept.
      await page.evaluate(() => navigator.serviceWorker.ready);
      await page.goto(`${address}/stair?at=west-04`);
      await page.locator('.onward').getByRole('button', { name: 'Take this way' }).click();
      await page.getByRole('button', { name: 'Make its worksheet' }).click();
      await expect(page.locator('[data-worksheet]')).toBeVisible();
      const sheet = page.url();
      await killed(server);
      await page.reload();
      await passOne(page, 1);
      await page.goto(`${address}/estate/system?at=west-04`);
      await expect(page.getByRole('heading', { level: 1 })).toContainText('west-04');
      await page.goto(sheet);
      await passOne(page, 2);
      await browser.kill();
      browser = await browse(folder);
      await browser.page.goto(sheet);
      await expect(browser.page.locator('[data-standing]')).toContainText('2 of');
      await passOne(browser.page, 3);
      // What was never there cannot be had, and says so.
      await expect(fetchFails(browser.page, '/api/this-machine')).resolves.toBe(true);
    } finally {
      await browser.kill();
      server.kill('SIGKILL');
      discard(folder);
    }
  }
);

/** Passes the item one stands at; so many are done then, and kept. */
async function passOne(page: Page, done: number): Promise<void> {
  await page.locator('[data-open-item]').getByRole('button', { name: 'Passed', exact: true }).click();
  await expect(page.locator('[data-standing]')).toContainText(`${done} of`);
  await expect
    .poll(() => page.evaluate(() => window.dispatchEvent(new Event('beforeunload', { cancelable: true }))))
    .toBe(true);
}

const fetchFails = (page: Page, path: string): Promise<boolean> =>
  page.evaluate(
    (p) =>
      fetch(p).then(
        () => false,
        () => true
      ),
    path
  );

/** The server as it is, and from `next` on with a newer build: other names of versions, another page. */
function serveTwice(port: number, behind: number): { next: () => void; end: () => void } {
  let isNext = false;
  const version =
    /["'`](\d{13})["'`]/.exec(readFileSync('build/client/service-worker.js', 'utf8'))?.[1] ?? '';
  if (version === '') throw new Error('no version in the service worker');
  const server = createHttp((request, response) => {
    const answer = async (): Promise<void> => {
      const from = await fetch(`http://127.0.0.1:${behind}${request.url ?? '/'}`);
      let body = Buffer.from(await from.arrayBuffer());
      const type = from.headers.get('content-type') ?? '';
      if (isNext && (request.url === '/service-worker.js' || type.startsWith('text/html')))
        body = Buffer.from(
          body
            .toString()
            .replaceAll(version, String(Number(version) + 1))
            .replace('<html ', '<html data-next ')
        );
      const headers = [...from.headers].filter(
        ([n]) =>
          !['content-encoding', 'content-length', 'transfer-encoding', 'connection', 'etag'].includes(n)
      );
      response.writeHead(from.status, Object.fromEntries(headers)).end(body);
    };
    answer().catch(() => response.destroy());
  }).listen(port, '127.0.0.1');
  return { next: () => void (isNext = true), end: () => server.close() };
}

test('a newer version is taken when somebody says so, and not before; another tab is told', async ({
  baseURL
}) => {
  const port = await freePort();
  const server = serveTwice(port, Number(new URL(baseURL ?? '').port));
  const folder = mkdtempSync(join(tmpdir(), 'stair-'));
  const browser = await browse(folder);
  const address = `http://127.0.0.1:${port}`;
  const isNext = (page: Page): Promise<boolean> =>
    page.evaluate(() => document.documentElement.hasAttribute('data-next'));
  try {
    const { page } = browser;
    await page.goto(`${address}/estate`);
    await page.getByRole('button', { name: 'Open the demo' }).click();
    await expect(page.locator('[data-case]').first()).toBeVisible();
    await page.evaluate(() => navigator.serviceWorker.ready);
    await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
    server.next();
    const other = await page.context().newPage();
    await other.goto(`${address}/ready`);
    await page.evaluate(async () => (await navigator.serviceWorker.getRegistration())?.update());
    const take = page.getByRole('button', { name: 'Take the new version' });
    await expect(take).toBeVisible();
    // However often it is loaded, it is the one that was there.
    await page.reload();
    await expect(take).toBeVisible();
    expect(await isNext(page)).toBe(false);
    await other.reload();
    expect(await isNext(other)).toBe(false);
    await expect(other.getByRole('button', { name: 'Take the new version' })).toBeVisible();
    await take.click();
    await expect.poll(() => isNext(page).catch(() => false)).toBe(true);
    await expect(page.locator('[data-case]').first()).toBeVisible();
    // Nothing is taken from under the other tab: it is told, and goes on with what it has, parts not yet loaded among it.
    await expect(other.getByRole('button', { name: 'Load the new version' })).toBeVisible();
    expect(await isNext(other)).toBe(false);
    await other.keyboard.press('h');
    await expect(other.locator('[data-chapter]').first()).toBeVisible();
    await other.keyboard.press('Escape');
    await other.getByRole('button', { name: 'Load the new version' }).click();
    await expect.poll(() => isNext(other).catch(() => false)).toBe(true);
  } finally {
    await browser.kill();
    server.end();
    discard(folder);
  }
});
