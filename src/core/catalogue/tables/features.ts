import { foldText } from '../../version';
import type { Product, Release } from '../schema';
import { freeId } from '../sketch/sketch';
import { cleanCell } from './cells';
import { placesOfProduct } from './places';
import { cellOf, LEFT_OUT, Once, rolesByHeading, type TableChange, type TableReader } from './reader';

const ROLES = {
  release: 'the release',
  feature: 'the feature',
  brings: 'new in it',
  drops: 'gone from it on',
  instead: 'what takes its place',
  since: 'new in',
  until: 'gone from'
} as const;

interface Said {
  readonly row: number;
  readonly feature: string;
  readonly release: string;
  readonly isLost: boolean;
  readonly instead: string;
}

const pieces = (cell: string): string[] =>
  cell
    .split(/[;•\n]/)
    .map(cleanCell)
    .filter((p) => p !== '' && !/^([-–—]|none|nothing)$/i.test(p))
    .map((p) => p.slice(0, 200));

/** What each release brings and drops: a row a release, or a row a feature. */
export const featuresReader: TableReader = {
  roles: [...Object.values(ROLES), LEFT_OUT],
  meanings: () => [],
  suggestRoles({ head }) {
    const roles = rolesByHeading(head, [
      [ROLES.instead, /instead|replac|takes its place|alternative/i],
      [ROLES.until, /(gone|removed|dropped|ends?|until|last) (from|in|with|on)\b|\bgone\b.*release/i],
      [ROLES.since, /(new|added|introduced|since|first) (in|with|from)\b|^since$/i],
      [ROLES.drops, /drop|remov|gone|lost|lose|deprecat|end of/i],
      [ROLES.brings, /\bnew\b|bring|add|gain|introduc/i],
      [ROLES.feature, /feature|function|ability|what/i],
      [ROLES.release, /release|version|line|branch/i]
    ]);
    const first = roles.indexOf(LEFT_OUT);
    const hasRow = roles.includes(ROLES.release) || roles.includes(ROLES.feature);
    return hasRow ? roles : roles.map((r, i) => (i === first ? ROLES.release : r));
  },
  words: () => [],
  suggestMeaning: () => LEFT_OUT,
  take(reading, ground) {
    const places = placesOfProduct(ground.product);
    const left: number[] = [];
    const unread: { of: string; cell: string }[] = [];
    const said = reading.table.rows.flatMap((row, i): Said[] => {
      const raw = (role: string): string => cellOf(reading, row, role);
      const cell = (role: string): string => cleanCell(raw(role));
      const instead = cell(ROLES.instead);
      const found: Said[] = [];
      const say = (feature: string, on: string, isLost: boolean): void => {
        const place = places.find(on);
        if (place === undefined) unread.push({ of: feature, cell: on });
        else found.push({ row: i, feature, release: places.releaseOf(place), isLost, instead });
      };
      if (cell(ROLES.feature) !== '') {
        const feature = cell(ROLES.feature).slice(0, 200);
        for (const [role, isLost] of [
          [ROLES.since, false],
          [ROLES.until, true]
        ] as const)
          if (pieces(raw(role)).length > 0) say(feature, cell(role), isLost);
      } else
        for (const [role, isLost] of [
          [ROLES.brings, false],
          [ROLES.drops, true]
        ] as const)
          for (const feature of pieces(raw(role))) say(feature, cell(ROLES.release), isLost);
      if (found.length === 0) left.push(i);
      return found;
    });
    const once = new Once();
    let product = ground.product;
    const first = said.filter((s) => once.isFirst(s.feature, s.release, String(s.isLost)));
    const changes = first.map((one): TableChange => {
      const put = putFeature(product, one, reading.source);
      product = put.product;
      return put.change;
    });
    return { ...ground, product, changes, left, unread };
  }
};

function putFeature(
  product: Product,
  { feature, release, isLost, instead }: Said,
  source: string
): { readonly product: Product; readonly change: TableChange } {
  const features = product.features ?? [];
  const known = features.find(
    (f) => foldText(f.name) === foldText(feature) || foldText(f.id) === foldText(feature)
  );
  const id = known?.id ?? freeId(feature, new Set(features.map((f) => f.id)));
  const own = product.releases.find((r) => r.id === release) as Release;
  const lost = own.loses?.find((l) => l.feature === id);
  const label = own.name ?? own.id;
  const role = isLost ? ROLES.until : ROLES.since;
  const told = (kind: TableChange['kind'], before?: string): TableChange => ({
    kind,
    what: feature,
    details: [
      { role, after: label },
      ...(isLost && instead !== ''
        ? [{ role: ROLES.instead, after: instead, ...(before === undefined ? {} : { before }) }]
        : [])
    ],
    release
  });
  const isNew = isLost ? lost === undefined : !(own.gains ?? []).includes(id);
  const isOther = isLost && lost !== undefined && instead !== '' && instead !== lost.instead;
  if (!isNew && !isOther) return { product, change: told('same') };
  const next: Release = isLost
    ? {
        ...own,
        loses: isOther
          ? (own.loses ?? []).map((l) => (l === lost ? { ...l, instead: instead.slice(0, 300) } : l))
          : [
              ...(own.loses ?? []),
              { feature: id, ...(instead === '' ? {} : { instead: instead.slice(0, 300) }), source }
            ]
      }
    : { ...own, gains: [...(own.gains ?? []), id] };
  return {
    product: {
      ...product,
      ...(known ? {} : { features: [...features, { id, name: feature, source }] }),
      releases: product.releases.map((r) => (r === own ? next : r))
    },
    change: told(isOther ? 'changed' : 'new', lost?.instead)
  };
}
