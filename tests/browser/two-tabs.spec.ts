import { readFileSync } from 'node:fs';
import { Random } from '../support/random';
import { countOf, tell } from '../support/laws';
import { expect, follow, giveFile, kept, openDemo, openLaws, planned, test } from './desk';
import type { Page } from '@playwright/test';

/** Facts of one system that take any text, by their ids. */
const FIELDS = ['memory', 'processor.model', 'model', 'disk.total'] as const;
const VALUES: Readonly<Record<string, (n: number) => string>> = {
  memory: (n) => `${n + 1} GB`,
  'disk.total': (n) => `${n + 1} GB`
};
const valueFor = (field: string, n: number): string => VALUES[field]?.(n) ?? `kind ${n}`;

/** Types a value over a fact, or a note, without waiting for anything: as fast as two people at two keyboards. */
const edit = (page: Page, field: string, value: string): Promise<void> =>
  page.evaluate(
    ([name, text]) => {
      const input = document.querySelector<HTMLInputElement | HTMLTextAreaElement>(
        name === 'note' ? '#system-note' : `[data-fact="${name}"] input`
      );
      if (!input) throw new Error(`no field ${name}`);
      input.value = text ?? '';
      input.dispatchEvent(new Event('change', { bubbles: true }));
    },
    [field, value] as const
  );

const shown = (page: Page, field: string): Promise<string> =>
  page
    .locator(field === 'note' ? '#system-note' : `[data-fact="${field}"] input`)
    .evaluate((el) => (el as HTMLInputElement).value);

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

test(
  'two tabs on one record: other fields lose nothing, the same field is told to the second',
  { tag: '@quick' },
  async ({ page, context }) => {
    await openLaws(page);
    const other = await context.newPage();
    const tabs = [page, other] as const;
    for (const tab of tabs) {
      await tab.goto('/estate/system?at=draw-01');
      await expect(tab.locator('#system-note')).toBeVisible();
    }
    const fields: string[] = ['note'];
    for (const field of FIELDS)
      if ((await page.locator(`[data-fact="${field}"]`).count()) > 0) fields.push(field);
    expect(fields.length).toBeGreaterThan(2);
    const random = new Random(31);
    const rounds = countOf(500);
    let together = 0;
    for (let round = 1; round <= rounds; round++) {
      const [a, b] = random.shuffle(fields) as [string, string];
      const first = random.int(0, 1);
      const [one, two] = [tabs[first], tabs[1 - first]] as [Page, Page];
      const collides = random.chance(0.15);
      const gap = random.pick([0, 0, 1, 5, 20, 80, 200, 800]);
      const [x, y] = [valueFor(a, round * 2), valueFor(collides ? a : b, round * 2 + 1)];
      await edit(one, a, x);
      if (gap > 0) await pause(gap);
      await edit(two, collides ? a : b, y);
      if (collides) {
        together++;
        // One of the two stands, on both tabs alike.
        const isOne = async (): Promise<boolean> => {
          const [here, there] = [await shown(page, a), await shown(other, a)];
          return here === there && (here === x || here === y);
        };
        await expect.poll(isOne, { message: `round ${round}, ${a}` }).toBe(true);
        continue;
      }
      for (const tab of tabs)
        await expect
          .poll(async () => [await shown(tab, a), await shown(tab, b)], {
            message: `round ${round}, ${a}, ${b}`
          })
          .toEqual([x, y]);
    }
    // Both at once: the second is told of both values. Which comes second, and whether it had heard of the first, is chance.
    const told = page.getByText(
      /Also changed on another tab: .*“at once .” stands, “at once .” was not kept/
    );
    const toldThere = other.getByText(
      /Also changed on another tab: .*“at once .” stands, “at once .” was not kept/
    );
    await expect(async () => {
      await Promise.all([edit(page, 'note', 'at once 1'), edit(other, 'note', 'at once 2')]);
      await pause(500);
      const times = (await told.count()) + (await toldThere.count());
      await Promise.all([edit(page, 'note', `before ${Math.random()}`), pause(300)]);
      expect(times).toBe(1);
    }).toPass();
    tell('two tabs lose nothing', { rounds, together });
    // What was changed last is undone by either tab, on both.
    await edit(page, 'note', 'the last');
    await expect.poll(() => shown(other, 'note')).toBe('the last');
    await other.locator('h1').first().click();
    await other.keyboard.press('Control+z');
    await expect.poll(() => shown(page, 'note')).not.toBe('the last');
  }
);

test('ten thousand systems: a list taken in on one tab while another edits, and undone: both show the same', async ({
  page,
  context
}) => {
  const rounds = countOf(20);
  test.setTimeout(120_000 + rounds * 30_000);
  const list = (from: number, to: number, memory: number): string =>
    `Name,OS,Memory (GB)\n${Array.from({ length: to - from }, (_, i) => `m-${from + i},Brindle Server 8,${memory}`).join('\n')}`;
  await openDemo(page);
  await page.goto('/import');
  await giveFile(page, 'many.csv', list(0, 10_000, 4));
  await page.getByRole('button', { name: 'Take in 10,000 systems' }).click();
  await planned(page);
  const other = await context.newPage();
  await other.goto('/estate/system?at=m-0');
  await expect(other.locator('#system-note')).toBeVisible();
  const random = new Random(47);
  for (let round = 1; round <= rounds; round++) {
    const memory = 8 + round;
    await follow(page, '/import');
    await giveFile(page, `some ${round}.csv`, list(0, 200, memory));
    const take = page.getByRole('button', { name: 'Take in 200 systems' });
    await expect(take).toBeEnabled();
    const note = `seen ${round}`;
    const isUndone = random.chance(0.5);
    await Promise.all([
      take.click(),
      pause(random.pick([0, 20, 80, 200, 800])).then(() => edit(other, 'note', note))
    ]);
    await expect(page).not.toHaveURL(/import/);
    await follow(page, '/estate/system?at=m-0');
    await expect(page.locator('#system-note')).toBeVisible();
    const both = (): Promise<string[][]> =>
      Promise.all([page, other].map(async (tab) => [await shown(tab, 'note'), await shown(tab, 'memory')]));
    const all = [note, `${memory} GB`];
    await expect.poll(both, { message: `round ${round}` }).toEqual([all, all]);
    if (!isUndone) continue;
    // What was stored last goes, whichever tab it came from; the other stays.
    await other.locator('h1').first().click();
    await other.keyboard.press('Control+z');
    const isOneGone = async (): Promise<boolean> => {
      const [here, there] = await both();
      return here?.join() === there?.join() && (here?.[0] === note) !== (here?.[1] === `${memory} GB`);
    };
    await expect.poll(isOneGone, { message: `round ${round}, undone` }).toBe(true);
  }
});

/** A release that can be made the target on a stair, other than the one that is. */
async function otherTread(page: Page, systems: readonly string[]): Promise<{ at: string; release: string }> {
  for (const at of systems) {
    await page.goto(`/stair?at=${at}`);
    await expect(page.locator('.tread').first()).toBeVisible();
    const open = page.locator(
      '.tread:not(.installed):not(.older):not(.closed):not(.target):not(.cannot-tell)'
    );
    const release = await open
      .first()
      .getAttribute('data-tread', { timeout: 2000 })
      .catch(() => null);
    if (release !== null) return { at, release };
  }
  throw new Error('no stair with another target');
}

test('two decisions made at once are two decisions', async ({ page, context }) => {
  await openDemo(page);
  const other = await context.newPage();
  const first = await otherTread(page, ['tick-06']);
  const second = await otherTread(other, ['draw-01', 'west-01', 'cad-01', 'office-01', 'tick-01', 'tick-03']);
  expect(second.at).not.toBe(first.at);
  await Promise.all([
    page.locator(`[data-tread="${first.release}"]`).click(),
    other.locator(`[data-tread="${second.release}"]`).click()
  ]);
  for (const p of [page, other]) await expect(p.getByText('Chosen by decision').first()).toBeVisible();
  for (const p of [page, other]) {
    await kept(p);
    await p.reload();
    await expect(p.getByText('Chosen by decision').first()).toBeVisible();
  }
});

/** From now on nothing more can be stored in this page, as where the disk is full. */
const fill = (page: Page): Promise<void> =>
  page.evaluate(() => {
    const refuse = (): never => {
      throw new DOMException('The disk is full.', 'QuotaExceededError');
    };
    IDBObjectStore.prototype.put = refuse;
    IDBObjectStore.prototype.add = refuse;
  });

test('no room left: what is kept stays, what was not stored can be taken out', async ({ page }) => {
  await openDemo(page);
  await page.goto('/estate/system?at=draw-01');
  await expect(page.locator('#system-note')).toBeVisible();
  await edit(page, 'note', 'kept');
  await expect(page.getByRole('status').filter({ hasText: 'Noted on' })).toBeVisible();
  await fill(page);
  await edit(page, 'note', 'x'.repeat(4000));
  await expect(page.getByRole('alert')).toContainText('no room left');
  await expect.poll(() => shown(page, 'note')).toBe('kept');
  const file = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Take out what was not stored' }).click();
  const download = await file;
  expect(download.suggestedFilename()).toMatch(/^not-stored \d{4}-\d\d-\d\d\.json$/);
  expect(readFileSync(await download.path(), 'utf8')).toContain('x'.repeat(4000));
  await page.reload();
  await expect.poll(() => shown(page, 'note')).toBe('kept');
});

test('storage that may not be seen: that is said in the place of an empty desk, and tried again', async ({
  page
}) => {
  await openDemo(page);
  await page.addInitScript(() => {
    const open = IDBFactory.prototype.open;
    IDBFactory.prototype.open = function (...args) {
      if (sessionStorage.getItem('may see') !== 'yes')
        throw new DOMException('Not for this page.', 'SecurityError');
      return open.apply(this, args);
    };
  });
  await page.goto('/estate');
  await expect(page.getByRole('heading', { name: /cannot be read/ })).toBeVisible();
  await expect(page.getByText('does not let the page see its storage')).toBeVisible();
  await expect(page.getByText('Nothing is on the desk yet')).toHaveCount(0);
  await page.evaluate(() => sessionStorage.setItem('may see', 'yes'));
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.locator('[data-case]').first()).toBeVisible();
});
