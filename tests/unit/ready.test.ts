import { expect, test } from 'vitest';
import { chooseRemedies, payableOf, type Group, type Priced } from '../../src/core/ready/choose-remedies';
import { climbOf } from '../../src/core/ready/climb';
import { gatherReady, ReadyCache } from '../../src/core/ready/gather-ready';
import { compareRecheck, keepItems } from '../../src/core/ready/recheck';
import type { Ready, ReadyItem } from '../../src/core/ready/ready-types';
import { plan, planWith } from '../../src/core/plan/plan';
import { PlanCache } from '../../src/core/plan/plan-cache';
import { Planning } from '../../src/core/plan/planning';
import type { Plan } from '../../src/core/plan/plan-types';
import { isCounted } from '../../src/core/route/types';
import { applyChanges } from '../../src/core/what-if/apply-changes';
import { tryChanges } from '../../src/core/what-if/try-changes';
import { demoInput } from '../support/demo';
import { isQuick, oftenerThan, seedsOf } from '../support/laws';
import { Random } from '../support/random';

/** Every choice, tried. */
function chooseByTrying(remedies: readonly Priced[], groups: readonly Group[], budget: number) {
  let best = { opened: -1, spent: Infinity };
  for (let set = 0; set < 1 << remedies.length; set++) {
    const taken = new Map(remedies.filter((_, i) => set & (1 << i)).map((r) => [r.key, r.costCents]));
    if ([...taken.values()].includes('unknown')) continue;
    const spent = [...taken.values()].reduce<number>((n, c) => n + (c as number), 0);
    if (spent > budget) continue;
    const opened = groups.reduce((n, g) => n + (g.needs.every((k) => taken.has(k)) ? g.systems : 0), 0);
    if (opened > best.opened || (opened === best.opened && spent < best.spent)) best = { opened, spent };
  }
  return best;
}

test('choosing within a budget: the most systems for the least money, as trying every choice finds; the bound is never beaten', () => {
  let partial = 0;
  for (const seed of seedsOf(1000)) {
    const r = new Random(seed);
    const remedies = Array.from({ length: r.int(1, 9) }, (_, i): Priced => ({
      key: `r${i}`,
      costCents: r.chance(0.1) ? 'unknown' : r.chance(0.15) ? 0 : r.int(1, 60)
    }));
    const groups = Array.from({ length: r.int(0, 8) }, (): Group => ({
      systems: r.int(1, 30),
      needs: [...new Set(Array.from({ length: r.int(0, 3) }, () => r.pick(remedies).key))]
    }));
    const budget = r.int(0, 150);
    const expected = chooseByTrying(remedies, groups, budget);
    const found = chooseRemedies(remedies, groups, budget);
    const at = `seed ${seed}`;
    expect([found.opened, found.spentCents, found.exact], at).toEqual([
      expected.opened,
      expected.spent,
      true
    ]);
    expect(found.spentCents, at).toBeLessThanOrEqual(budget);
    if (found.opened < groups.reduce((n, g) => n + g.systems, 0)) partial++;
    // Blown up past what is tried exhaustively, the answer is sound and its bound true.
    const many = [
      ...remedies,
      ...Array.from({ length: 21 }, (_, i): Priced => ({ key: `x${i}`, costCents: 1000 }))
    ];
    const more = [
      ...groups,
      ...Array.from({ length: 21 }, (_, i): Group => ({ systems: 1, needs: [`x${i}`] }))
    ];
    const rough = chooseRemedies(many, more, budget);
    expect(rough.opened, at).toBeLessThanOrEqual(expected.opened);
    expect(rough.upperBound, at).toBeGreaterThanOrEqual(expected.opened);
    expect(rough.spentCents, at).toBeLessThanOrEqual(budget);
  }
  expect(partial).toBeGreaterThan(oftenerThan(40));
});

test('of choices that open as many the cheaper; past what can be tried a bound that the best does not pass', () => {
  const items = (...costs: number[]): Priced[] => costs.map((costCents, i) => ({ key: `r${i}`, costCents }));
  const one = (i: number, systems: number): Group => ({ systems, needs: [`r${i}`] });
  expect(chooseRemedies(items(10, 5), [one(0, 3), one(1, 3)], 10)).toMatchObject({
    opened: 3,
    spentCents: 5
  });
  // By systems a cent the first looks best, and leaves no room for the two others together.
  const many = items(6, 5, 5, ...Array.from({ length: 19 }, () => 1000));
  const rough = chooseRemedies(
    many,
    [one(0, 7), one(1, 5), one(2, 5), one(3, 1), ...many.slice(4).map((_, i) => one(i + 4, 1))],
    10
  );
  expect(rough).toMatchObject({ opened: 7, exact: false });
  expect(rough.upperBound).toBeGreaterThanOrEqual(10);
});

let made: { planning: Planning; plan: Plan; ready: Ready } | undefined;
const finish = <T>(steps: Generator<unknown, T>): T => {
  for (let next = steps.next(); ; next = steps.next()) if (next.done) return next.value;
};

/** The demo, looked into once. */
function demoReady() {
  if (made) return made;
  const planning = new Planning(demoInput());
  const planned = finish(planWith(planning, 'goal', new PlanCache()));
  return (made = { planning, plan: planned, ready: finish(gatherReady(planning, planned)) });
}

const itemOf = (ready: Ready, key: string): ReadyItem => {
  const found = ready.items.find((i) => i.key === key);
  if (!found) throw new Error(key);
  return found;
};
const cellAt = (item: ReadyItem, system: string) => item.cells.find((c) => c.systems.includes(system));

test('what is asked is marked in three values, with what is missing as a figure and what deals with it', () => {
  const { ready } = demoReady();
  const memory = itemOf(ready, 'pellow-terminal/requirement/term-memory');
  expect(cellAt(memory, 'stop-16')).toMatchObject({
    mark: 'fails',
    dealt: 'cured',
    shortfall: { missing: '1 GB', seen: '2 GB', demanded: '3 GB' }
  });
  expect(cellAt(memory, 'stop-01')).toMatchObject({ mark: 'fails', shortfall: { missing: '2 GB' } });
  expect(cellAt(memory, 'stop-33')).toMatchObject({ mark: 'holds' });
  expect(cellAt(memory, 'stop-dark')).toMatchObject({ mark: 'unknown', unknown: ['memory'] });
  // One dead network part before any number of advices: by what is lost, not by count.
  const mesh = itemOf(ready, 'pellow-terminal/companion/mesh-part');
  const panel = itemOf(ready, 'pellow-terminal/requirement/term-panel');
  expect(mesh.loss).toBe('the goal');
  expect(ready.items.indexOf(mesh)).toBeLessThan(ready.items.indexOf(panel));
  expect(cellAt(itemOf(ready, 'ossian-shelf/requirement/shelf-cable'), 'shelf-north')).toMatchObject({
    mark: 'unknown',
    dealt: 'accepted'
  });
  const open = ready.items.map((i) => i.open > 0);
  expect(open.lastIndexOf(true)).toBeLessThan(open.indexOf(false));
});

test('remedies: rights beyond what is held, a purchase that opens most, decisions told apart from what is free', () => {
  const { ready, plan: planned } = demoReady();
  const [most] = ready.remedies.filter((r) => r.costCents !== 0);
  expect(most?.key).toBe('garnock-desk/right/desk-offer-5');
  const offers = ready.rights.filter((r) => r.right === 'desk-offer-5');
  // By hand: every system whose chosen route buys it, less the six that are held.
  const buying = planned.cases
    .filter((c) => c.goalPlan?.route?.steps.some((s) => isCounted(s) && s.right.right === 'desk-offer-5'))
    .reduce((n, c) => n + c.systems.length, 0);
  expect(offers.reduce((n, r) => n + (r.needed as number), 0)).toBe(buying);
  expect(offers.reduce((n, r) => n + (r.toBuy as number), 0)).toBe(buying - 6);
  expect(new Set(offers.map((r) => r.edition))).toEqual(new Set(['plain', 'studio']));
  const mesh = ready.remedies.find((r) => r.key.endsWith('decision/companion mesh-part'));
  expect(mesh).toMatchObject({ kind: 'decision', costCents: 0 });
  expect(payableOf(ready.remedies).find((r) => r.key === mesh?.key)?.costCents).toBe('unknown');
  const free = new Set(
    ready.remedies
      .filter((r) => r.costCents === 0 && !['decision', 'other'].includes(r.kind))
      .map((r) => r.key)
  );
  for (const r of ready.remedies)
    expect(r.opensAlone, r.key).toBe(
      ready.wants
        .filter((w) => w.needs.includes(r.key) && w.needs.every((n) => n === r.key || free.has(n)))
        .reduce((n, w) => n + w.systems, 0)
    );
  expect(ready.remedies.find((r) => r.kind === 'replace')).toMatchObject({
    product: 'pellow-terminal',
    systems: 15
  });
});

test('the stair of cures climbs to what the choice opens, and past it to all that money can open', () => {
  const { ready } = demoReady();
  const priced = payableOf(ready.remedies);
  for (const budget of [0, 60_000, 250_000, 5_000_000]) {
    const choice = chooseRemedies(priced, ready.wants, budget);
    const treads = climbOf(priced, ready.wants, new Set(choice.chosen));
    const chosen = treads.filter((t) => t.chosen);
    expect(chosen.at(-1)?.opened, `${budget}`).toBe(choice.opened);
    expect(chosen.at(-1)?.spentCents, `${budget}`).toBe(choice.spentCents);
    expect(treads.map((t) => t.opened)).toEqual([...treads.map((t) => t.opened)].sort((a, b) => a - b));
    expect(treads.reduce((n, t) => n + t.gain, 0)).toBe(treads.at(-1)?.opened);
  }
});

test('a remedy does open what it is said to open: each one tried on a copy of the demo', () => {
  const { ready, plan: before } = demoReady();
  const input = demoInput();
  const cache = new PlanCache();
  let tried = 0;
  for (const remedy of ready.remedies) {
    if (remedy.kind !== 'decision') continue;
    const after = tryChanges({ ...input, before, cache }, remedy.changes);
    const opened = after.after.cases.filter(
      (c) =>
        remedy.cases.some((id) =>
          before.cases.find((b) => b.id === id)?.systems.includes(c.systems[0] ?? '')
        ) && c.verdict !== 'closed'
    );
    const wants = ready.wants.filter(
      (w) =>
        w.needs.includes(remedy.key) &&
        w.needs.every((n) => n === remedy.key || (!n.includes('/decision/') && !n.includes('/other/')))
    );
    expect(
      opened.reduce((n, c) => n + c.systems.length, 0),
      remedy.key
    ).toBeGreaterThanOrEqual(wants.reduce((n, w) => n + w.systems, 0));
    tried++;
  }
  expect(tried).toBeGreaterThan(2);
  // A cure done is a requirement met: nothing of it is left to do.
  for (const remedy of ready.remedies.filter((r, i) => r.kind === 'cure' && (!isQuick || i % 4 === 0))) {
    const { after } = tryChanges({ ...input, before, cache }, remedy.changes);
    const ids = new Set(remedy.changes.flatMap((c) => ('systems' in c ? c.systems : [])));
    for (const one of after.cases.filter((c) => c.systems.some((s) => ids.has(s))))
      expect(
        one.goalPlan?.route?.steps.some((s) => s.kind === 'cure' && s.id === remedy.id),
        remedy.key
      ).toBe(false);
  }
});

test('questions: what settles most comes first, and its answer does settle', () => {
  const { ready, plan: before } = demoReady();
  expect(ready.questions.map((q) => q.settles)).toEqual(
    [...ready.questions.map((q) => q.settles)].sort((a, b) => b - a)
  );
  const asked = ready.questions.find(
    (q) => 'clause' in q.about && q.about.clause === 'companion quay-archive'
  );
  expect(asked?.settles).toBe(16);
  const fare = before.cases.find((c) => c.systems.includes('fare-01'));
  expect(fare?.goalPlan?.sure).not.toBe(fare?.goalPlan?.best);
  // Told that nothing but what is listed is there, or that it is: settled both ways.
  const input = demoInput();
  for (const has of [true, false]) {
    const systems = input.estate.systems.map((s) =>
      fare?.systems.includes(s.id)
        ? {
            ...s,
            companionsWhole: true,
            companions: [...(s.companions ?? []), ...(has ? [{ name: 'Quay archive source' }] : [])]
          }
        : s
    );
    const after = plan({ ...input, estate: { ...input.estate, systems }, every: 'goal' });
    const goal = after.cases.find((c) => c.systems.includes('fare-01'))?.goalPlan;
    expect(goal?.sure, `has it: ${has}`).toBe(goal?.best);
  }
});

test('a kept result beside a later one: mended, still open, new; nothing where nothing changed', () => {
  const { ready } = demoReady();
  const kept = keepItems(ready.items);
  expect(compareRecheck(kept, kept).flatMap((r) => [...r.mended, ...r.worse, ...r.clearer])).toEqual([]);
  const input = demoInput();
  const mended = applyChanges({ ...input, source: 'walk' }, [
    { fact: 'memory', value: '8 GB', systems: ['yard-01', 'yard-02'] },
    { fact: 'setting.hand-over', value: 'off', systems: ['shelf-north'] }
  ]);
  const planning = new Planning({ ...input, estate: mended.estate });
  const later = finish(gatherReady(planning, finish(planWith(planning, 'goal')), new ReadyCache()));
  const rows = compareRecheck(kept, keepItems(later.items));
  expect(rows.find((r) => r.item === 'garnock-desk/site demand/desk-memory-6')?.mended).toEqual([
    'yard-01',
    'yard-02'
  ]);
});

test('changes made in any order leave other systems alone, and the estate they started from as it was', () => {
  const input = demoInput();
  const before = JSON.stringify(input.estate);
  const changes = [
    { fact: 'memory', value: '16 GB', systems: ['stop-01'] },
    { cure: 'term-more-memory', product: 'pellow-terminal', systems: ['stop-16', 'stop-17'] },
    {
      decide: {
        kind: 'waive' as const,
        scope: { estate: true as const },
        about: 'marram-draft/requirements/draft-memory-well'
      }
    },
    { allow: 'unsupported' as const, allowed: true, team: 'Drawing office' },
    { today: '2031-09-01' }
  ];
  const assumed = {
    id: 'dx',
    kind: 'assume' as const,
    scope: { system: 'stop-01', fact: 'memory' },
    value: '2 GB',
    day: '2031-03-01'
  };
  const made = applyChanges(
    { ...input, estate: { ...input.estate, decisions: [...input.estate.decisions, assumed] }, source: 'x' },
    changes
  );
  // What was assumed of a fact ends where it is set.
  expect(made.estate.decisions.some((d) => d.id === 'dx')).toBe(false);
  expect(JSON.stringify(input.estate)).toBe(before);
  expect(made.today).toBeGreaterThan(input.today);
  const changed = made.estate.systems.filter((s, i) => s !== input.estate.systems[i]).map((s) => s.id);
  expect(changed).toEqual(['stop-01', 'stop-16', 'stop-17']);
  expect(made.estate.decisions).toHaveLength(input.estate.decisions.length + 1);
  expect(made.estate.goals.find((g) => g.team === 'Drawing office')?.allow.unsupported).toBe(true);
  // Facts set stand alone: nothing is disputed by what is tried.
  expect(made.estate.systems.find((s) => s.id === 'stop-01')?.facts?.['memory']).toEqual({
    value: '16 GB',
    day: '2031-03-10',
    source: 'x'
  });
});
