import { CalendarIndex } from '$core/bind';
import { type Day, formatDay } from '$core/date';
import type { Change } from '$core/estate';
import type { ComponentOrder, Order, OrderedPart, OrderedStep } from '$core/order';
import { sourceOf } from '$core/what-if';
import { type LeverNames, sayChange, sayLock } from '$core/wording';
import { Answer } from '$lib/state/answer.svelte';
import { desk } from '$lib/state/desk.svelte';
import { looker } from '$lib/state/looker.svelte';
import { ordering } from '$lib/state/ordering.svelte';
import { trials } from '$lib/state/trials.svelte';

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

/** How far away another night is looked for, in days. */
const NIGHTS_WITHIN = 120;

/** The order of what is on the desk as it is looked at. */
export class OrderState {
  width = $state(860);
  readonly #at: () => At;
  readonly answer = new Answer<Order>(
    () => (desk.plan && !desk.planner.progress ? [desk.plan] : undefined),
    () => ordering.ask()
  );
  /** What is tried on a copy, until it is kept or let go. */
  trial = $state.raw<readonly Change[]>([]);
  readonly tried = new Answer<Order>(
    () => (this.trial.length > 0 && this.answer.current ? [this.answer.current, this.trial] : undefined),
    () => looker.orderWith(this.trial)
  );
  /** The wave that was moved last stays open. */
  #moved = $state<string>();
  /** Cases that hang on nothing are drawn, too. */
  withSingles = $state(false);
  /** The order that is drawn: the one tried, once it is there. */
  readonly shown = $derived(this.tried.current ?? this.answer.current);
  readonly #all = $derived<readonly ComponentOrder[]>(this.shown?.components ?? []);
  readonly singles = $derived(this.#all.filter((o) => o.isSingle));
  readonly orders = $derived(this.withSingles ? this.#all : this.#all.filter((o) => !o.isSingle));
  readonly waves = $derived.by((): readonly WaveAt[] =>
    this.orders
      .flatMap((order) => order.waves.map((_, index) => ({ key: keyOfWave(order, index), order, index })))
      .sort((a, b) => firstOf(a) - firstOf(b) || (a.order.id < b.order.id ? -1 : 1))
  );
  readonly open = $derived(
    this.waves.find((w) => w.key === (this.#at().wave ?? this.#moved)) ??
      this.waves.find((w) => moves(w, this.#at().system)) ??
      this.waves[0]
  );
  readonly lanes = $derived(this.orders.filter((o) => o.waves.length > 0).flatMap(lanesOf));
  readonly first = $derived<Day>(desk.today);
  readonly last = $derived<Day>(Math.max(desk.today + 21, ...this.waves.map((w) => lastOf(w) + 4)));
  /** Systems that move, that are not reached, that could not be decided. */
  readonly counts = $derived.by(() => {
    const parts = this.orders.filter((o) => !o.isSingle).flatMap((o) => o.parts);
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

  /** Tries a change beside those that are tried already. */
  try(changes: readonly Change[]): void {
    this.trial = [...this.trial, ...changes];
  }

  /** Tries to begin a wave on another day: what begins with it does so then, what comes later not before. */
  tryWave({ order, index }: WaveAt, day: Day): void {
    const wave = order.waves[index];
    if (!wave || day === wave.first) return;
    this.#moved = keyOfWave(order, index);
    this.try(
      wave.steps.map(({ part, to, first }) => ({
        lock: {
          systems: [...(order.parts[part]?.systems ?? [])],
          release: to.release,
          must: first === wave.first ? { on: formatDay(day) } : { notBefore: formatDay(day) }
        }
      }))
    );
  }

  /** The day of the next night, or the one before, on which some step of a wave may begin; any day where no window binds them. */
  nightBeside({ order, index }: WaveAt, forward: boolean): Day | undefined {
    const wave = order.waves[index];
    if (!wave) return undefined;
    const calendars = new CalendarIndex(desk.estate);
    const own = wave.steps
      .flatMap((s) => order.parts[s.part]?.systems[0] ?? [])
      .flatMap((id) => {
        const system = desk.systems.get(id);
        return (system && calendars.of(system)) ?? [];
      })
      .filter((c) => c.hasWindows);
    const [from, to] = forward
      ? [wave.first + 1, wave.first + NIGHTS_WITHIN]
      : [Math.max(desk.today, wave.first - NIGHTS_WITHIN), wave.first - 1];
    if (from > to) return undefined;
    if (own.length === 0) return forward ? from : to;
    const days = own.flatMap((c) => [...c.from(from, to)].map((o) => o.day)).sort((a, b) => a - b);
    return forward ? days[0] : days.at(-1);
  }

  /** Makes what is tried for good. */
  async keep(): Promise<void> {
    const { trial } = this;
    await trials.keep(
      trial.length === 1 ? sayChange(trial[0] as Change, desk.naming) : 'Laid the order of work otherwise',
      trial,
      sourceOf('order of work', desk.today)
    );
    this.trial = [];
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

/** Names of what could be lifted, as the desk knows them. */
export const leverNames: LeverNames = {
  lock: (id) => {
    const lock = desk.estate.locks?.find((l) => l.id === id);
    return lock ? sayLock(lock, desk.naming) : id;
  },
  calendar: (id) => {
    const calendars = desk.estate.calendars ?? [];
    const own = calendars.find((c) => c.id === id);
    const window = calendars
      .flatMap((c) => c.windows.map((w) => ({ c, w })))
      .find(({ c, w }) => `${c.id} ${w.id}` === id);
    if (own) return own.team ?? own.site ?? 'the estate';
    return window ? desk.naming.windowOf(window.c.id, window.w.id) : id;
  }
};
