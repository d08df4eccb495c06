import type { WayStep } from '../../src/core/estate/schema';
import { modelOf } from '../../src/core/compile/model';
import type { Catalogue, Product } from '../../src/core/catalogue/schema';
import { settleCatalogue } from '../../src/core/catalogue/settle';
import type { Evidence, Seen } from '../../src/core/condition/evidence';
import { FactKinds } from '../../src/core/condition/fact-kind';
import { seenOfFact } from '../../src/core/estate/facts';
import { startAlong } from '../../src/core/route/along';
import { findChosen } from '../../src/core/route/search/choose';
import { routeOf } from '../../src/core/route/tell/explain';
import { Together } from '../../src/core/pairing/together';
import { pairedBy, type PairedByRoutes } from '../../src/core/plan/paired';
import { unbeatenOf, type Label } from '../../src/core/route/search/label';
import { NOTHING, type Place, targetKey } from '../../src/core/compile/place';
import { findReach } from '../../src/core/route/search/reach';
import { findRoutes } from '../../src/core/route/search/search';
import { termsOf, termsWith, type Terms } from '../../src/core/route/terms';
import { isCounted, type Route, type Verdict } from '../../src/core/route/types';
import { type Asking } from '../../src/core/bind/asking';
import { type Standing } from '../../src/core/version/standing';
import { isBetter, verdictOf, verdictOfLabel } from '../../src/core/route/search/verdict';
import { verifyTermsOf, type VerifyTerms } from '../../src/core/verify/verify-terms';
import { foldText } from '../../src/core/version/words';
import { NO_NEEDS } from './needs';
import { WINDOWS_FROM, type World, type WorldCalendar } from './worlds';
import { Calendar, type WindowRule } from '../../src/core/date/calendar';
import { formatDay } from '../../src/core/date/day';

export interface SearchedTarget {
  readonly sure: Verdict;
  readonly best: Verdict;
  readonly bestWithoutCells: Verdict;
  readonly chosen?: Route;
  readonly all: readonly Route[];
  /** The unbeaten of both runs. */
  readonly list: readonly Route[];
}

export interface Solved {
  readonly terms: Terms;
  readonly start: Place;
  readonly targets: ReadonlyMap<string, SearchedTarget>;
  /** Of the sure run. */
  readonly met: ReadonlySet<string>;
  readonly expanded: number;
  readonly cut: boolean;
}

const KINDS = new FactKinds();

/** What a world says of its system. */
function askingOfWorld(world: World): Asking {
  const needs = world.needs ?? NO_NEEDS;
  const evidence = (standing: Standing): Evidence => ({
    fact: (id): Seen =>
      id === 'edition' || id === 'architecture'
        ? { kind: 'known', value: standing[id] }
        : id === 'activated' && world.activated !== 'unknown'
          ? { kind: 'known', value: world.activated === 'yes' ? 'on' : 'off' }
          : seenOfFact(needs.facts[id], undefined, KINDS.find(id)),
    listed: () => 'unknown',
    inRange: () => 'unknown',
    linked: () => 'unknown'
  });
  return {
    evidence,
    companions: needs.companions.map(({ name, essential }) => ({
      name: foldText(name),
      ...(essential === undefined ? {} : { essential })
    })),
    companionsWhole: needs.whole,
    nodes: needs.nodes.map((n) => new Map(Object.entries(n).map(([id, f]) => [id, seenOfFact(f)]))),
    isStale: (id) => needs.stale.has(id) && 'value' in (needs.facts[id] ?? {}),
    hasStale: needs.stale.size > 0,
    checked: needs.checked,
    decided: { accepted: needs.accepted, waived: needs.waived, ignored: needs.ignored }
  };
}

/** The product as planning reads it: what is stated in several ways settled. */
function settledOf({ product, countsExpected }: World): Product {
  const catalogue: Catalogue = {
    format: 'orange-stair-catalogue',
    version: 3,
    name: 'w',
    products: [product]
  };
  return settleCatalogue(catalogue, [], countsExpected).catalogue.products[0] as Product;
}

export function placeOf(terms: Terms, { release, patch, edition, architecture }: Standing): Place {
  const at = release === '' ? NOTHING : (terms.model.sequence.indexById.get(release) ?? 0);
  return {
    release: at,
    patch: Math.max(0, terms.model.releases[at]?.patches.findIndex((p) => p.id === patch) ?? 0),
    edition: terms.model.editions.indexOf(edition),
    architecture: terms.model.architectures.indexOf(architecture)
  };
}

/** The terms of a world, with its gates where it hangs on something. */
export function termsOfWorld(world: World): Terms {
  const terms = plainTermsOf(world);
  const { net } = world;
  if (!net) return terms;
  const paired = new Map<string, PairedByRoutes>();
  const pairedOf = (id: string): PairedByRoutes | undefined => {
    const member = net.members.get(id);
    const known = paired.get(id);
    if (known || !member) return known ?? (id === 's' ? mainOf(terms, world) : undefined);
    const own = plainTermsOf(member.world);
    const made = pairedBy(id, own, {
      start: member.start && placeOf(own, member.start),
      target: member.target && placeOf(own, { ...member.target, patch: 'base' }),
      stays: member.stays
    });
    paired.set(id, made);
    return made;
  };
  const together = new Together(pairedOf, (id) => {
    const links = net.links.get(id) ?? [];
    return links === 'unknown' ? links : links.flatMap((to) => pairedOf(to) ?? []);
  });
  return { ...terms, gates: together.gatesOf('s') };
}

const mainOf = (terms: Terms, world: World): PairedByRoutes =>
  pairedBy('s', terms, { start: placeOf(terms, world.start), target: undefined, stays: false });

function plainTermsOf(world: World): Terms {
  const asking = askingOfWorld(world);
  return {
    ...termsOf(modelOf(settledOf(world)), {
      goal: world.goal,
      countsExpected: world.countsExpected,
      today: world.today,
      nodes: world.nodes,
      activated: world.activated,
      held: world.held,
      ...(world.calendar ? { calendar: calendarOfWorld(world.calendar) } : {}),
      ...(world.wayBackMinutes === undefined ? {} : { wayBackMinutes: world.wayBackMinutes }),
      asking
    }),
    barred: new Map([...(world.barred ?? [])].map((id) => [id, undefined])),
    lifted: world.lifted ?? new Set(),
    learned: world.learned ?? new Map(),
    along: startAlong(world.facts, asking.nodes)
  };
}

/** Runs the search on a world and gives what brute force gives. */
export function solveBySearch(world: World, memoOf?: () => Map<string, never>): Solved {
  const made = termsOfWorld(world);
  const terms: Terms = memoOf ? { ...made, memo: memoOf() } : made;
  const { model } = terms;
  const start = placeOf(terms, world.start);
  const sure = findRoutes(terms, start, 'sure');
  const best = findRoutes(terms, start, 'best');
  const reach = findReach(terms, start);
  const targets = new Map<string, SearchedTarget>();
  for (const r of model.releases)
    for (const edition of r.editions)
      for (const architecture of r.architectures) {
        const key = targetKey({ release: r.index, edition, architecture });
        const labels = sure.routes.get(key) ?? [];
        const others = best.routes.get(key) ?? [];
        targets.set(
          [r.release.id, model.editions[edition], model.architectures[architecture]].join(' '),
          searchedOf(terms, labels, others, reach.routes.get(key) ?? [])
        );
      }
  const { met, expanded } = sure;
  return { terms, start, targets, met, expanded, cut: sure.cut || best.cut || reach.cut };
}

/** The same asked for one target at a time, as whole plans ask. */
export function chooseBySearch(
  world: World,
  terms: Terms,
  key: string
): { verdict: Verdict; best: Verdict; line?: string } {
  const [release = '', edition = '', architecture = ''] = key.split(' ');
  const target = placeOf(terms, { release, patch: 'base', edition, architecture });
  const ends = { start: placeOf(terms, world.start), target };
  const { verdict, label, met } = findChosen(terms, ends, 'sure');
  // As whole plans do: the best run is asked where the sure one met something unknown.
  const perhaps = met.size > 0 ? findChosen(terms, ends, 'best').verdict : verdict;
  const best = isBetter(perhaps, verdict) ? perhaps : verdict;
  return { verdict, best, ...(label ? { line: lineOf(routeOf(terms, label)) } : {}) };
}

/** Days from which a target is chosen one after the other; not in their order, so that some lie before what was chosen first. */
const LATER = [0, 5, 1, 2, 3, 8, 13, 21, 34, 60, 61, 62, 200];

/**
 * The first of several days on which what is chosen with what was remembered of the others is not what is chosen without; and how many
 * choices were those of other days.
 */
export function chooseOnOtherDays(
  world: World,
  key: string
): { readonly differs?: number; readonly shared: number } {
  const [release = '', edition = '', architecture = ''] = key.split(' ');
  const remembering = termsOfWorld(world);
  const target = placeOf(remembering, { release, patch: 'base', edition, architecture });
  const ends = { start: placeOf(remembering, world.start), target };
  const ways = new Set<Label['moves']>();
  let shared = 0;
  for (const by of LATER) {
    const terms = { ...remembering, from: world.today + by };
    const [one, afresh] = [terms, { ...terms, memo: new Map() }].map((t) => {
      const { verdict, label } = findChosen(t, ends, 'sure');
      return { label, told: JSON.stringify([verdict, label && routeOf(t, label), label?.criteria.waits]) };
    });
    if (one?.told !== afresh?.told) return { differs: by, shared };
    if (one?.label && ways.has(one.label.moves)) shared++;
    if (one?.label) ways.add(one.label.moves);
  }
  return { shared };
}

/** The route that comes first on a way somebody has chosen. */
export function followBySearch(world: World, terms: Terms, key: string, way: readonly WayStep[]): string {
  const [release = '', edition = '', architecture = ''] = key.split(' ');
  const target = placeOf(terms, { release, patch: 'base', edition, architecture });
  const { routes } = findRoutes(termsWith(terms, { way }), placeOf(terms, world.start), 'sure');
  const label = routes.get(targetKey(target))?.find((l) => l.moves.length === way.length);
  return label ? lineOf(routeOf(terms, label)) : 'none';
}

function searchedOf(
  terms: Terms,
  labels: readonly Label[],
  others: readonly Label[],
  overCells: readonly Label[]
): SearchedTarget {
  const verdict = verdictOf(terms, labels);
  const chosen = labels.find((l) => verdict === 'not yet' || verdictOfLabel(terms, l) === verdict);
  return {
    sure: verdict,
    best: verdictOf(terms, [...labels, ...others, ...overCells]),
    bestWithoutCells: verdictOf(terms, [...labels, ...others]),
    ...(chosen ? { chosen: routeOf(terms, chosen) } : {}),
    all: labels.map((l) => routeOf(terms, l)),
    list: unbeatenOf([...labels, ...others]).map((l) =>
      routeOf(terms, l, others.includes(l) ? 'best' : 'sure')
    )
  };
}

export function verifierOf(world: World): VerifyTerms {
  const { net, id = 's', calendar, ...rest } = world;
  return verifyTermsOf({
    ...rest,
    ...(calendar
      ? {
          calendar: {
            ...(calendar.windows ? { windows: calendar.windows.map(windowRule) } : {}),
            freezes: calendar.freezes
          }
        }
      : {}),
    product: settledOf(world),
    system: id,
    asking: askingOfWorld(world),
    kinds: KINDS,
    linked: () => {
      const links = net?.links.get(id) ?? [];
      if (links === 'unknown') return links;
      return links.flatMap((to) => {
        const member = net?.members.get(to);
        if (!member || !net) return [];
        const terms = verifierOf({ ...member.world, net, id: to });
        return [{ system: to, terms, start: member.start, stays: member.stays }];
      });
    }
  });
}

/** A route in one line, for comparing two implementations' choices. */
export function lineOf(route: Route): string {
  return route.steps
    .map((s) => {
      const days = `${s.days.first}${s.days.exact ? '' : '?'}`;
      if (s.kind === 'patch') return `patch ${s.to.patch} ${s.days.first}`;
      if (s.kind === 'work') return `work ${s.id} ${s.carefulMinutes}${s.needsKey ? ' key' : ''}`;
      return isCounted(s)
        ? `${s.id} ${s.to.release}/${s.to.patch} ${s.to.edition} ${s.to.architecture} ${s.right.right ?? ''} ${s.days.first}-${s.days.last}${s.days.exact ? '' : '?'}${s.at ? ` ends ${s.at.ends} turns ${s.at.turnBy}` : ''}${s.nodesAt ? ` nodes ${s.nodesAt.map((n) => n.ends).join(' ')}` : ''}`
        : `${s.kind} ${s.id} ${days}${s.kind === 'cure' && s.ifNeeded ? ' if needed' : ''}`;
    })
    .concat(
      `${route.least.costCents}-${route.costCents} ${route.least.carefulMinutes}-${route.carefulMinutes}`
    )
    .join('; ');
}

const DAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];

/** A window of a world as a rule; it begins on the first of its weekdays. */
function windowRule({
  id,
  hour,
  weekdays,
  minutes,
  crew
}: NonNullable<WorldCalendar['windows']>[number]): WindowRule {
  const first =
    weekdays.map((d) => WINDOWS_FROM + ((d - ((WINDOWS_FROM + 3) % 7) + 7) % 7)).sort((a, b) => a - b)[0] ??
    WINDOWS_FROM;
  return {
    id,
    zone: 'UTC',
    start: `${formatDay(first)}T${String(hour).padStart(2, '0')}:00`,
    rule: `FREQ=WEEKLY;BYDAY=${weekdays.map((d) => DAYS[d]).join(',')}`,
    minutes,
    ...(crew === undefined ? {} : { crew })
  };
}

const calendarOfWorld = ({ windows, freezes }: WorldCalendar): Calendar =>
  new Calendar(windows?.map(windowRule), freezes);
