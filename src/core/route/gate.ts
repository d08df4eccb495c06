import type { PairingModel } from '../catalogue/need-model';
import { and, truthOf, type Run, type Truth } from '../condition/truth';
import type { Day } from '../date/day';
import type { MaybeDay } from '../date/interval';
import { BASE_PATCH, sequenceOf } from '../version/sequence';
import { matchesRange } from '../version/range';
import { findChosen } from './choose';
import { routeOf } from './explain';
import { compareByPreference, type Label } from './label';
import type { Place } from './move';
import { idsOfPlace } from './place-ids';
import { findRoutes, targetKey } from './search';
import type { FindGates, Gate, GateNeed, Terms } from './terms';

/** A system at the other end of a pairing. */
export interface LinkedSide {
  readonly system: string;
  /** Its product's terms, with its own goal, and no gates: its own pairings are taken as holding. */
  readonly terms: Terms;
  /** Where it stands; undefined where that is not known. */
  readonly start: Place | undefined;
  /** Where its goal wants it; undefined where it has no target, or is to stay. */
  readonly target: Place | undefined;
  readonly stays: boolean;
  /** Its own gates, for listing what it needs first in turn. */
  readonly gates: FindGates;
}

/** The systems a pairing links with; `unknown` where nobody has told, none where a link is said to be absent. */
export type FindSides = (pairing: PairingModel['pairing']) => readonly LinkedSide[] | 'unknown';

/**
 * How the pairings of a product stand at an arrival (RECKONING E6): each linked system stands on a fitting release, or
 * has a route of its own to one from which its target stays reachable, which then is needed first.
 * A release in none of a pairing's lines is unknown in a partial table, not allowed in a complete one.
 * Of several ways to bring a linked system there: one open today first, then the earliest finish, then preference.
 */
export function gatesOver(
  pairings: readonly PairingModel[],
  terms: () => Terms,
  sides: FindSides
): FindGates {
  const made = new Map<string, readonly Gate[]>();
  const searches = new Map<string, readonly Label[]>();
  return (arrival, run, today, from) => {
    const key = `${arrival.release}.${arrival.patch} ${run} ${today} ${from}`;
    const known = made.get(key);
    if (known) return known;
    const gates = pairings.map((pairing) => {
      const linked = sides(pairing.pairing);
      if (linked === 'unknown') return { pairing: pairing.pairing.id, truth: 'unknown' as const, needs: [] };
      const ask: AskSide = { pairing, own: terms(), arrival, run, today, from, searches };
      return joinGates(
        pairing.pairing.id,
        linked.map((side) => gateOf(ask, side))
      );
    });
    made.set(key, gates);
    return gates;
  };
}

interface AskSide {
  readonly pairing: PairingModel;
  readonly own: Terms;
  readonly arrival: Place;
  readonly run: Run;
  readonly today: Day;
  readonly from: Day;
  readonly searches: Map<string, readonly Label[]>;
}

type SideGate = Omit<Gate, 'pairing'>;

function joinGates(pairing: string, gates: readonly SideGate[]): Gate {
  const days = (pick: (g: SideGate) => MaybeDay | undefined): MaybeDay | undefined => {
    const known = gates.map(pick).filter((d) => d !== undefined);
    if (known.length === 0) return undefined;
    return known.includes('unknown') ? 'unknown' : Math.max(...(known as number[]));
  };
  const notBefore = days((g) => g.notBefore);
  const waits = days((g) => g.waits);
  return {
    pairing,
    truth: gates.map((g) => g.truth).reduce(and, 'yes'),
    ...(notBefore === undefined ? {} : { notBefore }),
    ...(waits === undefined ? {} : { waits }),
    needs: gates.flatMap((g) => g.needs)
  };
}

function gateOf(ask: AskSide, side: LinkedSide): SideGate {
  if (side.start === undefined) return { truth: 'unknown', needs: [] };
  const stands = fits(ask, side, side.start);
  if (stands === 'yes' || side.stays) return { truth: stands, needs: [] };
  const ways = waysOf(ask, side).filter((l) => fits(ask, side, l.at) !== 'no');
  const sure = ways.filter((l) => fits(ask, side, l.at) === 'yes');
  const [best] = [...sure].sort((a, b) => compareWays(ask.today, a, b));
  if (!best) return { truth: stands === 'unknown' || ways.length > 0 ? 'unknown' : 'no', needs: [] };
  const { finish, finishExact, waits } = best.criteria;
  return {
    truth: 'yes',
    notBefore: finishExact ? finish : 'unknown',
    waits: waits === Infinity ? 'unknown' : waits,
    needs: [needOf(ask, side, best)]
  };
}

function needOf({ pairing, run }: AskSide, side: LinkedSide, label: Label): GateNeed {
  const days = label.judgement.schedule.days.at(-1)?.hop ?? { first: 0, last: 0, exact: false };
  return {
    need: {
      pairing: pairing.pairing.id,
      system: side.system,
      product: side.terms.model.product.id,
      to: idsOfPlace(side.terms, label.at),
      finish: days,
      waitsUntil: label.criteria.waits === Infinity ? 'unknown' : label.criteria.waits,
      route: routeOf(side.terms, label, run)
    },
    moves: label.moves,
    gates: side.gates
  };
}

const compareWays = (today: Day, a: Label, b: Label): number =>
  Number(a.criteria.waits > today) - Number(b.criteria.waits > today) ||
  Number(b.criteria.finishExact) - Number(a.criteria.finishExact) ||
  a.criteria.finish - b.criteria.finish ||
  compareByPreference(a.criteria, b.criteria);

/** Routes of a linked system to places from which its target stays reachable, begun on the day asked for. */
function waysOf({ run, today, from, searches }: AskSide, side: LinkedSide): readonly Label[] {
  const key = `${side.system} ${run} ${today} ${from}`;
  const known = searches.get(key);
  if (known) return known;
  const terms = { ...side.terms, today, from };
  const { routes } = findRoutes(terms, side.start as Place, run);
  const labels = [...routes.values()].flat();
  const leadsOn = (label: Label): boolean => {
    const { target } = side;
    if (!target || !routes.has(targetKey(target)) || targetKey(target) === targetKey(label.at)) return true;
    const later = { ...terms, from: label.criteria.finish + 1 };
    return findChosen(later, label.at, target, run).verdict !== 'closed';
  };
  const ways = labels.filter(leadsOn);
  searches.set(key, ways);
  return ways;
}

/** Whether the release arrived at and one of the linked system's may be together. */
function fits({ pairing, own, arrival }: AskSide, side: LinkedSide, place: Place): Truth {
  const { apart, table } = pairing.pairing;
  if (apart !== undefined) {
    const here = own.model.releases[arrival.release];
    const there = side.terms.model.releases[place.release];
    if (own.model.product.id !== side.terms.model.product.id || here?.strand !== there?.strand)
      return 'unknown';
    return truthOf(Math.abs(arrival.release - place.release) <= apart);
  }
  const sequence = sequenceOf(side.terms.model.product);
  const { release, patch } = idsOfPlace(side.terms, place);
  const position = { release, patch: patch || BASE_PATCH };
  const lines = pairing.fits.filter((f) => f.own[arrival.release]?.[arrival.patch] === true);
  if (lines.some((f) => matchesRange(sequence, f.other, position))) return 'yes';
  const isNamed = lines.length > 0 && pairing.fits.some((f) => matchesRange(sequence, f.other, position));
  return table === 'complete' || isNamed ? 'no' : 'unknown';
}
