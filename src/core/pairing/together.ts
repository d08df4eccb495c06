import { NOTHING, type PairingModel, type Place, type ProductModel, targetKey } from '../compile';
import { and, type Truth } from '../condition';
import type { Day, MaybeDay } from '../date';
import { Components } from './components';
import { fitsTogether } from './fits';
import type { FindGates, First, Gate, Way, Ways, When } from './gate';

/** A system of a planning that pairings link with others, and how its ways are found. */
export interface PairedSystem<W extends Way, Need> {
  readonly system: string;
  /** What it runs, in words: the same for all that cannot be told apart. */
  readonly name: string;
  readonly model: ProductModel;
  /** Where it stands; undefined where that is not known. */
  readonly start: Place | undefined;
  /** Where its goal wants it; undefined where it has no target, or is to stay. */
  readonly target: Place | undefined;
  readonly stays: boolean;
  /** Every way from where it stands, by these gates. */
  findWays(start: Place, when: When, gates: FindGates<Need>): Ways<W>;
  /** Whether a target can be reached from a place. */
  reaches(from: Place, target: Place, when: When, gates: FindGates<Need>): boolean;
  /** Which of two ways is preferred, all else being equal. */
  compare(a: W, b: W): number;
  /** What one of its ways is to whoever needs it first. */
  tell(first: First<W, Need>): Need;
}

/** The systems a pairing of a system links it with; `unknown` where nobody has told, none where a link is said to be absent. */
export type FindPartners<W extends Way, Need> = (
  system: string,
  pairing: PairingModel['pairing']
) => readonly PairedSystem<W, Need>[] | 'unknown';

const keyOf = ({ run, today, from }: When): string => `${run} ${today} ${from}`;

/** The ways a partner has; `any` where they are taken as holding, whatever they are. */
type WaysOf<W extends Way, Need> = (partner: PairedSystem<W, Need>) => Ways<W> | 'any';

/**
 * Which linked systems can come along, once a planning, run and day: a way of a system holds where on every
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
export class Together<W extends Way, Need> {
  readonly #find: (system: string) => PairedSystem<W, Need> | undefined;
  readonly #partners: FindPartners<W, Need>;
  readonly #components: Components;
  readonly #held = new Map<string, Ways<W>>();
  readonly #gates = new Map<string, readonly Gate<Need>[]>();

  constructor(find: (system: string) => PairedSystem<W, Need> | undefined, partners: FindPartners<W, Need>) {
    this.#find = find;
    this.#partners = partners;
    this.#components = new Components((id) => this.#edgesOf(id));
  }

  #edgesOf(id: string): readonly string[] {
    const { pairings } = this.#find(id)?.model.needs ?? { pairings: [] };
    const linked = pairings.flatMap(({ pairing }) => {
      const partners = this.#partners(id, pairing);
      return partners === 'unknown' ? [] : partners.map((p) => p.system);
    });
    return [...new Set(linked)].sort();
  }

  /** How the pairings of a system stand at an arrival. */
  gatesOf(id: string): FindGates<Need> {
    const own = this.#find(id);
    if (!own || own.model.needs.pairings.length === 0) return () => [];
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

  #gatesAt(
    own: PairedSystem<W, Need>,
    arrival: Place,
    when: When,
    waysOf: WaysOf<W, Need>
  ): readonly Gate<Need>[] {
    return own.model.needs.pairings.map((pairing) => {
      const { id } = pairing.pairing;
      const partners = this.#partners(own.system, pairing.pairing);
      if (partners === 'unknown')
        return { pairing: id, truth: 'unknown', met: true, cut: false, needs: [], failing: [] };
      const gates = partners.map((partner) => this.#gateOf({ own, pairing, arrival, when, waysOf }, partner));
      const failing = [...new Set(partners.filter((_, i) => gates[i]?.truth !== 'yes').map((p) => p.name))];
      return { ...joinGates(id, gates), failing };
    });
  }

  #gateOf(ask: AskPartner<W, Need>, partner: PairedSystem<W, Need>): PartnerGate<Need> {
    if (partner.start === undefined) return { truth: 'unknown', met: true, cut: false, needs: [] };
    const fitsAt = (place: Place, arrival = ask.arrival): Truth =>
      fitsTogether(ask.pairing, { model: ask.own.model, place: arrival }, { model: partner.model, place });
    const stands = fitsAt(partner.start);
    if (stands === 'yes' || partner.stays)
      return { truth: stands, met: stands === 'unknown', cut: false, needs: [] };
    const held = ask.waysOf(partner);
    if (held === 'any') return { truth: 'yes', met: false, cut: false, needs: [] };
    const { met, cut } = held;
    const ways = held.ways.filter((l) => fitsAt(l.at) !== 'no');
    const sure = ways.filter((l) => fitsAt(l.at) === 'yes');
    const [best] = [...sure].sort((a, b) => compareWays(partner, ask.when.today, a, b));
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
    { pairing, when }: AskPartner<W, Need>,
    partner: PairedSystem<W, Need>,
    way: W,
    { isMutual, together }: { readonly isMutual: boolean; readonly together: boolean }
  ): Need {
    // What hangs on this one in turn would be listed for ever.
    const gates: FindGates<Need> = isMutual ? () => [] : this.gatesOf(partner.system);
    return partner.tell({ pairing: pairing.pairing.id, way, when, gates, together });
  }

  /** The ways of a system that hold. */
  #waysOf(partner: PairedSystem<W, Need>, when: When): Ways<W> {
    const key = `${partner.system} ${keyOf(when)}`;
    const known = this.#held.get(key);
    if (known) return known;
    const members = this.#components.of(partner.system);
    if (members.length === 1) this.#held.set(key, this.#findWays(partner, when, undefined));
    else for (const [id, held] of this.#strike(members, when)) this.#held.set(`${id} ${keyOf(when)}`, held);
    return this.#held.get(key) as Ways<W>;
  }

  /** Begins with every way as holding, and strikes what does not, until nothing is struck. */
  #strike(members: readonly string[], when: When): ReadonlyMap<string, Ways<W>> {
    const systems = members.flatMap((id) => this.#find(id) ?? []);
    const inside = new Set(members);
    const findAll = (among: WaysOf<W, Need>): Map<string, Ways<W>> =>
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
  #findWays(own: PairedSystem<W, Need>, when: When, mutual: Mutual<W, Need> | undefined): Ways<W> {
    const { start, target } = own;
    if (!start) return NO_WAYS;
    const later = this.#gatesAmong(own, mutual && { ...mutual, among: () => 'any' });
    const found = own.findWays(start, when, this.#gatesAmong(own, mutual));
    const isReachable = target !== undefined && own.reaches(start, target, when, later);
    const leadsOn = ({ at, criteria }: W): boolean => {
      if (!target || !isReachable || targetKey(at) === targetKey(target)) return true;
      return own.reaches(at, target, { ...when, from: criteria.finish + 1 }, later);
    };
    return { ...found, ways: found.ways.filter(leadsOn) };
  }

  /** The gates of a system by what those it hangs on mutually still hold, of all others by their own ways. */
  #gatesAmong(own: PairedSystem<W, Need>, mutual: Mutual<W, Need> | undefined): FindGates<Need> {
    if (!mutual) return this.gatesOf(own.system);
    const made = new Map<string, readonly Gate<Need>[]>();
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

interface Mutual<W extends Way, Need> {
  readonly inside: ReadonlySet<string>;
  readonly among: WaysOf<W, Need>;
}

interface AskPartner<W extends Way, Need> {
  readonly own: PairedSystem<W, Need>;
  readonly pairing: PairingModel;
  readonly arrival: Place;
  readonly when: When;
  readonly waysOf: WaysOf<W, Need>;
}

type PartnerGate<Need> = Omit<Gate<Need>, 'pairing' | 'failing'>;

const NO_WAYS: Ways<never> = { ways: [], met: false, cut: false };

/** The places ways still lead to, as one text: where two rounds give the same, nothing was struck. */
const reachedBy = (held: ReadonlyMap<string, Ways<Way>>): string =>
  JSON.stringify(
    [...held].map(([id, { ways }]) => [
      id,
      [...new Set(ways.map((l) => `${targetKey(l.at)} ${l.at.patch}`))].sort()
    ])
  );

function joinGates<Need>(pairing: string, gates: readonly PartnerGate<Need>[]): Omit<Gate<Need>, 'failing'> {
  const days = (pick: (g: PartnerGate<Need>) => MaybeDay | undefined): MaybeDay | undefined => {
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

const compareWays = <W extends Way>(
  { compare }: { compare(a: W, b: W): number },
  today: Day,
  a: W,
  b: W
): number =>
  Number(a.criteria.waits > today) - Number(b.criteria.waits > today) ||
  Number(b.criteria.finishExact) - Number(a.criteria.finishExact) ||
  a.criteria.finish - b.criteria.finish ||
  compare(a, b);
