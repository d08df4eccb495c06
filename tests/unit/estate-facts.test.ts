import { describe, expect, test } from 'vitest';
import { evaluateCondition } from '../../src/core/condition/evaluate-condition';
import { parseCondition } from '../../src/core/condition/parse-condition';
import { findUnknowns } from '../../src/core/estate/asked-facts';
import { findBehind } from '../../src/core/bind/behind';
import { keepCheck, likelyCauses, parseCheckItems, summariseCheck } from '../../src/core/estate/checks';
import { evidenceOf } from '../../src/core/bind/evidence';
import { addReading, FactDecisions, kindsOf, mergeFacts, seenOf } from '../../src/core/estate/facts';
import { LinkIndex } from '../../src/core/estate/links';
import { chooseValue, mergeEstates } from '../../src/core/estate/merge-estates';
import { findPlaces } from '../../src/core/estate/places';
import { estateSchema, type Estate, type Fact, type System } from '../../src/core/estate/schema';
import { demoCatalogue, demoInput } from '../support/demo';
import { makeEstate } from '../support/estates';
import { countOf, oftenerThan } from '../support/laws';
import { Random } from '../support/random';

const catalogue = demoCatalogue();
const kinds = kindsOf(catalogue);
const demo = demoInput();
const systemOf = (id: string): System => demo.estate.systems.find((s) => s.id === id) as System;
const today = '2031-03-10';

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
    for (let seed = 0; seed < countOf(1500); seed++) {
      const [a, b] = pair(seed);
      const ab = mergeEstates(a, b);
      expect(mergeEstates(b, a)).toEqual(ab);
      const itself = mergeEstates(a, a);
      expect(itself.conflicts).toEqual([]);
      expect(mergeEstates(itself.estate, a).estate).toEqual(itself.estate);
      expect(new Set(itself.estate.systems.map((s) => s.id))).toEqual(new Set(a.systems.map((s) => s.id)));
      for (const one of [a, b]) expect(mergeEstates(ab.estate, one).estate).toEqual(ab.estate);
      expect(estateSchema.safeParse(ab.estate).success).toBe(true);
      for (const list of [
        ab.estate.decisions,
        ab.estate.questions ?? [],
        ...ab.estate.systems.map((s) => s.checks ?? [])
      ])
        expect(new Set(list.map((e) => e.id)).size).toBe(list.length);
      // What either of them decided is still decided: nothing is half of one and half of the other.
      const about = (e: Estate): string[] => e.decisions.map((d) => JSON.stringify([d.kind, d.scope]));
      expect(new Set(about(ab.estate))).toEqual(new Set([...about(a), ...about(b)]));
      for (const s of ab.estate.systems)
        for (const list of [s.members ?? [], s.companions ?? []])
          expect(new Set(list.map((e) => e.name)).size).toBe(list.length);
      conflicts += ab.conflicts.length;
      disputed += ab.estate.systems.filter((s) =>
        Object.values(s.facts ?? {}).some((f) => 'statements' in f)
      ).length;
    }
    expect(conflicts).toBeGreaterThan(oftenerThan(500));
    expect(disputed).toBeGreaterThan(oftenerThan(100));
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
        evidenceOf({ catalogue, product }, system, standing, around),
        kinds
      ).truth;
    };
    expect(truth('host-a-01', 'lowest linked cluster (release in (from h4/c5))')).toBe('no');
    expect(truth('host-a-04', 'every linked cluster (firmware.level at least 4)')).toBe('yes');
    expect(truth('door-east', 'every linked site (setting.long-key is on)')).toBe('no');
    expect(truth('door-old', 'every linked site (setting.long-key is on)')).toBe('yes');
    expect(truth('mirror-west', 'every linked peer (setting.same-clock is on)')).toBe('yes');
    expect(truth('shelf-depot', 'every linked node (setting.hand-over is on)')).toBe('no');
    expect(truth('shelf-north', 'every linked node (setting.hand-over is on)')).toBe('yes');
    expect(truth('shelf-lab', 'every linked node (setting.nobody-read is on)')).toBe('unknown');
    expect(truth('rack-01', 'some linked host (always)')).toBe('unknown');
    const gone = { ...systemOf('mirror-east'), links: [{ kind: 'hosted on' as const, to: 'nobody' }] };
    expect(new LinkIndex([gone]).find(gone, 'host')).toEqual({ systems: [], missing: ['nobody'] });
    const lost = { ...around, links: new LinkIndex([gone]) };
    const mirror = catalogue.products.find((p) => p.id === 'twinbank-mirror');
    const standing = { release: '2.9', patch: 'base', edition: 'only', architecture: 'only' };
    if (mirror)
      expect(evidenceOf({ catalogue, product: mirror }, gone, standing, lost).linked('host')).toBe('unknown');
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
    expect(findPlaces(draft, systemOf('cad-05'), 'security-part').places).toEqual([]);
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
    expect(behind('shelf-lab')).toBeUndefined();
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
