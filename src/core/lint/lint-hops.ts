import { compareReleases, matchesRelease, parseRange } from '../version';
import { isForbidden } from '../compile';
import type { Hop, Right } from '../catalogue';
import type { LintContext } from './finding';

/** Hops that lead nowhere or contradict each other, releases no hop leads to, cells nobody has filled, rights without a path. */
export function lintHops(context: LintContext): void {
  const { product, model, at } = context;
  const hops = product.hops ?? [];
  hops.forEach((hop, i) => lintHop(context, hop, [...at, 'hops', i]));
  hops.forEach((hop, i) => {
    const j = hops.findIndex((other, k) => k > i && disagree(context, hop, other));
    if (j >= 0) joinable(context, hop, i, j);
  });
  product.releases.forEach((release, i) => {
    const first = model.releases.find((r) => r.strand === model.releases[i]?.strand);
    if (hops.length > 0 && first?.index !== i && !hops.some((h) => h.to === release.id))
      context.add({
        code: 'unreachable',
        kind: 'hole',
        path: [...at, 'releases', i],
        detail: { release: release.id }
      });
  });
  lintCells(context);
  (product.editionChanges ?? []).forEach((change, i) => {
    const [from, to] = [change.from, change.to].map((e) => model.editions.indexOf(e)) as [number, number];
    const path = [...at, 'editionChanges', i];
    if (!model.richer[from]?.[to])
      context.add({
        code: 'change-not-richer',
        kind: 'fault',
        path,
        detail: { edition: change.from, other: change.to, entry: change.id },
        mend: [{ kind: 'remove', path }]
      });
  });
  lintForbidden(context);
  (product.rights ?? []).forEach((right, i) => lintRight(context, right, i));
}

const rangeOf = (text: string) => {
  const parsed = parseRange(text);
  return 'range' in parsed ? parsed.range : undefined;
};

function leavesFrom({ model }: LintContext, hop: { readonly from?: string | undefined }): number[] {
  const range = hop.from === undefined ? undefined : rangeOf(hop.from);
  return model.releases
    .filter((r) => !range || matchesRelease(model.sequence, range, r.release.id))
    .map((r) => r.index);
}

function lintHop(context: LintContext, hop: Hop, path: readonly (string | number)[]): void {
  const { model } = context;
  const detail = { hop: hop.id, from: hop.from, to: hop.to };
  const mend = [{ kind: 'remove' as const, path }];
  const from = leavesFrom(context, hop);
  if (from.length > 0 && from.every((f) => isBackwards(context, model.releases[f]?.release.id ?? '', hop)))
    return context.add({ code: 'hop-backwards', kind: 'fault', path: [...path, 'to'], detail, mend });
  const compiled = model.hopsFrom.flat().find((h) => h.hop.id === hop.id);
  const arrives = (f: number): boolean =>
    model.releases[f]?.editions.some((e) => (compiled?.editions[e] ?? []).length > 0) ?? false;
  if (!from.some(arrives))
    return context.add({ code: 'hop-nowhere', kind: 'fault', path: [...path, 'editions'], detail, mend });
  if (hop.levels === 'unknown')
    context.add({ code: 'no-figure', kind: 'hole', path: [...path, 'levels'], detail: { entry: hop.id } });
  const missing = hop.editions && !hop.editionsPartial ? editionHole(context, hop, from) : undefined;
  if (missing)
    context.add({
      code: 'edition-hole',
      kind: 'hole',
      path: [...path, 'editions'],
      detail: { ...detail, edition: missing },
      mend: [{ kind: 'set', path: [...path, 'editionsPartial'], value: true }]
    });
}

const isBackwards = ({ model }: LintContext, from: string, hop: Hop): boolean =>
  from === hop.to
    ? hop.kind === 'in place'
    : hop.kind === 'in place' && compareReleases(model.sequence, from, hop.to) === 1;

/** An edition some release left comes in, which the table has no row for. */
function editionHole({ model }: LintContext, hop: Hop, from: readonly number[]): string | undefined {
  const ids = new Set(
    from.flatMap((f) => model.releases[f]?.editions.map((e) => model.editions[e] ?? '') ?? [])
  );
  return [...ids].find((id) => !Object.hasOwn(hop.editions ?? {}, id));
}

/** Two hops of one kind to one place, for an edition and a release both lead from, that differ in what they demand or keep. */
function disagree(context: LintContext, a: Hop, b: Hop): boolean {
  if (a.kind !== b.kind || a.to !== b.to || a.arrives !== b.arrives || a.unsupported !== b.unsupported)
    return false;
  const shared = leavesFrom(context, a).filter((f) => leavesFrom(context, b).includes(f));
  const editions = (hop: Hop, f: number): string[] =>
    (context.model.releases[f]?.editions ?? [])
      .map((e) => context.model.editions[e] ?? '')
      .filter((e) => !hop.editions || Object.hasOwn(hop.editions, e));
  if (!shared.some((f) => editions(a, f).some((e) => editions(b, f).includes(e)))) return false;
  return a.levels !== b.levels || a.kept !== b.kept || a.everyPatch !== b.everyPatch || a.closes !== b.closes;
}

/** Mend: the later one becomes a second statement of the first. */
function joinable(context: LintContext, hop: Hop, i: number, j: number): void {
  const other = context.product.hops?.[j];
  if (!other) return;
  const { id, also, ...stated } = other;
  void also;
  const path = [...context.at, 'hops', i];
  context.add({
    code: 'hops-disagree',
    kind: 'fault',
    path: [...context.at, 'hops', j],
    detail: { hop: hop.id, other: id, to: hop.to },
    mend: [
      { kind: 'set', path: [...path, 'also'], value: [...(hop.also ?? []), stated] },
      { kind: 'remove', path: [...context.at, 'hops', j] }
    ]
  });
}

function lintCells(context: LintContext): void {
  const { model, at, product } = context;
  if (model.tableComplete || (product.hops ?? []).length === 0) return;
  const empty = model.releases.flatMap((from) => {
    const to = model.releases.find((r) => r.strand === from.strand && r.index > from.index);
    return to &&
      !isForbidden(model, from.index, to.index) &&
      !model.hopsFrom[from.index]?.some((h) => h.to === to.index)
      ? [`${from.release.id} to ${to.release.id}`]
      : [];
  });
  if (empty.length > 0)
    context.add({
      code: 'empty-cells',
      kind: 'hole',
      path: [...at, 'hops'],
      detail: { cells: empty.join(', ') },
      mend: [{ kind: 'set', path: [...at, 'hopTable'], value: 'complete' }]
    });
}

/** A cell said to be forbidden that a hop in place leads through. */
function lintForbidden({ product, model, at, add }: LintContext): void {
  (product.noHops ?? []).forEach((cell, i) => {
    const range = rangeOf(cell.from);
    const hop = model.hopsFrom
      .filter(
        (_, from) => range && matchesRelease(model.sequence, range, model.releases[from]?.release.id ?? '')
      )
      .flat()
      .find((h) => h.hop.kind === 'in place' && h.hop.to === cell.to);
    const path = [...at, 'noHops', i];
    if (hop)
      add({
        code: 'hop-forbidden',
        kind: 'fault',
        path,
        detail: { hop: hop.hop.id, cell: cell.id, from: cell.from, to: cell.to },
        mend: [{ kind: 'remove', path }]
      });
  });
}

/** A right that is sold for hops in place although no such hop leads there: the commonest trap (FIELD-NOTES N8). */
function lintRight(context: LintContext, right: Right, i: number): void {
  const { product, at, model } = context;
  const path = [...at, 'rights', i];
  const to = right.to === undefined ? undefined : rangeOf(right.to);
  const from = new Set(leavesFrom(context, right));
  const leads = (kind: Hop['kind']): boolean =>
    (product.hops ?? []).some(
      (h) =>
        h.kind === kind &&
        (!to || matchesRelease(model.sequence, to, h.to)) &&
        leavesFrom(context, h).some((f) => from.has(f))
    );
  const ways = right.ways ?? [];
  if (to && ways.includes('in place') && !leads('in place'))
    context.add({
      code: 'right-without-path',
      kind: 'note',
      path,
      detail: {
        right: right.name ?? right.id,
        to: right.to ?? '',
        fresh: leads('fresh install') ? 'yes' : 'no'
      },
      ...(ways.length > 1
        ? { mend: [{ kind: 'set', path: [...path, 'ways'], value: ways.filter((w) => w !== 'in place') }] }
        : {})
    });
  const j = (product.rights ?? []).findIndex(
    (other, k) =>
      k > i && sameScope(right, other) && right.priceCents !== other.priceCents && right.until === other.until
  );
  if (j >= 0)
    context.add({
      code: 'rights-disagree',
      kind: 'fault',
      path: [...at, 'rights', j],
      detail: { right: right.id, other: product.rights?.[j]?.id ?? '' }
    });
}

const sameScope = (a: Right, b: Right): boolean =>
  a.kind === b.kind &&
  (['ways', 'from', 'to', 'fromEditions', 'toEditions', 'units'] as const).every(
    (k) => JSON.stringify(a[k]) === JSON.stringify(b[k])
  );
