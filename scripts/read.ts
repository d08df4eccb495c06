/** Reads a list of machines and says what was understood, a statement a line; USAGE says how. Ends with 3 where something is open. */
import { openAsBlob, readFileSync } from 'node:fs';
import { basename } from 'node:path';
import { parseArgs } from 'node:util';
import { Names, type Catalogue, emptyCatalogue } from '../src/core/catalogue';
import { kindsOf, type Fact, type Reading, type System } from '../src/core/estate';
import {
  type ImportPreview,
  type MachineRecord,
  parseCatalogue,
  readRows,
  unreadColumns
} from '../src/core/exchange';
import { previewImport } from '../src/core/exchange/preview-import';
import { BASE_PATCH, ONLY } from '../src/core/version';
import { describeIssue } from '../src/core/wording';
import { understandFile } from '../src/lib/workers/understand-file';

const USAGE = 'npm run -s read -- --list FILE [--catalogue FILE] [--about FILE] [--format text|json]';
/** Something is open. */
const OPEN = 3;

interface Statement {
  readonly of: 'system' | 'left' | 'asked';
  readonly text: string;
}

function catalogueIn(file: string | undefined): Catalogue {
  if (file === undefined) return emptyCatalogue('none');
  const read = parseCatalogue(readFileSync(file, 'utf8'));
  if (read.ok) return read.value;
  for (const issue of read.issues) console.error(`${file}: ${describeIssue(issue)}`);
  process.exit(1);
}

/** What is said beside a list: `product: NAME` and the like, a line each. */
const aboutIn = (file: string | undefined): ReadonlyMap<string, string> =>
  new Map(
    (file === undefined ? '' : readFileSync(file, 'utf8')).split('\n').flatMap((line) => {
      const [, key, value] = /^\s*(\w+)\s*:\s*(.+?)\s*$/.exec(line) ?? [];
      return key && value ? [[key, value] as const] : [];
    })
  );

const quoted = (text: string): string => `"${text.replaceAll('"', "'")}"`;

/** What a system's record says, as statements. */
function statementsOf(system: System, catalogue: Catalogue, leftOver: readonly string[]): string[] {
  const of = `system ${quoted(system.name)}`;
  const product =
    'is' in system.product
      ? catalogue.products.find((p) => 'is' in system.product && p.id === system.product.is)
      : undefined;
  const names = new Names(product);
  const said: string[] = [];
  const is = (reading: Reading): string | undefined => ('is' in reading ? reading.is : undefined);
  const release = is(system.release);
  if (product && release !== undefined) {
    const hasLevels = (product.releases.find((r) => r.id === release)?.patches ?? []).length > 0;
    const patch = hasLevels ? is(system.patch) : undefined;
    const [edition, architecture] = [is(system.edition), is(system.architecture)];
    said.push(
      [
        `is ${quoted(product.name)} ${quoted(names.release(release))}`,
        ...(patch === undefined || patch === ONLY
          ? []
          : [`level ${patch === BASE_PATCH ? 'base' : quoted(names.patch(release, patch))}`]),
        ...(edition === undefined || edition === ONLY ? [] : [`edition ${quoted(names.edition(edition))}`]),
        ...(architecture === undefined || architecture === ONLY ? [] : [`architecture ${architecture}`])
      ].join(' ')
    );
  } else if (product && (!leftOver.some((w) => /\d/.test(w)) || 'oneOf' in system.release)) {
    const among = 'oneOf' in system.release ? system.release.oneOf : product.releases.map((r) => r.id);
    said.push(`could-be ${quoted(product.name)} ${among.map((r) => quoted(names.release(r))).join(' | ')}`);
  } else if (system.installedText !== undefined)
    said.push(`not-in-catalogue ${quoted(system.installedText)}`);
  for (const [id, fact] of Object.entries(system.facts ?? {}))
    said.push(...factStatements(id, fact, system.observed));
  for (const c of system.companions ?? [])
    said.push(`runs-also ${quoted(c.name)}${c.version === undefined ? '' : ` ${quoted(c.version)}`}`);
  if (system.team !== undefined) said.push(`team ${quoted(system.team)}`);
  if (system.site !== undefined) said.push(`site ${quoted(system.site)}`);
  if (system.note !== undefined) said.push(`note ${quoted(system.note)}`);
  return said.map((text) => `${of} ${text}`);
}

/** Kinds of facts by the names they have in statements. */
const FACT_NAMES: Readonly<Record<string, string>> = {
  'disk.total': 'disk.whole',
  'disk.free.system': 'disk.free',
  'processor.model': 'processor',
  'processor.bits': 'word-size',
  'graphics.model': 'graphics',
  'display.size': 'display',
  'firmware.kind': 'firmware',
  'security-part.generation': 'security-part',
  'firmware.checked-start': 'setting.secure-boot'
};

function factStatements(id: string, fact: Fact, seenOn: string | undefined): string[] {
  if (!('value' in fact)) return [];
  const { value } = fact;
  const text = value === true ? 'on' : value === false ? 'off' : String(value);
  const seen = seenOn === undefined ? '' : ` as-of ${seenOn}`;
  const own = Object.hasOwn(FACT_NAMES, id)
    ? (FACT_NAMES[id] ?? id)
    : id.startsWith('own.')
      ? `own ${quoted(id.slice(4))}`
      : id;
  const written = /^[\d.]+ [A-Za-z]+$|^\S+$/.test(text) ? text : quoted(text);
  return [`fact ${own} ${written}${seen}`];
}

/** What links say, by names of the list. */
function linkStatements({ name, links }: MachineRecord): string[] {
  return (links ?? []).flatMap(({ kind, name: to }) => {
    const word = kind === 'hosted on' ? 'hosted-on' : kind === 'managed by' ? 'managed-by' : undefined;
    return word === undefined ? [] : [`system ${quoted(name)} ${word} ${quoted(to)}`];
  });
}

function openIn(preview: ImportPreview): Statement[] {
  return preview.rows.flatMap((row): Statement[] => {
    if (row.fate === 'not taken')
      return [
        {
          of: 'left',
          text: `left row ${row.row} because ${row.reason ? describeIssue(row.reason) : 'not taken'}`
        }
      ];
    if (row.system && row.system.installedText === undefined)
      return [{ of: 'asked', text: `? row ${row.row}` }];
    return row.contradiction ||
      (row.leftOver.length > 0 && row.system && !('is' in row.system.product && 'is' in row.system.release))
      ? [{ of: 'asked', text: `? row ${row.row}` }]
      : [];
  });
}

function readArguments() {
  try {
    const options = {
      list: { type: 'string' },
      catalogue: { type: 'string' },
      about: { type: 'string' },
      format: { type: 'string', default: 'text' }
    } as const;
    return parseArgs({ options }).values;
  } catch (error) {
    console.error(error instanceof Error ? error.message : error);
    return { format: '' };
  }
}

async function main(): Promise<void> {
  const values = readArguments();
  if (values.list === undefined || !['text', 'json'].includes(values.format)) {
    console.error(USAGE);
    process.exit(1);
  }
  const catalogue = catalogueIn(values.catalogue);
  const about = aboutIn(values.about);
  const read = await understandFile(await openAsBlob(values.list), basename(values.list), {
    catalogue,
    lists: []
  });
  if (!read.ok) {
    for (const issue of read.issues) console.error(`${values.list}: ${describeIssue(issue)}`);
    process.exit(1);
  }
  const statements: Statement[] = [];
  let records: readonly MachineRecord[] = [];
  if (read.value.kind === 'records') ({ records } = read.value);
  if (read.value.kind === 'list') {
    const { rows, mapping } = read.value;
    if (mapping) {
      const product = about.get('product');
      records = readRows(rows, mapping, kindsOf(catalogue), catalogue).map((r) =>
        product === undefined || r.texts.product !== undefined ? r : { ...r, texts: { product, ...r.texts } }
      );
      statements.push(
        ...unreadColumns(rows, mapping).map((c): Statement => ({
          of: 'left',
          text: `left column ${quoted(c.heading)}`
        }))
      );
    } else statements.push({ of: 'asked', text: '? kind' });
  }
  const preview = previewImport(
    records,
    {
      catalogue,
      existing: [],
      source: basename(values.list),
      today: about.get('day') ?? new Date().toISOString().slice(0, 10)
    },
    { installed: () => '', difference: () => '' }
  );
  statements.push(...openIn(preview));
  const leftOf = new Map(preview.rows.map((r) => [r.system?.id, r.leftOver]));
  for (const system of preview.taken)
    statements.push(
      ...statementsOf(system, catalogue, leftOf.get(system.id) ?? []).map((text): Statement => ({
        of: 'system',
        text
      }))
    );
  for (const record of records)
    statements.push(...linkStatements(record).map((text): Statement => ({ of: 'system', text })));
  if (values.format === 'json') console.log(JSON.stringify(statements, undefined, 2));
  else for (const { text } of statements) console.log(text);
  process.exitCode = statements.some((s) => s.of === 'asked') ? OPEN : 0;
}

await main();
