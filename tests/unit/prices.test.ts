import { expect, test } from 'vitest';
import type { Product } from '$core/catalogue';
import { parseCatalogue, parseCsv, type PriceLine, readPrices, withPrices } from '$core/exchange';
import { readMoney } from '$core/exchange/prices-in';
import { demoCatalogue } from '../support/demo';
import { countOf, oftenerThan } from '../support/laws';
import { Random } from '../support/random';

const productOf = (id: string): Product => demoCatalogue().products.find((p) => p.id === id) as Product;

function read(text: string, product: Product): readonly PriceLine[] {
  const table = parseCsv(text);
  if (!table.ok) throw new Error('table');
  return readPrices(table.value.rows, product)?.lines ?? [];
}

const say = (lines: readonly PriceLine[]): string[] =>
  lines.map(
    (l) =>
      `${l.text}${l.isNew ? ' (new)' : ''}: ${l.refused ?? (l.changes.map((c) => `${c.field} ${c.before}>${c.after}`).join(', ') || 'same')}`
  );

test('a price list in any order of columns changes what it says, and nothing else', () => {
  const desk = productOf('garnock-desk');
  const text = [
    'Prices from spring;;;',
    'Valid until;Price (EUR);Item;Edition',
    ';49,00;Upgrade to line 5;',
    '2031-08;1.595,00;upgrade to line 6;',
    ';;Plain to Studio;',
    '30 Jun 2031;12.00;Window licence;Studio'
  ].join('\n');
  const lines = read(text, desk);
  expect(say(lines)).toEqual([
    'Upgrade to line 5: same',
    'upgrade to line 6: price 69.00>1595.00, until >2031-08',
    'Plain to Studio: no price',
    'Window licence (new): price >12.00, until >2031-06-30'
  ]);
  const after = withPrices(desk, lines);
  expect(after.rights?.find((r) => r.id === 'desk-up-6')).toMatchObject({
    priceCents: 159_500,
    until: '2031-08'
  });
  expect(after.rights?.at(-1)).toMatchObject({
    name: 'Window licence',
    toEditions: ['studio'],
    kind: 'purchase'
  });
  expect(after.rights?.filter((r) => !['desk-up-6', after.rights?.at(-1)?.id].includes(r.id))).toEqual(
    desk.rights?.filter((r) => r.id !== 'desk-up-6')
  );
});

test('packs and offers: a reduced price ends on its day, packs go to the units', () => {
  const door = productOf('hollin-door');
  const lines = read(
    'right\tprice\tpacks of\toffer price\tuntil\nTerrace units\t99\t10\t80\t2031-05-31\n',
    door
  );
  const right = withPrices(door, lines).rights?.find((r) => r.id === 'door-units');
  expect(right).toMatchObject({ priceCents: 9900, offer: { priceCents: 8000, until: '2031-05-31' } });
  expect(right?.units).toMatchObject({ pack: 10, pool: 'terrace units', edition: 'terrace' });
});

test('taken twice it changes nothing, whatever the list; what comes of it is a catalogue', () => {
  const catalogue = demoCatalogue();
  let alone = 0;
  for (let seed = 1; seed <= countOf(600); seed++) {
    const r = new Random(seed);
    const product = r.pick(catalogue.products);
    const names = [
      ...(product.rights ?? []).map((x) => x.name ?? x.id),
      'New thing',
      'Ünïcode, „quoted“',
      ''
    ];
    const head = r.shuffle(['Right', 'Price', 'Packs', 'Until', 'Offer', 'Edition']);
    const cell = (column: string): string =>
      ({
        Right: r.pick(names),
        Price: r.pick(['12', '1,234.50', 'EUR 3.200,00', 'free', '']),
        Packs: r.pick(['', '4', 'pack of 25', '0']),
        Until: r.pick(['', '2031-05', '2031-05-31', '3 April 2032', 'soon']),
        Offer: r.pick(['', '9.99']),
        Edition: r.pick(['', ...(product.editions ?? []).map((e) => e.name ?? e.id), 'other'])
      })[column] ?? '';
    const rows = [head, ...Array.from({ length: 6 }, () => head.map(cell))];
    const text = rows.map((row) => row.map((c) => `"${c.replaceAll('"', '""')}"`).join(',')).join('\n');
    const once = withPrices(product, read(text, product));
    const products = catalogue.products.map((p) => (p.id === product.id ? once : p));
    const whole = parseCatalogue(JSON.stringify({ ...catalogue, products }));
    expect(whole.ok ? [] : whole.issues, `seed ${seed}`).toEqual([]);
    const names6 = rows.slice(1).map((row) => row[head.indexOf('Right')]);
    for (const again of read(text, once))
      if (names6.filter((n) => n === again.text).length === 1) {
        expect({ seed, text: again.text, changes: again.changes }).toEqual({
          seed,
          text: again.text,
          changes: []
        });
        if (!again.refused) alone++;
      }
  }
  expect(alone).toBeGreaterThan(oftenerThan(30));
});

test.each([
  ['EUR 1,490.00', 149_000],
  ['1.490,00 €', 149_000],
  ['49', 4900],
  ['49,5', 4950],
  ['12,345', 1_234_500],
  ['', undefined],
  ['on request', undefined],
  ['1.2.3', undefined]
])('%s is %s cents', (text, cents) => expect(readMoney(text)).toBe(cents));
