import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, expect, test, type Page } from '@playwright/test';
import { tell } from '../support/laws';
import { Random } from '../support/random';
import { discard, giveFile, planned } from './desk';

const ROUNDS = process.env['LAWS'] === 'all' ? 500 : 6;
const MACHINES = 40;
const SYSTEM = '/estate/system?at=draw-01';

/** A browser of its own over a profile that stays; it can be killed as a machine dies. */
class Mortal {
  readonly #profile: string;
  #process: ChildProcess | undefined;

  constructor(profile: string) {
    this.#profile = profile;
  }

  async open(baseURL: string, path = '/estate'): Promise<Page> {
    rmSync(join(this.#profile, 'DevToolsActivePort'), { force: true });
    this.#process = spawn(
      process.env['CHROMIUM'] ?? '/usr/bin/chromium',
      [
        ...[
          '--headless',
          '--no-sandbox',
          '--disable-gpu',
          '--disable-background-networking',
          '--no-first-run'
        ],
        ...['--remote-debugging-port=0', `--user-data-dir=${this.#profile}`, 'about:blank']
      ],
      { stdio: 'ignore', detached: true }
    );
    let port = '';
    await expect
      .poll(() => {
        try {
          port = readFileSync(join(this.#profile, 'DevToolsActivePort'), 'utf8').split('\n')[0] ?? '';
        } catch {
          port = '';
        }
        return port;
      })
      .not.toBe('');
    const browser = await chromium.connectOverCDP(`http://127.0.0.1:${port}`);
    const [context] = browser.contexts();
    const page = context?.pages()[0];
    if (!context || !page) throw new Error('no page');
    await page.addInitScript(() =>
      localStorage.setItem('orange-stair settings', JSON.stringify({ who: 'tester' }))
    );
    await page.goto(`${baseURL}${path}`);
    return page;
  }

  /** Every process of it, at once, without a word. */
  kill(): Promise<void> {
    return this.#end((pid) => process.kill(-pid, 'SIGKILL'));
  }

  /** As somebody closes it. */
  leave(): Promise<void> {
    return this.#end((pid) => process.kill(pid, 'SIGTERM'));
  }

  async #end(how: (pid: number) => void): Promise<void> {
    const { pid, exitCode, signalCode } = this.#process ?? {};
    if (pid === undefined || exitCode !== null || signalCode !== null) return;
    const ended = new Promise((done) => this.#process?.once('exit', done));
    how(pid);
    await ended;
  }
}

/** Writes notes one after the other; each is told once the page would let itself be left. */
const writeNotes = (page: Page, round: number): Promise<void> =>
  page.evaluate(async (r) => {
    const isKept = (): boolean => window.dispatchEvent(new Event('beforeunload', { cancelable: true }));
    for (let n = 1; ; n++) {
      const note = document.querySelector<HTMLTextAreaElement>('#system-note');
      if (!note) throw new Error('no note');
      note.value = `${r}.${n}`;
      note.dispatchEvent(new Event('change', { bubbles: true }));
      while (!isKept()) await new Promise((done) => setTimeout(done, 2));
      await (window as unknown as { told: (n: number) => Promise<void> }).told(n);
    }
  }, round);

const keptIn = (page: Page): Promise<unknown> =>
  page.waitForFunction(() => window.dispatchEvent(new Event('beforeunload', { cancelable: true })));

/** Systems that are stored, asked of the browser itself. */
const countSystems = (page: Page): Promise<number> =>
  page.evaluate(async () => {
    const done = <T>(request: IDBRequest<T>): Promise<T> =>
      new Promise((ok, fail) => {
        request.onsuccess = () => ok(request.result);
        request.onerror = () => fail(request.error ?? new Error('refused'));
      });
    let most = 0;
    for (const { name } of await indexedDB.databases()) {
      const db = await done(indexedDB.open(name ?? ''));
      if (db.objectStoreNames.contains('records')) {
        const range = IDBKeyRange.bound('system/', 'system0');
        most = Math.max(most, await done(db.transaction('records').objectStore('records').count(range)));
      }
      db.close();
    }
    return most;
  });

/** Brings in machines that were not there, and tells once they are kept. */
async function bringIn(page: Page, baseURL: string, round: number): Promise<void> {
  await page.goto(`${baseURL}/import`);
  const lines = Array.from({ length: MACHINES }, (_, i) => `killed-${round}-${i},Brindle Server,8`);
  await giveFile(page, 'machines.csv', `name,product,version\n${lines.join('\n')}`);
  await page.getByRole('button', { name: `Take in ${MACHINES} systems` }).click();
  await page.waitForFunction(
    () =>
      location.pathname !== '/import' && window.dispatchEvent(new Event('beforeunload', { cancelable: true }))
  );
  await page.evaluate(() => (window as unknown as { told: (n: number) => Promise<void> }).told(1));
}

test('killed in the middle of edits, imports and plans: nothing that was kept is lost', async ({
  baseURL: at
}) => {
  const baseURL = at ?? '';
  test.setTimeout(60_000 + ROUNDS * 20_000);
  const profile = mkdtempSync(join(tmpdir(), 'orange-stair-killed-'));
  const mortal = new Mortal(profile);
  const random = new Random(77);
  let [told, imports, systems, note] = [0, 0, 262, ''];
  try {
    let page = await mortal.open(baseURL);
    await page.getByRole('button', { name: 'Open the demo' }).click();
    await planned(page);
    await expect(page.getByText('262 systems in')).toBeVisible();
    await keptIn(page);
    await page.goto(`${baseURL}${SYSTEM}`);
    for (let round = 1; round <= ROUNDS; round++) {
      const imported = random.chance(0.2);
      let last = 0;
      await page.exposeFunction('told', (n: number) => void (last = n));
      await expect(page.locator('#system-note')).toBeVisible();
      const work = (imported ? bringIn(page, baseURL, round) : writeNotes(page, round)).catch(
        () => undefined
      );
      await new Promise((done) => setTimeout(done, random.int(imported ? 300 : 0, imported ? 2500 : 1200)));
      await mortal.kill();
      await work;
      page = await mortal.open(baseURL, SYSTEM);
      await expect(page.locator('#system-note')).toBeVisible();
      const there = await countSystems(page);
      if (imported) {
        // All of a list or none of it; all where it was told as kept.
        expect([...(last > 0 ? [] : [systems]), systems + MACHINES], `round ${round}`).toContain(there);
        systems = there;
        imports += last;
      } else expect(there, `round ${round}`).toBe(systems);
      const seen = await page.locator('#system-note').inputValue();
      const [ofRound, n] = seen.split('.').map(Number);
      if (imported || last === 0) expect([note, `${round}.1`], `round ${round}`).toContain(seen);
      else {
        expect(ofRound, `round ${round}`).toBe(round);
        expect(n, `round ${round}`).toBeGreaterThanOrEqual(last);
      }
      note = seen;
      told += imported ? 0 : last;
    }
  } finally {
    await mortal.kill();
    discard(profile);
  }
  tell('kill -9', { rounds: ROUNDS, 'edits told as kept': told, 'imports told as kept': imports });
  expect(told).toBeGreaterThan(0);
});

/** A small disk of its own, in memory; undefined where this machine lets nobody have one. */
function smallDisk(): string | undefined {
  const at = mkdtempSync(join(tmpdir(), 'orange-stair-disk-'));
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=160m', 'tmpfs', at], { stdio: 'ignore' });
    return at;
  } catch {
    rmSync(at, { recursive: true });
    return undefined;
  }
}

/** Fills a disk to the last byte. */
function fillUp(disk: string): void {
  for (const size of [1 << 20, 1 << 12, 1])
    try {
      for (let n = 0; ; n++) writeFileSync(join(disk, `full-${size}-${n}`), Buffer.alloc(size));
    } catch {
      // No room for another of this size.
    }
}

test('a disk that fills up: what was kept stays, the rest is told and can be taken out', async ({
  baseURL: at
}) => {
  const disk = smallDisk();
  test.skip(disk === undefined, 'no small disk can be made on this machine');
  if (disk === undefined) return;
  const mortal = new Mortal(join(disk, 'profile'));
  try {
    mkdirSync(join(disk, 'profile'));
    let page = await mortal.open(at ?? '');
    await page.getByRole('button', { name: 'Open the demo' }).click();
    await planned(page);
    await keptIn(page);
    // The browser's own book of who stores what is written half a minute late, or as it ends. A disk that fills before an origin is in it
    // takes all that this origin has.
    await mortal.leave();
    page = await mortal.open(at ?? '');
    await planned(page);
    const note = page.locator('#system-note');
    await page.goto(`${at}/estate/system?at=draw-01`);
    await note.fill('kept');
    await note.press('Tab');
    await keptIn(page);
    fillUp(disk);
    for (let i = 0; i < 40 && !(await page.getByRole('alert').isVisible()); i++) {
      await note.fill(`${i}`.repeat(2000));
      await note.press('Tab');
      await page.waitForFunction(
        () =>
          document.querySelector('[role=alert]') ??
          window.dispatchEvent(new Event('beforeunload', { cancelable: true }))
      );
    }
    await expect(page.getByRole('alert')).toContainText(/not stored|no room/i);
    const stored = await note.inputValue();
    const file = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Take out what was not stored' }).click();
    expect((await file).suggestedFilename()).toMatch(/^not-stored/);
    await mortal.kill();
    for (const name of readdirSync(disk)) if (name.startsWith('full')) rmSync(join(disk, name));
    page = await mortal.open(at ?? '');
    await planned(page);
    await page.goto(`${at}/estate/system?at=draw-01`);
    await expect(page.locator('#system-note')).toHaveValue(stored);
  } finally {
    await mortal.kill();
    execFileSync('umount', ['-l', disk]);
    discard(disk);
  }
});
