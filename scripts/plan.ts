/** Plans from the command line; USAGE says how. */
import { readFileSync, watch } from 'node:fs';
import { basename } from 'node:path';
import { parseArgs } from 'node:util';
import { formatDay, parseDay } from '../src/core/date/day';
import { parseCatalogue } from '../src/core/exchange/catalogue-file';
import { decodeText } from '../src/core/exchange/decode-text';
import { parseEstate } from '../src/core/exchange/estate-file';
import { formatPlanCsv } from '../src/core/exchange/plan-csv';
import { type DueSystem, dueWithin, formatDueJunit, isAnythingDue } from '../src/core/exchange/plan-due';
import { planFileOf } from '../src/core/exchange/plan-file';
import type { Issue } from '../src/core/kit/issue';
import { describeIssue } from '../src/core/wording/issue';
import { sayDueFound } from '../src/core/wording/due';
import { planWordsOf } from '../src/core/wording/plan-words';
import { planInDepth } from '../src/core';
import { orderFile } from '../src/core/exchange/order-file';

const USAGE =
  'npm run plan -- --catalogue FILE --estate FILE [--today YYYY-MM-DD] [--format json|csv|junit] [--every-target] [--depth] [--waiting DAYS] [--order] [--due DAYS] [--watch]';

/** Something is due within the days that were asked about. */
const DUE = 3;

let stopsAtOnce = true;

function stop(file: string, issues: readonly Issue[]): never {
  for (const issue of issues) console.error(`${file}: ${describeIssue(issue)}`);
  if (stopsAtOnce) process.exit(1);
  throw new Error('waiting for a change');
}

function readArguments() {
  try {
    const options = {
      catalogue: { type: 'string' },
      estate: { type: 'string' },
      today: { type: 'string' },
      format: { type: 'string', default: 'json' },
      'every-target': { type: 'boolean', default: false },
      depth: { type: 'boolean', default: false },
      order: { type: 'boolean', default: false },
      waiting: { type: 'string' },
      due: { type: 'string' },
      watch: { type: 'boolean', default: false }
    } as const;
    return parseArgs({ options }).values;
  } catch (error) {
    console.error(`${error instanceof Error ? error.message : String(error)}\n${USAGE}`);
    return process.exit(2);
  }
}

function readFile(path: string): Uint8Array {
  try {
    return readFileSync(path);
  } catch (error) {
    return stop(path, [{ code: 'syntax', detail: error instanceof Error ? error.message : String(error) }]);
  }
}

const values = readArguments();
const FORMATS = ['json', 'csv', 'junit'];
const wrong = (): never => {
  console.error(USAGE);
  return process.exit(2);
};
/** A number of days; 0 where none is said. */
function daysOf(text: string | undefined): number {
  const days = Number(text ?? 0);
  return Number.isInteger(days) && days >= 0 && days <= 3660 ? days : wrong();
}
const estatePath = values.estate ?? wrong();
if (!FORMATS.includes(values.format)) wrong();
const ahead = daysOf(values.waiting);
const due = daysOf(values.due);

/** Plans once and writes what it comes to. The code to end with. */
async function run(): Promise<number> {
  const TODAY = formatDay(Math.floor(Date.now() / 86_400_000));
  const given =
    values.catalogue === undefined ? undefined : parseCatalogue(decodeText(readFile(values.catalogue)).text);
  if (given && !given.ok) stop(values.catalogue ?? '', given.issues);
  const file = await parseEstate(
    readFile(estatePath),
    basename(estatePath),
    given?.ok ? given.value : undefined,
    values.today ?? TODAY
  );
  if (!file.ok) stop(estatePath, file.issues);
  const catalogue = given?.ok ? given.value : file.value.catalogue;
  if (!catalogue) stop(estatePath, [{ code: 'missing-part', detail: '--catalogue' }]);
  for (const row of file.value.notTaken)
    console.error(`${estatePath}: row ${row.row} not taken: ${row.reason ? describeIssue(row.reason) : ''}`);
  const { estate } = file.value;
  const todayText = values.today ?? estate.site.asOf ?? TODAY;
  const today = parseDay(todayText);
  if (today === undefined) stop('--today', [{ code: 'bad-today', detail: todayText }]);
  if (values.order) {
    const planned = orderFile({ catalogue, estate, today });
    process.stdout.write(`${JSON.stringify(planned, null, 1)}\n`);
    return 0;
  }
  const { plan: result, lookInto, wait } = planInDepth({ catalogue, estate, today });
  const words = planWordsOf(catalogue);
  const found = dueWithin(result, { today, days: due });
  const cases = new Map(result.cases.flatMap((c) => c.systems.map((s) => [s, c] as const)));
  const say = (one: DueSystem): string => {
    const plan = cases.get(one.system);
    return sayDueFound(one, plan && words.found(plan, today));
  };
  const text = (): string => {
    switch (values.format) {
      case 'csv':
        return formatPlanCsv({
          plan: result,
          catalogue,
          estate,
          words,
          everyTarget: values['every-target']
        });
      case 'junit':
        return formatDueJunit(found, { today, say });
      default:
        return `${JSON.stringify(
          planFileOf(result, words, values.depth ? lookInto : undefined, ahead > 0 ? wait(ahead) : undefined),
          null,
          1
        )}\n`;
    }
  };
  process.stdout.write(text());
  if (values.due === undefined || !isAnythingDue(found)) return 0;
  for (const one of found) if (one.what !== 'nothing' && one.what !== 'unknown') console.error(say(one));
  return DUE;
}

const CHANGED_MS = 300;
if (values.watch) {
  // Planned anew a moment after a file has changed; what is amiss with one is told, and waited out.
  stopsAtOnce = false;
  let timer: NodeJS.Timeout | undefined;
  const again = (): void => {
    clearTimeout(timer);
    timer = setTimeout(() => void run().catch((error: unknown) => console.error(String(error))), CHANGED_MS);
  };
  for (const path of [estatePath, values.catalogue].filter((p) => p !== undefined)) watch(path, again);
  again();
} else process.exitCode = await run();
