import type { Day } from '../date';
import type { ComponentOrder, Order } from './order-types';

/** What an order comes to, of all that hangs on each other. */
export interface OrderSum {
  /** Systems that get to their goals. */
  readonly reached: number;
  /** Parts that miss a deadline, and the days they are late together. */
  readonly missed: number;
  readonly late: number;
  readonly waves: number;
  /** Different days on which some step begins. */
  readonly nights: number;
  /** Careful minutes under work, all systems together. */
  readonly outage: number;
  readonly done?: Day;
}

const linked = ({ components }: Order): readonly ComponentOrder[] => components.filter((c) => !c.isSingle);

/** What an order comes to; of what hangs on nothing, nothing. */
export function sumOfOrder(order: Order): OrderSum {
  const components = linked(order);
  const parts = components.flatMap((c) => c.parts);
  const waves = components.flatMap((c) => c.waves);
  const steps = components.flatMap((c) =>
    c.waves.flatMap((w) => w.steps.map((s) => ({ ...s, systems: c.parts[s.part]?.systems.length ?? 0 })))
  );
  const last = Math.max(...waves.map((w) => w.last));
  return {
    reached: parts.filter((p) => p.fate === 'reached').reduce((n, p) => n + p.systems.length, 0),
    missed: parts.filter((p) => p.missed).length,
    late: parts.reduce((n, p) => n + Math.max(0, (p.finish ?? 0) - (p.deadline ?? Infinity)), 0),
    waves: waves.length,
    nights: new Set(steps.flatMap((s) => s.rounds.map((r) => r.first))).size,
    outage: steps.reduce((n, s) => n + s.carefulMinutes * s.systems, 0),
    ...(waves.length > 0 ? { done: last } : {})
  };
}

/** A step that lies on another day in one of two orders, or in one of them only. */
export interface StepMove {
  readonly systems: readonly string[];
  readonly product: string;
  readonly release: string;
  readonly before?: Day;
  readonly after?: Day;
}

/** What is otherwise in the second of two orders, earliest first. */
export function movesBetween(before: Order, after: Order): StepMove[] {
  const daysOf = (order: Order): ReadonlyMap<string, StepMove & { readonly day: Day }> =>
    new Map(
      linked(order).flatMap((c) =>
        c.waves.flatMap((w) =>
          w.steps.flatMap((s) => {
            const part = c.parts[s.part];
            return (part?.systems ?? []).map((system) => {
              const move = { systems: [system], product: part?.product ?? '', release: s.to.release };
              return [`${system} ${s.to.release} ${s.to.edition}`, { ...move, day: s.first }] as const;
            });
          })
        )
      )
    );
  const [old, now] = [daysOf(before), daysOf(after)];
  const found = new Map<string, StepMove>();
  for (const key of new Set([...old.keys(), ...now.keys()])) {
    const [a, b] = [old.get(key), now.get(key)];
    if (a?.day === b?.day) continue;
    const { product = '', release = '', systems = [] } = a ?? b ?? {};
    const alike = `${product} ${release} ${a?.day ?? ''} ${b?.day ?? ''}`;
    found.set(alike, {
      systems: [...(found.get(alike)?.systems ?? []), ...systems],
      product,
      release,
      ...(a ? { before: a.day } : {}),
      ...(b ? { after: b.day } : {})
    });
  }
  return [...found.values()].sort(
    (a, b) => (a.before ?? a.after ?? 0) - (b.before ?? b.after ?? 0) || (a.product < b.product ? -1 : 1)
  );
}
