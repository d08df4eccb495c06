import { expect, test } from 'vitest';
import { findKeptBack } from '$core/bind';
import { parseDay } from '$core/date';
import { DEFAULT_GOAL, type Estate, moveToTeam, situationKey } from '$core/estate';
import { plan } from '$core/plan';
import { demoInput } from '../support/demo';
import { isQuick } from '../support/laws';
import { Random } from '../support/random';

const input = demoInput();
const verdictsOf = (estate: Estate): Map<string, string> =>
  new Map(
    plan({ ...input, estate, every: 'goal' }).cases.flatMap((c) =>
      c.systems.map((s) => [s, `${c.verdict} ${JSON.stringify(c.goal)}`] as const)
    )
  );

/** The demo with a decision on a third of its situations. */
function decided(): Estate {
  const situations = [...new Set(input.estate.systems.map(situationKey))].filter((_, i) => i % 3 === 0);
  return {
    ...input.estate,
    decisions: [
      ...input.estate.decisions,
      ...situations.map((situation, i) => ({
        id: `stay ${i}`,
        kind: 'stay' as const,
        scope: { situation },
        day: '2031-03-01'
      }))
    ]
  };
}

test('a team split anyhow and joined again is planned as before, at every step', () => {
  const r = new Random(5);
  const before = decided();
  const verdicts = verdictsOf(before);
  let copied = 0;
  for (const team of isQuick ? ['Survey'] : ['Survey', 'Drawing office']) {
    const members = before.systems.filter((s) => s.team === team);
    const going = r.some(members, 0.5).map((s) => s.id);
    if (going.length === 0) continue;
    const split = moveToTeam(before, { from: team, to: `${team} two`, systems: going });
    expect(verdictsOf(split)).toEqual(verdicts);
    expect(split.systems.filter((s) => s.team === `${team} two`).map((s) => s.id)).toEqual(going);
    copied += split.decisions.length - before.decisions.length;
    const joined = moveToTeam(split, { from: `${team} two`, to: team });
    expect(joined.systems).toEqual(before.systems);
    expect(joined.goals).toEqual(before.goals);
    expect(verdictsOf(joined)).toEqual(verdicts);
  }
  expect(copied).toBeGreaterThan(isQuick ? 0 : 1);
});

test('a team that goes wholly takes its goal, its decisions and what was held for it along', () => {
  const before: Estate = {
    ...decided(),
    rightsHeld: [{ right: 'draft-up', held: 4, team: 'Survey', source: 'me', day: '2031-03-01' }],
    goals: [DEFAULT_GOAL, { ...DEFAULT_GOAL, id: 'survey', team: 'Survey', rule: 'one before the newest' }]
  };
  const after = moveToTeam(before, { from: 'Survey', to: 'Rovers' });
  expect(after.goals.map((g) => [g.team, g.rule])).toEqual([
    [undefined, 'newest'],
    ['Rovers', 'one before the newest']
  ]);
  expect(after.rightsHeld[0]?.team).toBe('Rovers');
  expect(after.decisions.length).toBe(before.decisions.length);
  expect(verdictsOf(after)).toEqual(verdictsOf(before));
  // Into a team that is there already its goal is the one that counts.
  const into = moveToTeam(before, { from: 'Survey', to: 'Stops' });
  expect(into.goals.map((g) => g.team)).toEqual([undefined]);
});

test('the last by name of each product stay until a day, and go on the day after', () => {
  const goal = {
    ...DEFAULT_GOAL,
    team: 'Ticket office',
    id: 't',
    keepBack: { systems: 2, until: '2031-04-09' }
  };
  const estate = { ...input.estate, goals: [DEFAULT_GOAL, goal] };
  const members = estate.systems.filter((s) => s.team === 'Ticket office' && s.stage === undefined);
  const kept = findKeptBack(goal, members);
  const products = new Set(members.flatMap((s) => ('is' in s.product ? [s.product.is] : [])));
  for (const product of products) {
    const names = members.filter((s) => 'is' in s.product && s.product.is === product).map((s) => s.name);
    const last = names.sort((a, b) => (a < b ? -1 : 1)).slice(-2);
    const found = members.filter((s) => kept.includes(s.id) && last.includes(s.name));
    expect(found.length).toBe(Math.min(2, names.length));
  }
  const sources = (day: string) =>
    new Map(
      plan({ ...input, estate, today: parseDay(day) as number, every: 'goal' }).cases.flatMap((c) =>
        c.systems.map((s) => [s, c.goalFrom] as const)
      )
    );
  const [on, after] = [sources('2031-04-09'), sources('2031-04-10')];
  const touched = kept.filter((id) => on.get(id) === 'kept back');
  expect(touched.length).toBeGreaterThan(1);
  for (const [id, from] of on) if (!kept.includes(id)) expect(from).not.toBe('kept back');
  for (const id of kept) expect(after.get(id)).not.toBe('kept back');
  // By name: those, and no others.
  const [first] = members;
  expect(findKeptBack({ ...goal, keepBack: { ...goal.keepBack, named: [first!.id] } }, members)).toEqual([
    first!.id
  ]);
});
