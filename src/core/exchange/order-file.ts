import type { Catalogue } from '../catalogue';
import { formatDay, type Day } from '../date';
import type { Estate } from '../estate';
import { type ComponentOrder, type Lever, type OrderedWave, orderOf } from '../order';
import { Planning, planWith } from '../plan';

/** The order of an estate as a file: components, waves, steps, what stands in the way; days as texts. */
export interface OrderFile {
  readonly format: 'orange-stair-order';
  readonly version: 1;
  readonly today: string;
  readonly components: readonly unknown[];
}

/** Plans an estate, and finds the order of what hangs on each other. */
export function orderFile(input: {
  readonly catalogue: Catalogue;
  readonly estate: Estate;
  readonly today: Day;
}): OrderFile {
  const planning = new Planning(input);
  const { cases } = end(planWith(planning, 'goal'));
  const { components } = end(orderOf(planning, cases));
  return {
    format: 'orange-stair-order',
    version: 1,
    today: formatDay(input.today),
    components: components.map(componentOf)
  };
}

function componentOf({
  id,
  parts,
  waves,
  pilots,
  perhaps,
  standing,
  conflicts,
  proven,
  leastWaves,
  crowded,
  isSingle
}: ComponentOrder): unknown {
  const idOf = (part: number): string => parts[part]?.id ?? '';
  const day = (at: Day | undefined): { day?: string } => (at === undefined ? {} : { day: formatDay(at) });
  return {
    id,
    proven,
    leastWaves,
    crowded,
    isSingle,
    parts: parts.map(({ deadline, finish, waitsFor, savedBy, ...part }) => ({
      ...part,
      waitsFor: waitsFor.map(idOf),
      ...(savedBy ? { savedBy: savedBy.map(leverOf) } : {}),
      ...(deadline === undefined ? {} : { deadline: day(deadline).day }),
      ...(finish === undefined ? {} : { finish: day(finish).day })
    })),
    waves: waves.map((w) => waveOf(w, idOf)),
    pilots: pilots.map((p) => ({ ...p, first: p.first.map(idOf), then: p.then.map(idOf) })),
    ...(perhaps
      ? {
          perhaps: {
            goals: perhaps.goals.map(idOf),
            waves: perhaps.waves.map((w) => waveOf(w, idOf)),
            rests: perhaps.rests.map((r) => ({ ...r, wave: r.wave + 1, parts: r.parts.map(idOf) }))
          }
        }
      : {}),
    standing: standing.map((s) => ({ pairing: s.pairing, parts: s.parts.map(idOf) })),
    conflicts: conflicts.map(({ goals, constraints }) => ({
      goals: goals.map(idOf),
      constraints: constraints.map((c) => ({ ...c, parts: c.parts.map(idOf) }))
    }))
  };
}

const waveOf = (wave: OrderedWave, idOf: (part: number) => string): unknown => ({
  first: formatDay(wave.first),
  last: formatDay(wave.last),
  ...(wave.latest === undefined ? {} : { latest: formatDay(wave.latest) }),
  bound: wave.bound.map((set) => set.map(idOf)),
  steps: wave.steps.map(({ part, first, last, rounds, because, ...step }) => ({
    part: idOf(part),
    ...step,
    first: formatDay(first),
    last: formatDay(last),
    rounds: rounds.map((r) => ({ ...r, first: formatDay(r.first), last: formatDay(r.last) })),
    because: because.map((b) => ({ wave: b.wave + 1, part: idOf(b.part), pairing: b.pairing }))
  }))
});

const leverOf = (lever: Lever): unknown =>
  lever.kind === 'freeze' ? { ...lever, first: formatDay(lever.first), last: formatDay(lever.last) } : lever;

function end<T>(steps: Generator<unknown, T>): T {
  for (let next = steps.next(); ; next = steps.next()) if (next.done) return next.value;
}
