import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { situationKey } from '../../src/core/estate/situation';
import type { System } from '../../src/core/estate/schema';
import type { PlanFile } from '../../src/core/exchange/plan-file-schema';
import { formatWorkspace } from '../../src/core/exchange/workspace-file';
import { SWEEPS } from '../support/growth-worlds';
import { littleText } from '../../scripts/little-demo';
import { isQuick } from '../support/laws';
import { expect, follow, giveFile, openDemo, openLaws, test } from './desk';

const workspace = JSON.parse(isQuick ? littleText() : readFileSync('demo/saltmarsh.json', 'utf8')) as {
  catalogue: { text: string };
  site: unknown;
  systems: unknown;
  goals: unknown;
  decisions: unknown;
  rightsHeld: unknown;
  calendars: unknown;
};
const { catalogue, site, systems, goals, decisions, rightsHeld, calendars } = workspace;

/** What is on the drawing, read back from its shapes. */
function readDrawing(page: Page) {
  return page.evaluate(() => {
    const svg = document.querySelector<SVGSVGElement>('svg.stair');
    if (!svg) return undefined;
    const left = svg.getBoundingClientRect().left;
    const boxOf = (el: Element): { x0: number; x1: number; y0: number } => {
      const box = el.getBoundingClientRect();
      return { x0: box.left - left, x1: box.right - left, y0: box.top };
    };
    const middle = (el: Element | null | undefined): number => (el ? (boxOf(el).x0 + boxOf(el).x1) / 2 : NaN);
    return {
      width: svg.getBoundingClientRect().width,
      furthest: Math.max(
        0,
        ...[...svg.querySelectorAll('path.climb, rect.ground, rect.hollow, .foot')].map((el) => boxOf(el).x1)
      ),
      cures: [...svg.querySelectorAll<SVGElement>('[data-cure], [data-work-around]')].map((el) => ({
        id: el.dataset['cure'] ?? el.dataset['workAround']
      })),
      rests: [...svg.querySelectorAll<SVGElement>('[data-rest]')].map((el) => ({
        release: el.dataset['rest'],
        since: el.dataset['since'] ?? '',
        until: el.dataset['until'] ?? ''
      })),
      deviations: [...svg.querySelectorAll<SVGElement>('[data-deviation]')].map(
        (el) => el.dataset['deviation']
      ),
      breaks: JSON.parse(svg.dataset['breaks'] ?? '[]') as [number, number][],
      today: middle(svg.querySelector('[data-today]')),
      flag: svg.querySelector('[data-flag]')
        ? {
            day: svg.querySelector<SVGElement>('[data-flag]')?.dataset['flag'],
            x: middle(svg.querySelector('[data-flag] .pole'))
          }
        : undefined,
      risers: [...svg.querySelectorAll<SVGElement>('[data-riser]')].map((el) => ({
        id: el.dataset['riser'],
        x: middle(el.querySelector('.foot'))
      })),
      patches: [...svg.querySelectorAll<SVGElement>('[data-patch]')].map((el) => ({
        id: el.dataset['patch'],
        x: middle(el.firstElementChild)
      })),
      treads: [...svg.querySelectorAll<SVGElement>('[data-tread]')].map((el) => {
        const bar = el.querySelector<SVGRectElement>('.ground, .hollow');
        return {
          release: el.dataset['tread'],
          state: el.dataset['state'],
          from: bar?.dataset['from'],
          to: bar?.dataset['to'],
          x0: bar?.x.baseVal.value ?? NaN,
          x1: (bar?.x.baseVal.value ?? NaN) + (bar?.width.baseVal.value ?? NaN),
          y: bar?.y.baseVal.value ?? NaN
        };
      })
    };
  });
}

/** The place of a day by the drawing's own bend. */
function placeOf(breaks: readonly (readonly [number, number])[], iso: string): number {
  const day = Date.parse(iso) / 86_400_000;
  const at = breaks.findIndex(([d], i) => i > 0 && day <= d);
  const [d0, x0] = breaks[at - 1] ?? [0, NaN];
  const [d1, x1] = breaks[at] ?? [1, NaN];
  return x0 + ((day - d0) / (d1 - d0)) * (x1 - x0);
}

const situationOf = (id: string | undefined): string => {
  const system = (systems as System[]).find((s) => s.id === id);
  return system ? situationKey(system) : '';
};

/** Where the drawing is looked at: themes and widths, and paper. */
const VIEWS = [
  { name: 'light, narrow', scheme: 'light', media: 'screen', width: 980 },
  { name: 'light', scheme: 'light', media: 'screen', width: 1280 },
  { name: 'dark, wide', scheme: 'dark', media: 'screen', width: 1720 },
  { name: 'on paper', scheme: 'dark', media: 'print', width: 1060 }
] as const;

for (const view of VIEWS)
  test(
    `the drawing says what the plan says, for every situation of the demo (${view.name})`,
    view.name === 'light' ? { tag: '@quick' } : {},
    async ({ page, request }) => {
      await page.setViewportSize({ width: view.width, height: 800 });
      await page.emulateMedia({ colorScheme: view.scheme });
      const answer = await request.post('/api/plan', {
        data: {
          catalogue: catalogue.text,
          estate: { site, systems, goals, decisions, rightsHeld, calendars }
        }
      });
      const plan = (await answer.json()) as PlanFile;
      await openLaws(page);
      let drawn = 0;
      // Every third where a hundredth of laws is tried.
      for (const one of plan.cases.filter((_, i) => !isQuick || i % 3 === 0)) {
        if (!one.product || !one.start) continue;
        await follow(page, `/stair?at=${one.systems[0]}`);
        await page.emulateMedia({ media: 'screen' });
        await expect(page.locator(`[data-drawn="${one.systems[0]}"] svg.stair`)).toBeVisible();
        await page.mouse.move(2, 2);
        if (view.media === 'print') await page.emulateMedia({ media: 'print' });
        const seen = (await readDrawing(page))!;
        const near = (x: number, iso: string, what: string): void =>
          expect(Math.abs(x - placeOf(seen.breaks, iso)), `${one.systems[0]}: ${what}`).toBeLessThan(0.6);
        near(seen.today, plan.today, 'today');
        if (one.deadline.day) {
          expect(seen.flag?.day).toBe(one.deadline.day);
          near(seen.flag!.x, one.deadline.day, 'flag');
        } else expect(seen.flag).toBeUndefined();
        const steps = one.goalPlan?.route?.steps ?? [];
        const counted = steps.filter((s) => !['patch', 'cure', 'work-around', 'work'].includes(s.kind));
        expect(seen.risers.map((r) => r.id)).toEqual(counted.map((s) => s.id));
        seen.risers.forEach(
          (r, i) =>
            counted[i]?.firstDay !== 'unknown' && near(r.x, counted[i]?.firstDay ?? '', `riser ${r.id}`)
        );
        const patches = steps.filter((s) => s.kind === 'patch');
        expect(seen.patches.map((p) => p.id)).toEqual(patches.map((s) => s.to.patch));
        seen.patches.forEach((p, i) => near(p.x, patches[i]?.firstDay ?? '', `patch ${p.id}`));
        // Nothing is drawn outside the sheet, and the days of cures and stays out of service are those of the plan.
        expect(seen.furthest, `${one.systems[0]}: in sight`).toBeLessThanOrEqual(seen.width + 1);
        const small = steps.filter((s) => s.kind === 'cure' || s.kind === 'work-around');
        expect(seen.cures.map((c) => c.id).sort()).toEqual(small.map((s) => ('id' in s ? s.id : '')).sort());
        for (const rest of seen.rests)
          expect(rest.since < rest.until, `${one.systems[0]}: rests on ${rest.release}`).toBe(true);
        expect(seen.deviations).toEqual(
          plan.cases
            .filter((c) => c !== one && situationOf(c.systems[0]) === situationOf(one.systems[0]))
            .map((c) => c.systems[0])
            .slice(0, 3)
        );
        const heights = seen.treads.map((t) => t.y);
        expect(
          [...heights].sort((a, b) => b - a),
          'later releases stand higher'
        ).toEqual(heights);
        for (const tread of seen.treads) {
          if (tread.from) near(tread.x0, tread.from, `tread ${tread.release} begins`);
          if (tread.to) near(tread.x1, tread.to, `tread ${tread.release} ends`);
          const verdicts = one.targets
            .filter((t) => t.target.release === tread.release)
            .map((t) => t.verdict);
          if (tread.state === 'closed') expect(verdicts).toContain('closed');
          if (tread.state === 'installed') expect(tread.release).toBe(one.start.release);
        }
        if (one.startIsSure) {
          const installed = seen.treads.find((t) => t.release === one.start?.release);
          const setBy = one.deadline.contributors.find((c) => c.sets && c.kind === 'service of installed');
          if (setBy && installed?.to) expect(installed.to >= setBy.day).toBe(true);
        }
        drawn++;
      }
      expect(drawn).toBeGreaterThan(isQuick ? 6 : 18);
    }
  );

/** Picks one of the ways in which the drawing is taken out. */
async function takeOut(page: Page, way: string): Promise<void> {
  await page.getByRole('button', { name: 'Take out' }).click();
  await page.getByRole('menuitem', { name: way }).click();
}

test('time on the stair is dragged, zoomed and put back; the table and the pictures say the same', async ({
  page
}) => {
  await openDemo(page);
  await page.goto('/stair?at=draw-01');
  await expect(page.locator('svg.stair')).toBeVisible();
  const bend = async () => (await readDrawing(page))?.breaks.map(([day]) => day).join();
  const before = await bend();
  await page.locator('[data-tread="6"]').focus();
  await page.keyboard.press('ArrowRight');
  const moved = await bend();
  expect(moved).not.toBe(before);
  await page.keyboard.press('+');
  expect(await bend()).not.toBe(moved);
  await page.keyboard.press('0');
  expect(await bend()).toBe(before);
  const box = (await page.locator('svg.stair').boundingBox())!;
  await page.mouse.move(box.x + 500, box.y + box.height - 20);
  await page.mouse.down();
  await page.mouse.move(box.x + 300, box.y + box.height - 20, { steps: 4 });
  await page.mouse.up();
  expect(await bend()).not.toBe(before);
  // However it is bent, days stand where the axis has them.
  const seen = (await readDrawing(page))!;
  expect(Math.abs(seen.today - placeOf(seen.breaks, '2031-03-10'))).toBeLessThan(0.6);
  await page.getByRole('button', { name: 'Around the work' }).click();
  expect(await bend()).toBe(before);
  const [svg] = await Promise.all([page.waitForEvent('download'), takeOut(page, 'Drawing as SVG')]);
  const text = readFileSync(await svg.path(), 'utf8');
  expect(text).toContain('deadline 30 Jun 2031');
  expect(text).not.toContain('var(--');
  const [png] = await Promise.all([page.waitForEvent('download'), takeOut(page, 'Picture as PNG')]);
  const bytes = readFileSync(await png.path());
  expect(bytes.subarray(1, 4).toString()).toBe('PNG');
  expect(bytes.length).toBeGreaterThan(20_000);
  await page.getByRole('button', { name: 'As a table' }).click();
  for (const tread of seen.treads)
    await expect(page.locator(`[data-table-tread="${tread.release}"]`)).toHaveAttribute(
      'data-state',
      tread.state ?? ''
    );
  await expect(page.getByRole('table', { name: 'The way as a table' })).toContainText(
    'Change edition to Bureau'
  );
});

test('what would change a verdict is tried on the spot: before and after, kept, undone', async ({ page }) => {
  await openDemo(page);
  await page.goto('/stair?at=stop-24');
  await page.locator('[data-openings]').getByRole('button', { name: 'Try it' }).first().click();
  const trial = page.locator('[data-trial]');
  await expect(trial).toContainText('No longer used, or not minded: Mesh network part');
  await expect(trial).toContainText('Before: closed');
  await expect(trial).toContainText('After: straight there');
  await expect(page.locator('[data-riser]').first()).toBeVisible();
  await trial.getByRole('button', { name: 'As it is' }).click();
  await expect(page.locator('[data-verdict="closed"]')).toBeVisible();
  await page.locator('[data-openings]').getByRole('button', { name: 'Try it' }).first().click();
  await page.locator('[data-trial]').getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('Kept: No longer used')).toBeVisible();
  await expect(page.locator('[data-verdict]')).toContainText(/: (by|straight)/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('[data-verdict="closed"]')).toBeVisible();
  // No fix of a publisher’s rule is recorded: shown, not kept.
  await page.goto('/stair?at=shelf-south');
  await page.locator('[data-openings]').getByRole('button', { name: 'Try it' }).first().click();
  await expect(page.locator('[data-trial]')).toContainText('No fix is recorded for it.');
});

test('treads are looked at with the arrows and picked with Enter', async ({ page }) => {
  await openDemo(page);
  await page.goto('/stair?at=tick-06');
  await page.locator('[data-tread="6"]').focus();
  await page.keyboard.press('ArrowDown');
  await expect(page.locator('[data-verdict]')).toContainText('Garnock Desk 5 Plain: straight there');
  await expect(page.getByText('A look; the target is 6 Plain.')).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByText('Chosen by decision')).toBeVisible();
  await page.getByRole('button', { name: 'Follow the goal again' }).click();
  await expect(page.locator('[data-verdict]')).toContainText('Garnock Desk 6 Plain: by 2 hops');
});

test('a target out of reach says why, and a system nobody knows says what to do', async ({ page }) => {
  await openDemo(page);
  await page.goto('/stair?at=shelf-south');
  await expect(page.locator('[data-verdict="closed"]')).toContainText(
    '31.4/p9 is newer than the target, so the hop is forbidden'
  );
  await expect(page.getByText(/Best that is open: 31\.6 ?, not yet, opens 28 Sep 2031\./)).toBeVisible();
  await page.goto('/stair?at=recorder-01');
  await expect(page.getByText('“Signal recorder 2.1” is not in the catalogue')).toBeVisible();
  await page.goto('/stair?at=nobody');
  await expect(page.getByText('No system called “nobody”')).toBeVisible();
});

test('a catalogue with more ways than can be tried: progress at once, a stop at once, and what is cut is said', async ({
  page
}) => {
  const slow = SWEEPS.find((s) => s.name === 'needed again')?.world(16);
  if (!slow) throw new Error('no such world');
  await page.goto('/import');
  const text = formatWorkspace(slow.estate, { fileName: 'slow.json', text: JSON.stringify(slow.catalogue) });
  await giveFile(page, 'slow.json', text);
  await page.getByRole('button', { name: 'Open this workspace' }).click();
  await expect(page.locator('[data-case]').first()).toBeVisible();
  await expect(page.getByText('In 1 situation not every way could be tried.')).toBeVisible();
  await follow(page, '/stair?at=one');
  const stop = page.getByRole('status').getByRole('button', { name: 'Stop' });
  await expect(stop).toBeVisible();
  await stop.click();
  await expect(stop).toHaveCount(0);
  await expect(page.getByText(/Looking (further )?into it was stopped/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Look again' }).first().click();
  await expect(stop).toBeVisible();
  // Whatever is asked of the whole plan shares the worker that was ended: it is planned again first.
  const planning = page.getByRole('status').getByText(/^Planning/);
  await expect(planning).toBeVisible();
  await expect(planning).toHaveCount(0);
  await expect(page.getByRole('status').getByText(/^Looking into one/)).toBeVisible();
  await stop.click();
  await follow(page, '/ready');
  await expect(page.locator('[data-looked="true"]')).toBeVisible();
  await follow(page, '/stair?at=one');
  await expect(stop).toBeVisible();
  await expect(stop).toHaveCount(0);
  await expect(page.locator('[data-cut]').first()).toContainText('There are more ways than can all be tried');
});
