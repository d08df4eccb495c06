import { describe, expect, test } from 'vitest';
import type { Catalogue } from './schema';
import { parseInstalled } from './parse-installed';

const catalogue: Catalogue = {
  format: 'orange-stair-catalogue',
  version: 3,
  name: 'test',
  products: [
    {
      id: 'lantern',
      name: 'Lantern Box',
      publisher: 'Nobody',
      editions: [
        { id: 'small', name: 'Small' },
        { id: 'large', name: 'Large' }
      ],
      releases: [
        {
          id: 'a',
          name: '9',
          aliases: ['Spring'],
          published: '2029',
          patches: [
            { id: 'm1', published: '2029', builds: ['9.0.44'] },
            { id: 'm2', published: '2030' }
          ]
        },
        { id: 'b', name: '10', published: '2030', patches: [{ id: 'm1', published: '2030' }] },
        { id: 'c', name: '2', aliases: ['Spring'], published: '2031' }
      ]
    },
    { id: 'lamp', name: 'Lantern', publisher: 'Nobody', releases: [{ id: '10', published: '2030' }] }
  ]
};

describe('text to release', () => {
  test.each([
    ['Lantern Box 9 m1 Small', ['a'], ['m1'], ['small'], true],
    ['lantern  box   LARGE 10', ['b'], [], ['large'], true],
    ['Lantern Box 9.0.44', ['a'], ['m1'], [], true],
    ['Lantern Box Spring', ['a', 'c'], [], [], false],
    ['Lantern Box 9 something', ['a'], [], [], false],
    ['Lantern Box 9 10', ['a', 'b'], [], [], false],
    ['Lantern Box 90', [], [], [], false],
    ['Lantern Box 10 9.0.44', ['a', 'b'], ['m1'], [], false],
    ['Lantern Box 9 m2 9.0.44', ['a'], ['m2', 'm1'], [], false],
    ['Lantern Box 1', ['b'], [], [], false]
  ])('%s', (text, releases, patches, editions, decides) => {
    const parse = parseInstalled(catalogue, text);
    expect(parse.product).toBe('lantern');
    expect([...parse.releases].sort()).toEqual(releases);
    expect(parse.patches.map((p) => p.patch)).toEqual(patches);
    expect(parse.editions).toEqual(editions);
    expect(parse.decides).toBe(decides);
  });

  test('names of two products in one text: the one that accounts for more of it', () => {
    expect(parseInstalled(catalogue, 'Lantern 10').product).toBe('lamp');
    expect(parseInstalled(catalogue, 'Lantern Box 10').product).toBe('lantern');
  });

  test('what does not agree is named, and nothing of it wins', () => {
    expect(parseInstalled(catalogue, 'Lantern Box 10 9.0.44').contradiction).toEqual(['10', '9.0.44']);
    expect(parseInstalled(catalogue, 'Lantern Box 9 9.0.44').contradiction).toBeUndefined();
  });

  test('one product named inside the name of another, and another beside it: nobody can say whose version it is', () => {
    expect(parseInstalled(catalogue, 'Lantern Box with Lantern 10')).toMatchObject({
      products: ['lantern', 'lamp'],
      releases: [],
      decides: false
    });
  });

  test('a text of no known product is nothing', () => {
    expect(parseInstalled(catalogue, 'Signal recorder 4')).toMatchObject({ products: [], decides: false });
  });
});
