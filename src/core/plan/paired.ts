import { Names } from '../catalogue';
import { idsOfPlace, type Place } from '../compile';
import type { PairedSystem, When } from '../pairing';
import {
  compareByPreference,
  findChosen,
  findRoutes,
  isBeatenWhateverItRestsOn,
  type GateNeed,
  type Label,
  type RouteGates,
  routeOf,
  type Terms
} from '../route';

/** A linked system whose ways are routes. */
export type PairedByRoutes = PairedSystem<Label, GateNeed>;

interface Stands {
  readonly start: Place | undefined;
  readonly target: Place | undefined;
  readonly stays: boolean;
}

/** A linked system by the terms of its own routes: its product's, with its own goal. */
export function pairedBy(system: string, terms: Terms, stands: Stands): PairedByRoutes {
  const termsAt = ({ today, from }: When, gates: RouteGates): Terms => ({
    ...terms,
    today,
    from,
    leadsFrom: from,
    gates
  });
  const names = new Names(terms.model.product);
  const at = stands.start && idsOfPlace(terms, stands.start);
  return {
    system,
    // Alike systems hang on others alike: what is told of all of them calls these by what they run.
    name: [names.product, at ? names.level(at) : ''].filter(Boolean).join(' '),
    model: terms.model,
    ...stands,
    findWays: (start, when, gates) => {
      // In the best run any way will do, whatever it rests on, over empty cells too.
      const options = when.run === 'best' ? { cells: true, beats: isBeatenWhateverItRestsOn } : {};
      const { routes, met, cut } = findRoutes(termsAt(when, gates), start, when.run, options);
      return { ways: [...routes.values()].flat(), met: met.size > 0, cut };
    },
    reaches: (from, target, when, gates) =>
      findChosen(termsAt(when, gates), { start: from, target }, when.run).verdict !== 'closed',
    compare: (a, b) => compareByPreference(a.criteria, b.criteria),
    tell: ({ pairing, way, when, gates, together }) => ({
      need: {
        pairing,
        system,
        product: terms.model.product.id,
        to: idsOfPlace(terms, way.at),
        finish: way.judgement.schedule.days.at(-1)?.hop ?? { first: 0, last: 0, exact: false },
        waitsUntil: way.criteria.waits === Infinity ? 'unknown' : way.criteria.waits,
        together,
        route: routeOf(termsAt(when, gates), way, when.run)
      },
      moves: way.moves,
      gates
    })
  };
}
