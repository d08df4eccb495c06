import * as Comlink from 'comlink';
import type { Catalogue } from '$core/catalogue/schema';
import type { Estate, Workspace } from '$core/estate/schema';
import { parseCatalogue } from '$core/exchange/catalogue-file';
import { previewImport, type ImportContext, type ImportPreview } from '$core/exchange/import-rows';
import type { Mapping } from '$core/exchange/mapping';
import { formatPlanCsv } from '$core/exchange/plan-csv';
import { parseWorkspace } from '$core/exchange/workspace-file';
import type { Result } from '$core/issue';
import { planStepwise, type PlanProgress } from '$core/plan';
import type { Plan } from '$core/plan-types';
import { understandFile, type UnderstoodFile } from './understand-file';

const PROGRESS_EVERY_MS = 40;

/** What the worker does: parse the message, call one core function, return a value. Failures are values too. */
const api = {
  readCatalogue: async (text: string): Promise<Result<Catalogue>> => parseCatalogue(text),
  readWorkspace: async (text: string): Promise<Result<Workspace>> => parseWorkspace(text),
  understandFile: (bytes: Uint8Array, name: string): Promise<Result<UnderstoodFile>> =>
    understandFile(bytes, name),
  previewImport: async (
    rows: readonly (readonly string[])[],
    mapping: Mapping,
    context: ImportContext
  ): Promise<ImportPreview> => previewImport(rows, mapping, context),
  planCsv: async (plan: Plan, catalogue: Catalogue, estate: Estate, everyTarget: boolean): Promise<string> =>
    formatPlanCsv({ plan, catalogue, estate, everyTarget }),
  async plan(
    catalogue: Catalogue,
    estate: Estate,
    today: number,
    onProgress: (progress: PlanProgress) => void
  ): Promise<Result<Plan>> {
    let told = 0;
    try {
      const steps = planStepwise({ catalogue, estate, today });
      for (let next = steps.next(); ; next = steps.next()) {
        if (next.done) return { ok: true, value: next.value };
        const now = performance.now();
        if (now - told > PROGRESS_EVERY_MS) onProgress(next.value);
        if (now - told > PROGRESS_EVERY_MS) told = now;
      }
    } catch (error) {
      return {
        ok: false,
        issues: [{ code: 'cannot-plan', detail: error instanceof Error ? error.message : String(error) }]
      };
    }
  }
};

export type CoreWorker = typeof api;
Comlink.expose(api);
