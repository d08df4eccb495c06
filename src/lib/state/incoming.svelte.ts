import { emptyCatalogue } from '$core/catalogue';
import { formatDay } from '$core/date';
import {
  type Estate,
  keepImport,
  keepSystems,
  type RememberedList,
  rememberList,
  type System,
  type Write
} from '$core/estate';
import {
  headingKey,
  type ImportedRow,
  type ImportKey,
  type ImportPreview,
  importRecordOf,
  type MachineRecord,
  type Mapping
} from '$core/exchange';
import type { Issue } from '$core/kit';
import { sayCount } from '$core/wording';
import { callBack } from '$lib/workers/client';
import type { UnderstoodFile } from '$lib/workers/understand-file';
import { desk } from './desk.svelte';
import { newId } from './ids';
import { plain } from './plain.svelte';

/** What to do with systems that came from this list before and are no longer on it. Nothing is ever deleted. */
export type Vanished = 'mark' | 'leave' | 'retire';

/** A file on its way in: what it is, how it is read, what taking it would do. Nothing is changed before `confirm`. */
export class Incoming {
  fileName = $state('');
  /** The name the list goes by; a list of the same name is the same list again. */
  listName = $state('');
  reading = $state(false);
  /** Machines compared so far. */
  done = $state<number | undefined>();
  issues = $state.raw<readonly Issue[]>([]);
  file = $state.raw<UnderstoodFile | undefined>();
  mapping = $state.raw<Mapping | undefined>();
  records = $state.raw<readonly MachineRecord[]>([]);
  preview = $state.raw<ImportPreview | undefined>();
  vanished = $state<Vanished>('mark');
  #run = 0;
  /** The systems the preview was made against. */
  #compared: Estate['systems'] = [];

  readonly rows = $derived(this.file?.kind === 'list' ? this.file.rows : []);
  readonly headings = $derived(this.mapping?.headings ?? this.rows[this.mapping?.headerRow ?? 0] ?? []);
  readonly taken = $derived(this.preview?.taken.length ?? 0);
  readonly isMachines = $derived(this.file?.kind === 'list' || this.file?.kind === 'records');
  readonly knownList = $derived((desk.estate.lists ?? []).some((l) => l.list === this.listName));

  of(fate: ImportedRow['fate']): ImportedRow[] {
    return this.preview?.rows.filter((r) => r.fate === fate) ?? [];
  }

  async takeFile(file: File | undefined): Promise<void> {
    if (file) await this.take(file, file.name);
  }

  takeText(text: string, name: string): Promise<void> {
    return this.take(new Blob([text]), name);
  }

  async take(given: Blob, name: string): Promise<void> {
    this.forget();
    const run = ++this.#run;
    this.reading = true;
    this.fileName = name;
    try {
      const hints = { catalogue: desk.catalogue ?? emptyCatalogue(), lists: plain(desk.estate.lists ?? []) };
      const read = await desk.files.call((w) => w.understandFile(given, name, hints));
      if (run !== this.#run) return;
      if (!read.ok) this.issues = read.issues;
      else await this.#open(read.value);
    } catch (error) {
      this.issues = [{ code: 'syntax', detail: error instanceof Error ? error.message : String(error) }];
    }
    this.reading = false;
  }

  async #open(file: UnderstoodFile): Promise<void> {
    this.listName = file.kind === 'list' ? (file.mapping?.list ?? this.fileName) : this.fileName;
    if (file.kind === 'list') await this.remap(file.mapping ?? { headerRow: 0, columns: {} }, file.rows);
    if (file.kind === 'records') await this.#compare(file.records);
    this.file = file;
  }

  async remap(next: Mapping, rows: readonly (readonly string[])[] = this.rows): Promise<void> {
    this.mapping = next;
    const catalogue = desk.catalogue ?? emptyCatalogue();
    await this.#compare(await desk.files.call((w) => w.readRows(rows, plain(next), catalogue)));
  }

  /** Compares with what is known, anew where the name of the list changed. */
  async #compare(records: readonly MachineRecord[]): Promise<void> {
    this.records = records;
    const context = {
      catalogue: desk.catalogue ?? emptyCatalogue(),
      existing: desk.estate.systems,
      source: this.listName.trim() || this.fileName,
      today: formatDay(desk.today)
    };
    this.#compared = desk.estate.systems;
    const tell = (done: number): void => void (this.done = done);
    this.preview = await desk.files.call((w) => w.previewImport(records, context, callBack(tell)));
    this.done = undefined;
  }

  async rename(list: string): Promise<void> {
    this.listName = list;
    await this.#compare(this.records);
  }

  /** A name for a machine whose text has none. */
  async nameMachine(row: number, name: string): Promise<void> {
    await this.#compare(
      this.records.map((r) => (r.row === row ? { ...r, name: name.trim().slice(0, 300) } : r))
    );
  }

  setColumn(column: number, key: string): Promise<void> {
    if (!this.mapping) return Promise.resolve();
    const columns = Object.fromEntries(
      Object.entries(this.mapping.columns).filter(([k, c]) => c !== column && k !== key)
    );
    return this.remap({ ...this.mapping, columns: key === '' ? columns : { ...columns, [key]: column } });
  }

  columnKey(column: number): ImportKey | '' {
    const found = Object.entries(this.mapping?.columns ?? {}).find(([, c]) => c === column);
    return (found?.[0] as ImportKey | undefined) ?? '';
  }

  forget(): void {
    this.#run++;
    this.issues = [];
    this.file = undefined;
    this.mapping = undefined;
    this.preview = undefined;
    this.records = [];
    this.vanished = 'mark';
    this.reading = false;
  }

  /** Takes the machines in: systems, how the list is read, and what the import did, as one change. */
  confirmMachines(): Promise<void> {
    const { preview } = this;
    if (!preview) return Promise.resolve();
    const today = formatDay(desk.today);
    const list = this.listName.trim().slice(0, 300) || this.fileName;
    const gone = this.vanished === 'leave' ? [] : preview.vanished.map((s) => this.#markGone(s, today));
    const record = importRecordOf(preview, {
      id: newId('i'),
      list,
      file: this.fileName.slice(0, 500),
      day: today
    });
    const writes: Write[] = [
      ...keepSystems([...preview.taken, ...gone]),
      ...keepImport(desk.estate, plain(record)),
      ...this.#remember(list, today)
    ];
    // What else was changed of these systems since they were compared stays.
    const from = { ...desk.estate, systems: this.#compared };
    return desk.commit(`Took in ${sayCount(this.taken, 'system')} from ${this.fileName}`, writes, from);
  }

  #markGone(system: System, today: string): System {
    if (this.vanished === 'mark') return { ...system, missingSince: today };
    const event = { day: today, kind: 'retired' as const, source: this.listName.slice(0, 500) };
    return { ...system, stage: 'retired', history: [...(system.history ?? []), event].slice(-500) };
  }

  #remember(list: string, day: string): Write[] {
    if (!this.mapping || this.file?.kind !== 'list') return [];
    const headings = this.headings.map((h) => h.slice(0, 500));
    const columns = Object.fromEntries(
      Object.entries(this.mapping.columns).filter((e): e is [string, number] => e[1] !== undefined)
    );
    const entry: RememberedList = { list, headings, columns, day };
    return rememberList(
      desk.estate,
      plain(entry),
      (l) => l.list === list || headingKey(l.headings) === headingKey(headings)
    );
  }
}
