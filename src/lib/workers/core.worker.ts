import '../jitless';
import * as Comlink from 'comlink';
import { lintCatalogue, type LintFinding } from '$core/lint';
import { type Catalogue, type Dispute, mergeCatalogues, settleCatalogue } from '$core/catalogue';
import {
  type CasePlan,
  type DueEntry,
  comparePlans,
  type Explored,
  type Forecast,
  plan,
  type Plan,
  type PlanChange,
  type PlanProgress,
  rulingsOf,
  type GoalOutlook,
  type Waiting
} from '$core/plan';
import type { Option, Side } from '$core/compare';
import type { Order } from '$core/order';
import type { Ready } from '$core/ready';
import type { Tried } from '$core/what-if';
import { formatDay } from '$core/date';
import {
  type Change,
  type Estate,
  type Goal,
  kindsOf,
  readAgain,
  type System,
  type Target,
  type TeamMove,
  type Workspace
} from '$core/estate';
import {
  type Candidate,
  completeCatalogueText,
  type Completion,
  findLine,
  formatCalendarFile,
  formatPlanCsv,
  identifyText,
  type ImportContext,
  type ImportPreview,
  type MachineRecord,
  type Mapping,
  parseCatalogue,
  type PublishedTable,
  previewStepwise,
  readCalendarFile,
  type ReadCalendar,
  readRows,
  reviseCatalogueText,
  type RevisedCatalogue
} from '$core/exchange';
import type { Result } from '$core/kit';
import { importWords, planWordsOf } from '$core/wording';
import { Helping, type Share } from './helpers';
import { Looker, type RightsTried } from './looker';
import { type LookOrder, Orderer } from './orderer';
import type { LookProgress } from './paced';
import { Planner, type PlanOrder } from './planner';
import { publishedTables } from './published-tables';
import { readWorkspaceBlob } from './read-workspace';
import type { ToldPlan } from './told-plan';
import { understandFile, type FileHints, type UnderstoodFile } from './understand-file';

const PROGRESS_EVERY_MS = 40;

const planner = new Planner();
const looker = new Looker(planner);
const orderer = new Orderer();
const helping = new Helping();

/** Words of progress cost time as well: not more of them than people can read. */
function sparingly<T>(tell: (progress: T) => void): (progress: T) => void {
  let told = 0;
  return (progress) => {
    const now = performance.now();
    if (now - told <= PROGRESS_EVERY_MS) return;
    told = now;
    tell(progress);
  };
}

/** What the worker does: parse the message, call one core function, return a value. Failures are values too. */
const api = {
  readCatalogue: async (text: string): Promise<Result<Catalogue>> => parseCatalogue(text),
  readWorkspace: async (file: Blob): Promise<Result<Workspace>> => readWorkspaceBlob(file),
  understandFile: (file: Blob, name: string, hints: FileHints): Promise<Result<UnderstoodFile>> =>
    understandFile(file, name, hints),
  readRows: async (
    rows: readonly (readonly string[])[],
    mapping: Mapping,
    catalogue: Catalogue
  ): Promise<MachineRecord[]> => readRows(rows, mapping, kindsOf(catalogue), catalogue),
  async previewImport(
    records: readonly MachineRecord[],
    context: ImportContext,
    onProgress: (done: number) => void
  ): Promise<ImportPreview> {
    const tell = sparingly(onProgress);
    const steps = previewStepwise(records, context, importWords);
    for (let next = steps.next(); ; next = steps.next()) {
      if (next.done) return next.value;
      tell(next.value);
    }
  },
  identify: async (catalogue: Catalogue, text: string): Promise<Candidate[]> => identifyText(catalogue, text),
  /** A catalogue's text changed to mean `after`, the rest of it left as it is. */
  reviseCatalogue: async (text: string, after: Catalogue): Promise<Result<RevisedCatalogue>> =>
    reviseCatalogueText(text, after),
  /** A received catalogue joined with the one at hand, as a change to its text. */
  async mergeCatalogue(
    text: string,
    received: Catalogue
  ): Promise<Result<RevisedCatalogue & { disputes: readonly Dispute[] }>> {
    const own = parseCatalogue(text);
    if (!own.ok) return own;
    const merged = mergeCatalogues(own.value, received);
    if (!merged.ok) return merged;
    const revised = reviseCatalogueText(text, merged.value);
    if (!revised.ok) return revised;
    const known = new Set(settleCatalogue(own.value, []).disputes.map((d) => d.entry));
    const disputes = settleCatalogue(revised.value.catalogue, []).disputes.filter((d) => !known.has(d.entry));
    return { ok: true, value: { ...revised.value, disputes } };
  },
  completeText: async (text: string, offset: number): Promise<Completion> =>
    completeCatalogueText(text, offset),
  lintCatalogue: async (catalogue: Catalogue, estate: Estate, today: number): Promise<LintFinding[]> =>
    lintCatalogue(catalogue, today, rulingsOf(estate, formatDay(today))),
  readAgain: async (catalogue: Catalogue, systems: readonly System[]): Promise<System[]> =>
    readAgain(catalogue, systems),
  lineOf: async (text: string, path: readonly (string | number)[]): Promise<number | undefined> =>
    findLine(text, path),
  /** What a change of the catalogue does to the plan: systems nobody could place are read again first. */
  async changesWith(
    before: Plan | undefined,
    catalogue: Catalogue,
    estate: Estate,
    today: number
  ): Promise<{ changes: PlanChange[]; readAgain: System[] }> {
    const clearer = readAgain(catalogue, estate.systems);
    const known = new Map(clearer.map((s) => [s.id, s]));
    const systems = estate.systems.map((s) => known.get(s.id) ?? s);
    return {
      changes: comparePlans(
        before,
        plan({ catalogue, estate: { ...estate, systems }, today, every: 'goal' })
      ),
      readAgain: clearer
    };
  },
  publishedTables: (bytes: Uint8Array): Promise<Result<readonly PublishedTable[]>> => publishedTables(bytes),
  calendarFile: async (name: string, entries: readonly DueEntry[], today: number): Promise<string> =>
    formatCalendarFile(name, entries, today),
  readCalendarFile: async (text: string): Promise<Result<ReadCalendar>> => readCalendarFile(text),
  planCsv: async (
    planned: Plan,
    catalogue: Catalogue,
    estate: Estate,
    everyTarget: boolean
  ): Promise<string> =>
    formatPlanCsv({
      // What is on the desk is planned for the goal alone.
      plan: everyTarget ? plan({ catalogue, estate, today: planned.today }) : planned,
      catalogue,
      estate,
      words: planWordsOf(catalogue),
      everyTarget
    }),
  planStored: (order: PlanOrder, onProgress: (progress: PlanProgress) => void): Promise<Result<ToldPlan>> =>
    planner.plan(order, onProgress),
  planShare: async (share: Share): Promise<CasePlan[]> => helping.planShare(share),
  keepPlan: (stamp: string, of: string): Promise<void> => planner.keep(stamp, of),
  waitStored: (
    order: LookOrder,
    only: readonly string[] | undefined,
    onProgress: (progress: LookProgress) => void
  ): Promise<Result<Waiting>> => orderer.wait(order, only, onProgress),
  orderStored: (order: LookOrder, onProgress: (progress: LookProgress) => void): Promise<Result<Order>> =>
    orderer.order(order, onProgress),
  orderWith: (
    order: LookOrder,
    changes: readonly Change[],
    onProgress: (progress: LookProgress) => void
  ): Promise<Result<Order>> => orderer.orderWith(order, changes, onProgress),
  outlookStored: (team: string | undefined): Promise<Result<GoalOutlook[]>> => looker.outlook(team),
  readyStored: (onProgress: (progress: LookProgress) => void): Promise<Result<Ready>> =>
    looker.ready(onProgress),
  tryStored: (changes: readonly Change[]): Promise<Result<Pick<Tried, 'changes' | 'reaching'>>> =>
    looker.tryOut(changes),
  forecastStored: (): Promise<Result<Forecast[]>> => looker.forecast(),
  tryRights: (changes: readonly Change[]): Promise<Result<RightsTried>> => looker.tryRights(changes),
  tryGoal: (team: string | undefined, goal: Goal): Promise<Result<Pick<Tried, 'changes' | 'reaching'>>> =>
    looker.tryGoal(team, goal),
  tryTeams: (move: TeamMove): Promise<Result<Pick<Tried, 'changes' | 'reaching'>>> => looker.tryTeams(move),
  exploreWith: (
    changes: readonly Change[],
    system: string,
    target?: Target
  ): Promise<Result<Explored | undefined>> => looker.exploreWith(changes, system, target),
  compareStored: (system: string, options: readonly Option[]): Promise<Result<Side[]>> =>
    looker.compare(system, options),
  exploreStored: async (system: string, target?: Target): Promise<Explored | undefined> =>
    planner.explore(system, target)
};

export type CoreWorker = typeof api;
Comlink.expose(api);
