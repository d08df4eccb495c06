import type { Catalogue } from '../catalogue';
import type { Day } from '../date';
import type { Estate, LinkIndex, System } from '../estate';

/** What is planned by, as far as an edit bears on it. */
interface PlannedBy {
  readonly catalogue: Catalogue;
  readonly estate: Estate;
  readonly today: Day;
  readonly links: LinkIndex;
  keepsBack(system: System): boolean;
}

/** Systems by their ids: made when first asked for, or those of an earlier estate with a few changed. */
export class SystemsById {
  readonly #systems: readonly System[];
  #all: ReadonlyMap<string, System> | undefined;
  readonly #changed = new Map<string, System>();

  constructor(systems: readonly System[]) {
    this.#systems = systems;
  }

  get(id: string): System | undefined {
    this.#all ??= new Map(this.#systems.map((s) => [s.id, s]));
    return this.#changed.get(id) ?? this.#all.get(id);
  }

  /** Takes over what an earlier estate has made; `changed`: places of systems that are others since. */
  follow(earlier: SystemsById, changed: readonly number[]): void {
    if (!earlier.#all || earlier.#changed.size + changed.length > MOST_CHANGED) return;
    this.#all = earlier.#all;
    for (const [id, system] of earlier.#changed) this.#changed.set(id, system);
    for (const i of changed) {
      const system = this.#systems[i];
      if (system) this.#changed.set(system.id, system);
    }
  }
}

/** Systems that may be gathered by themselves; of more all are gathered. */
const MOST_CHANGED = 1000;

/** Whether all that plans of single systems turn on, beside the systems themselves, is the same. */
export function hasSameAround(before: PlannedBy, now: PlannedBy): boolean {
  const [a, b] = [before.estate, now.estate];
  return (
    before.catalogue === now.catalogue &&
    before.today === now.today &&
    isSame(a.site, b.site) &&
    isSame(a.goals, b.goals) &&
    isSame(a.decisions, b.decisions) &&
    isSame(a.rightsHeld, b.rightsHeld) &&
    isSame(a.calendars, b.calendars)
  );
}

const isSame = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);

/** What says whether a system is kept back, and which others are in its place. */
const groupOf = ({ team, product, stage, name }: System): unknown => [team, product, stage, name];

/** Places of systems that are others than before; undefined where some came or went, or many are. */
export function differingOf(a: readonly System[], b: readonly System[]): number[] | undefined {
  if (a.length !== b.length) return undefined;
  const places: number[] = [];
  for (let i = 0; i < b.length; i++) {
    if (a[i] === b[i]) continue;
    if (a[i]?.id !== b[i]?.id || places.length >= MOST_CHANGED) return undefined;
    places.push(i);
  }
  return places;
}

/** Of these what may be gathered by themselves; undefined where one is linked, or bears on who else is kept back. */
export function changedSince(
  before: PlannedBy,
  now: PlannedBy,
  differing: readonly number[]
): readonly number[] | undefined {
  const alone = differing.every((i) => {
    const [old, system] = [before.estate.systems[i], now.estate.systems[i]];
    if (!old || !system) return false;
    const isLinked = before.links.isLinked(system.id) || now.links.isLinked(system.id);
    const keepsBack = before.keepsBack(old) || now.keepsBack(system);
    return !isLinked && (!keepsBack || isSame(groupOf(old), groupOf(system)));
  });
  return alone ? differing : undefined;
}
