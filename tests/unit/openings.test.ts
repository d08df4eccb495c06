import { expect, test } from 'vitest';
import type { Seen } from '../../src/core/condition/evidence';
import type { Truth } from '../../src/core/condition/truth';
import { isCounted } from '../../src/core/route/types';
import { findOpenings } from '../../src/core/route/look/openings';
import { findQuestions } from '../../src/core/route/look/questions';
import { nameOfAtom } from '../../src/core/route/look/unknowns';
import { BruteForce } from '../support/brute-force';
import { countOf, hardWorldsOf, isMine, oftenerThan, tell } from '../support/laws';
import { placeOf, termsOfWorld } from '../support/solve';
import { fullWorldOf, type World } from '../support/worlds';

const WORLDS = countOf(600);
/** Trying every answer takes longer. */
const ASKED_WORLDS = countOf(200);
const MOST_WAYS = 2500;

interface Named {
  readonly release: string;
  readonly edition: string;
  readonly architecture: string;
}

const named = (key: string): Named => {
  const [release = '', edition = '', architecture = ''] = key.split(' ');
  return { release, edition, architecture };
};

test(`closed targets: the least sets of clauses to lift, cheapest first, as brute force finds them in ${WORLDS} worlds`, () => {
  let sets = 0;
  let none = 0;
  for (let seed = 1, done = 0; done < WORLDS; seed++) {
    if (!isMine(seed)) continue;
    const world = fullWorldOf(seed);
    const brute = new BruteForce(world);
    const solved = brute.solve(MOST_WAYS);
    if (!solved) continue;
    done++;
    const terms = termsOfWorld(world);
    for (const [key, found] of solved) {
      const target = named(key);
      if (found.best !== 'closed' || isOlder(world, target.release)) continue;
      const expected = brute.openings(target, MOST_WAYS);
      if (!expected || expected.length > 20) continue;
      const place = placeOf(terms, { ...target, patch: 'base' });
      const { openings, cut } = findOpenings(terms, placeOf(terms, world.start), place);
      const at = `world ${seed}, ${key}`;
      expect(cut, at).toBe(false);
      expect(
        `${at}\n${openings
          .map((o) => o.clauses.join(' + '))
          .sort()
          .join('\n')}`
      ).toBe(
        `${at}\n${expected
          .map((e) => e.join(' + '))
          .sort()
          .join('\n')}`
      );
      if (openings.length === 0) none++;
      sets += openings.length;
      checkOrder(world, key, openings, at);
    }
  }
  tell('openings', { worlds: WORLDS, sets, 'targets without': none });
  expect([sets > WORLDS / 4, none > oftenerThan(2)], `${sets} sets, ${none} without`).toEqual([true, true]);
});

/** Prices after lifting are those brute force finds, and the order follows them. */
function checkOrder(
  world: World,
  key: string,
  openings: ReturnType<typeof findOpenings>['openings'],
  at: string
): void {
  const ranks = openings.slice(0, 3).map((o) => {
    const after = new BruteForce({ ...world, lifted: new Set(o.clauses) }).solve();
    const target = after?.get(key);
    if (!target?.chosen) return undefined;
    expect(
      [
        o.verdict,
        o.route.steps
          .filter(isCounted)
          .map((s) => s.id)
          .join()
      ],
      at
    ).toEqual([target.sure, target.chosen.steps.map((s) => s.id).join()]);
    const [, , , unknown, money, minutes] = target.chosen.key as number[];
    return [o.clauses.length, unknown, money, minutes];
  });
  for (let i = 1; i < ranks.length; i++) {
    const [a, b] = [ranks[i - 1], ranks[i]];
    if (!a || !b) continue;
    const differs = a.findIndex((x, k) => x !== b[k]);
    if (differs >= 0) expect(a[differs], at).toBeLessThan(b[differs] as number);
  }
}

function isOlder(world: World, release: string): boolean {
  const { releases } = world.product;
  const find = (id: string) => releases.findIndex((r) => r.id === id);
  return (
    releases[find(release)]?.branch === releases[find(world.start.release)]?.branch &&
    find(release) < find(world.start.release)
  );
}

/** Values out of every piece; written out by hand for the few facts of the worlds. */
const CELLS: Readonly<Record<string, readonly string[]>> = {
  memory: ['1 GB', '4 GB', '8 GB', '16 GB'],
  'security-part': ['on', 'off', 'absent'],
  'setting.x': ['on', 'off', 'absent'],
  model: ['M1', 'M2', 'another'],
  activated: ['on', 'off']
};

type Answer =
  { readonly fact: string; readonly seen: Seen } | { readonly clause: string; readonly truth: Truth };

/** What may be asked, by name, with every answer: unknown facts behind what routes rest on, and clauses unknown by themselves. */
function askable(world: World, keys: readonly string[]): Map<string, Answer[]> | undefined {
  const found = new Map<string, Answer[]>();
  const product = world.product;
  const text = (key: string): string | undefined => {
    const id = key.split(' ').at(-1);
    const requirement = product.requirements?.find((q) => q.id === id);
    if (key.startsWith('requirement ')) return `${requirement?.when ?? ''} ${requirement?.needs ?? ''}`;
    if (key.startsWith('site demand ')) return `${requirement?.when ?? ''} ${requirement?.site?.needs ?? ''}`;
    if (key.startsWith('withheld ')) return product.hops?.find((h) => h.id === id)?.withheld?.from;
    if (key.startsWith('caution ')) return product.cautions?.find((c) => c.id === id)?.when;
    if (key.startsWith('companion '))
      return product.companions
        ?.find((c) => c.id === id)
        ?.fares.map((f) => f.when ?? '')
        .join(' ');
    if (key.startsWith('space ')) return id;
    if (key.startsWith('cure limit ')) return 'model';
    if (key.startsWith('cure ')) {
      const cure = product.requirements?.flatMap((q) => q.cures ?? []).find((c) => c.id === id);
      return cure?.when ?? cure?.fact;
    }
    const right = product.rights?.find((r) => r.id === id);
    return key.startsWith('right ') && right?.kind === 'carried' ? 'activated' : undefined;
  };
  for (const key of keys) {
    const about = text(key) ?? '';
    for (const fact of ['memory', 'disk.free.system', 'security-part', 'setting.x', 'model', 'activated']) {
      if (!about.includes(fact)) continue;
      const known =
        fact === 'activated' ? world.activated !== 'unknown' : 'value' in (world.needs?.facts[fact] ?? {});
      if (known) continue;
      const stated = world.needs?.facts[fact];
      const values =
        stated && 'statements' in stated ? stated.statements.map((s) => String(s.value)) : CELLS[fact];
      if (!values) return undefined;
      found.set(
        `fact ${fact}`,
        values.map((value) => ({ fact, seen: { kind: 'known', value } }))
      );
    }
    found.set(key, [
      { clause: key, truth: 'yes' },
      { clause: key, truth: 'no' }
    ]);
  }
  return found;
}

/** With what turns up once one of them is answered. */
function askableInTwo(
  world: World,
  keys: readonly string[],
  target: Named
): Map<string, Answer[]> | undefined {
  const first = askable(world, keys);
  if (!first || [...first.values()].reduce((n, a) => n * a.length, 1) > 24) return undefined;
  const later = [...first.values()]
    .flat()
    .flatMap((answer) => new BruteForce(told(world, [answer])).restingOn(target));
  const further = askable(world, [...new Set(later)]);
  return further && new Map([...further, ...first]);
}

function told(world: World, answers: readonly Answer[]): World {
  const facts = new Map(world.facts);
  const learned = new Map(world.learned);
  let { activated } = world;
  for (const a of answers) {
    if ('clause' in a) learned.set(a.clause, a.truth);
    else if (a.fact === 'activated')
      activated = a.seen.kind === 'known' && a.seen.value === 'on' ? 'yes' : 'no';
    else facts.set(a.fact, a.seen);
  }
  return { ...world, facts, learned, activated };
}

/** Worlds that showed a fault once are tried first. */
function* askedSeeds(): Generator<number> {
  const showed = hardWorldsOf('questions');
  yield* showed;
  for (let seed = 1; ; seed++) if (isMine(seed) && !showed.includes(seed)) yield seed;
}

test(`questions: each least set settles the verdict whatever comes out, nothing less does, and no other of facts is missing, in ${ASKED_WORLDS} worlds`, () => {
  let asked = 0;
  let settled = 0;
  let done = 0;
  for (const seed of askedSeeds()) {
    if (done >= ASKED_WORLDS) break;
    const world = fullWorldOf(seed);
    if (world.net) continue;
    const brute = new BruteForce(world);
    const solved = brute.solve(500);
    if (!solved) continue;
    done++;
    const solvedWith = new Map<string, ReturnType<BruteForce['solve']>>();
    const terms = termsOfWorld(world);
    for (const [key, found] of solved) {
      if (found.best === found.sure) continue;
      const target = named(key);
      const able = askableInTwo(world, brute.restingOn(target), target);
      if (!able || [...able.values()].reduce((n, a) => n * a.length, 1) > 24) continue;
      asked++;
      const verdicts = (answers: readonly Answer[]): string[] => {
        const what = answers
          .map((a) => JSON.stringify(a))
          .sort()
          .join();
        if (!solvedWith.has(what)) solvedWith.set(what, new BruteForce(told(world, answers)).solve());
        const after = solvedWith.get(what)?.get(key);
        return [after?.sure ?? '', after?.best ?? ''];
      };
      const settles = (names: readonly string[], answers: readonly Answer[] = []): boolean => {
        const [name, ...rest] = names;
        if (name === undefined) return new Set(verdicts(answers)).size === 1;
        return (able.get(name) ?? []).every((a) => settles(rest, [...answers, a]));
      };
      const at = `world ${seed}, ${key}`;
      const start = placeOf(terms, world.start);
      const { sets, cut } = findQuestions(terms, start, placeOf(terms, { ...target, patch: 'base' }));
      expect(cut, at).toBe(false);
      const names = sets.map((s) => s.map(nameOfAtom).sort());
      for (const set of names) {
        settled++;
        for (const name of set) expect(able.has(name), `${at}: ${name}`).toBe(true);
        expect(settles(set), `${at}: ${set.join(' + ')}`).toBe(true);
        for (const left of set)
          expect(settles(set.filter((n) => n !== left)), `${at}: without ${left}`).toBe(false);
      }
      const facts = [...able.keys()].filter((n) => n.startsWith('fact '));
      for (const size of [1, 2])
        for (const set of subsets(facts, size))
          if (settles(set))
            expect(
              names.some((n) => n.every((x) => set.includes(x))),
              `${at}: missing ${set.join(' + ')}`
            ).toBe(true);
    }
  }
  tell('questions', { worlds: ASKED_WORLDS, asked, sets: settled });
  expect([asked > ASKED_WORLDS / 10, settled > ASKED_WORLDS / 10], `${asked} asked, ${settled} sets`).toEqual(
    [true, true]
  );
});

const subsets = (list: readonly string[], size: number): string[][] =>
  size === 0
    ? [[]]
    : list.flatMap((x, i) => subsets(list.slice(i + 1), size - 1).map((rest) => [x, ...rest]));
