import { emptyCatalogue } from '$core/catalogue';
import { formatDay } from '$core/date';
import type { Change, Estate, Recheck, WhatIf } from '$core/estate';
import { applyChanges, sourceOf } from '$core/what-if';
import type { Write } from '$lib/storage/change-log';
import { desk, freeId, plain } from './desk.svelte';

/** Most of either that is kept. */
const MOST_RECHECKS = 50;

/** What is tried and what was kept of it: what-ifs, rechecks, and changes made for good. */
class Trials {
  readonly whatIfs = $derived(desk.estate.whatIfs ?? []);
  readonly rechecks = $derived(desk.estate.rechecks ?? []);

  /** Adds a what-if, or takes the place of the one with its id. */
  async saveWhatIf(
    label: string,
    whatIf: Omit<WhatIf, 'id' | 'day'> & { readonly id?: string }
  ): Promise<string> {
    const id = whatIf.id ?? freeId('w', this.whatIfs);
    const next: WhatIf = { day: formatDay(desk.today), ...plain(whatIf), id };
    const others = this.whatIfs.filter((w) => w.id !== id);
    await desk.commit(label, [['whatIfs', plain([...others, next])]]);
    return id;
  }

  dropWhatIf(whatIf: WhatIf): Promise<void> {
    return desk.commit(`Dropped ${whatIf.name}`, [this.#without(whatIf)]);
  }

  /** Makes a what-if's changes for good, as one step to undo; it is gone then. */
  async applyWhatIf(whatIf: WhatIf): Promise<void> {
    await this.keep(`Applied ${whatIf.name}`, whatIf.changes, sourceOf(whatIf.name, desk.today), [
      this.#without(whatIf)
    ]);
  }

  #without(whatIf: WhatIf): Write {
    const others = this.whatIfs.filter((w) => w.id !== whatIf.id);
    return ['whatIfs', others.length > 0 ? plain(others) : undefined];
  }

  /** Makes changes for good, as one step to undo. Facts are kept under `source`. */
  async keep(
    label: string,
    changes: readonly Change[],
    source: string,
    more: readonly Write[] = []
  ): Promise<void> {
    const { who } = await desk.sign();
    const { estate, today } = desk;
    const changed = applyChanges(
      {
        estate,
        catalogue: desk.catalogue ?? emptyCatalogue(),
        today,
        source,
        ...(who === undefined ? {} : { who })
      },
      changes
    );
    const day: Write[] =
      changed.today === today
        ? []
        : [['site', plain({ ...changed.estate.site, asOf: formatDay(changed.today) })]];
    await desk.commit(label, [...writesBetween(estate, changed.estate), ...day, ...more]);
  }

  /** Keeps what stands in the way today, to be compared with later. */
  async saveRecheck(items: Recheck['items'], note: string): Promise<void> {
    const { who } = await desk.sign();
    const next: Recheck = {
      id: freeId('k', this.rechecks),
      day: formatDay(desk.today),
      ...(who === undefined ? {} : { who }),
      ...(note === '' ? {} : { note }),
      items
    };
    await desk.commit('Kept what stands in the way today', [
      ['rechecks', plain([...this.rechecks, next].slice(-MOST_RECHECKS))]
    ]);
  }

  dropRecheck(recheck: Recheck): Promise<void> {
    const others = this.rechecks.filter((r) => r.id !== recheck.id);
    return desk.commit(`Dropped the result of ${recheck.day}`, [
      ['rechecks', others.length > 0 ? plain(others) : undefined]
    ]);
  }
}

/** The writes that make one estate of another, where systems, goals or decisions differ. */
function writesBetween(before: Estate, after: Estate): Write[] {
  const differ = <T extends { readonly id: string }>(
    kind: string,
    a: readonly T[],
    b: readonly T[]
  ): Write[] => {
    const known = new Map(a.map((item) => [item.id, item]));
    const kept = new Set(b.map((item) => item.id));
    return [
      ...a.filter((item) => !kept.has(item.id)).map((item): Write => [`${kind}/${item.id}`, undefined]),
      ...b
        .filter((item) => known.get(item.id) !== item)
        .map((item): Write => [`${kind}/${item.id}`, plain(item)])
    ];
  };
  return [
    ...differ('system', before.systems, after.systems),
    ...differ('goal', before.goals, after.goals),
    ...differ('decision', before.decisions, after.decisions)
  ];
}

export const trials = new Trials();
