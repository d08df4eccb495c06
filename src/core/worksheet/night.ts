import type { ItemState, WorkEntry, WorkItem, Worksheet } from '../estate';
import { compareEntries, isDone, progressOf, standingOf } from './progress';

/** What became of one worksheet in a night. */
export interface NightRun {
  readonly sheet: Worksheet;
  /** The first and the last entry of it; absent where nothing was entered. */
  readonly began?: string;
  readonly ended?: string;
  readonly done: number;
  readonly of: number;
  /** Hops that were entered, as they stand: with what was predicted and what it took. */
  readonly hops: readonly { readonly item: WorkItem; readonly state: ItemState; readonly by: WorkEntry }[];
  readonly failed: readonly WorkItem[];
  /** Passed with a warning somebody accepted. */
  readonly warnings: readonly { readonly item: WorkItem; readonly by: WorkEntry }[];
  /** Gates that were gone through shut. */
  readonly gates: readonly WorkEntry[];
  /** What is next; absent where all of it is done. */
  readonly next?: WorkItem;
}

const HALF_DAY_MS = 12 * 60 * 60 * 1000;

/** The night an entry belongs to: from noon to noon, by the day it began on. `offset`: minutes the clock is ahead of UTC. */
export const nightOfEntry = (at: string, offset: number): string =>
  new Date(Date.parse(at) + offset * 60_000 - HALF_DAY_MS).toISOString().slice(0, 10);

/** What was done in a night, worksheet by worksheet: those planned for it, and those that something was entered of. */
export function nightOf(sheets: readonly Worksheet[], night: string, offset: number): readonly NightRun[] {
  return sheets.flatMap((sheet): NightRun[] => {
    const entries = sheet.entries.filter((e) => nightOfEntry(e.at, offset) === night).sort(compareEntries);
    if (entries.length === 0 && sheet.night !== night) return [];
    const progress = progressOf(sheet);
    const touched = new Set(entries.map((e) => e.item));
    const latest = (of: (i: WorkItem) => boolean) =>
      sheet.items.flatMap((item) => {
        const { state = 'open', by } = progress.get(item.id) ?? {};
        return by && touched.has(item.id) && of(item) ? [{ item, state, by }] : [];
      });
    const { done, of, next } = standingOf(sheet);
    const [first, last] = [entries[0], entries.at(-1)];
    return [
      {
        sheet,
        ...(first && last ? { began: first.at, ended: last.at } : {}),
        done,
        of,
        hops: latest((i) => i.kind === 'hop').filter((h) => isDone(h.state) || h.state === 'failed'),
        failed: latest(() => true).flatMap((h) => (h.state === 'failed' ? [h.item] : [])),
        warnings: latest(() => true).filter((h) => h.state === 'passed with a warning'),
        gates: entries.filter((e) => e.gate !== undefined),
        ...(next ? { next } : {})
      }
    ];
  });
}
