import { describe, expect, test } from 'vitest';
import { type Edit, mergeRecord } from '../../src/core/estate/merge-record';
import { countOf, oftenerThan } from '../support/laws';
import { Random } from '../support/random';

const base = {
  id: 'a',
  name: 'A',
  product: { is: 'box' },
  facts: { memory: { value: '4 GB' }, model: { value: 'M1' } },
  links: [{ kind: 'hosted on', to: 'h1' }],
  history: [{ day: '2031-01-01', kind: 'added' }]
};
const edit = (after: unknown, before: unknown = base, key = 'system/a'): Edit => ({ key, before, after });

describe('what one edit changes of what another has left', () => {
  test.each([
    ['other fields', { ...base, note: 'mine' }, { ...base, name: 'B' }, { ...base, note: 'mine', name: 'B' }],
    [
      'other facts',
      { ...base, facts: { ...base.facts, memory: { value: '8 GB' } } },
      { ...base, facts: { model: base.facts.model } },
      undefined
    ],
    [
      'another fact',
      { ...base, facts: { ...base.facts, disk: { value: '1 TB' } } },
      { ...base, facts: { ...base.facts, memory: { value: '8 GB' } } },
      { ...base, facts: { ...base.facts, memory: { value: '8 GB' }, disk: { value: '1 TB' } } }
    ],
    [
      'entries of a list',
      { ...base, links: [...base.links, { kind: 'peer of', to: 'b' }] },
      { ...base, links: [{ kind: 'managed by', to: 'm' }] },
      {
        ...base,
        links: [
          { kind: 'managed by', to: 'm' },
          { kind: 'peer of', to: 'b' }
        ]
      }
    ],
    [
      'what happened to it, twice',
      { ...base, history: [...base.history, { day: '2031-02-01', kind: 'changed' }] },
      { ...base, history: [...base.history, { day: '2031-02-02', kind: 'retired' }] },
      {
        ...base,
        history: [
          ...base.history,
          { day: '2031-02-02', kind: 'retired' },
          { day: '2031-02-01', kind: 'changed' }
        ]
      }
    ]
  ])('%s', (_, mine, theirs, both) => {
    const { value, collisions } = mergeRecord(edit(mine), theirs);
    if (both) expect({ value, collisions }).toEqual({ value: both, collisions: [] });
    // A fact one of them took away and the other changed: what was there first stays, and both are told of.
    else expect(collisions).toMatchObject([{ path: ['facts', 'memory'], mine: { value: '8 GB' } }]);
  });

  test('one reading is one: product and release never half of one and half of the other', () => {
    const theirs = { ...base, product: { is: 'chest' } };
    const { value, collisions } = mergeRecord(edit({ ...base, product: { unknown: 'not asked' } }), theirs);
    expect(value).toEqual(theirs);
    expect(collisions).toEqual([
      { key: 'system/a', path: ['product'], mine: { unknown: 'not asked' }, theirs: { is: 'chest' } }
    ]);
  });

  test('a decision is one; questions and rights have fields of their own', () => {
    const decision = { id: 'd', kind: 'accept', reason: 'a' };
    const [mine, theirs] = [
      { ...decision, reason: 'b' },
      { ...decision, who: 'c' }
    ];
    expect(mergeRecord(edit(mine, decision, 'decision/d'), theirs).value).toBe(theirs);
    const list = [{ id: 'q', text: 'which?', asked: '2031-01-01' }];
    const merged = mergeRecord(edit([{ ...list[0], owner: 'b' }], list, 'questions'), [
      { ...list[0], due: '2031-02-01' }
    ]);
    expect(merged.value).toEqual([{ ...list[0], owner: 'b', due: '2031-02-01' }]);
  });

  test('what was removed is removed, unless somebody has changed it meanwhile', () => {
    expect(mergeRecord(edit(undefined), { ...base }).value).toBeUndefined();
    const changed = { ...base, note: 'kept' };
    const { value, collisions } = mergeRecord(edit(undefined), changed);
    expect(value).toBe(changed);
    expect(collisions).toHaveLength(1);
  });
});

const FIELDS = ['name', 'team', 'note', 'facts/memory', 'facts/model', 'facts/disk'] as const;
type Shown = Record<string, unknown>;

const read = (record: Shown, field: string): unknown => {
  const [first = '', second] = field.split('/');
  return second === undefined ? record[first] : (record[first] as Shown | undefined)?.[second];
};
const write = (record: Shown, field: string, value: unknown): Shown => {
  const [first = '', second] = field.split('/');
  if (second === undefined) return { ...record, [first]: value };
  return { ...record, [first]: { ...(record[first] as Shown | undefined), [second]: value } };
};

test('two tabs in any order: what was stored stands until somebody who saw it changes it', () => {
  let collided = 0;
  for (let seed = 1; seed <= countOf(2000); seed++) {
    const random = new Random(seed);
    let stored: Shown = { ...base };
    const tabs = [0, 1].map(() => ({ shown: stored, pending: [] as { edit: Edit; field: string }[] }));
    const acknowledged = new Map<string, unknown>();
    for (let step = 0; step < 60; step++) {
      const tab = random.pick(tabs);
      const act = random.next();
      if (act < 0.4) {
        const field = random.pick(FIELDS);
        const after = write(tab.shown, field, { value: `${seed}.${step}` });
        tab.pending.push({ edit: edit(after, tab.shown), field });
        tab.shown = after;
      } else if (act < 0.8) {
        const next = tab.pending.shift();
        if (!next) continue;
        const { value, collisions } = mergeRecord(next.edit, stored);
        const path = next.field.split('/');
        if (collisions.length === 0) {
          // Whoever changes a field has seen what stood there.
          expect(read(next.edit.before as Shown, next.field)).toEqual(read(stored, next.field));
          acknowledged.set(next.field, read(next.edit.after as Shown, next.field));
        } else {
          expect(collisions.map((c) => c.path)).toEqual([path]);
          collided++;
        }
        stored = value as Shown;
      } else tab.shown = tab.pending.reduce((all, p) => mergeRecord(p.edit, all).value as Shown, stored);
      for (const [field, value] of acknowledged) expect(read(stored, field)).toEqual(value);
    }
  }
  expect(collided).toBeGreaterThan(oftenerThan(100));
});
