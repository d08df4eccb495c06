import { expect, test } from 'vitest';
import { isCounted, type Route } from '../../src/core/route/types';
import { verifyRoute } from '../../src/core/verify/verify-route';
import { countOf, isMine, isQuick, leastShare, tell } from '../support/laws';
import { chooseBySearch, followBySearch, lineOf, solveBySearch, verifierOf } from '../support/solve';
import { twinsFrom } from '../support/twins';
import { calendarWorldOf, fullWorldOf, type World } from '../support/worlds';

const WORLDS = countOf(2000);
const CALENDARS = countOf(1000);
/** Sequences that brute force lists at most. */
const MOST = isQuick ? 150 : 2500;

test(`brute force agrees on every verdict, chosen route and list of unbeaten ones of ${WORLDS} random worlds, and the verifier with every route`, () => {
  const shares = new Map<string, number>();
  const count = (name: string): void => void shares.set(name, (shares.get(name) ?? 0) + 1);
  let targets = 0;
  let routes = 0;
  let done = 0;
  for (const { world, twin } of twinsFrom(fullWorldOf, MOST, isMine)) {
    if (done++ >= WORLDS) break;
    const { seed } = world;
    const solved = solveBySearch(world);
    expect(solved.cut).toBe(false);
    for (const [key, brute] of twin) {
      if (brute.sure === 'here' || compareOlder(key, world.start.release, world)) continue;
      const found = solved.targets.get(key);
      if (brute.isLedTo) targets++;
      if (brute.isLedTo) count(brute.sure);
      if (brute.best !== brute.sure) count('best is better');
      const at = `world ${seed}, ${key}`;
      expect({ at, sure: found?.sure, best: found?.best, plain: found?.bestWithoutCells }).toEqual({
        at,
        sure: brute.sure,
        best: brute.best,
        plain: brute.bestWithoutCells
      });
      expect(`${at}: ${found?.chosen ? lineOf(found.chosen) : 'none'}`).toBe(`${at}: ${brute.chosen}`);
      expect(`${at}\n${(found?.list ?? []).map(lineOf).sort().join('\n')}`).toBe(
        `${at}\n${brute.list.join('\n')}`
      );
      const one = chooseBySearch(world, solved.terms, key);
      expect(`${at}: ${one.verdict}, ${one.best}: ${one.line ?? 'none'}`).toBe(
        `${at}: ${brute.sure}, ${brute.best}: ${brute.chosen}`
      );
      if (brute.decided) {
        const { ids, line, beaten, ways } = brute.decided;
        count('way decided');
        const byIds = ids.map((step) => ({ step }));
        expect(`${at}: ${followBySearch(world, solved.terms, key, byIds)}`).toBe(`${at}: ${line}`);
        for (const { way, line: onWay } of ways)
          expect(`${at}: ${followBySearch(world, solved.terms, key, way)}`).toBe(`${at}: ${onWay}`);
        if (ways[0]?.line !== line) count('way in full is another');
        if (beaten) count('beaten way chosen');
      }
      worldTraitsOf(world).forEach(count);
      for (const route of found?.all ?? []) {
        const [release = '', edition = '', architecture = ''] = key.split(' ');
        expect({
          at,
          faults: verifyRoute(verifierOf(world), world.start, { release, edition, architecture }, route)
        }).toEqual({ at, faults: [] });
        routes++;
        traitsOf(route).forEach(count);
      }
    }
  }
  const of = (name: string): number => (shares.get(name) ?? 0) / wholeOf(name);
  const wholeOf = (name: string): number =>
    name === 'way in full is another'
      ? (shares.get('way decided') ?? 0)
      : name.startsWith('with ')
        ? routes
        : targets;
  tell('brute force agrees', { worlds: WORLDS, targets, routes, ...Object.fromEntries(shares) });
  // What worlds have, of targets; what routes and decided ways have of themselves, which is theirs to choose, at half that share.
  for (const name of NAMES)
    expect(of(name), name).toBeGreaterThanOrEqual(
      /^(with |way in full)/.test(name) ? leastShare / 2 : leastShare
    );
});

test(`with calendars it agrees on ${CALENDARS} random worlds: days, minutes, what has no room`, () => {
  const shares = new Map<string, number>();
  const count = (name: string): void => void shares.set(name, (shares.get(name) ?? 0) + 1);
  let done = 0;
  let targets = 0;
  for (const { world, twin } of twinsFrom(calendarWorldOf, MOST, isMine)) {
    if (done++ >= CALENDARS) break;
    const solved = solveBySearch(world);
    for (const [key, brute] of twin) {
      if (brute.sure === 'here' || compareOlder(key, world.start.release, world)) continue;
      const found = solved.targets.get(key);
      const at = `world ${world.seed}, ${key}`;
      expect({ at, sure: found?.sure, best: found?.best }).toEqual({
        at,
        sure: brute.sure,
        best: brute.best
      });
      expect(`${at}: ${found?.chosen ? lineOf(found.chosen) : 'none'}`).toBe(`${at}: ${brute.chosen}`);
      expect(`${at}\n${(found?.list ?? []).map(lineOf).sort().join('\n')}`).toBe(
        `${at}\n${brute.list.join('\n')}`
      );
      const one = chooseBySearch(world, solved.terms, key);
      expect(`${at}: ${one.verdict}, ${one.best}: ${one.line ?? 'none'}`).toBe(
        `${at}: ${brute.sure}, ${brute.best}: ${brute.chosen}`
      );
      const [release = '', edition = '', architecture = ''] = key.split(' ');
      for (const route of found?.all ?? [])
        expect({
          at,
          faults: verifyRoute(verifierOf(world), world.start, { release, edition, architecture }, route)
        }).toEqual({ at, faults: [] });
      if (!brute.isLedTo) continue;
      targets++;
      const without = { ...world, calendar: { freezes: [] } };
      if (brute.sure === 'closed' && solveBySearch(without).targets.get(key)?.sure !== 'closed')
        count('closed by windows');
      const blocks = (found?.chosen?.steps ?? []).filter((s) => isCounted(s) && s.at);
      if (blocks.length > 0) count('in windows');
      if (new Set(blocks.map((s) => isCounted(s) && s.at?.closes)).size < blocks.length)
        count('share a night');
      if (found?.chosen?.steps.some((s) => s.kind === 'patch' && s.at)) count('a patch alone');
      if (found?.chosen?.steps.some((s) => isCounted(s) && s.nodesAt)) count('node by node');
      if (world.goal.watchDays && finishOf(world, key) !== found?.chosen?.finish.last) count('watched');
      if (world.calendar?.freezes.length) count('with freezes');
    }
  }
  tell('brute force agrees with calendars', { worlds: CALENDARS, targets, ...Object.fromEntries(shares) });
  for (const name of ['closed by windows', 'in windows', 'with freezes'])
    expect((shares.get(name) ?? 0) / targets, name).toBeGreaterThanOrEqual(leastShare);
  // What routes have of themselves, of those laid in windows, at half that share.
  for (const name of ['share a night', 'node by node', 'watched'])
    expect((shares.get(name) ?? 0) / (shares.get('in windows') ?? 1), name).toBeGreaterThanOrEqual(
      leastShare / 2
    );
});

/** When it would end with nothing watched. */
function finishOf(world: World, key: string): number | undefined {
  const { watchDays: _days, ...goal } = world.goal;
  void _days;
  return solveBySearch({ ...world, goal }).targets.get(key)?.chosen?.finish.last;
}

const NAMES = [
  ...(['straight', 'by hops', 'fresh only', 'not yet', 'closed', 'best is better'] as const),
  ...['in place', 'fresh install', 'edition change', 'patch', 'cure', 'work-around', 'work'].map(
    (k) => `with ${k}`
  ),
  ...['free', 'carried', 'purchase', 'ask', 'held'].map((k) => `with right ${k}`),
  ...['with units', 'with something first', 'with a cure if needed'],
  ...[
    'beaten way chosen',
    'way in full is another',
    'cures with conditions',
    'unread facts with cures',
    'chains',
    'mutual links'
  ],
  ...['entries in dispute', 'nodes of their own', 'withheld hops', 'tools that say']
];

/** What a route has in it, each once. */
const traitsOf = ({ steps, units, needsFirst }: Route): ReadonlySet<string> =>
  new Set([
    ...steps.map((s) => `with ${s.kind}`),
    ...steps.filter(isCounted).map((s) => `with right ${s.right.kind}`),
    ...(steps.some((s) => s.kind === 'cure' && s.ifNeeded) ? ['with a cure if needed'] : []),
    ...(units.length > 0 ? ['with units'] : []),
    ...(needsFirst.length > 0 ? ['with something first'] : [])
  ]);

/** What a world has in it, counted once a target. */
function worldTraitsOf({ product, needs, net }: World): readonly string[] {
  const cures = (product.requirements ?? []).flatMap((q) => q.cures ?? []);
  const unread = new Set(
    Object.entries(needs?.facts ?? {}).flatMap(([id, f]) =>
      'unknown' in f || 'statements' in f || needs?.stale.has(id) ? [id] : []
    )
  );
  const disputed = [...product.releases.flatMap((r) => [r, ...(r.service ?? [])]), ...(product.hops ?? [])];
  const is: [boolean, string][] = [
    [cures.some((c) => c.when !== undefined), 'cures with conditions'],
    [cures.some((c) => unread.has(c.fact)), 'unread facts with cures'],
    [net?.links.has('o') === true && net.members.has('t'), 'chains'],
    [net?.links.get('o')?.includes('s') === true, 'mutual links'],
    [disputed.some((e) => (e.also ?? []).length > 0), 'entries in dispute'],
    [(needs?.nodes ?? []).length > 0, 'nodes of their own'],
    [(product.hops ?? []).some((h) => h.withheld), 'withheld hops'],
    [(needs?.checked.requirements.size ?? 0) + (needs?.checked.unplaced.length ?? 0) > 0, 'tools that say']
  ];
  return is.flatMap(([holds, name]) => (holds ? [name] : []));
}

/** Older targets are closed by rule, not by search. */
function compareOlder(key: string, start: string, world: World): boolean {
  const strand = (id: string): string | undefined => world.product.releases.find((r) => r.id === id)?.branch;
  const place = (id: string): number => world.product.releases.findIndex((r) => r.id === id);
  const release = key.split(' ')[0] ?? '';
  return strand(release) === strand(start) && place(release) < place(start);
}
