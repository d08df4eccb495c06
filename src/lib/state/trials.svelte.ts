import { emptyCatalogue } from '$core/catalogue';
import { formatDay } from '$core/date';
import {
  type Change,
  dropRecheck,
  dropWhatIf,
  keepRecheck,
  keepSite,
  keepWhatIf,
  type Recheck,
  type WhatIf,
  type Write,
  writesBetween
} from '$core/estate';
import { applyChanges, sourceOf } from '$core/what-if';
import { desk } from './desk.svelte';
import { newId } from './ids';
import { plain } from './plain.svelte';
import { signer } from './signer.svelte';

/** What is tried and what was kept of it: what-ifs, rechecks, and changes made for good. */
class Trials {
  readonly whatIfs = $derived(desk.estate.whatIfs ?? []);
  readonly rechecks = $derived(desk.estate.rechecks ?? []);

  /** Adds a what-if, or takes the place of the one with its id. */
  async saveWhatIf(
    label: string,
    whatIf: Omit<WhatIf, 'id' | 'day'> & { readonly id?: string }
  ): Promise<string> {
    const id = whatIf.id ?? newId('w');
    const next: WhatIf = { day: formatDay(desk.today), ...plain(whatIf), id };
    await desk.commit(label, keepWhatIf(desk.estate, next));
    return id;
  }

  dropWhatIf(whatIf: WhatIf): Promise<void> {
    return desk.commit(`Dropped ${whatIf.name}`, dropWhatIf(desk.estate, whatIf));
  }

  /** Makes a what-if's changes for good, as one step to undo; it is gone then. */
  async applyWhatIf(whatIf: WhatIf): Promise<void> {
    await this.keep(
      `Applied ${whatIf.name}`,
      whatIf.changes,
      sourceOf(whatIf.name, desk.today),
      dropWhatIf(desk.estate, whatIf)
    );
  }

  /** Makes changes for good, as one step to undo. Facts are kept under `source`. */
  async keep(
    label: string,
    changes: readonly Change[],
    source: string,
    more: readonly Write[] = []
  ): Promise<void> {
    const { who } = await signer.sign();
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
    const day =
      changed.today === today ? [] : keepSite({ ...changed.estate.site, asOf: formatDay(changed.today) });
    await desk.commit(label, plain([...writesBetween(estate, changed.estate), ...day, ...more]));
  }

  /** Keeps what stands in the way today, to be compared with later. */
  async saveRecheck(items: Recheck['items'], note: string): Promise<void> {
    const { who } = await signer.sign();
    const next: Recheck = {
      id: newId('k'),
      day: formatDay(desk.today),
      ...(who === undefined ? {} : { who }),
      ...(note === '' ? {} : { note }),
      items
    };
    await desk.commit('Kept what stands in the way today', keepRecheck(desk.estate, plain(next)));
  }

  dropRecheck(recheck: Recheck): Promise<void> {
    return desk.commit(`Dropped the result of ${recheck.day}`, dropRecheck(desk.estate, recheck));
  }
}

export const trials = new Trials();
