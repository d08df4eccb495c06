import { emptyEstate, systemSchema } from '../../src/core/estate/schema';
import { kindsOf } from '../../src/core/estate/facts';
import { parseCheckItems } from '../../src/core/estate/checks';
import { parseQuery } from '../../src/core/estate/find-systems';
import { systemsSheet } from '../../src/core/estate/sheets/systems-sheet';
import { parseCsv } from '../../src/core/exchange/csv-in';
import { parseCycloneDx } from '../../src/core/exchange/cyclonedx';
import { identifyText } from '../../src/core/exchange/identify';
import { readRows } from '../../src/core/exchange/import-rows';
import { parseJsonTable } from '../../src/core/exchange/json-table';
import type { MachineRecord } from '../../src/core/exchange/machine-record';
import { suggestMapping } from '../../src/core/exchange/mapping';
import { parseOsRelease } from '../../src/core/exchange/os-release';
import { previewImport } from '../../src/core/exchange/preview-import';
import { importWords } from '../../src/core/wording/system';
import { parseRecords } from '../../src/core/exchange/record-text';
import { parseWorkspace } from '../../src/core/exchange/workspace-file';
import { partByProduct, suggestKind, TABLE_READERS } from '../../src/core/catalogue/tables/kinds';
import {
  TABLE_KINDS,
  type TableGround,
  type TableKind,
  type TableTaken
} from '../../src/core/catalogue/tables/reader';
import { type PublishedTable, readPublishedTables } from '../../src/core/exchange/published-tables';
import { type Catalogue, catalogueSchema } from '../../src/core/catalogue/schema';
import type { Result } from '../../src/core/kit/issue';
import { editsOfPaste } from '../../src/lib/estate/grid';

/** A way in with a text it takes; `read` says whether it was taken. What is taken must fit the schema: else it throws. */
export interface Importer {
  readonly name: string;
  readonly text: string;
  read(text: string): boolean;
}

const today = '2031-03-10';

/** Takes records as far as systems, which must be such as can be stored. */
function take(records: Result<MachineRecord[]>, catalogue: Catalogue): boolean {
  if (!records.ok) return false;
  const { taken } = previewImport(
    records.value,
    { catalogue, existing: [], source: 'x', today },
    importWords
  );
  for (const system of taken) systemSchema.parse(system);
  return true;
}

function takeTable(table: ReturnType<typeof parseCsv>, catalogue: Catalogue): boolean {
  if (!table.ok) return false;
  const { rows } = table.value;
  const kinds = kindsOf(catalogue);
  const mapping = suggestMapping(rows, { kinds });
  return mapping !== undefined && take({ ok: true, value: readRows(rows, mapping, kinds) }, catalogue);
}

/**
 * Takes publishers' tables, as each of the kinds there are, as far as a catalogue, which must be such as can be stored; the same table once
 * more has nothing new to say.
 */
function takePublished(text: string, catalogue: Catalogue): boolean {
  const read = readPublishedTables(text);
  if (!read.ok) return false;
  let taken = false;
  const own = catalogue.products.find((p) => p.name === 'Brindle Server');
  if (!own) return false;
  for (const table of read.value.flatMap((t) => partByProduct(t, ['Brindle Server'])))
    for (const kind of TABLE_KINDS) {
      const ground = { product: own, lists: catalogue.lists ?? [], facts: catalogue.facts ?? [] };
      suggestKind({ title: table.title, table, product: own });
      const first = takeAs(kind, table, ground);
      if (first.changes.every((c) => c.kind === 'same' || c.kind === 'no release')) continue;
      const again = takeAs(kind, table, first);
      const moved = again.changes.find((c) => c.kind === 'new' || c.kind === 'changed');
      if (moved) throw new Error(`not the same again: ${kind} ${JSON.stringify(moved)}`);
      catalogueSchema.parse({ ...catalogue, lists: first.lists, products: [first.product] });
      taken = true;
    }
  return taken;
}

function takeAs(kind: TableKind, table: PublishedTable, ground: TableGround): TableTaken {
  const reader = TABLE_READERS[kind];
  const reading = {
    table,
    roles: reader.suggestRoles(table, ground),
    meanings: new Map<string, string>(),
    about: { at: 'any', order: 'day first' as const },
    title: table.title,
    source: 'page'
  };
  for (const word of reader.words(reading, ground)) reader.suggestMeaning(word, ground);
  return reader.take(reading, ground);
}

/** Every way machines come in, over a catalogue. */
export function importersOf(catalogue: Catalogue, workspace: string): Importer[] {
  const kinds = kindsOf(catalogue);
  const product = catalogue.products[0];
  return [
    {
      name: 'list of machines (CSV)',
      text: 'Name;OS;memory (GB);Seen;security-part;Applications;hosted on\ndraw-1;Garnock Desk 4 r1 Studio;8;10.3.2031;on;a; \n"x";"Brindle Server 9";?;3/4/31;maybe;b|c;draw-1\n',
      read: (text) => takeTable(parseCsv(text), catalogue)
    },
    {
      name: 'list of machines (JSON)',
      text: '{"machines": [{"name": "a", "os": {"name": "Brindle Server", "version": "9"}, "memory": "8 GB", "applications": ["x"]}, {"name": "b", "product": "Garnock Desk", "version": 4}]}',
      read: (text) => takeTable(parseJsonTable(text), catalogue)
    },
    {
      name: 'os-release texts',
      text: '# a\nNAME="Brindle Server"\nVERSION_ID=9\nSUPPORT_END=2032-09-20\nCPE_NAME="cpe:2.3:o:x:y"\nb:\nNAME=\'Nobody\'\nVERSION_ID="1 \\"two\\""\nVARIANT=Plain\n',
      read: (text) => take(parseOsRelease(text, 'x'), catalogue)
    },
    {
      name: 'records',
      text: 'orange-stair-record 1\nname: a\nread on: 2031-03-03\nproduct: Pellow Terminal\nversion: 12\nmemory: 2 GB\nhosted on: b\ncompanion: Ticket eye, version 3\norange-stair-record 1\nname: b\nwhole disk: ? no access\n',
      read: (text) => take(parseRecords(text, kinds), catalogue)
    },
    {
      name: 'CycloneDX',
      text: '{"bomFormat": "CycloneDX", "specVersion": "1.5", "metadata": {"timestamp": "2031-03-01T08:00:00Z", "component": {"type": "device", "name": "rack"}}, "components": [{"type": "operating-system", "name": "Brindle Server", "version": "8", "purl": "pkg:generic/b@8"}, {"type": "device", "name": "t", "version": "1", "components": [{"type": "firmware", "name": "Pellow Terminal", "version": "13"}]}, {"type": "application", "name": "y"}]}',
      read: (text) => take(parseCycloneDx(text, catalogue, 'x'), catalogue)
    },
    {
      name: 'tables of a page',
      text: '<h2>Brindle Server</h2><table><tr><th>Release<th colspan=2>Ends</tr><tr><td rowspan="2">8<sup>1</sup></td><td>31 Mar 2033</td><td>2034-Q1</td></tr><tr><td>9 LTS (Jay)</td><td>30/04/2035</td></tr></table>',
      read: (text) => takePublished(text, catalogue)
    },
    {
      name: 'tables as Markdown',
      text: '# Brindle Server\n| Release | Out | Until |\n|---|:--:|---|\n| **8** | 2028-03-01 | [Q3 2033](x) |\n| 11 \\| b | June 2031 | unknown |\n',
      read: (text) => takePublished(text, catalogue)
    },
    {
      name: 'tables as values and lists',
      text: 'Brindle Server;;\nRelease;Out;Until\n8;1.3.2028;31.3.2033\n\n- cycle: "11"\n  until: 2037\n',
      read: (text) => takePublished(text, catalogue)
    },
    {
      name: 'tables of other kinds',
      text: '<h2>Brindle Server 9 and later</h2><table><tr><th>Part<th>Least<th>Recommended</tr><tr><td>Memory<td>2 GB<td>6 GB<sup>1</sup></tr><tr><td>64-bit processor<td>yes<td></tr></table><table><tr><th>Driver<th>8<th>9</tr><tr><td>Ring<td>works<td>needs 3.1</tr></table><table><tr><th>Known problem<th>Met in<th>Impact<th>Fixed in</tr><tr><td>Stands<td>8 and later<td>stall<td>10</tr></table><table><tr><th>Release<th>New<th>Dropped</tr><tr><td>9<td>Ring; Bell<br>Book<td>-</tr></table>',
      read: (text) => takePublished(text, catalogue)
    },
    { name: 'workspace', text: workspace, read: (text) => parseWorkspace(text).ok },
    {
      name: 'words off a screen',
      text: 'Subject: desk\nThe about sheet says Garnock Desk, build 4.2.118, Studio; or Brindle release 9 (ring).',
      read: (text) => identifyText(catalogue, text).length > 0
    },
    {
      name: 'checker result',
      text: 'Memory = 4 GB: ok\nfailure: Route stamp\nfailed - security part = off - switched off\nwarning: plot queue; goes away\nnot checked: Contour kit',
      read: (text) => parseCheckItems(text, kinds, product).items.length > 0
    },
    {
      name: 'search',
      text: 'team = "ticket office" not slack < 30 or memory > 8 GB',
      read: (text) => parseQuery(text).groups.length > 0
    },
    {
      name: 'pasted block',
      text: 'a\tGarnock Desk\t5\tr1\tPlain\nb\t\t"4 or 5"\t?\n',
      read: (text) => {
        const sheet = systemsSheet({
          catalogue,
          estate: emptyEstate(),
          systems: [],
          today,
          who: '',
          describe: String
        });
        const edits = editsOfPaste(
          text,
          { top: 0, bottom: 0, left: 0, right: 0 },
          { columns: sheet.columns, count: 0, allowNew: true, keyOf: (row) => `+${row + 1}` }
        );
        for (const system of sheet.apply(edits).systems) systemSchema.parse(system);
        return edits.length > 0;
      }
    }
  ];
}
