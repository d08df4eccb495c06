/**
 * The limit: chosen routes of the generated world over flat arrays, with nothing unknown, no reasons and no other kinds of rules - the same
 * questions as planning asks (every case's chosen route, and one with each of its hops barred), with the same verdicts and criteria. It knows
 * what `generate` makes and nothing else: one table of hops a product, one curable demand, one that closes, one risk, one work-around.
 */
import { KEPT, type Product } from '../src/core/catalogue/schema';
import type { CasePlan } from '../src/core/plan/plan-types';
import type { System } from '../src/core/estate/schema';
import { isCounted, type Route } from '../src/core/route/types';

/** A product's hops in rows, by the release they leave; releases by their place. */
interface Flat {
  readonly first: Int32Array;
  readonly to: Int32Array;
  readonly kept: Uint8Array;
  readonly minutes: Int32Array;
  readonly needsPatch: Uint8Array;
  readonly isFresh: Uint8Array;
  readonly ids: readonly string[];
  readonly releases: ReadonlyMap<string, number>;
}

interface Question {
  readonly flat: Flat;
  readonly from: number;
  readonly patch: number;
  readonly target: number;
  /** Whether there is room, or it has been made; the day to begin on. */
  readonly hasRoom: boolean;
  readonly isSlow: boolean;
  readonly isBarredHigh: boolean;
  readonly day: number;
  readonly barred: number;
  /** What planning says of it. */
  readonly route: Route | undefined;
}

const [ROOM, SLOW, HIGH, NOISE] = [11, 15, 19, 17];
const WIDTH = 5;

function flatOf(product: Product): Flat {
  const releases = new Map(product.releases.map((r, i) => [r.id, i]));
  const hops = product.releases.flatMap((r, from) =>
    (product.hops ?? [])
      .filter((h) => (h.from === 'any' ? (releases.get(h.to) ?? 0) > from : h.from === r.id))
      .map((hop) => ({ from, hop }))
  );
  const first = new Int32Array(product.releases.length + 1);
  for (const { from } of hops) first[from + 1]!++;
  for (let i = 1; i < first.length; i++) first[i]! += first[i - 1]!;
  return {
    first,
    to: Int32Array.from(hops, (h) => releases.get(h.hop.to) ?? 0),
    kept: Uint8Array.from(hops, (h) => KEPT.indexOf(h.hop.kept)),
    minutes: Int32Array.from(hops, (h) => h.hop.carefulMinutes ?? 0),
    needsPatch: Uint8Array.from(hops, (h) => Number(h.hop.levels !== undefined)),
    isFresh: Uint8Array.from(hops, (h) => Number(h.hop.kind === 'fresh install')),
    ids: hops.map((h) => h.hop.id),
    releases
  };
}

/** Every question that planning has answered for these cases. */
export function questionsOf(
  products: readonly Product[],
  systems: readonly System[],
  plans: readonly CasePlan[],
  today: number
): Question[] {
  const flats = new Map(products.map((p) => [p.id, flatOf(p)]));
  const byId = new Map(systems.map((s) => [s.id, s]));
  return plans.flatMap((plan): Question[] => {
    const system = byId.get(plan.systems[0] ?? '');
    const flat = flats.get(plan.product ?? '');
    const { start, goal, goalPlan } = plan;
    if (!system || !flat || !start || !goal || !goalPlan || start.release === goal.release) return [];
    const value = (fact: string): number => {
      const seen = system.facts?.[fact];
      return seen && 'value' in seen ? Number(seen.value) : 0;
    };
    const asked: Question = {
      flat,
      from: flat.releases.get(start.release) ?? 0,
      patch: Number(start.patch !== 'base'),
      target: flat.releases.get(goal.release) ?? 0,
      hasRoom: value('fact-1') >= 4,
      isSlow: value('fact-2') < 16,
      isBarredHigh: value('fact-3') < 1 && value('fact-4') < 1,
      day: today,
      barred: -1,
      route: goalPlan.route
    };
    const steps = goalPlan.route?.steps ?? [];
    const counted = steps.filter(isCounted);
    const fallbacks = plan.fallbacks.map((fallback, i): Question => {
      const hop = counted[i]!;
      const behind = steps.slice(0, steps.indexOf(hop));
      return {
        ...asked,
        from: flat.releases.get(hop.from.release) ?? 0,
        patch: Number(hop.from.patch !== 'base'),
        hasRoom: asked.hasRoom || behind.some((s) => s.kind === 'cure'),
        day: hop.days.first,
        barred: flat.ids.indexOf(hop.id, flat.first[flat.releases.get(hop.from.release) ?? 0]),
        route: fallback.route
      };
    });
    return [asked, ...fallbacks];
  });
}

const best = new Float64Array(25 * WIDTH);
const roomed = new Uint8Array(25);
const row = new Float64Array(WIDTH);
/** What the last question came to: kept, risks, hops, money, minutes, finish. */
const answer = new Float64Array(6);

/** Answers one question into `answer`; whether any way leads there. */
function ask(q: Question, today: number): boolean {
  const { flat, from, target } = q;
  for (let fresh = 0; fresh < 2; fresh++) {
    if (fresh === 0)
      for (let h = flat.first[from]!; h < flat.first[from + 1]!; h++)
        if (flat.to[h] === target && !flat.isFresh[h] && h !== q.barred && walk(q, today, 255, 1, false, h))
          return true;
    for (let kept = 0; kept < KEPT.length; kept++)
      for (let noise = 0; noise < 2; noise++) if (walk(q, today, kept, noise, fresh > 0, -1)) return true;
  }
  return false;
}

/** The least row by hops that keep so much, by that one hop where one is named. */
function walk(
  q: Question,
  today: number,
  mostKept: number,
  noise: number,
  fresh: boolean,
  only: number
): boolean {
  const { flat, from, target } = q;
  best.fill(Infinity, from * WIDTH, (target + 1) * WIDTH);
  best.fill(0, from * WIDTH, from * WIDTH + WIDTH);
  best[from * WIDTH + 3] = q.day - 1;
  roomed[from] = Number(q.hasRoom);
  let kept = 0;
  for (let at = from; at < target; at++) {
    const base = at * WIDTH;
    if (best[base] === Infinity) continue;
    for (let h = flat.first[at]!; h < flat.first[at + 1]!; h++) {
      const to = flat.to[h]!;
      if (to > target || (only >= 0 && h !== only) || flat.kept[h]! > mostKept) continue;
      if ((flat.isFresh[h] && !fresh) || h === q.barred || (!noise && to === NOISE)) continue;
      if (q.isBarredHigh && to >= HIGH) continue;
      const patches = flat.needsPatch[h] && (at !== from || !q.patch) ? 1 : 0;
      const cures = to >= ROOM && !roomed[at] ? 1 : 0;
      row[0] = best[base]! + 1;
      row[1] = best[base + 1]! + (flat.isFresh[h] ? 5000 : 0) + cures * 900;
      row[2] = best[base + 2]! + flat.minutes[h]! + patches * 30 + cures * 20 + (to === NOISE ? 10 : 0);
      row[3] = Math.max(best[base + 3]! + 1, cures ? today + 3 : 0);
      row[4] = best[base + 4]! + 1 + patches + cures + (to === NOISE ? 1 : 0);
      let less = 0;
      for (let i = 0; i < WIDTH && less === 0; i++) less = row[i]! - best[to * WIDTH + i]!;
      if (!(less < 0)) continue;
      best.set(row, to * WIDTH);
      roomed[to] = roomed[at]! | cures;
      if (only >= 0) kept = flat.kept[h]!;
    }
  }
  const end = target * WIDTH;
  if (best[end] === Infinity) return false;
  answer[0] = only >= 0 ? kept : mostKept;
  answer[1] = Number(q.isSlow && target >= SLOW) + (only >= 0 ? Number(target === NOISE) : noise);
  answer.set(best.subarray(end, end + 4), 2);
  return true;
}

/** Answers all; how many are not as planning says, by what it takes for criteria. */
export function countDifferent(questions: readonly Question[], today: number): number {
  let different = 0;
  for (const q of questions) {
    const found = ask(q, today);
    const { route } = q;
    if (found !== (route !== undefined)) different++;
    else if (route) {
      const said = [
        KEPT.indexOf(route.kept),
        route.risks.length,
        route.hops,
        route.costCents,
        route.carefulMinutes,
        route.finish.last
      ];
      if (said.some((n, i) => n !== answer[i])) different++;
    }
  }
  return different;
}

/** Answers all, for the time it takes. */
export function answerAll(questions: readonly Question[], today: number): number {
  let open = 0;
  for (const q of questions) open += Number(ask(q, today));
  return open;
}
