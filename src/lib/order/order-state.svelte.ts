import type { Day } from '$core/date';
import type { ComponentOrder, Order, OrderedPart, OrderedStep } from '$core/order';
import type { OrderNames } from '$core/wording';
import { Answer } from '$lib/state/answer.svelte';
import { desk } from '$lib/state/desk.svelte';
import { looker } from '$lib/state/looker.svelte';

/** Parts of one product that start alike, in one order: a line of the drawing. */
export interface Lane {
  readonly key: string;
  readonly order: ComponentOrder;
  readonly product: string;
  readonly parts: readonly {
    readonly index: number;
    readonly part: OrderedPart;
    readonly steps: readonly LaneStep[];
  }[];
  readonly systems: readonly string[];
  /** Releases stood on, lowest first. */
  readonly levels: readonly string[];
}

export interface LaneStep extends OrderedStep {
  readonly wave: number;
}

/** A wave of a component; the key names it in addresses. */
export interface WaveAt {
  readonly key: string;
  readonly order: ComponentOrder;
  readonly index: number;
}

export const keyOfWave = (order: ComponentOrder, index: number): string => `${order.id} ${index + 1}`;

/** What is looked at: a wave by its key, or the first in which a system moves. */
interface At {
  readonly wave: string | null;
  readonly system: string | null;
}

/** The order of what is on the desk as it is looked at. */
export class OrderState {
  width = $state(860);
  readonly #at: () => At;
  readonly answer = new Answer<Order>(
    () => (desk.plan && !desk.planner.progress ? [desk.plan] : undefined),
    () => looker.order()
  );
  readonly orders = $derived<readonly ComponentOrder[]>(this.answer.current?.components ?? []);
  readonly waves = $derived.by((): readonly WaveAt[] =>
    this.orders
      .flatMap((order) => order.waves.map((_, index) => ({ key: keyOfWave(order, index), order, index })))
      .sort((a, b) => firstOf(a) - firstOf(b) || (a.order.id < b.order.id ? -1 : 1))
  );
  readonly open = $derived(
    this.waves.find((w) => w.key === this.#at().wave) ??
      this.waves.find((w) => moves(w, this.#at().system)) ??
      this.waves[0]
  );
  readonly lanes = $derived(this.orders.filter((o) => o.waves.length > 0).flatMap(lanesOf));
  readonly first = $derived<Day>(desk.today);
  readonly last = $derived<Day>(Math.max(desk.today + 21, ...this.waves.map((w) => lastOf(w) + 4)));
  /** Systems that move, that are not reached, that could not be decided. */
  readonly counts = $derived.by(() => {
    const parts = this.orders.flatMap((o) => o.parts);
    const of = (...fates: readonly OrderedPart['fate'][]): number =>
      parts.filter((p) => fates.includes(p.fate)).reduce((n, p) => n + p.systems.length, 0);
    return {
      linked: of('reached', 'here', 'stays', 'no way', 'no order', 'in conflict', 'no room', 'not told'),
      reached: of('reached'),
      closed: of('no order', 'in conflict', 'no room'),
      stuck: of('no way', 'not told')
    };
  });

  constructor(at: () => At) {
    this.#at = at;
  }

  x(day: number): number {
    const room = Math.max(1, this.last - this.first);
    return Math.round((((day - this.first) / room) * (this.width - 12) + 4) * 10) / 10;
  }
}

const moves = ({ order, index }: WaveAt, system: string | null): boolean =>
  system !== null &&
  (order.waves[index]?.steps ?? []).some((s) => order.parts[s.part]?.systems.includes(system));
const firstOf = ({ order, index }: WaveAt): Day => order.waves[index]?.first ?? 0;
const lastOf = ({ order, index }: WaveAt): Day => order.waves[index]?.last ?? 0;

function lanesOf(order: ComponentOrder): Lane[] {
  const lanes = new Map<string, { index: number; part: OrderedPart }[]>();
  order.parts.forEach((part, index) => {
    const key = `${order.id} ${part.situation}`;
    lanes.set(key, [...(lanes.get(key) ?? []), { index, part }]);
  });
  return [...lanes].map(([key, own]) => {
    const parts = own.map(({ index, part }) => ({
      index,
      part,
      steps: order.waves.flatMap((w, wave) =>
        w.steps.filter((s) => s.part === index).map((s): LaneStep => ({ ...s, wave }))
      )
    }));
    const sequence = desk.catalogue?.products.find((p) => p.id === own[0]?.part.product)?.releases ?? [];
    const stood = new Set(parts.flatMap((p) => [p.part.start.release, ...p.steps.map((s) => s.to.release)]));
    return {
      key,
      order,
      product: own[0]?.part.product ?? '',
      parts,
      systems: own.flatMap((p) => p.part.systems),
      levels: sequence.map((r) => r.id).filter((id) => stood.has(id))
    };
  });
}

/** Names as the desk knows them. */
export const orderNames: OrderNames = {
  product: (id) => desk.namesOfProduct(id),
  system: (id) => desk.naming.system(id)
};
