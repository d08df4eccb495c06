import { comparisonsOf, type Condition, findReachable, parseCondition } from '../condition';
import { matchesRelease, parseRange } from '../version';
import type { Requirement } from '../catalogue';
import type { LintContext } from './finding';

/** Conditions that cannot matter, cures and cautions beside the point, companions, pairings and tracks with holes. */
export function lintNeeds(context: LintContext): void {
  const { product, at } = context;
  const requirements = product.requirements ?? [];
  requirements.forEach((requirement, i) => {
    const path = [...at, 'requirements', i];
    lintCondition(context, requirement.needs, [...path, 'needs'], requirement.id);
    if (requirement.site)
      lintCondition(context, requirement.site.needs, [...path, 'site', 'needs'], requirement.id);
    lintCures(context, requirement, path);
    lintOverlaps(context, requirement, path);
    const j = requirements.findIndex((other, k) => k > i && contradict(requirement, other));
    if (j >= 0)
      context.add({
        code: 'requirements-disagree',
        kind: 'fault',
        path: [...at, 'requirements', j, 'needs'],
        detail: { entry: requirement.id, other: requirements[j]?.id ?? '' }
      });
  });
  lintCompanions(context);
  lintCautions(context);
  lintPairings(context);
  (product.tracks ?? []).forEach((track, i) => {
    const reached = releasesIn(context, track.releases).some((r) => {
      const { published } = product.releases[r] ?? {};
      return typeof published === 'object' && published[track.maturity] !== undefined;
    });
    if (!reached)
      context.add({
        code: 'track-without-release',
        kind: 'fault',
        path: [...at, 'tracks', i, 'releases'],
        detail: { track: track.id, maturity: track.maturity }
      });
  });
}

const read = (text: string): Condition | undefined => {
  const parsed = parseCondition(text);
  return 'condition' in parsed ? parsed.condition : undefined;
};

function releasesIn({ model }: LintContext, text: string | undefined): number[] {
  const parsed = text === undefined ? undefined : parseRange(text);
  const range = parsed && 'range' in parsed ? parsed.range : undefined;
  return model.releases
    .filter((r) => !range || matchesRelease(model.sequence, range, r.release.id))
    .map((r) => r.index);
}

function lintCondition(
  context: LintContext,
  text: string,
  path: readonly (string | number)[],
  entry: string
): void {
  if (text === 'unknown') return context.add({ code: 'no-figure', kind: 'hole', path, detail: { entry } });
  const condition = read(text);
  const reachable = condition && findReachable(condition, context.kinds);
  if (reachable && !reachable.holds)
    context.add({ code: 'never-holds', kind: 'fault', path, detail: { entry, text } });
  if (reachable && !reachable.fails)
    context.add({ code: 'always-holds', kind: 'fault', path, detail: { entry, text } });
}

function lintCures(context: LintContext, requirement: Requirement, path: readonly (string | number)[]): void {
  const texts = [requirement.needs, requirement.site?.needs].filter(
    (t) => t !== undefined && t !== 'unknown'
  );
  const asked = new Set(
    texts.flatMap((t) => comparisonsOf(read(t ?? '') ?? { kind: 'always' }).map((c) => c.fact))
  );
  if (asked.size === 0) return;
  requirement.cures?.forEach((cure, j) => {
    if (!asked.has(cure.fact))
      context.add({
        code: 'cure-beside',
        kind: 'fault',
        path: [...path, 'cures', j, 'fact'],
        detail: { cure: cure.id, fact: cure.fact, entry: requirement.id },
        mend: [{ kind: 'remove', path: [...path, 'cures', j] }]
      });
  });
}

/** Two cures that make the same of one fact, for systems of which some are the same: nobody can say which is meant. */
function lintOverlaps(
  context: LintContext,
  requirement: Requirement,
  path: readonly (string | number)[]
): void {
  const cures = (requirement.cures ?? []).filter((c) => c.kind !== 'replacement');
  cures.forEach((cure, i) => {
    const other = cures.slice(0, i).find((o) => isAlike(o, cure) && overlap(context, o, cure));
    if (other)
      context.add({
        code: 'cures-overlap',
        kind: 'note',
        path: [...path, 'cures', (requirement.cures ?? []).indexOf(cure)],
        detail: { cure: cure.id, other: other.id, entry: requirement.id }
      });
  });
}

type Cure = NonNullable<Requirement['cures']>[number];

const isAlike = (a: Cure, b: Cure): boolean =>
  a.fact === b.fact && a.set === b.set && a.raise === b.raise && a.costCents === b.costCents;

function overlap({ kinds }: LintContext, a: Cure, b: Cure): boolean {
  const [x, y] = [read(a.when ?? 'always'), read(b.when ?? 'always')];
  // Without conditions a setting is one where the thing is there, a purchase where it is not.
  if (a.when === undefined && b.when === undefined) return a.kind === b.kind;
  if (!x || !y) return false;
  return findReachable({ kind: 'and', parts: [x, y] }, kinds)?.holds ?? true;
}

/** Same whom, same grade, one figure each of the same fact - and not the same one. */
function contradict(a: Requirement, b: Requirement): boolean {
  const key = (r: Requirement): string => JSON.stringify([r.at, r.grade, r.methods, r.editions, r.when]);
  const [x, y] = [read(a.needs), read(b.needs)];
  return (
    key(a) === key(b) &&
    x?.kind === 'figure' &&
    y?.kind === 'figure' &&
    x.fact === y.fact &&
    x.relation === y.relation &&
    a.needs !== b.needs
  );
}

function lintCompanions(context: LintContext): void {
  const { product, at, model } = context;
  product.companions?.forEach((companion, i) => {
    const path = [...at, 'companions', i];
    const newest =
      model.releases.filter((r) => r.strand === '').length > 0
        ? Math.max(...model.releases.filter((r) => r.strand === '').map((r) => r.index))
        : model.releases.length - 1;
    if (!companion.fares.some((f) => releasesIn(context, f.at).includes(newest)))
      context.add({
        code: 'companion-not-listed',
        kind: 'hole',
        path,
        detail: { companion: companion.name, release: product.releases[newest]?.id ?? '' }
      });
    companion.fares.forEach((fare, j) => {
      const k = companion.fares.findIndex(
        (o, n) =>
          n > j &&
          !o.when &&
          !fare.when &&
          o.verdict !== fare.verdict &&
          releasesIn(context, o.at).some((r) => releasesIn(context, fare.at).includes(r))
      );
      if (k >= 0)
        context.add({
          code: 'fares-disagree',
          kind: 'fault',
          path: [...path, 'fares', k],
          detail: {
            companion: companion.name,
            verdict: fare.verdict,
            other: companion.fares[k]?.verdict ?? ''
          }
        });
    });
  });
}

/** A caution no hop can meet: none leads from where it starts to where it bites. */
function lintCautions(context: LintContext): void {
  const { product, at, model } = context;
  if ((product.hops ?? []).length === 0) return;
  product.cautions?.forEach((caution, i) => {
    const [from, to] = [releasesIn(context, caution.from), releasesIn(context, caution.to)];
    if (!from.some((f) => model.hopsFrom[f]?.some((h) => to.includes(h.to))))
      context.add({
        code: 'caution-beside',
        kind: 'fault',
        path: [...at, 'cautions', i, 'to'],
        detail: { caution: caution.name }
      });
  });
}

/** Releases a complete pairing leaves without any partner. */
function lintPairings(context: LintContext): void {
  context.product.pairings?.forEach((pairing, i) => {
    if (pairing.table !== 'complete' || pairing.apart !== undefined) return;
    const paired = new Set((pairing.fits ?? []).flatMap((f) => releasesIn(context, f.own)));
    const alone = context.model.releases.filter((r) => !paired.has(r.index)).map((r) => r.release.id);
    if (alone.length > 0)
      context.add({
        code: 'no-partner',
        kind: 'hole',
        path: [...context.at, 'pairings', i, 'fits'],
        detail: { releases: alone.join(', '), other: pairing.other }
      });
  });
}
