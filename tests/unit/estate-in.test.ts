import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { GET } from '../../src/routes/api/this-machine/+server';
import { isOwnMachine, ownRecord } from '../../src/lib/server/own-record';
import { kindsOf } from '../../src/core/estate/facts';
import { type Estate, type System } from '../../src/core/estate/schema';
import { parseCycloneDx } from '../../src/core/exchange/cyclonedx';
import { parseCsv } from '../../src/core/exchange/csv-in';
import { formatEstateCsv } from '../../src/core/exchange/estate-csv';
import { identifyText } from '../../src/core/exchange/identify';
import { readRows } from '../../src/core/exchange/import-rows';
import { parseJsonTable } from '../../src/core/exchange/json-table';
import type { MachineRecord } from '../../src/core/exchange/machine-record';
import { suggestMapping } from '../../src/core/exchange/mapping';
import { parseOsRelease } from '../../src/core/exchange/os-release';
import { previewImport } from '../../src/core/exchange/preview-import';
import { importWords } from '../../src/core/wording/system';
import { parseRecords } from '../../src/core/exchange/record-text';
import { formatWorkspace, parseWorkspace } from '../../src/core/exchange/workspace-file';
import { plan } from '../../src/core/plan/plan';
import { demoCatalogue, demoInput } from '../support/demo';
import { makeEstate } from '../support/estates';
import { Random } from '../support/random';

const catalogue = demoCatalogue();
const kinds = kindsOf(catalogue);
const demo = demoInput();
const today = '2031-03-10';

/** What taking an estate's own list in again would do. */
function importAgain(estate: Estate, csv: string) {
  const table = parseCsv(csv);
  if (!table.ok) throw new Error(JSON.stringify(table.issues));
  const mapping = suggestMapping(table.value.rows, { kinds });
  if (!mapping) throw new Error('no heading');
  const records = readRows(table.value.rows, mapping, kinds);
  return previewImport(
    records,
    { catalogue, existing: estate.systems, source: 'systems.csv', today },
    importWords
  );
}

describe('out and in', () => {
  test('a workspace of anything there is goes out and comes in as it was', () => {
    for (let seed = 0; seed < 60; seed++) {
      const estate = makeEstate(new Random(seed), catalogue, 12);
      const read = parseWorkspace(formatWorkspace(estate, { fileName: '', text: '' }));
      if (!read.ok) throw new Error(JSON.stringify(read.issues));
      const { format: _f, version: _v, catalogue: _c, ...back } = read.value;
      void [_f, _v, _c];
      expect(back).toEqual(estate);
    }
  });

  test('taking in the list an estate was taken out as changes nothing', () => {
    const estates = [
      demo.estate,
      ...Array.from({ length: 40 }, (_, i) => makeEstate(new Random(i + 500), catalogue, 15))
    ];
    for (const [i, estate] of estates.entries()) {
      const preview = importAgain(estate, formatEstateCsv(estate, catalogue));
      expect(
        preview.rows.filter((r) => r.fate !== 'same').map((r) => [i, r.name, r.fate, r.changes])
      ).toEqual([]);
      expect(preview.rows.length).toBe(estate.systems.length);
      expect(preview.taken).toEqual([]);
    }
  });

  test('a later list shows what is new, changed and gone, and keeps what stood there', () => {
    const source = 'stock list';
    const read = (csv: string, existing: readonly System[]) => {
      const table = parseCsv(csv);
      const rows = table.ok ? table.value.rows : [];
      const mapping = suggestMapping(rows, { kinds });
      return previewImport(
        readRows(rows, mapping ?? { headerRow: 0, columns: {} }, kinds),
        {
          catalogue,
          existing,
          source,
          today
        },
        importWords
      );
    };
    const first = read(
      'name,os,memory (GB)\na,Garnock Desk 4 r1 Studio,8\nb,Garnock Desk 5 r1 Plain,4\nc,Brindle Server 9,4',
      []
    );
    expect(first.taken.map((s) => s.facts?.['memory'])).toMatchObject([
      { value: '8 GB', source },
      { value: '4 GB' },
      { value: '4 GB' }
    ]);
    const second = read(
      'name,os,memory (GB)\na,Garnock Desk 5 r1 Studio,8\nb,,16\nd,Brindle Server 8,',
      first.taken
    );
    expect(second.rows.map((r) => `${r.name} ${r.fate}`)).toEqual(['a update', 'b update', 'd new']);
    expect(second.rows[0]?.changes).toEqual(['release: 4, now 5']);
    expect(second.rows[1]?.changes).toEqual(['memory: 4 GB, now 16 GB']);
    expect(second.taken[0]?.history).toEqual([
      { day: today, kind: 'changed', was: 'Garnock Desk 4 r1 Studio', source }
    ]);
    expect(second.vanished.map((s) => s.name)).toEqual(['c']);
    const gone = { ...(second.vanished[0] as System), missingSince: today };
    const retired = { ...(second.vanished[0] as System), stage: 'retired' as const };
    expect(read('name,os\nd,Brindle Server 8', [retired]).vanished).toEqual([]);
    const later = read('name,memory (GB),seen\na,8,2031-03-20', first.taken);
    expect(later.taken[0]?.facts?.['memory']).toEqual({ value: '8 GB', day: '2031-03-20', source });
    const bare = { ...(first.taken[0] as System), stage: 'bare' as const, installedText: undefined };
    expect(read('name,os\na,Brindle Server 9', [bare]).taken[0]).not.toHaveProperty('stage');
    expect(read('name,os\nc,Brindle Server 8', [retired]).rows[0]?.remarks).toEqual([
      'retired here, and still on the list'
    ]);
    const third = read('name,os\nc,Brindle Server 9', [gone]);
    expect(third.rows[0]?.remarks).toContain('back on its list');
    expect(third.taken[0]?.missingSince).toBeUndefined();
  });
});

describe('ways in', () => {
  const records = (result: { ok: boolean; value?: MachineRecord[] }): MachineRecord[] => {
    if (!result.ok || !result.value) throw new Error(JSON.stringify(result));
    return result.value;
  };
  test('many os-release texts pasted together', () => {
    const text = [
      '# draw-90',
      'NAME="Brindle Server"',
      '# what follows was written by the installer',
      'VERSION_ID=9',
      'SUPPORT_END=2032-09-20',
      '',
      'web-90:',
      "NAME='Brindle Server'",
      'VERSION_ID="8"',
      'PRETTY_NAME="Brindle \\"Server\\" 8"',
      'NAME=Nobody',
      'VERSION_ID=1',
      'SUPPORT_END=soon'
    ].join('\n');
    const found = records(parseOsRelease(text, 'paste'));
    expect(
      found.map((r) => [
        r.name,
        r.texts.product,
        r.texts.version,
        r.facts?.['support.ends'],
        r.remarks.length
      ])
    ).toEqual([
      ['draw-90', 'Brindle Server', '9', { value: '2032-09-20' }, 0],
      ['web-90', 'Brindle Server', '8', undefined, 0],
      ['paste 3', 'Nobody', '1', undefined, 1]
    ]);
    const taken = previewImport(
      found,
      { catalogue, existing: [], source: 'paste', today },
      importWords
    ).taken;
    expect(taken[0]?.release).toEqual({ is: '9' });
  });

  test('support that ends by the machine’s own word is its deadline where the catalogue knows nothing', () => {
    const found = records(parseOsRelease('NAME=Nobody\nVERSION_ID=1\nSUPPORT_END=2031-12-31', 'one'));
    const { taken } = previewImport(found, { catalogue, existing: [], source: 'x', today }, importWords);
    const [only] = plan({ ...demo, estate: { ...demo.estate, systems: [...taken] } }).cases;
    expect(only).toMatchObject({
      verdict: 'cannot tell',
      deadline: { setBy: { kind: 'service of installed', sets: true } }
    });
  });

  test('CycloneDX: devices with what runs on them, the rest comes along', () => {
    const bom = (specVersion: string) =>
      JSON.stringify({
        bomFormat: 'CycloneDX',
        specVersion,
        metadata: { timestamp: '2031-03-01T08:00:00Z', component: { type: 'device', name: 'rack-90' } },
        components: [
          {
            type: 'operating-system',
            name: 'Brindle Server',
            version: '8',
            purl: 'pkg:generic/brindle@8',
            cpe: 'cpe:2.3:o:nobody:brindle:8:*:*:*:*:*:*:*'
          },
          { type: 'application', name: 'ring tool', version: '4' },
          { type: 'firmware', name: 'board', version: '1.2' },
          { type: 'application', name: 'Windlass Watch', version: '8.6' },
          {
            type: 'device',
            name: 'term-90',
            version: '13',
            components: [{ type: 'firmware', name: 'Pellow Terminal', version: '13' }]
          },
          { type: 'library', name: 'left out', version: '1' }
        ]
      });
    for (const version of ['1.4', '1.5', '1.6']) {
      const found = records(parseCycloneDx(bom(version), catalogue, 'file'));
      expect(
        found.map((r) =>
          `${r.name}: ${r.texts.product ?? ''} ${r.texts.version ?? ''} ${(r.companions ?? []).map((c) => c.name).join()}`.trim()
        )
      ).toEqual([
        'rack-90: Brindle Server 8 ring tool,board',
        'rack-90 Windlass Watch: Windlass Watch 8.6',
        'term-90: Pellow Terminal 13'
      ]);
      expect(found[0]).toMatchObject({ purl: 'pkg:generic/brindle@8', observed: '2031-03-01' });
    }
    const odd = records(parseCycloneDx(bom('1.5').replace('2031-03-01', '2031-03-00'), catalogue, 'file'));
    expect(odd[0]?.observed).toBeUndefined();
    expect(parseCycloneDx(bom('1.2'), catalogue, 'file')).toMatchObject({
      ok: false,
      issues: [{ code: 'other-version' }]
    });
  });

  test('JSON of machines is a table', () => {
    const table = parseJsonTable(
      '{"machines": [{"name": "a", "os": {"name": "Brindle Server", "version": "9"}, "applications": ["x", {"name": "y"}]}, {"name": "b"}]}'
    );
    expect(table).toMatchObject({
      ok: true,
      value: {
        rows: [
          ['name', 'os.name', 'os.version', 'applications'],
          ['a', 'Brindle Server', '9', 'x; y'],
          ['b', '', '', '']
        ]
      }
    });
    expect(parseJsonTable('[1, 2]')).toMatchObject({ ok: false });
  });

  test('the collector prints a record of the machine it runs on, and so does the server', () => {
    const script = readFileSync('src/lib/server/collector.sh', 'utf8');
    expect(script.startsWith('#!/bin/sh\n')).toBe(true);
    for (const text of [
      execFileSync('sh', ['src/lib/server/collector.sh'], { encoding: 'utf8' }),
      ownRecord('2031-03-10')
    ]) {
      const [record] = records(parseRecords(text, kinds));
      expect(record?.name).not.toBe('');
      expect(record?.remarks).toEqual([]);
      expect(record?.facts?.['memory']).toHaveProperty('value');
      const [row] = previewImport(
        [record as MachineRecord],
        {
          catalogue,
          existing: [],
          source: 'x',
          today
        },
        importWords
      ).rows;
      expect(row?.fate).toBe('new');
      expect(row?.system?.product).toHaveProperty('unknown');
      expect(row?.system?.installedText).toBeTruthy();
    }
  });

  test('a form typed off is read like a record, blanks left out', () => {
    const [record] = records(
      parseRecords(
        'orange-stair-record 1\nname: stop-90\nread on: 3 March 2031\nproduct: Pellow Terminal\nversion: 12\nmemory: 2 GB\nmodel: ______\nwhole disk: ? no access\nhosted on: host-a-01\ncompanion: Ticket eye, version 3\ncolour: red\n',
        kinds
      )
    );
    expect(record).toMatchObject({
      name: 'stop-90',
      observed: '2031-03-03',
      facts: { memory: { value: '2 GB' }, 'disk.total': { unknown: 'no access' } },
      links: [{ kind: 'hosted on', name: 'host-a-01' }],
      companions: [{ name: 'Ticket eye', version: '3' }],
      remarks: ['"colour" is not known here']
    });
    expect(record?.facts).not.toHaveProperty('model');
  });

  test('only its own machine is told of the server’s', async () => {
    const headers = (values: Record<string, string> = {}) => new Headers(values);
    const own = { address: '127.0.0.1', host: '127.0.0.1', headers: headers() };
    expect(isOwnMachine(own)).toBe(true);
    expect(isOwnMachine({ ...own, address: '::1', host: 'localhost:4180' })).toBe(true);
    expect(isOwnMachine({ ...own, address: '::1', host: '[::1]:4180' })).toBe(true);
    expect(isOwnMachine({ ...own, headers: headers({ referer: 'http://127.0.0.1/import' }) })).toBe(true);
    for (const other of [
      { address: '10.0.0.7' },
      { host: 'tram.example' },
      { headers: headers({ 'x-forwarded-for': '10.0.0.7' }) },
      { headers: headers({ forwarded: 'for=10.0.0.7' }) },
      ...['via', 'x-real-ip', 'cf-connecting-ip', 'x-forwarded-host', 'true-client-ip'].map((name) => ({
        headers: headers({ [name]: '10.0.0.7' })
      })),
      { headers: headers({ origin: 'http://tram.example' }) },
      { headers: headers({ origin: 'null' }) },
      { headers: headers({ referer: 'http://127.0.0.1:9/page' }) },
      { headers: headers({ 'sec-fetch-site': 'cross-site' }) },
      { address: '' }
    ])
      expect(isOwnMachine({ ...own, ...other })).toBe(false);
    const get = async (address: () => string) =>
      GET({
        request: new Request('http://127.0.0.1/api/this-machine'),
        url: new URL('http://127.0.0.1/api/this-machine'),
        getClientAddress: address
      } as never);
    expect((await get(() => '127.0.0.1')).status).toBe(200);
    expect((await get(() => '192.0.2.1')).status).toBe(403);
    expect(
      (
        await get(() => {
          throw new Error('hidden');
        })
      ).status
    ).toBe(403);
  });

  test.each([
    [
      'Subject: desk in the hall\n\nHi, the about sheet says Garnock Desk, build 4.2.118, Studio. What now?',
      'garnock-desk 4 r2 studio true',
      ['garnock desk', '4.2.118', 'studio']
    ],
    ['BRINDLE release 9 login:', 'brindle-server 9   true', ['brindle', '9']],
    ['Garnock Desk 4 or perhaps Garnock Desk 5', 'garnock-desk 4   false', ['garnock desk', '4']],
    [
      'Garnock Desk in the hall, beside the 5 lamps that were bought',
      'garnock-desk    true',
      ['garnock desk']
    ],
    ['call me at 4 about the 9 lamps', '', []]
  ])('what is this: %s', (text, said, words) => {
    const [first] = identifyText(catalogue, text);
    expect(
      first
        ? `${first.product} ${first.release ?? ''} ${first.patch ?? ''} ${first.edition ?? ''} ${first.sure}`
        : ''
    ).toBe(said);
    expect(first?.words.map((w) => w.text) ?? []).toEqual(words);
  });
});
