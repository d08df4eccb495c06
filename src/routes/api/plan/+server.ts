import { z } from 'zod';
import { parseDay } from '$core/date';
import { catalogueSchema, checkCatalogue, migrateCatalogue } from '$core/catalogue';
import { formatPlanCsv, issuesOfZod, parseCatalogue, parseJson, planFileOf } from '$core/exchange';
import { DEFAULT_GOAL, emptyEstate, estateSchema, migrateEstate } from '$core/estate';
import type { Issue } from '$core/kit';
import { describeIssue, planWords } from '$core/wording';
import { planInDepth } from '$core';
import type { RequestHandler } from './$types';

const MAX_BODY_BYTES = 32 * 1024 * 1024;

/** The request of the headless way; see docs/api.md. */
const requestSchema = z.strictObject({
  catalogue: z.union([z.string(), z.preprocess(migrateCatalogue, catalogueSchema)]),
  estate: z.preprocess(migrateEstate, estateSchema.partial()),
  today: z.string().optional(),
  format: z.enum(['json', 'csv']).optional(),
  everyTarget: z.boolean().optional(),
  depth: z.boolean().optional()
});

/** Plans what the body holds and forgets it. Answers 400 with issues in their places, 413 where the body is too big. */
export const POST: RequestHandler = async ({ request }) => {
  const text = await readBody(request);
  if (text === undefined) return refuse(413, [{ code: 'too-big', detail: '32 MB' }]);
  const json = parseJson(text);
  if (!json.ok) return refuse(400, json.issues);
  const parsed = requestSchema.safeParse(json.value);
  if (!parsed.success) return refuse(400, issuesOfZod(parsed.error, json.value));
  const { catalogue: given, today: stated, format, everyTarget, depth } = parsed.data;
  const catalogue = typeof given === 'string' ? parseCatalogue(given) : checked(given);
  if (!catalogue.ok)
    return refuse(
      400,
      catalogue.issues.map((i) => ({ ...i, path: ['catalogue', ...(i.path ?? [])] }))
    );
  const estate = { ...emptyEstate(), ...parsed.data.estate };
  if (!estate.goals.some((g) => g.team === undefined)) estate.goals = [...estate.goals, DEFAULT_GOAL];
  const todayText = stated ?? estate.site.asOf ?? new Date().toISOString().slice(0, 10);
  const today = parseDay(todayText);
  if (today === undefined) return refuse(400, [{ code: 'bad-today', detail: todayText, path: ['today'] }]);
  const { plan: result, lookInto } = planInDepth({ catalogue: catalogue.value, estate, today });
  if (format !== 'csv') return Response.json(planFileOf(result, planWords, depth ? lookInto : undefined));
  const csv = formatPlanCsv({
    plan: result,
    catalogue: catalogue.value,
    estate,
    words: planWords,
    everyTarget: everyTarget ?? false
  });
  return new Response(csv, { headers: { 'content-type': 'text/csv; charset=utf-8' } });
};

function checked(catalogue: z.infer<typeof catalogueSchema>) {
  const issues = checkCatalogue(catalogue);
  return issues.length > 0 ? { ok: false as const, issues } : { ok: true as const, value: catalogue };
}

/** The body's text, read no further than the limit; undefined past it. */
async function readBody(request: Request): Promise<string | undefined> {
  if (Number(request.headers.get('content-length') ?? 0) > MAX_BODY_BYTES) return undefined;
  const decoder = new TextDecoder();
  let text = '';
  let bytes = 0;
  if (!request.body) return '';
  for await (const chunk of request.body) {
    bytes += chunk.byteLength;
    if (bytes > MAX_BODY_BYTES) return undefined;
    text += decoder.decode(chunk, { stream: true });
  }
  return text + decoder.decode();
}

function refuse(status: number, issues: readonly Issue[]): Response {
  return Response.json(
    { issues: issues.map((issue) => ({ ...issue, message: describeIssue(issue) })) },
    { status }
  );
}
