import type { PairingModel } from '../catalogue/need-model';
import { and, type Run, type Truth } from '../condition/truth';
import type { Day } from '../date/day';
import type { MaybeDay } from '../date/interval';
import { findChosen } from '../route/choose';
import { routeOf } from '../route/explain';
import { compareByPreference, type Label } from '../route/label';
import { NOTHING, type Place } from '../route/move';
import { idsOfPlace } from '../route/place-ids';
import { findRoutes, targetKey } from '../route/search';
import type { FindGates, Gate, GateNeed, Terms } from '../route/terms';
import { Components } from './components';
import { fitsTogether } from './fits';

/** A system of a planning that pairings link with others. */
export interface PairedSystem {
  readonly system: string;
  /** Its product's terms, with its own goal; gates are put in here. */
  readonly terms: Terms;
  /** Where it stands; undefined where that is not known. */
  readonly start: Place | undefined;
  /** Where its goal wants it; undefined where it has no target, or is to stay. */
  readonly target: Place | undefined;
  readonly stays: boolean;
}

/** The systems a pairing of a system links it with; `unknown` where nobody has told, none where a link is said to be absent. */
export type FindPartners = (
  system: string,
  pairing: PairingModel['pairing']
) => readonly PairedSystem[] | 'unknown';

/** The ways of one system in one run, seen from a day and begun on one. */
interface Held {
  readonly labels: readonly Label[];
  readonly met: boolean;
  readonly cut: boolean;
}

interface When {
  readonly run: Run;
  readonly today: Day;
  readonly from: Day;
}
const keyOf = ({ run, today, from }: When): string => `${run} ${today} ${from}`;

/** The ways a partner has; `any` where they are taken as holding, whatever they are. */
type WaysOf = (partner: PairedSystem) => Held | 'any';

/**
 * Which linked systems can come along (RECKONING 1.3), once a planning, run and day: a way of a system holds where on every
 * release it arrives at each partner stands on a fitting place, or has a way of its own, which holds too, to a fitting place
 * from which its target stays reachable. The greatest set of ways for which that is so: it begins with every way as holding
 * and strikes those that do not, until nothing is struck; so whatever is to stay, or has no way, closes what hangs on it at
 * any depth, and the order of asking changes nothing.
 *
 * Among systems that hang on each other both ways pairings set no days and no waits; otherwise what is needed first is done
 * before, and its waits are waits. Whether a target stays reachable is judged with pairings among such systems taken as
 * holding. Of several ways to bring a partner along: one open today first, then the earliest finish, then preference.
 * Cost: a search a system, run and day; where systems hang on each other both ways, one a member and round of striking.
 */
export class Together {
  readonly #find: (system: string) => PairedSystem | undefined;
  readonly #partners: FindPartners;
  readonly #components: Components;
  readonly #held = new Map<string, Held>();
  readonly #gates = new Map<string, readonly Gate[]>();

  constructor(find: (system: string) => PairedSystem | undefined, partners: FindPartners) {
    this.#find = find;
    this.#partners = partners;
    this.#components = new Components((id) => this.#edgesOf(id));
  }

  #edgesOf(id: string): readonly string[] {
    const { pairings } = this.#find(id)?.terms.model.needs ?? { pairings: [] };
    const linked = pairings.flatMap(({ pairing }) => {
      const partners = this.#partners(id, pairing);
      return partners === 'unknown' ? [] : partners.map((p) => p.system);
    });
    return [...new Set(linked)].sort();
  }

  /** How the pairings of a system stand at an arrival. */
  gatesOf(id: string): FindGates {
    const own = this.#find(id);
    if (!own || own.terms.model.needs.pairings.length === 0) return () => [];
    return (arrival, run, today, from) => {
      const when = { run, today, from };
      const key = `${id} ${arrival.release}.${arrival.patch} ${keyOf(when)}`;
      const known = this.#gates.get(key);
      if (known) return known;
      const gates = this.#gatesAt(own, arrival, when, (partner) => this.#waysOf(partner, when));
      this.#gates.set(key, gates);
      return gates;
    };
  }

  #gatesAt(own: PairedSystem, arrival: Place, when: When, waysOf: WaysOf): readonly Gate[] {
    return own.terms.model.needs.pairings.map((pairing) => {
      const { id } = pairing.pairing;
      const partners = this.#partners(own.system, pairing.pairing);
      if (partners === 'unknown') return { pairing: id, truth: 'unknown', met: true, cut: false, needs: [] };
      return joinGates(
        id,
        partners.map((partner) => this.#gateOf({ own, pairing, arrival, when, waysOf }, partner))
      );
    });
  }

  #gateOf(ask: AskPartner, partner: PairedSystem): PartnerGate {
    if (partner.start === undefined) return { truth: 'unknown', met: true, cut: false, needs: [] };
    const fitsAt = (place: Place, arrival = ask.arrival): Truth =>
      fitsTogether(ask.pairing, ask.own.terms.model, arrival, partner.terms.model, place);
    const stands = fitsAt(partner.start);
    if (stands === 'yes' || partner.stays)
      return { truth: stands, met: stands === 'unknown', cut: false, needs: [] };
    const held = ask.waysOf(partner);
    if (held === 'any') return { truth: 'yes', met: false, cut: false, needs: [] };
    const { labels, met, cut } = held;
    const ways = labels.filter((l) => fitsAt(l.at) !== 'no');
    const sure = ways.filter((l) => fitsAt(l.at) === 'yes');
    const [best] = [...sure].sort((a, b) => compareWays(ask.when.today, a, b));
    if (!best) {
      const truth = stands === 'unknown' || ways.length > 0 || cut ? 'unknown' : 'no';
      return { truth, met: met || truth === 'unknown', cut, needs: [] };
    }
    const { finish, finishExact, waits } = best.criteria;
    const isMutual = this.#components.isMutual(ask.own.system, partner.system);
    const { start } = ask.own;
    const together =
      start !== undefined &&
      start.release !== NOTHING &&
      fitsAt(partner.start, start) === 'yes' &&
      fitsAt(best.at, start) === 'no';
    return {
      truth: 'yes',
      met,
      cut,
      ...(isMutual
        ? {}
        : {
            notBefore: finishExact ? finish : ('unknown' as const),
            waits: waits === Infinity ? ('unknown' as const) : waits
          }),
      needs: [this.#needOf(ask, partner, best, { isMutual, together })]
    };
  }

  #needOf(
    { pairing, when }: AskPartner,
    partner: PairedSystem,
    label: Label,
    { isMutual, together }: { readonly isMutual: boolean; readonly together: boolean }
  ): GateNeed {
    const { terms } = partner;
    // What hangs on this one in turn would be listed for ever.
    const gates: FindGates = isMutual ? () => [] : this.gatesOf(partner.system);
    const days = label.judgement.schedule.days.at(-1)?.hop ?? { first: 0, last: 0, exact: false };
    return {
      need: {
        pairing: pairing.pairing.id,
        system: partner.system,
        product: terms.model.product.id,
        to: idsOfPlace(terms, label.at),
        finish: days,
        waitsUntil: label.criteria.waits === Infinity ? 'unknown' : label.criteria.waits,
        together,
        route: routeOf({ ...terms, today: when.today, from: when.from, gates }, label, when.run)
      },
      moves: label.moves,
      gates
    };
  }

  /** The ways of a system that hold. */
  #waysOf(partner: PairedSystem, when: When): Held {
    const key = `${partner.system} ${keyOf(when)}`;
    const known = this.#held.get(key);
    if (known) return known;
    const members = this.#components.of(partner.system);
    if (members.length === 1) this.#held.set(key, this.#findWays(partner, when, undefined));
    else for (const [id, held] of this.#strike(members, when)) this.#held.set(`${id} ${keyOf(when)}`, held);
    return this.#held.get(key) as Held;
  }

  /** Begins with every way as holding, and strikes what does not, until nothing is struck. */
  #strike(members: readonly string[], when: When): ReadonlyMap<string, Held> {
    const systems = members.flatMap((id) => this.#find(id) ?? []);
    const inside = new Set(members);
    const findAll = (among: WaysOf): Map<string, Held> =>
      new Map(systems.map((s) => [s.system, this.#findWays(s, when, { inside, among })]));
    let held = findAll(() => 'any');
    for (let before = ''; before !== reachedBy(held);) {
      before = reachedBy(held);
      const last = held;
      held = findAll((partner) => last.get(partner.system) ?? NO_WAYS);
    }
    return held;
  }

  /** Ways of a system to places from which its target stays reachable. */
  #findWays(own: PairedSystem, when: When, mutual: Mutual | undefined): Held {
    const { start, target } = own;
    if (!start) return NO_WAYS;
    const days = { today: when.today, from: when.from, leadsFrom: when.from };
    const terms = { ...own.terms, ...days, gates: this.#gatesAmong(own, mutual) };
    const later = { ...terms, gates: this.#gatesAmong(own, mutual && { ...mutual, among: () => 'any' }) };
    const isAt = (label: Label): boolean => target !== undefined && targetKey(label.at) === targetKey(target);
    const { routes, met, cut } = findRoutes(terms, start, when.run);
    const isReachable =
      target !== undefined && findChosen(later, start, target, when.run).verdict !== 'closed';
    const leadsOn = (label: Label): boolean => {
      if (!target || !isReachable || isAt(label)) return true;
      const from = label.criteria.finish + 1;
      return findChosen({ ...later, from, leadsFrom: from }, label.at, target, when.run).verdict !== 'closed';
    };
    return { labels: [...routes.values()].flat().filter(leadsOn), met: met.size > 0, cut };
  }

  /** The gates of a system by what those it hangs on mutually still hold, of all others by their own ways. */
  #gatesAmong(own: PairedSystem, mutual: Mutual | undefined): FindGates {
    if (!mutual) return this.gatesOf(own.system);
    const made = new Map<string, readonly Gate[]>();
    return (arrival, run, today, from) => {
      const when = { run, today, from };
      const key = `${arrival.release}.${arrival.patch} ${keyOf(when)}`;
      const known = made.get(key);
      if (known) return known;
      const gates = this.#gatesAt(own, arrival, when, (partner) =>
        mutual.inside.has(partner.system) ? mutual.among(partner) : this.#waysOf(partner, when)
      );
      made.set(key, gates);
      return gates;
    };
  }
}

interface Mutual {
  readonly inside: ReadonlySet<string>;
  readonly among: WaysOf;
}

interface AskPartner {
  readonly own: PairedSystem;
  readonly pairing: PairingModel;
  readonly arrival: Place;
  readonly when: When;
  readonly waysOf: WaysOf;
}

type PartnerGate = Omit<Gate, 'pairing'>;

const NO_WAYS: Held = { labels: [], met: false, cut: false };

/** The places ways still lead to, as one text: where two rounds give the same, nothing was struck. */
const reachedBy = (held: ReadonlyMap<string, Held>): string =>
  JSON.stringify(
    [...held].map(([id, { labels }]) => [
      id,
      [...new Set(labels.map((l) => `${targetKey(l.at)} ${l.at.patch}`))].sort()
    ])
  );

function joinGates(pairing: string, gates: readonly PartnerGate[]): Gate {
  const days = (pick: (g: PartnerGate) => MaybeDay | undefined): MaybeDay | undefined => {
    const known = gates.map(pick).filter((d) => d !== undefined);
    if (known.length === 0) return undefined;
    return known.includes('unknown') ? 'unknown' : Math.max(...(known as number[]));
  };
  const notBefore = days((g) => g.notBefore);
  const waits = days((g) => g.waits);
  return {
    pairing,
    truth: gates.map((g) => g.truth).reduce(and, 'yes'),
    met: gates.some((g) => g.met),
    cut: gates.some((g) => g.cut),
    ...(notBefore === undefined ? {} : { notBefore }),
    ...(waits === undefined ? {} : { waits }),
    needs: gates.flatMap((g) => g.needs)
  };
}

const compareWays = (today: Day, a: Label, b: Label): number =>
  Number(a.criteria.waits > today) - Number(b.criteria.waits > today) ||
  Number(b.criteria.finishExact) - Number(a.criteria.finishExact) ||
  a.criteria.finish - b.criteria.finish ||
  compareByPreference(a.criteria, b.criteria);
