import { type Day, formatDay } from '../date/day';
import type { OrderLock } from '../estate/schema-order';
import type { ComponentOrder, OrderedStep, OrderedWave } from '../order';
import type { Product } from '../catalogue/schema';
import type { Standing } from '../version/standing';
import { matchesRange, parseRange } from '../version/range';
import { BASE_PATCH, sequenceOf } from '../version/sequence';

/** A link between systems of a component, as a pairing of the first one's product speaks of it, or a requirement on where others stand. */
export interface VerifyLink {
  readonly own: string;
  readonly other: string;
  /** The pairing's id, or the requirement's. */
  readonly pairing: string;
}

/** Systems of which some go first. */
export interface VerifyPilots {
  readonly group: string;
  readonly systems: number;
  readonly watchDays: number;
}

/** What an order is to keep. */
export interface VerifyOrderTerms {
  /** The product of a system. */
  productOf(system: string): Product | undefined;
  readonly links: readonly VerifyLink[];
  /** How many systems the people of a window can watch at once; undefined: any number. By the window's id. */
  crewOf(window: string): number | undefined;
  /** What somebody has laid down. */
  readonly locks?: readonly OrderLock[];
  /** Whether an arrival of a system is watched, so that nothing follows it in the same window. */
  watches?(system: string): boolean;
  /** Pilots that a system's goal asks for, with those it shares them with. */
  pilotsOf?(system: string): VerifyPilots | undefined;
}

export interface OrderFault {
  readonly code:
    | 'starts elsewhere'
    | 'one part twice'
    | 'before its turn'
    | 'outside its wave'
    | 'peers at once'
    | 'broken'
    | 'not at one time'
    | 'crew'
    | 'lock'
    | 'pilots'
    | 'not there';
  readonly wave: number;
  readonly detail: string;
}

type Truth = 'yes' | 'no' | 'unknown';
type Places = ReadonlyMap<string, Standing>;

/**
 * Checks an order as it is shown (docs/reckoning.md 14), sharing nothing with what finds it: every part goes on from where it stands,
 * each wave begins when the one before has ended, every mix on the way - with only some of a wave's steps made, too - keeps every pairing
 * that can be kept, what is bound begins on one day, and no crew has more under work than it can watch. Returns all faults.
 */
export function verifyOrder(order: ComponentOrder, terms: VerifyOrderTerms): OrderFault[] {
  const faults: OrderFault[] = [];
  const systemsOf = new Map(order.parts.flatMap((p, i) => p.systems.map((s) => [s, i] as const)));
  const links = terms.links.filter((l) => systemsOf.has(l.own) && systemsOf.has(l.other));
  const start: Places = new Map(order.parts.flatMap((p) => p.systems.map((s) => [s, p.start] as const)));
  const pairs = new Pairs(terms, links, start);
  let at = start;
  let mended: ReadonlySet<VerifyLink> = new Set();
  let ended: Ended = { day: -Infinity, isOpen: false };
  order.waves.forEach((wave, w) => {
    const fault = (code: OrderFault['code'], detail: string): void =>
      void faults.push({ code, wave: w, detail });
    checkShape(order, wave, { at, ended, fault });
    for (const link of pairs.brokenIn(order, wave, { at, mended }))
      fault('broken', `${link.pairing}: ${link.own}, ${link.other}`);
    for (const [a, b] of peersAtOnce(order, wave, terms, links)) fault('peers at once', `${a}, ${b}`);
    at = moved(order, at, wave.steps);
    mended = pairs.mendedBy(at, mended);
    ended = endOf(order, wave, terms);
  });
  faults.push(
    ...crewFaults(order, terms),
    ...lockFaults(order, terms.locks ?? []),
    ...roundFaults(order),
    ...pilotFaults(order, terms)
  );
  order.parts.forEach(({ fate, goal, systems: [first = ''] }) => {
    const there = at.get(first);
    if (fate === 'reached' && (there?.release !== goal?.release || there?.edition !== goal?.edition))
      faults.push({ code: 'not there', wave: order.waves.length, detail: first });
  });
  return faults;
}

/** When a wave is over; `isOpen`: what lies in a window may follow on that very day, from the minute on. */
interface Ended {
  readonly day: Day;
  readonly minute?: number;
  readonly isOpen: boolean;
}

function endOf(order: ComponentOrder, { steps, last }: OrderedWave, terms: VerifyOrderTerms): Ended {
  const ends = steps.flatMap((s) => s.rounds.map((r) => r.at?.ends));
  const known = ends.flatMap((e) => e ?? []);
  const isWatched = steps.some((s) =>
    (order.parts[s.part]?.systems ?? []).some((id) => terms.watches?.(id) ?? false)
  );
  return {
    day: last,
    ...(known.length > 0 ? { minute: Math.max(...known) } : {}),
    isOpen: known.length === ends.length && !isWatched
  };
}

function checkShape(
  order: ComponentOrder,
  wave: OrderedWave,
  {
    at,
    ended,
    fault
  }: { at: Places; ended: Ended; fault: (code: OrderFault['code'], detail: string) => void }
): void {
  const seen = new Set<number>();
  for (const step of wave.steps) {
    const [first = ''] = order.parts[step.part]?.systems ?? [];
    if (seen.has(step.part)) fault('one part twice', first);
    seen.add(step.part);
    const here = at.get(first);
    if (here?.release !== step.from.release || here.edition !== step.from.edition)
      fault('starts elsewhere', first);
    const begins = Math.min(...step.rounds.map((r) => r.at?.begins ?? -Infinity));
    const isBehind = step.first > ended.day || (ended.isOpen && begins >= (ended.minute ?? Infinity));
    const isEarly = begins > -Infinity && begins < (ended.minute ?? -Infinity);
    if (!order.isSingle && (!isBehind || isEarly)) fault('before its turn', first);
    const days = step.rounds.flatMap((r) => [r.first, r.last]);
    if (step.first < wave.first || step.last > wave.last || days.some((d) => d > step.last))
      fault('outside its wave', first);
  }
  for (const set of wave.bound) {
    const begins = wave.steps
      .filter((s) => set.includes(s.part))
      .map((s) => `${s.first} ${s.rounds[0]?.at?.begins ?? ''}`);
    if (new Set(begins).size > 1) fault('not at one time', set.join());
  }
}

const moved = (order: ComponentOrder, at: Places, steps: readonly OrderedStep[]): Places =>
  new Map([
    ...at,
    ...steps.flatMap((s) => (order.parts[s.part]?.systems ?? []).map((system) => [system, s.to] as const))
  ]);

class Pairs {
  readonly #terms: VerifyOrderTerms;
  readonly #links: readonly VerifyLink[];
  readonly #start: Places;

  constructor(terms: VerifyOrderTerms, links: readonly VerifyLink[], start: Places) {
    this.#terms = terms;
    this.#links = links;
    this.#start = start;
  }

  /** Links that some state of a wave breaks: each end moved or not, whatever is bound together moved together. */
  brokenIn(
    order: ComponentOrder,
    wave: OrderedWave,
    { at, mended }: { readonly at: Places; readonly mended: ReadonlySet<VerifyLink> }
  ): VerifyLink[] {
    const stepOf = new Map(
      wave.steps.flatMap((s) => (order.parts[s.part]?.systems ?? []).map((system) => [system, s] as const))
    );
    const isBound = (a: OrderedStep, b: OrderedStep): boolean =>
      wave.bound.some((set) => set.includes(a.part) && set.includes(b.part));
    return this.#links.filter((link) => {
      const [own, other] = [stepOf.get(link.own), stepOf.get(link.other)];
      const states: [boolean, boolean][] = [
        [true, false],
        [false, true],
        [true, true]
      ];
      return states.some(([x, y]) => {
        if ((x && !own) || (y && !other)) return false;
        if (own && other && isBound(own, other) && x !== y) return false;
        const places = {
          own: (x ? own?.to : undefined) ?? (at.get(link.own) as Standing),
          other: (y ? other?.to : undefined) ?? (at.get(link.other) as Standing)
        };
        return !this.#isAllowed(link, places, { at, mended });
      });
    });
  }

  #isAllowed(
    link: VerifyLink,
    { own, other }: { readonly own: Standing; readonly other: Standing },
    { at, mended }: { readonly at: Places; readonly mended: ReadonlySet<VerifyLink> }
  ): boolean {
    if (this.#truth(link, own, other) === 'yes') return true;
    const [ownStart, otherStart] = [this.#start.get(link.own), this.#start.get(link.other)];
    if (!ownStart || !otherStart || mended.has(link)) return false;
    if (this.#truth(link, ownStart, otherStart) === 'yes') return false;
    const isPeer = this.#pairing(link)?.kind === 'peer of';
    if (own.release === ownStart.release && (!isPeer || other.release === otherStart.release)) return true;
    const before = this.#distance(link, at.get(link.own) as Standing, at.get(link.other) as Standing);
    const after = this.#distance(link, own, other);
    return before !== undefined && after !== undefined && after < before;
  }

  mendedBy(at: Places, mended: ReadonlySet<VerifyLink>): ReadonlySet<VerifyLink> {
    const truth = (link: VerifyLink, places: Places): Truth =>
      this.#truth(link, places.get(link.own) as Standing, places.get(link.other) as Standing);
    return new Set([
      ...mended,
      ...this.#links.filter((l) => truth(l, this.#start) === 'no' && truth(l, at) === 'yes')
    ]);
  }

  #pairing({ own, pairing }: VerifyLink) {
    return this.#terms.productOf(own)?.pairings?.find((p) => p.id === pairing);
  }

  #distance(link: VerifyLink, own: Standing, other: Standing): number | undefined {
    if (this.#pairing(link)?.apart === undefined) return undefined;
    const ids = (this.#terms.productOf(link.own)?.releases ?? []).map((r) => r.id);
    return Math.abs(ids.indexOf(own.release) - ids.indexOf(other.release));
  }

  #demanded(
    id: string,
    { product, own }: { readonly product: Product; readonly own: Standing },
    other: { readonly product: Product; readonly own: Standing }
  ): Truth {
    const asked = product.requirements?.find((r) => r.id === id);
    const range = typeof asked?.needs === 'string' ? DEMAND.exec(asked.needs)?.[1] : undefined;
    if (!asked || range === undefined) return 'unknown';
    return !isIn(asked.at, product, own) || isIn(range, other.product, other.own) ? 'yes' : 'no';
  }

  #truth(link: VerifyLink, own: Standing, other: Standing): Truth {
    const [product, there] = [this.#terms.productOf(link.own), this.#terms.productOf(link.other)];
    const pairing = this.#pairing(link);
    if (!product || !there) return 'unknown';
    if (!pairing) return this.#demanded(link.pairing, { product, own }, { product: there, own: other });
    const distance = this.#distance(link, own, other);
    if (distance !== undefined) return distance <= (pairing.apart ?? 0) ? 'yes' : 'no';
    const fits = pairing.fits ?? [];
    const lines = fits.filter((f) => isIn(f.own, product, own));
    if (lines.some((f) => isIn(f.other, there, other))) return 'yes';
    const isNamed = lines.length > 0 && fits.some((f) => isIn(f.other, there, other));
    return pairing.table === 'complete' || isNamed ? 'no' : 'unknown';
  }
}

/** A requirement on the releases of all that is linked, or of the lowest, as it is written. */
const DEMAND = /^\s*(?:every|lowest) linked \S+ \(release in \((.*)\)\)\s*$/;

function isIn(text: string, of: Product, place: Standing): boolean {
  const parsed = parseRange(text);
  const position = { release: place.release, patch: place.patch || BASE_PATCH };
  return 'range' in parsed && matchesRange(sequenceOf(of), parsed.range, position);
}

/**
 * Of each group the pilots are through, and the days they are watched, before any other of it begins: some parts, of exactly so many
 * systems - or all there are -, have ended before the rest.
 */
function pilotFaults({ isSingle, parts, waves }: ComponentOrder, terms: VerifyOrderTerms): OrderFault[] {
  if (isSingle) return [];
  const groups = new Map<
    string,
    { asked: VerifyPilots; own: { systems: number; first: Day; last: Day }[] }
  >();
  parts.forEach(({ systems }, part) => {
    const asked = terms.pilotsOf?.(systems[0] ?? '');
    const steps = waves.flatMap((w) => w.steps.filter((s) => s.part === part));
    if (!asked || steps.length === 0) return;
    const group = groups.get(asked.group) ?? { asked, own: [] };
    groups.set(asked.group, group);
    const [first, last] = [Math.min(...steps.map((s) => s.first)), Math.max(...steps.map((s) => s.last))];
    group.own.push({ systems: systems.length, first, last });
  });
  return [...groups.values()].flatMap(({ asked, own }) => {
    const sorted = [...own].sort((a, b) => a.first - b.first || a.last - b.last);
    const count = (some: typeof own): number => some.reduce((sum, p) => sum + p.systems, 0);
    const isKept = sorted.some((_, i) => {
      const [pilots, others] = [sorted.slice(0, i + 1), sorted.slice(i + 1)];
      const ended = Math.max(...pilots.map((p) => p.last));
      return (
        count(pilots) === Math.min(asked.systems, count(own)) &&
        others.every((o) => o.first > ended + asked.watchDays)
      );
    });
    return isKept ? [] : [{ code: 'pilots' as const, wave: 0, detail: asked.group }];
  });
}

/** Peers that may not change together, in one wave. */
function peersAtOnce(
  order: ComponentOrder,
  wave: OrderedWave,
  terms: VerifyOrderTerms,
  links: readonly VerifyLink[]
): [string, string][] {
  const moving = new Set(wave.steps.flatMap((s) => order.parts[s.part]?.systems ?? []));
  return links.flatMap(({ own, other, pairing }): [string, string][] => {
    const found = terms.productOf(own)?.pairings?.find((p) => p.id === pairing);
    return found?.kind === 'peer of' && !found.together && moving.has(own) && moving.has(other)
      ? [[own, other]]
      : [];
  });
}

/** Steps on other days than somebody has laid down, or beside what they are never to go together with. */
function lockFaults(order: ComponentOrder, locks: readonly OrderLock[]): OrderFault[] {
  const of = ({ part }: OrderedStep): readonly string[] => order.parts[part]?.systems ?? [];
  const keeps = (step: OrderedStep, wave: OrderedWave, { must }: OrderLock): boolean => {
    if ('on' in must) return formatDay(step.first) === must.on;
    if ('notBefore' in must) return formatDay(step.first) >= must.notBefore;
    if ('notAfter' in must) return formatDay(step.last) <= must.notAfter;
    const others = order.waves
      .flatMap((w) => w.steps.map((s) => ({ s, isSameWave: w === wave })))
      .filter(({ s }) => s.part !== step.part && of(s).some((id) => must.apartFrom.includes(id)));
    return !others.some(({ s, isSameWave }) => isSameWave || sharesWindow(s, step));
  };
  return order.waves.flatMap((wave, w) =>
    wave.steps.flatMap((step) =>
      locks
        .filter((l) => l.systems.some((id) => of(step).includes(id)))
        .filter((l) => l.release === undefined || l.release === step.to.release)
        .filter((l) => !keeps(step, wave, l))
        .map((l) => ({ code: 'lock' as const, wave: w, detail: l.id }))
    )
  );
}

/** Whether rounds of two steps lie in one occurrence of a window. */
const sharesWindow = (a: OrderedStep, b: OrderedStep): boolean =>
  a.rounds.some((x) =>
    b.rounds.some((y) => x.at && y.at && x.at.window === y.at.window && x.at.closes === y.at.closes)
  );

/** What hangs on nothing goes round by round: in each a step begins when the one before has ended. */
function roundFaults({ isSingle, waves, parts }: ComponentOrder): OrderFault[] {
  if (!isSingle) return [];
  return waves.flatMap((wave, w) => {
    const [step, before] = [wave.steps[0], waves[w - 1]?.steps[0]];
    const isEarly = step?.rounds.some((round, r) => {
      const ended = before?.rounds[r];
      if (!ended) return false;
      return round.at && ended.at ? round.at.begins < ended.at.ends : round.first < ended.last;
    });
    return isEarly ? [{ code: 'before its turn' as const, wave: w, detail: parts[0]?.id ?? '' }] : [];
  });
}

/** Windows whose people have more under work at some minute than they can watch. */
function crewFaults({ waves }: ComponentOrder, terms: VerifyOrderTerms): OrderFault[] {
  const blocks = waves.flatMap((wave, w) =>
    wave.steps.flatMap((s) => s.rounds.flatMap((r) => (r.at ? [{ w, systems: r.systems, ...r.at }] : [])))
  );
  return blocks.flatMap((block) => {
    const crew = terms.crewOf(block.window);
    const under = blocks
      .filter((b) => b.window === block.window && b.begins <= block.begins && block.begins < b.ends)
      .reduce((sum, b) => sum + b.systems, 0);
    return crew !== undefined && under > crew
      ? [{ code: 'crew' as const, wave: block.w, detail: `${block.window}: ${under} of ${crew}` }]
      : [];
  });
}
