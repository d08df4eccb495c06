import { z } from 'zod';
import { planInDepth } from '$core';
import { catalogueSchema, checkCatalogue, migrateCatalogue } from '$core/catalogue';
import { parseDay } from '$core/date';
import { DEFAULT_GOAL, emptyEstate, estateSchema, LONG_LISTS, migrateEstate } from '$core/estate';
import { formatPlanCsv, parseCatalogue, parseJson, planFileOf, readLarge } from '$core/exchange';
import { fail, type Issue, type Result, succeed } from '$core/kit';
import { describeIssue, planWords } from '$core/wording';

/** The request of the headless way; see docs/api.md. */
const requestSchema = z.strictObject({
  catalogue: z.union([z.string(), z.preprocess(migrateCatalogue, catalogueSchema)]),
  estate: estateSchema.partial(),
  today: z.string().optional(),
  format: z.enum(['json', 'csv']).optional(),
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
}

/** Plans what a request's body holds and forgets it. 400 with issues in their places where it cannot be read. */
export function answerPlan({ bytes, today: realDay }: PlanRequest): Answer {
  const json = parseJson(new TextDecoder().decode(bytes));
  if (!json.ok) return refuse(400, json.issues);
  const request = readRequest(json.value);
  if (!request.ok) return refuse(400, request.issues);
  const { catalogue: given, today: stated, format, everyTarget, depth, waiting } = request.value;
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
  const { plan, lookInto, wait } = planInDepth({ catalogue: catalogue.value, estate, today });
  if (format === 'csv')
    return {
      status: 200,
      type: 'text/csv; charset=utf-8',
      body: formatPlanCsv({
        plan,
        catalogue: catalogue.value,
        estate,
        words: planWords,
        everyTarget: everyTarget ?? false
      })
    };
  return json200(
    planFileOf(plan, planWords, depth ? lookInto : undefined, waiting ? wait(waiting) : undefined)
  );
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
