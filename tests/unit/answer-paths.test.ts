import { expect, test } from 'vitest';
import {
  answerPath,
  answerPathsByRule,
  type Catalogue,
  catalogueSchema,
  findOpenCells,
  type Product
} from '$core/catalogue';
import { plan } from '$core/plan';
import { FREE, productOf, systemOf, worldOf } from '../support/growth-worlds';
import { oftenerThan, seedsOf } from '../support/laws';
import { Random } from '../support/random';

const BY = { who: 'I. Fenn', day: '2031-03-10' };

/** A product some of whose hops are told, one by one and by ranges, and some of whose cells are said to be none. */
function partly(r: Random): Product {
  const count = r.int(3, 8);
  const whole = productOf('thing', { releases: count, ahead: count, rights: FREE }, r.int(1, 1000));
  const { hopTable: _table, ...rest } = whole;
  void _table;
  const hops = (whole.hops ?? []).filter(() => r.chance(0.15));
  const last = `v${count - 1}`;
  const wide = { ...hops[0], id: 'wide', from: 'from v1 to before v3', to: last } as NonNullable<
    typeof hops
  >[number];
  return {
    ...rest,
    hops: hops[0] && r.chance(0.5) ? [...hops, wide] : hops,
    ...(r.chance(0.4) ? { noHops: [{ id: 'none', from: 'v0', to: last }] } : {})
  };
}

const openIn = (product: Product): string[] =>
  product.releases.flatMap(({ id }) => findOpenCells(product, id).map((to) => `${id}>${to}`));
const first = (catalogue: Catalogue): Product => catalogue.products[0] as Product;

function keeps(before: Product, after: Product): void {
  expect(after.hops?.slice(0, before.hops?.length ?? 0) ?? []).toEqual(before.hops ?? []);
  expect(after.noHops?.slice(0, before.noHops?.length ?? 0) ?? []).toEqual(before.noHops ?? []);
}

test('an answer says just what was answered, with who and when, and the verdict follows', () => {
  let answered = 0;
  for (const seed of seedsOf(4000)) {
    const r = new Random(seed * 71);
    const product = partly(r);
    const other = { ...partly(r), id: 'other' };
    const catalogue = worldOf([product, other], []).catalogue;
    const ids = product.releases.map((x) => x.id);
    const from = r.pick(ids.slice(0, -1));
    const open = findOpenCells(product, from);
    const to = open.length > 0 ? r.pick(open) : undefined;
    if (to === undefined) continue;
    answered++;
    const between = ids.slice(ids.indexOf(from) + 1, ids.indexOf(to));
    const over = r.some(between, 0.5);
    const answer = r.pick(
      over.length > 0
        ? (['straight', 'not straight', { over }] as const)
        : (['straight', 'not straight'] as const)
    );
    const said = answerPath(catalogue, { product: product.id, from, to }, answer, BY);
    expect(catalogueSchema.safeParse(said).success, `seed ${seed}`).toBe(true);
    expect(said.products[1]).toEqual(other);
    keeps(product, first(said));
    const chain = [from, ...over, to];
    const settled =
      typeof answer === 'string'
        ? [`${from}>${to}`]
        : [`${from}>${to}`, ...over.map((id, i) => `${chain[i]}>${id}`), `${over.at(-1)}>${to}`];
    expect(openIn(first(said))).toEqual(openIn(product).filter((cell) => !settled.includes(cell)));
    const news = [
      ...(first(said).hops ?? []).slice(product.hops?.length ?? 0),
      ...(first(said).noHops ?? []).slice(product.noHops?.length ?? 0)
    ];
    expect(news.length).toBeGreaterThan(0);
    for (const { source } of news)
      expect(said.sources?.find((s) => s.id === source)).toMatchObject({
        enteredBy: BY.who,
        entered: BY.day
      });
    // Said twice is said once.
    expect(answerPath(said, { product: product.id, from, to }, answer, BY)).toEqual(said);
    const world = worldOf([first(said)], [systemOf('one', first(said), { release: { is: from } })]);
    const target = plan({ ...world, catalogue: said, every: 'target' }).cases[0]?.targets.find(
      (t) => t.target.release === to
    );
    if (answer === 'straight') expect(target?.sure, `seed ${seed}`).toBe('straight');
    else expect(target?.best, `seed ${seed}`).not.toBe('straight');
    if (typeof answer !== 'string') {
      const noneOfThem = settled.slice(1).every((cell) => openIn(product).includes(cell));
      if (noneOfThem) expect(target?.sure, `seed ${seed}`).toBe('by hops');
    }
  }
  expect(answered).toBeGreaterThan(oftenerThan(100));
});

test('a rule says it of every release at once, as far as it reaches and no further', () => {
  for (const seed of seedsOf(2000)) {
    const r = new Random(seed * 73);
    const product = partly(r);
    const ids = product.releases.map((x) => x.id);
    const reach = r.pick([1, 2, 3, 10_000]);
    const isAll = r.chance(0.3);
    const after = first(
      answerPathsByRule(worldOf([product], []).catalogue, product.id, { reach, isAll }, BY)
    );
    keeps(product, after);
    const isFar = (cell: string): boolean => {
      const [from = '', to = ''] = cell.split('>');
      return ids.indexOf(to) - ids.indexOf(from) > reach;
    };
    expect(openIn(after), `seed ${seed}`).toEqual(isAll ? [] : openIn(product).filter(isFar));
  }
});
