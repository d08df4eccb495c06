/** `npm run plan -- --catalogue FILE --estate FILE [--today DAY] [--format json|csv] [--every-target] [--depth] [--waiting DAYS] [--order]` */
import { readFileSync } from 'node:fs';
import { basename } from 'node:path';
import { parseArgs } from 'node:util';
import { formatDay, parseDay } from '../src/core/date/day';
import { parseCatalogue } from '../src/core/exchange/catalogue-file';
import { decodeText } from '../src/core/exchange/decode-text';
import { parseEstate } from '../src/core/exchange/estate-file';
import { formatPlanCsv } from '../src/core/exchange/plan-csv';
import { planFileOf } from '../src/core/exchange/plan-file';
import type { Issue } from '../src/core/kit/issue';
import { describeIssue } from '../src/core/wording/issue';
import { planWords } from '../src/core/wording/plan-words';
import { planInDepth } from '../src/core';
import { orderFile } from '../src/core/exchange/order-file';

const USAGE =
  'npm run plan -- --catalogue FILE --estate FILE [--today YYYY-MM-DD] [--format json|csv] [--every-target] [--depth] [--waiting DAYS] [--order]';

function stop(file: string, issues: readonly Issue[]): never {
  for (const issue of issues) console.error(`${file}: ${describeIssue(issue)}`);
  process.exit(1);
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
      waiting: { type: 'string' }
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
    console.error(`${path}: ${error instanceof Error ? error.message : String(error)}`);
    return process.exit(1);
  }
}

const values = readArguments();
if (!values.estate || (values.format !== 'json' && values.format !== 'csv')) {
  console.error(USAGE);
  process.exit(2);
}
const TODAY = formatDay(Math.floor(Date.now() / 86_400_000));
const given =
  values.catalogue === undefined ? undefined : parseCatalogue(decodeText(readFile(values.catalogue)).text);
if (given && !given.ok) stop(values.catalogue ?? '', given.issues);
const file = await parseEstate(
  readFile(values.estate),
  basename(values.estate),
  given?.ok ? given.value : undefined,
  values.today ?? TODAY
);
if (!file.ok) stop(values.estate, file.issues);
const catalogue = given?.ok ? given.value : file.value.catalogue;
if (!catalogue) stop(values.estate, [{ code: 'missing-part', detail: '--catalogue' }]);
for (const row of file.value.notTaken)
  console.error(`${values.estate}: row ${row.row} not taken: ${row.reason ? describeIssue(row.reason) : ''}`);
const { estate } = file.value;
const todayText = values.today ?? estate.site.asOf ?? TODAY;
const today = parseDay(todayText);
if (today === undefined) stop('--today', [{ code: 'bad-today', detail: todayText }]);
const ahead = Number(values.waiting ?? 0);
if (!Number.isInteger(ahead) || ahead < 0 || ahead > 3660) {
  console.error(USAGE);
  process.exit(2);
}
if (values.order) {
  const planned = orderFile({ catalogue, estate, today });
  process.stdout.write(`${JSON.stringify(planned, null, 1)}\n`);
  process.exit(0);
}
const { plan: result, lookInto, wait } = planInDepth({ catalogue, estate, today });
process.stdout.write(
  values.format === 'csv'
    ? formatPlanCsv({
        plan: result,
        catalogue,
        estate,
        words: planWords,
        everyTarget: values['every-target']
      })
    : JSON.stringify(
        planFileOf(
          result,
          planWords,
          values.depth ? lookInto : undefined,
          ahead > 0 ? wait(ahead) : undefined
        ),
        null,
        1
      ) + '\n'
);
