import { modelOf } from '../../src/core/catalogue/model';
import { routeOf } from '../../src/core/route/explain';
import type { Place } from '../../src/core/route/move';
import { findRoutes, targetKey } from '../../src/core/route/search';
import { termsOf, type Terms } from '../../src/core/route/terms';
import { verdictOf, verdictOfLabel } from '../../src/core/route/verdict';
import { verifyTermsOf, type VerifyTerms } from '../../src/core/route/verify-terms';
import type { Route, Verdict } from '../../src/core/route/types';
import type { World } from './worlds';

export interface SearchedTarget {
  readonly sure: Verdict;
  readonly best: Verdict;
  readonly bestWithoutCells: Verdict;
  readonly chosen?: Route;
  readonly all: readonly Route[];
}

export interface Solved {
  readonly terms: Terms;
  readonly start: Place;
  readonly targets: ReadonlyMap<string, SearchedTarget>;
  readonly cut: boolean;
}

/** Runs the search on a world and gives what brute force gives. */
export function solveBySearch(world: World): Solved {
  const model = modelOf(world.product);
  const terms = termsOf(model, world.goal, world.countsExpected, world.today, world);
  const release = model.sequence.indexById.get(world.start.release) ?? 0;
  const start: Place = {
    release,
    patch: model.releases[release]?.patches.findIndex((p) => p.id === world.start.patch) ?? 0,
    edition: model.editions.indexOf(world.start.edition),
    architecture: model.architectures.indexOf(world.start.architecture)
  };
  const sure = findRoutes(terms, start, 'sure');
  const best = findRoutes(terms, start, 'best');
  const targets = new Map<string, SearchedTarget>();
  for (const r of model.releases)
    for (const edition of r.editions)
      for (const architecture of r.architectures) {
        const key = targetKey({ release: r.index, edition, architecture });
        const labels = sure.routes.get(key) ?? [];
        const others = best.routes.get(key) ?? [];
        const verdict = verdictOf(terms, labels);
        const chosen = labels.find((l) => verdict === 'not yet' || verdictOfLabel(terms, l) === verdict);
        targets.set([r.release.id, model.editions[edition], model.architectures[architecture]].join(' '), {
          sure: verdict,
          best: verdictOf(terms, [...labels, ...others]),
          bestWithoutCells: verdictOf(terms, [...labels, ...others.filter((l) => !l.criteria.usesCell)]),
          ...(chosen ? { chosen: routeOf(terms, chosen) } : {}),
          all: labels.map((l) => routeOf(terms, l))
        });
      }
  return { terms, start, targets, cut: sure.cut || best.cut };
}

export const verifierOf = (world: World): VerifyTerms => verifyTermsOf(world);

/** A route in one line, for comparing two implementations' choices. */
export function lineOf(route: Route): string {
  return route.steps
    .map((s) =>
      s.kind === 'patch'
        ? `patch ${s.to.patch} ${s.days.first}`
        : `${s.id} ${s.to.release}/${s.to.patch} ${s.to.edition} ${s.to.architecture} ${s.right.right ?? ''} ${s.days.first}-${s.days.last}${s.days.exact ? '' : '?'}`
    )
    .join('; ');
}
