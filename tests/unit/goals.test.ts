import { expect, test } from 'vitest';
import { startsOf } from '$core/bind';
import { MATURITIES, type Release } from '$core/catalogue';
import { idsOfPlace } from '$core/compile';
import { findServiceEnd, formatDay, monthsBetween, parseDateText, readDay } from '$core/date';
import { type Goal, GOAL_RULES } from '$core/estate';
import { plan, Planning } from '$core/plan';
import { goalOf } from '$core/plan/find-goal';
import { countOf, oftenerThan } from '../support/laws';
import { Random } from '../support/random';
import { estateOf } from '../support/world-estates';
import { fullWorldOf, TODAY, type World } from '../support/worlds';

const COUNTED = GOAL_RULES.filter((r) => r !== 'cheapest in service');

/** The release a rule chooses, read off the catalogue's own words; of plain products only. */
function naive({ product, countsExpected }: World, goal: Goal, installed: string): string | undefined {
  const day = (text: string | undefined): number | undefined => {
    const date = text === undefined ? undefined : parseDateText(text);
    const read = date && readDay(date, countsExpected);
    return typeof read === 'number' ? read : undefined;
  };
  const apart = new Set((product.branches ?? []).filter((b) => b.apart).map((b) => b.id));
  const strand = (r: Release): string => (r.branch && apart.has(r.branch) ? r.branch : '');
  const at = product.releases.findIndex((r) => r.id === installed);
  const own = product.releases[at] as Release;
  const out = (r: Release): number[] =>
    MATURITIES.filter((m) => goal.maturities.includes(m)).flatMap((m) => {
      const text =
        typeof r.published === 'string' ? (m === 'general' ? r.published : undefined) : r.published[m];
      return day(text) ?? [];
    });
  const end = (r: Release, phase: Goal['phase']) =>
    findServiceEnd(
      (r.service ?? []).map((p) => ({ phase: p.phase, until: parseDateText(p.until)! })),
      phase,
      countsExpected
    );
  /** Waits for the first patch level where the goal says so and the product has any. */
  const hasPatch = (r: Release): boolean =>
    !goal.afterFirstPatch ||
    product.releases.every((x) => !x.patches?.length) ||
    (r.patches ?? []).some((p) => (day(p.published) ?? Infinity) <= TODAY);
  const isSettled = (r: Release): boolean =>
    out(r).length > 0 && Math.min(...out(r)) + goal.settlingDays <= TODAY && hasPatch(r);
  /** Comes as what the goal wants, and nobody knows the day, or that of the patch that is waited for. */
  const isDayless = (r: Release): boolean => {
    const comes =
      typeof r.published === 'string'
        ? goal.maturities.includes('general')
        : goal.maturities.some((m) => (r.published as Record<string, string>)[m] !== undefined);
    return comes && (out(r).length === 0 || !isDated(r));
  };
  const isDated = (r: Release): boolean =>
    !goal.afterFirstPatch ||
    product.releases.every((x) => !x.patches?.length) ||
    (r.patches ?? []).some((p) => day(p.published) !== undefined);
  const lasts = (r: Release, phase = goal.phase): number => {
    const until = end(r, phase);
    return typeof until === 'number' ? until : NaN;
  };
  const choose = (among: readonly Release[]): Release | undefined => {
    const ahead = among.filter((r) => product.releases.indexOf(r) >= at);
    const backwards = [...ahead].reverse();
    const newest = among.at(-1);
    switch (goal.rule) {
      case 'one before the newest':
        return ahead.at(-2) ?? ahead[0] ?? newest;
      case 'newest with service left':
        return (
          backwards.find(
            (r) =>
              r === own || Number.isNaN(lasts(r)) || monthsBetween(TODAY, lasts(r)) >= (goal.monthsLeft ?? 0)
          ) ?? newest
        );
      case 'nearest in full service': {
        const known = ahead.find((r) => lasts(r, 'full') >= TODAY);
        return known ?? ahead.find((r) => Number.isNaN(lasts(r, 'full'))) ?? newest;
      }
      case 'longest served': {
        const longest = Math.max(...ahead.map((r) => lasts(r)).filter((n) => !Number.isNaN(n)));
        return backwards.find((r) => lasts(r) === longest) ?? newest;
      }
      case 'leave alone while near':
        return ahead.filter((r) => r !== own).length <= (goal.behind ?? 0) ? own : newest;
      case 'stay until a day':
        return (goal.stayUntil ?? '') >= formatDay(TODAY) ? own : newest;
      default:
        return newest;
    }
  };
  const all = product.releases.filter((r) => strand(r) === strand(own));
  const ownIsOut = Math.min(...out(own)) <= TODAY || (isDayless(own) && out(own).length === 0);
  const known = all.filter((r) => (r === own ? ownIsOut : isSettled(r)));
  const chosen = choose(known) ?? own;
  if (chosen !== own || lasts(own) >= TODAY) return chosen.id;
  const perhaps = all.filter((r) => known.includes(r) || (all.indexOf(r) > all.indexOf(own) && isDayless(r)));
  return (choose(perhaps) ?? own).id;
}

test('the target of every rule equals a naive reading, on 500 random catalogues', () => {
  const differs = new Set<string>();
  let compared = 0;
  for (let seed = 1; seed <= countOf(5000); seed++) {
    const r = new Random(seed * 31);
    const world = fullWorldOf(seed);
    if (world.start.release === '' || (world.product.editions !== undefined && world.goal.edition)) continue;
    const input = estateOf(world, new Random(seed * 17));
    for (const rule of COUNTED) {
      const goal: Goal = {
        ...world.goal,
        rule,
        monthsLeft: r.pick([0, 6, 18, 36]),
        behind: r.int(0, 3),
        stayUntil: r.pick(['2031-03-09', '2031-03-10', '2031-12-31'])
      };
      const planning = new Planning({ ...input, estate: { ...input.estate, goals: [goal] } });
      // What is stated two ways is settled elsewhere.
      const settled = { ...world, product: planning.catalogue.products[0] ?? world.product };
      for (const one of planning.gather().cases) {
        const model = planning.modelFor(one.system);
        const [start, second] = model ? startsOf(model, one.system) : [];
        if (!model || !start || second) continue;
        const terms = planning.termsFor(model, one);
        const { place } = goalOf(terms, start, []);
        // Editions and architectures that a release lacks keep it out; releases here that offer all are compared.
        const whole = world.product.releases.every((x) => !x.editions && !x.architectures);
        if (!whole) continue;
        const installed = idsOfPlace(terms, start).release;
        const chosen = place && idsOfPlace(terms, place).release;
        expect({ seed, rule, installed, chosen }).toEqual({
          seed,
          rule,
          installed,
          chosen: naive(settled, goal, installed)
        });
        compared++;
        if (chosen !== naive(settled, { ...goal, rule: 'newest' }, installed)) differs.add(rule);
      }
    }
  }
  expect(compared).toBeGreaterThan(oftenerThan(2000));
  expect([...differs].sort()).toEqual(COUNTED.filter((rule) => rule !== 'newest').sort());
});

test('the cheapest in service costs no more than any other in service that can be reached', () => {
  let compared = 0;
  for (let seed = 1; seed <= countOf(600); seed++) {
    const world = fullWorldOf(seed);
    const input = estateOf(world, new Random(seed * 17));
    const estate = { ...input.estate, goals: [{ ...world.goal, rule: 'cheapest in service' as const }] };
    for (const one of plan({ ...input, estate }).cases) {
      const route = one.goalPlan?.route;
      if (one.goalFrom !== 'rule' || !route || route.restsOn.length > 0 || route.unknownSums.length > 0)
        continue;
      for (const other of one.targets) {
        const release = world.product.releases.find((r) => r.id === other.target.release);
        const ends = (release?.service ?? []).map((p) => ({
          phase: p.phase,
          until: parseDateText(p.until)!
        }));
        const end = findServiceEnd(ends, world.goal.phase, world.countsExpected);
        const isOpen = ['straight', 'by hops', 'fresh only'].includes(other.sure);
        const isSame = other.target.edition === one.goal?.edition;
        if (other.older || !isOpen || !isSame || typeof end !== 'number' || end < TODAY || !other.route)
          continue;
        if (other.route.unknownSums.length > 0 || other.target.architecture !== one.goal?.architecture)
          continue;
        expect({ seed, cents: route.costCents <= other.route.costCents }).toEqual({ seed, cents: true });
        compared++;
      }
    }
  }
  expect(compared).toBeGreaterThan(oftenerThan(20));
});
