import { describe, expect, test } from 'vitest';
import { FactKinds } from '../../src/core/condition/fact-kind';
import { matchesQuery, parseQuery } from '../../src/core/estate/find-systems';
import { companionsSheet, linksSheet, rightsSheet } from '../../src/core/estate/sheets/entry-sheets';
import { factsSheet } from '../../src/core/estate/sheets/facts-sheet';
import type { Sheet, SheetSource } from '../../src/core/estate/sheets/sheet';
import { systemsSheet } from '../../src/core/estate/sheets/systems-sheet';
import { estateSchema, type Estate, type System } from '../../src/core/estate/schema';
import type { Plan } from '../../src/core/plan/plan-types';
import { editsOfPaste, fillDown, textOfBox } from '../../src/lib/estate/grid';
import { searchableSystem } from '../../src/lib/estate/searchable';
import { demoCatalogue, demoInput, demoPlan } from '../support/demo';
import { describeInstalled } from '../../src/core/wording/system';
import { makeEstate } from '../support/estates';
import { Random } from '../support/random';

const catalogue = demoCatalogue();
const demo = demoInput();
const systemOf = (id: string): System => demo.estate.systems.find((s) => s.id === id) as System;
const today = '2031-03-10';

describe('sheets', () => {
  const source = (estate: Estate = demo.estate): SheetSource => ({
    catalogue,
    estate,
    systems: estate.systems,
    today,
    who: 'tester',
    describe: (s) =>
      describeInstalled(
        s,
        catalogue.products.find((p) => 'is' in s.product && p.id === s.product.is)
      )
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

  test('another release typed in has other levels; an entry that is not whole is refused whole', () => {
    const set = (row: string, text: string) =>
      systemsSheet(source()).apply([{ row, column: 'release', text }]).systems[0];
    expect(set('draw-01', '5')).toMatchObject({ release: { is: '5' }, patch: { unknown: 'not asked' } });
    expect(set('rack-01', '9')).toMatchObject({ release: { is: '9' }, patch: { is: 'base' } });
    const companions = companionsSheet(source());
    const half = [
      { row: '+1', column: 'system', text: 'draw-01' },
      { row: '+1', column: 'version', text: '3' }
    ];
    expect(companions.apply(half)).toMatchObject({
      systems: [],
      refused: [{ why: 'a companion needs a name' }, {}]
    });
    const whole = companions.apply([...half, { row: '+1', column: 'name', text: 'Plotter' }]);
    expect(whole.systems[0]?.companions).toEqual([{ name: 'Plotter', version: '3' }]);
    const row = companions.rows.find((r) => r.startsWith('yard-01')) ?? '';
    expect(companions.apply([{ row, column: 'name', text: '' }]).systems[0]).not.toHaveProperty('companions');
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

let planned: Plan | undefined;
const planOfDemo = (): Plan => (planned ??= demoPlan());

test.each([
  ['draw ticket', 0],
  ['draw', 24],
  ['team = ticket', 30],
  ['team = "ticket office" not name = hall', 28],
  ['memory < 8 GB', 86],
  ['memory = 4096 MB', 55],
  ['patch = ?', 20],
  ['slack < 0', 11],
  ['deadline < 2031-04', 11],
  ['closed or stage = bare', 52],
  ['board or pay', 5],
  ['memory < nonsense', 0],
  ['', 262]
])('search: %s finds %i', (text, count) => {
  const query = parseQuery(text);
  const products = new Map(catalogue.products.map((p) => [p.id, p]));
  const found = demo.estate.systems.filter((s) =>
    matchesQuery(
      query,
      searchableSystem(
        s,
        products.get('is' in s.product ? s.product.is : ''),
        planOfDemo().cases.find((c) => c.systems.includes(s.id))
      ),
      new FactKinds(catalogue.facts)
    )
  );
  expect(found.length).toBe(count);
});
