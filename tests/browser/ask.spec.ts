import { expect, type Page } from '@playwright/test';
import { StandIn } from '../../src/standins/machine';
import { type Running, STAND_IN, standInRedfish, standInSsh } from '../../src/standins/servers';
import { expectAccessible, openDemo, planned, test } from './desk';

const DAY = '2031-03-10';
let running: Running[] = [];
test.afterEach(() => {
  for (const one of running) one.close();
  running = [];
});
const start = async (one: Promise<Running>): Promise<number> => {
  const started = await one;
  running.push(started);
  return started.port;
};

/** Everything the browser keeps of this origin, as one text. */
const keptText = (page: Page): Promise<string> =>
  page.evaluate(async () => {
    const parts: unknown[] = [JSON.stringify(localStorage), JSON.stringify(sessionStorage)];
    for (const { name } of await indexedDB.databases()) {
      if (name === undefined || name.includes('files')) continue;
      const db = await new Promise<IDBDatabase>((done) => {
        const open = indexedDB.open(name);
        open.onsuccess = () => done(open.result);
      });
      for (const store of db.objectStoreNames)
        parts.push(
          await new Promise((done) => {
            const all = db.transaction(store).objectStore(store).getAll();
            all.onsuccess = () => done(JSON.stringify(all.result));
          })
        );
      db.close();
    }
    return parts.join('\n');
  });

test('machines asked over the wire: keys looked at once, records taken in, a hop verified by asking the machine itself; nothing that lets in is kept', async ({
  page
}) => {
  const draw = new StandIn({ name: 'draw-01', product: 'Garnock Desk', version: '4 r1', edition: 'Studio' });
  const own = new StandIn({ name: 'rack-9', product: 'Corbel Host', version: '5' });
  const port = await start(standInSsh(draw, () => DAY));
  const gone = await start(standInSsh(own, () => DAY));
  running.pop()?.close();
  await openDemo(page);
  await planned(page);
  await page.goto('/import');
  await page.getByRole('link', { name: 'Ask machines over the wire' }).click();
  await page.getByLabel('Addresses').fill(`127.0.0.1:${port}\n127.0.0.1:${gone}\n10.0.0.0/8`);
  await expect(page.getByText('“10.0.0.0/8” is no address of one machine.')).toBeVisible();
  await page.getByLabel('User').fill(STAND_IN.user);
  await page.getByLabel('Password').fill(STAND_IN.password);
  await page.getByRole('button', { name: 'Ask 2 machines' }).click();
  await expect(page.getByText('1 machine shows a key nobody has looked at.')).toBeVisible();
  await expect(page.locator('[data-told=refused]')).toContainText('nothing listens at that port');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'These are theirs; ask it again' }).click();
  await expect(page.locator('[data-told=record]')).toContainText('draw-01: Garnock Desk 4 r1 Studio');
  await page.getByRole('button', { name: 'Look at what it says' }).click();
  await expect(page.getByLabel('Name of machine 1')).toHaveValue('draw-01');
  await page.getByRole('button', { name: 'Take in 1 system' }).click();
  await page.goto('/estate/system?at=draw-01');
  await expect(page.getByText(`ssh 127.0.0.1:${port} as ${STAND_IN.user}`).first()).toBeVisible();

  // The hop of its worksheet: what it arrived at is read from the machine itself.
  await page.goto('/stair?at=draw-01');
  await page.locator('.onward').getByRole('button', { name: 'Take this way' }).click();
  await page
    .getByRole('button', { name: /^(Make its worksheet|Only for)/ })
    .first()
    .click();
  await page.locator('[data-kind=hop]').first().click();
  await page.getByRole('button', { name: /^Ask the machine itself, over SSH/ }).click();
  await page.getByLabel('Password').fill(STAND_IN.password);
  await page.getByRole('button', { name: 'Read the version again' }).click();
  await expect(page.locator('[data-read-again=otherwise]')).toContainText(
    'Garnock Desk 4 r1 Studio: not what was to be arrived at'
  );
  draw.arrive('5');
  await page.getByRole('button', { name: 'Read the version again' }).click();
  await expect(page.locator('[data-read-again="as expected"]')).toContainText(
    'Garnock Desk 5 Studio: as expected'
  );
  await expect(page.getByLabel('Note')).toHaveValue(/as expected/);

  // Another key at the same address stops before anything is sent.
  running.pop()?.close();
  await start(standInSsh(draw, () => DAY, { port }));
  await page.getByRole('button', { name: 'Read the version again' }).click();
  await expect(page.getByRole('alert')).toContainText('another key than was taken');

  const kept = await keptText(page);
  expect(kept).toContain(`ssh 127.0.0.1:${port}`);
  expect(kept).not.toContain(STAND_IN.password);
});

test('over Redfish, and by nobody else’s word', async ({ page }) => {
  const port = await start(
    standInRedfish(new StandIn({ name: 'rack-9', product: 'Corbel Host', version: '5' }))
  );
  await openDemo(page);
  await page.goto('/import?ask');
  await page.getByLabel('Over').selectOption('redfish');
  await page.getByLabel('Addresses').fill(`127.0.0.1:${port}`);
  await page.getByLabel('User').fill(STAND_IN.user);
  await page.getByLabel('Password').fill('a wrong one');
  await page.getByRole('button', { name: 'Ask 1 machine' }).click();
  await page.getByRole('button', { name: 'These are theirs; ask it again' }).click();
  await expect(page.locator('[data-told="wrong key"]')).toContainText('not let in');
  await page.getByLabel('Password').fill(STAND_IN.password);
  await page.getByRole('button', { name: 'Ask 1 machine' }).click();
  await expect(page.locator('[data-told=record]')).toContainText('rack-9: Corbel Host 5');
  // Without the word of this start of the server, and for other sites, nobody is asked.
  const { origin } = new URL(page.url());
  const body = {
    targets: [{ address: '127.0.0.1', port }],
    credentials: { by: 'redfish', user: 'x', password: 'y' },
    known: {}
  };
  for (const headers of [{}, { 'x-start-word': 'guessed' }] as Record<string, string>[])
    expect((await page.request.post(`${origin}/api/ask`, { data: body, headers })).status()).toBe(403);
  expect(
    (
      await page.request.get(`${origin}/api/ask`, { headers: { origin: 'https://elsewhere.example' } })
    ).status()
  ).toBe(403);
  await page.getByLabel('Over').selectOption('snmp');
  await expect(page.getByLabel('Community', { exact: true })).toBeVisible();
});
