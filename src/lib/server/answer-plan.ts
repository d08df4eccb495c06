import { z } from 'zod';
import { planInDepth } from '$core';
import { type Catalogue, catalogueSchema, checkCatalogue, migrateCatalogue } from '$core/catalogue';
import { parseDay } from '$core/date';
import {
  DEFAULT_GOAL,
  emptyEstate,
  type Estate,
  estateSchema,
  LONG_LISTS,
  migrateEstate
} from '$core/estate';
import {
  formatCalendarFile,
  formatPlanCsv,
  parseCatalogue,
  parseJson,
  planFileOf,
  readLarge,
  orderFile
} from '$core/exchange';
import { fail, type Issue, type Result, succeed } from '$core/kit';
import type { Plan } from '$core/plan';
import {
  approvalFor,
  approvalMarkdown,
  describeIssue,
  dueEntries,
  inFiles,
  planWordsOf
} from '$core/wording';

/** The request of the headless way; see docs/api.md. */
const requestSchema = z.strictObject({
  catalogue: z.union([z.string(), z.preprocess(migrateCatalogue, catalogueSchema)]),
  estate: estateSchema.partial(),
  today: z.string().optional(),
  format: z.enum(['json', 'csv', 'calendar', 'sheets', 'order']).optional(),
  everyTarget: z.boolean().optional(),
  depth: z.boolean().optional(),
  waiting: z.int().min(1).max(3660).optional()
});

/** An answer as plain values, so that it can come from another thread. */
export interface Answer {
  readonly status: number;
  readonly type: string;
  readonly body: string;
}

export interface PlanRequest {
  /** The body, UTF-8. */
  readonly bytes: Uint8Array;
  /** ISO day, where the request names none. */
  readonly today: string;
  /** What is asked for, whatever the body says. */
  readonly format?: 'calendar';
}

/** Plans what a request's body holds and forgets it. 400 with issues in their places where it cannot be read. */
export function answerPlan({ bytes, today: realDay, format: wanted }: PlanRequest): Answer {
  const json = parseJson(new TextDecoder().decode(bytes));
  if (!json.ok) return refuse(400, json.issues);
  const request = readRequest(json.value);
  if (!request.ok) return refuse(400, request.issues);
  const { catalogue: given, today: stated, everyTarget, depth, waiting } = request.value;
  const format = wanted ?? request.value.format;
  const catalogue = typeof given === 'string' ? parseCatalogue(given) : checked(given);
  if (!catalogue.ok)
    return refuse(
      400,
      catalogue.issues.map((i) => ({ ...i, path: ['catalogue', ...(i.path ?? [])] }))
    );
  const estate = { ...emptyEstate(), ...request.value.estate };
  if (!estate.goals.some((g) => g.team === undefined)) estate.goals = [...estate.goals, DEFAULT_GOAL];
  const todayText = stated ?? estate.site.asOf ?? realDay;
  const today = parseDay(todayText);
  if (today === undefined) return refuse(400, [{ code: 'bad-today', detail: todayText, path: ['today'] }]);
  if (format === 'order') return json200(orderFile({ catalogue: catalogue.value, estate, today }));
  const { plan, lookInto, wait } = planInDepth({ catalogue: catalogue.value, estate, today });
  if (format === 'csv')
    return {
      status: 200,
      type: 'text/csv; charset=utf-8',
      body: formatPlanCsv({
        plan,
        catalogue: catalogue.value,
        estate,
        words: planWordsOf(catalogue.value),
        everyTarget: everyTarget ?? false
      })
    };
  if (format === 'calendar') return calendarAnswer(plan, catalogue.value, estate);
  if (format === 'sheets') return sheetsAnswer(plan, catalogue.value, estate);
  return json200(
    planFileOf(
      plan,
      planWordsOf(catalogue.value),
      depth ? lookInto : undefined,
      waiting ? wait(waiting) : undefined
    )
  );
}

function calendarAnswer(plan: Plan, catalogue: Catalogue, estate: Estate): Answer {
  const name = `${estate.site.name} - what is due`.replace(/^ - /, '');
  const entries = inFiles(() => dueEntries(plan, catalogue, estate));
  const body = formatCalendarFile(name, entries, plan.today);
  return { status: 200, type: 'text/calendar; charset=utf-8', body };
}

/** A sheet for whoever approves, of every situation with a way. */
function sheetsAnswer(plan: Plan, catalogue: Catalogue, estate: Estate): Answer {
  const sheets = inFiles(() =>
    plan.cases.flatMap((one) => approvalFor(one, { catalogue, estate, today: plan.today }) ?? [])
  );
  return { status: 200, type: 'text/markdown; charset=utf-8', body: approvalMarkdown(sheets) };
}

/** The estate of a request may be long, so it is read by itself. */
function readRequest(value: unknown): Result<z.infer<typeof requestSchema>> {
  const isLarge = typeof value === 'object' && value !== null && 'estate' in value;
  const estate = isLarge
    ? readLarge(estateSchema.partial(), migrateEstate(value.estate), LONG_LISTS)
    : undefined;
  if (estate && !estate.ok)
    return fail(...estate.issues.map((i) => ({ ...i, path: ['estate', ...(i.path ?? [])] })));
  const rest = readLarge(requestSchema, isLarge ? { ...value, estate: {} } : value, {});
  return rest.ok && estate ? succeed({ ...rest.value, estate: estate.value }) : rest;
}

function checked(catalogue: z.infer<typeof catalogueSchema>) {
  const issues = checkCatalogue(catalogue);
  return issues.length > 0 ? { ok: false as const, issues } : { ok: true as const, value: catalogue };
}

const JSON_TYPE = 'application/json';
const json200 = (value: unknown): Answer => ({
  status: 200,
  type: JSON_TYPE,
  body: JSON.stringify(value)
});

/** A refusal with its issues, each with its sentence. */
export const refuse = (status: number, issues: readonly Issue[]): Answer => ({
  status,
  type: JSON_TYPE,
  body: JSON.stringify({ issues: issues.map((issue) => ({ ...issue, message: describeIssue(issue) })) })
});
