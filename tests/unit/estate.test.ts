import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { GET } from '../../src/routes/api/this-machine/+server';
import { isOwnMachine, ownRecord } from '../../src/lib/server/own-record';
import { evaluateCondition } from '../../src/core/condition/evaluate-condition';
import { FactKinds } from '../../src/core/condition/fact-kind';
import { parseCondition } from '../../src/core/condition/parse-condition';
import { findUnknowns } from '../../src/core/estate/asked-facts';
import { findBehind } from '../../src/core/estate/behind';
import { keepCheck, likelyCauses, parseCheckItems, summariseCheck } from '../../src/core/estate/checks';
import { evidenceOf } from '../../src/core/estate/evidence';
import { addReading, FactDecisions, kindsOf, mergeFacts, seenOf } from '../../src/core/estate/facts';
import { matchesQuery, parseQuery } from '../../src/core/estate/find-systems';
import { LinkIndex } from '../../src/core/estate/links';
import { chooseValue, mergeEstates } from '../../src/core/estate/merge-estates';
import { findPlaces } from '../../src/core/estate/places';
import { companionsSheet, linksSheet, rightsSheet } from '../../src/core/estate/sheets/entry-sheets';
import { factsSheet } from '../../src/core/estate/sheets/facts-sheet';
import type { Sheet, SheetSource } from '../../src/core/estate/sheets/sheet';
import { systemsSheet } from '../../src/core/estate/sheets/systems-sheet';
import { estateSchema, type Estate, type Fact, type System } from '../../src/core/estate/schema';
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
import { parseRecords } from '../../src/core/exchange/record-text';
import { formatWorkspace, parseWorkspace } from '../../src/core/exchange/workspace-file';
import { plan } from '../../src/core/plan';
import { editsOfPaste, fillDown, textOfBox } from '../../src/lib/estate/grid';
import { searchableSystem } from '../../src/lib/estate/searchable';
import { demoCatalogue, demoInput } from '../support/demo';
import { makeEstate } from '../support/estates';
import { Random } from '../support/random';

const catalogue = demoCatalogue();
const kinds = kindsOf(catalogue);
const demo = demoInput();
const systemOf = (id: string): System => demo.estate.systems.find((s) => s.id === id) as System;
const today = '2031-03-10';

/** What taking an estate's own list in again would do. */
function importAgain(estate: Estate, csv: string) {
  const table = parseCsv(csv);
  if (!table.ok) throw new Error(JSON.stringify(table.issues));
  const mapping = suggestMapping(table.value.rows, { kinds });
  if (!mapping) throw new Error('no heading');
  const records = readRows(table.value.rows, mapping, kinds);
  return previewImport(records, { catalogue, existing: estate.systems, source: 'systems.csv', today });
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
      return previewImport(readRows(rows, mapping ?? { headerRow: 0, columns: {} }, kinds), {
        catalogue,
        existing,
        source,
        today
      });
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
    const third = read('name,os\nc,Brindle Server 9', [gone]);
    expect(third.rows[0]?.remarks).toContain('back on its list');
    expect(third.taken[0]?.missingSince).toBeUndefined();
  });
});

describe('two people’s work', () => {
  const pair = (seed: number): [Estate, Estate] => {
    const a = makeEstate(new Random(seed), catalogue, 8);
    const b = makeEstate(new Random(seed + 9000), catalogue, 10);
    // Most of the second is the first, changed here and there.
    const r = new Random(seed + 70);
    return [a, { ...b, systems: b.systems.map((s, i) => (r.chance(0.5) ? (a.systems[i] ?? s) : s)) }];
  };
  test('merging is the same in either order, with itself nothing, and merged again nothing more', () => {
    let conflicts = 0;
    let disputed = 0;
    for (let seed = 0; seed < 150; seed++) {
      const [a, b] = pair(seed);
      const ab = mergeEstates(a, b);
      expect(mergeEstates(b, a)).toEqual(ab);
      const itself = mergeEstates(a, a);
      expect(itself.conflicts).toEqual([]);
      expect(mergeEstates(itself.estate, a).estate).toEqual(itself.estate);
      expect(new Set(itself.estate.systems.map((s) => s.id))).toEqual(new Set(a.systems.map((s) => s.id)));
      for (const one of [a, b]) expect(mergeEstates(ab.estate, one).estate).toEqual(ab.estate);
      expect(estateSchema.safeParse(ab.estate).success).toBe(true);
      conflicts += ab.conflicts.length;
      disputed += ab.estate.systems.filter((s) =>
        Object.values(s.facts ?? {}).some((f) => 'statements' in f)
      ).length;
    }
    expect(conflicts).toBeGreaterThan(500);
    expect(disputed).toBeGreaterThan(100);
  });

  test('a conflict can be settled the other way, and nothing else moves', () => {
    const [a, b] = pair(3);
    const { estate, conflicts } = mergeEstates(a, b);
    for (const conflict of conflicts) {
      const other = chooseValue(estate, conflict, conflict.values[1]);
      expect(other).not.toEqual(estate);
      expect(chooseValue(other, conflict, conflict.values[0])).toEqual(estate);
    }
  });
});

describe('facts', () => {
  const kind = kinds.find('memory');
  const day = (value: string, source: string, when: string): Fact => ({ value, source, day: when });
  test.each<[string, Fact | undefined, Fact, Fact]>([
    ['a first reading stands', undefined, day('8 GB', 'a', '2031-02-01'), day('8 GB', 'a', '2031-02-01')],
    [
      'the same source takes back what it said',
      day('8 GB', 'a', '2031-02-01'),
      day('4 GB', 'a', '2031-02-02'),
      day('4 GB', 'a', '2031-02-02')
    ],
    [
      'another source that agrees leaves one statement',
      day('8 GB', 'a', '2031-02-01'),
      day('8192 MB', 'b', '2031-02-02'),
      day('8192 MB', 'b', '2031-02-02')
    ],
    [
      'another source that differs makes it disputed',
      day('8 GB', 'a', '2031-02-01'),
      day('4 GB', 'b', '2031-02-02'),
      { statements: [day('8 GB', 'a', '2031-02-01') as never, day('4 GB', 'b', '2031-02-02') as never] }
    ],
    [
      'what was past its shelf life gives way',
      day('8 GB', 'a', '2029-02-01'),
      day('4 GB', 'b', '2031-02-02'),
      day('4 GB', 'b', '2031-02-02')
    ],
    [
      'not knowing covers nothing that is known',
      day('8 GB', 'a', '2031-02-01'),
      { unknown: 'no access' },
      day('8 GB', 'a', '2031-02-01')
    ]
  ])('%s', (_, before, next, after) => {
    expect(addReading(kind, before, next)).toEqual(after);
    if (before) expect(mergeFacts(before, next)).toEqual(mergeFacts(next, before));
  });

  test('a dispute is unknown until somebody rules; an assumption ends on its day', () => {
    const survey = systemOf('survey-01');
    expect(seenOf(survey, 'security-part').kind).toBe('disputed');
    const rule = {
      id: 'x',
      kind: 'rule' as const,
      scope: { system: 'survey-01', fact: 'security-part' },
      holds: 'own test',
      day: today,
      until: '2031-04-01'
    };
    expect(seenOf(survey, 'security-part', new FactDecisions([rule], today))).toMatchObject({
      kind: 'known',
      value: 'on'
    });
    expect(seenOf(survey, 'security-part', new FactDecisions([rule], '2031-04-02')).kind).toBe('disputed');
  });

  test('links: peers both ways and through each other, the lowest decides, absent exempts, untold is unknown', () => {
    const around = { links: new LinkIndex(demo.estate.systems), decided: new FactDecisions([], today) };
    const truth = (id: string, text: string): string => {
      const system = systemOf(id);
      const product = catalogue.products.find((p) => 'is' in system.product && p.id === system.product.is);
      const parsed = parseCondition(text);
      if (!product || !('condition' in parsed)) throw new Error(text);
      const at = (r: System['release']): string => ('is' in r ? r.is : '');
      const standing = {
        release: at(system.release),
        patch: at(system.patch),
        edition: at(system.edition),
        architecture: at(system.architecture)
      };
      return evaluateCondition(
        parsed.condition,
        evidenceOf(catalogue, product, system, standing, around),
        kinds
      ).truth;
    };
    expect(truth('host-a-01', 'lowest linked cluster (release in (from h4/c5))')).toBe('no');
    expect(truth('host-a-04', 'every linked cluster (firmware.level at least 4)')).toBe('yes');
    expect(truth('door-east', 'every linked site (setting.long-key is on)')).toBe('no');
    expect(truth('door-old', 'every linked site (setting.long-key is on)')).toBe('yes');
    expect(truth('mirror-west', 'every linked peer (setting.same-clock is on)')).toBe('yes');
    expect(truth('shelf-depot', 'every linked node (setting.hand-over is on)')).toBe('no');
    expect(truth('shelf-north', 'every linked node (setting.hand-over is on)')).toBe('unknown');
    expect(truth('rack-01', 'some linked host (always)')).toBe('unknown');
  });

  test('where to read a fact fits the version, and says when that is not sure', () => {
    const desk = catalogue.products.find((p) => p.id === 'garnock-desk');
    expect(findPlaces(desk, systemOf('west-01'), 'patch').places.map((p) => p.id)).toEqual([
      'desk-level-old'
    ]);
    expect(findPlaces(desk, systemOf('tick-23'), 'patch')).toMatchObject({
      sure: true,
      places: [{ id: 'desk-level-new' }]
    });
    expect(findPlaces(desk, systemOf('hall-01'), 'patch')).toMatchObject({ sure: false });
    const draft = catalogue.products.find((p) => p.id === 'marram-draft');
    expect(findPlaces(draft, systemOf('cad-05'), 'security-part', 'set').places).toHaveLength(1);
    expect(
      findPlaces(
        draft,
        { ...systemOf('cad-05'), facts: { model: { value: 'Brae 6' } } },
        'security-part',
        'set'
      ).places
    ).toEqual([]);
  });

  test('what is unknown, disputed or stale is gathered by product and fact', () => {
    const unknowns = findUnknowns(
      catalogue,
      demo.estate.systems,
      new FactDecisions(demo.estate.decisions, today),
      demo.today
    );
    const of = (about: string, why: string) => unknowns.find((u) => u.about === about && u.why === why);
    expect(of('marram-draft/security-part', 'disputed')?.systems.length).toBe(8);
    expect(of('garnock-desk/patch', 'unknown')?.because).toEqual([{ why: 'not asked', systems: 5 }]);
    expect(of('pellow-terminal/memory', 'stale')?.systems.length).toBe(5);
    expect(of('/product', 'unknown')?.systems.length).toBe(10);
  });

  test('releases behind count what is published, along the installed strand', () => {
    const behind = (id: string) => {
      const system = systemOf(id);
      const product = catalogue.products.find((p) => 'is' in system.product && p.id === system.product.is);
      return product && findBehind(product, system, demo.today, true);
    };
    expect(behind('west-01')).toEqual({ newest: '6', releases: 3 });
    expect(behind('kiosk-01')).toEqual({ newest: '9', releases: 0 });
    expect(behind('hall-01')).toEqual({ newest: '6' });
  });
});

describe('results of checking tools', () => {
  const product = catalogue.products.find((p) => p.id === 'marram-draft');
  const { items, left } = parseCheckItems(
    'Memory = 4 GB: ok\nfailure: Route stamp\nfailed - security part = off - switched off\nwarning: plot queue; goes away\n\nPage 1 of 2\nnot checked: Contour kit',
    kinds,
    product
  );
  test('pasted lines become items, matched with facts and companions', () => {
    expect(
      items.map((i) =>
        `${i.result} ${i.what} ${i.fact ?? ''} ${String(i.value ?? '')} ${i.companion ?? ''} ${i.reason ?? ''}`
          .replace(/\s+/g, ' ')
          .trim()
      )
    ).toEqual([
      'pass Memory memory 4 GB',
      'failure Route stamp Route stamp',
      'failure security part security-part off switched off',
      'warning plot queue goes away',
      'unknown Contour kit Contour kit'
    ]);
    expect(left).toBe(1);
  });
  test('a second page is missed, a failure without a reason has likely causes, cheapest first', () => {
    const check = { id: 'c', tool: 'probe', day: today, announced: 7, items };
    expect(summariseCheck(check)).toMatchObject({ missing: 2, clean: false, counts: { failure: 2 } });
    expect(summariseCheck({ ...check, announced: 1, items: items.slice(0, 1) }).clean).toBe(true);
    expect(likelyCauses(items[1] as never, product)[0]).toContain('switched off');
    expect(
      likelyCauses({ what: 'security part', result: 'failure', fact: 'security-part' }, product).slice(1)
    ).toEqual(['Switch the security part on in the firmware.', 'Fit a part of generation 2.']);
    const kept = keepCheck(systemOf('cad-05'), check, kinds);
    expect(kept.facts?.['memory']).toMatchObject({
      statements: [{ value: '16 GB' }, { value: '4 GB', source: 'probe' }]
    });
    expect(kept.companions?.filter((c) => c.name === 'Route stamp')).toHaveLength(1);
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
    const taken = previewImport(found, { catalogue, existing: [], source: 'paste', today }).taken;
    expect(taken[0]?.release).toEqual({ is: '9' });
  });

  test('support that ends by the machine’s own word is its deadline where the catalogue knows nothing', () => {
    const found = records(parseOsRelease('NAME=Nobody\nVERSION_ID=1\nSUPPORT_END=2031-12-31', 'one'));
    const { taken } = previewImport(found, { catalogue, existing: [], source: 'x', today });
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
          ['name', 'os name', 'os version', 'applications'],
          ['a', 'Brindle Server', '9', 'x; y'],
          ['b', '', '', '']
        ]
      }
    });
    expect(parseJsonTable('[1, 2]')).toMatchObject({ ok: false });
  });

  test('the collector prints a record of the machine it runs on, and so does the server', () => {
    const script = readFileSync('static/collector.sh', 'utf8');
    expect(script.startsWith('#!/bin/sh\n')).toBe(true);
    for (const text of [
      execFileSync('sh', ['static/collector.sh'], { encoding: 'utf8' }),
      ownRecord('2031-03-10')
    ]) {
      const [record] = records(parseRecords(text, kinds));
      expect(record?.name).not.toBe('');
      expect(record?.remarks).toEqual([]);
      expect(record?.facts?.['memory']).toHaveProperty('value');
      const [row] = previewImport([record as MachineRecord], {
        catalogue,
        existing: [],
        source: 'x',
        today
      }).rows;
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
    expect(isOwnMachine({ ...own, address: '::1', host: 'localhost' })).toBe(true);
    for (const other of [
      { address: '10.0.0.7' },
      { host: 'tram.example' },
      { headers: headers({ 'x-forwarded-for': '10.0.0.7' }) },
      { headers: headers({ forwarded: 'for=10.0.0.7' }) },
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

describe('sheets', () => {
  const source = (estate: Estate = demo.estate): SheetSource => ({
    catalogue,
    estate,
    systems: estate.systems,
    today,
    who: 'tester'
  });
  const SHEETS: [string, (s: SheetSource) => Sheet][] = [
    ['systems', systemsSheet],
    ['facts', factsSheet],
    ['companions', companionsSheet],
    ['links', linksSheet],
    ['rights', rightsSheet]
  ];
  test.each(SHEETS)(
    '%s: putting what is there changes nothing, and no text is lost or half taken',
    (_, make) => {
      const estates = [
        demo.estate,
        ...Array.from({ length: 10 }, (_, i) => makeEstate(new Random(i + 77), catalogue, 12))
      ];
      const junk = ['', '?', 'x', '8 GB', '=1', '2031-02-30', 'none', 'peer of', '4 or 5', 'yes', '-1'];
      for (const [i, estate] of estates.entries()) {
        const sheet = make(source(estate));
        const edits = sheet.rows.flatMap((row) =>
          sheet.columns
            .filter((c) => !c.readOnly)
            .map((c) => ({ row, column: c.id, text: sheet.read(row, c.id) }))
        );
        const settled = edits.filter((e) => !e.text.includes(' | '));
        expect(sheet.apply(settled)).toMatchObject({ systems: [], refused: [], cells: 0 });
        const r = new Random(i);
        const wild = edits.filter(() => r.chance(0.2)).map((e) => ({ ...e, text: r.pick(junk) }));
        const outcome = sheet.apply(wild);
        const known = new Map(outcome.systems.map((s) => [s.id, s]));
        const next = {
          ...estate,
          systems: estate.systems.map((s) => known.get(s.id) ?? s),
          rightsHeld: [...(outcome.rightsHeld ?? estate.rightsHeld)]
        };
        expect(estateSchema.safeParse(next).error).toBeUndefined();
        expect(outcome.refused.every((f) => f.why.length > 5)).toBe(true);
      }
    }
  );

  test('five hundred pasted rows become systems, in one go', () => {
    const sheet = systemsSheet(source());
    const text = Array.from({ length: 500 }, (_, i) => `new-${i}\tGarnock Desk\t5\tr1\tPlain`).join('\n');
    const into = {
      columns: sheet.columns,
      count: sheet.rows.length,
      allowNew: true,
      keyOf: (r: number) => sheet.rows[r] ?? `+${r - sheet.rows.length + 1}`
    };
    const at = sheet.rows.length;
    const outcome = sheet.apply(editsOfPaste(text, { top: at, bottom: at, left: 0, right: 0 }, into));
    expect(outcome).toMatchObject({ added: 500, refused: [] });
    expect(new Set(outcome.systems.map((s) => s.id)).size).toBe(500);
    expect(outcome.systems[7]).toMatchObject({
      name: 'new-7',
      release: { is: '5' },
      patch: { is: 'r1' },
      edition: { is: 'plain' }
    });
    expect(editsOfPaste('x', { top: 0, bottom: 2, left: 6, right: 6 }, into).map((e) => e.column)).toEqual([
      'team',
      'team',
      'team'
    ]);
    expect(
      editsOfPaste('a\tb\nc', { top: at - 1, bottom: at, left: 12, right: 12 }, { ...into, allowNew: false })
    ).toHaveLength(1);
  });

  test('a block copied and pasted where it was is the same; filling down repeats the top row', () => {
    const sheet = systemsSheet(source());
    const textOf = (r: number, c: number): string =>
      sheet.read(sheet.rows[r] ?? '', sheet.columns[c]?.id ?? '');
    const keyOf = (r: number): string => sheet.rows[r] ?? '';
    const box = { top: 3, bottom: 40, left: 0, right: 12 };
    const edits = editsOfPaste(textOfBox(box, textOf), box, {
      columns: sheet.columns,
      count: sheet.rows.length,
      allowNew: true,
      keyOf
    });
    expect(sheet.apply(edits)).toMatchObject({ systems: [], refused: [] });
    const down = sheet.apply(
      fillDown({ top: 0, bottom: 4, left: 6, right: 6 }, sheet.columns, keyOf, textOf)
    );
    expect(down.systems.every((s) => s.team === systemOf(sheet.rows[0] ?? '').team)).toBe(true);
  });

  test('another version typed in keeps what stood there in the history', () => {
    const outcome = systemsSheet(source()).apply([
      { row: 'draw-01', column: 'release', text: '5' },
      { row: 'draw-01', column: 'patch', text: 'r1' },
      { row: 'draw-02', column: 'release', text: '77' }
    ]);
    expect(outcome.systems[0]?.history?.at(-1)).toMatchObject({
      kind: 'changed',
      was: 'Garnock Desk 4 r1 Studio',
      who: 'tester'
    });
    expect(outcome.refused).toEqual([
      { row: 'draw-02', column: 'release', text: '77', why: 'Garnock Desk has no release 77' }
    ]);
  });
});

test.each([
  ['draw ticket', 0],
  ['draw', 24],
  ['team = ticket', 30],
  ['team = "ticket office" not name = hall', 28],
  ['memory < 8 GB', 90],
  ['memory = 4096 MB', 59],
  ['patch = ?', 20],
  ['slack < 0', 11],
  ['deadline < 2031-04', 11],
  ['closed or stage = bare', 4],
  ['board or pay', 5],
  ['memory < nonsense', 0],
  ['', 258]
])('search: %s finds %i', (text, count) => {
  const query = parseQuery(text);
  const result = plan(demo);
  const products = new Map(catalogue.products.map((p) => [p.id, p]));
  const found = demo.estate.systems.filter((s) =>
    matchesQuery(
      query,
      searchableSystem(
        s,
        products.get('is' in s.product ? s.product.is : ''),
        result.cases.find((c) => c.systems.includes(s.id))
      ),
      new FactKinds(catalogue.facts)
    )
  );
  expect(found.length).toBe(count);
});
