import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { parseDay } from '../../src/core/date';
import type { PlanFile } from '../../src/core/exchange/plan-file-schema';
import { sayDay } from '../../src/core/wording';
import { littleText } from '../../scripts/little-demo';
import { isQuick } from '../support/laws';
import { expect, follow, openLaws, settled, test } from './desk';

type Case = PlanFile['cases'][number];

/** What a view says of cases, by the system each is named by. */
const readFound = async (page: Page): Promise<Map<string, Record<string, string>>> =>
  new Map(
    await page
      .locator('[data-found]')
      .evaluateAll((all) =>
        all.map((e) => [
          (e as HTMLElement).dataset['found'] ?? '',
          Object.fromEntries(
            [...e.querySelectorAll<HTMLElement>('[data-said]')].map((p) => [
              p.dataset['said'] ?? '',
              (p.textContent ?? '').trim().replace(/\s+/g, ' ')
            ])
          )
        ])
      )
  );

/** The same as the plan's file has it, with days as a screen writes them. */
const wordsOf = ({ found }: Case): Record<string, string> => {
  const { verdict = '', day = '', left = '', sum = '' } = found ?? {};
  const days = (text: string): string =>
    text.replace(/\d{4}-\d\d-\d\d/g, (iso) => sayDay(parseDay(iso) ?? 0));
  return Object.fromEntries(
    Object.entries({ verdict, day, left, sum }).flatMap(([k, v]) => (v === '' ? [] : [[k, days(v)]]))
  );
};

test(
  'every place says of a case what the plan’s file says of it: verdict, day, days left, sum',
  { tag: '@quick' },
  async ({ page, request }) => {
    const workspace = JSON.parse(isQuick ? littleText() : readFileSync('demo/saltmarsh.json', 'utf8')) as {
      catalogue: { text: string };
    };
    const { catalogue, ...estate } = workspace;
    const { site, systems, goals, decisions, rightsHeld, calendars } = estate as Record<string, unknown>;
    const answer = await request.post('/api/plan', {
      data: {
        catalogue: catalogue.text,
        estate: { site, systems, goals, decisions, rightsHeld, calendars }
      }
    });
    const { cases } = (await answer.json()) as PlanFile;
    const bySystem = new Map(cases.flatMap((c) => c.systems.map((s) => [s, c] as const)));
    const seen = new Map<string, number>();
    const expectSame = async (view: string): Promise<void> => {
      for (const [system, words] of await readFound(page)) {
        expect(words, `${view}: ${system}`).toEqual(wordsOf(bySystem.get(system)!));
        seen.set(view.split('?')[0]!, (seen.get(view.split('?')[0]!) ?? 0) + 1);
      }
    };
    await openLaws(page);
    // The estate's rows: the days under a heading that names their unit, the way as a drawing with words where it is none.
    for (const row of await page.locator('[data-case]').all()) {
      const one = bySystem.get((await row.getAttribute('data-case')) ?? '')!;
      const { day = '', left = '', verdict = '' } = wordsOf(one);
      const text = async (cell: string): Promise<string> =>
        (await row.locator(`[data-cell="${cell}"]`).textContent())?.trim().replace(/\s+/g, ' ') ?? '';
      if (day) expect(await text('deadline')).toContain(day);
      const slack = await text('slack');
      if (slack !== '') expect(left).toContain(slack);
      if (!one.goalPlan?.route?.hops) expect(await text('way')).toContain(verdict);
    }
    const some = cases.filter((c) => c.product).filter((_, i) => i % (isQuick ? 4 : 3) === 0);
    for (const {
      systems: [system]
    } of some)
      for (const view of [`/estate/system?at=${system}`, `/stair?at=${system}`]) {
        await follow(page, view);
        await expect(page.locator(`[data-found]`).first()).toBeVisible();
        await expectSame(view);
      }
    await follow(page, '/dates');
    await settled(page);
    await expectSame('/dates');
    await follow(page, '/order');
    await settled(page);
    await page.locator('[data-wave]').first().click();
    await expect(page.locator('[data-open-wave]')).toBeVisible();
    await expectSame('/order');
    await page.getByRole('button', { name: 'Make the worksheets of this wave' }).click();
    await expect(page).toHaveURL(/\/worksheet/);
    await page.locator('main a[href*="/worksheet?at="]').first().click();
    await expect(page.locator('[data-worksheet]')).toBeVisible();
    await expectSame('/worksheet');
    expect([...seen.keys()].sort()).toEqual(['/dates', '/estate/system', '/order', '/stair', '/worksheet']);
  }
);
