import { type Case, startsOf } from '../bind';
import { idsOfPlace, NOTHING, type Place, type ProductModel } from '../compile';
import { parseDay } from '../date';
import { finishByOf } from '../deadline';
import { compareText } from '../kit';
import { fitsTogether } from '../pairing';
import { type CasePlan, isThere, lookAt, type Planning, travelInRounds, wayfarerOf } from '../plan';
import {
  clauseKey,
  type Journey,
  type Label,
  listWays,
  type Move,
  type Party,
  type Terms,
  termsWith,
  wayOf
} from '../route';
import { type LinkedDemand, linkedDemandsOf } from './linked-demands';
import { type LinkEnd, type Links, linksOf, pilotGroupOf, PILOTS } from './links';
import { choosePilots } from './pilots';
import type { Bond, Part, PartLock, PartNode, Pilots } from './problem';

/** A part with what its steps are laid by. */
export interface MovingPart extends Part {
  readonly plan: CasePlan;
  readonly model: ProductModel;
  readonly terms: Terms;
  readonly places: readonly Place[];
  /** The move onto each node; none onto the first. */
  readonly moves: readonly (Move | undefined)[];
  /** Not every way was looked at. */
  readonly cut: boolean;
  /** It hangs on something of which nobody has told where it stands, or what it is: it stays where it is. */
  readonly isUnclear?: boolean;
}

/** Parts that hang on each other, whether they move or not. */
export interface Component {
  readonly parts: readonly MovingPart[];
  readonly bonds: readonly Bond[];
  /** Indexes of parts that never go together, by a lock. */
  readonly apart: readonly (readonly [number, number])[];
  /** The locks that say so, in turn. */
  readonly apartBy: readonly (readonly string[])[];
  readonly pilots: readonly Pilots[];
  /** It hangs on nothing, and goes its chosen way whole. */
  readonly single?: Journey & { readonly party: Party };
}

/** The components of an estate that pairings hold together, by the id of their first system. Cost: a list of ways a part that moves. */
export function findComponents(planning: Planning, plans: readonly CasePlan[]): Component[] {
  const cases = new Map(planning.gather().cases.flatMap((c) => c.systems.map((s) => [s, c] as const)));
  const planOf = new Map(plans.flatMap((p) => p.systems.map((s) => [s, p] as const)));
  const { links, unclear } = linksOf(planning, planOf);
  const found: Component[] = [];
  const seen = new Set<string>();
  for (const id of [...links.keys()].sort(compareText)) {
    if (seen.has(id)) continue;
    const members = [id];
    seen.add(id);
    for (const member of members)
      for (const { other } of links.get(member) ?? [])
        if (!seen.has(other)) {
          seen.add(other);
          members.push(other);
        }
    const component = componentOf(planning, members, { cases, planOf, links, unclear });
    if (component) found.push(component);
  }
  return found;
}

interface Around extends Links {
  readonly cases: ReadonlyMap<string, Case>;
  readonly planOf: ReadonlyMap<string, CasePlan>;
}

/** Undefined where nothing of it moves. */
function componentOf(
  planning: Planning,
  members: readonly string[],
  { cases, planOf, links, unclear }: Around
): Component | undefined {
  const groups = new Map<string, string[]>();
  for (const id of [...members].sort(compareText)) {
    const ends = [
      ...new Set(
        (links.get(id) ?? [])
          .filter((l) => l.pairing !== PILOTS)
          .map((l) => `${l.pairing} ${l.isOwn} ${l.other}`)
      )
    ].sort();
    const locks = (planning.estate.locks ?? []).flatMap((l) => (l.systems.includes(id) ? [l.id] : []));
    const key = JSON.stringify([cases.get(id)?.id, ends, locks]);
    groups.set(key, [...(groups.get(key) ?? []), id]);
  }
  const whole = [...groups.values()].flatMap((systems): MovingPart[] => {
    const [first = ''] = systems;
    const [one, plan] = [cases.get(first), planOf.get(first)];
    const part = one && plan && partFrom(planning, systems, { one, plan });
    if (!part) return [];
    const isUnclear = systems.some(
      (id) =>
        unclear.has(id) ||
        (links.get(id) ?? []).some((end) => end.pairing !== PILOTS && standsUnclear(planning, end.other))
    );
    return [isUnclear ? rooted(part) : part];
  });
  if (whole.every((p) => p.nodes.length < 2)) return undefined;
  const { parts, pilots } = pilotedOf(planning, whole, cases);
  const partOf = new Map(parts.flatMap((p, i) => p.systems.map((s) => [s, i] as const)));
  return { parts, bonds: bondsOf(parts, partOf, links), ...apartOf(planning, partOf), pilots };
}

/** Parts with those that go first cut off, where a goal asks for pilots and they move. */
function pilotedOf(
  planning: Planning,
  whole: readonly MovingPart[],
  cases: Around['cases']
): Pick<Component, 'parts' | 'pilots'> {
  const asked = whole.map((part) => {
    const wanted = part.nodes.length < 2 || part.stays ? undefined : cases.get(part.id)?.goal.pilots;
    const group = wanted && pilotGroupOf(planning, part.id);
    return {
      part,
      id: part.id,
      systems: part.systems,
      wanted: wanted?.systems ?? 0,
      watchDays: wanted?.watchDays ?? 0,
      ...(group === undefined ? {} : { group })
    };
  });
  const cut = (p: (typeof asked)[number], systems: readonly string[]): typeof p => ({
    ...p,
    id: systems[0] ?? '',
    systems,
    part: {
      ...p.part,
      id: systems[0] ?? '',
      systems,
      nodes: p.part.nodes.map((n, i) => ({ ...n, outage: minutesOf(p.part.moves[i]) * systems.length }))
    }
  });
  const { parts, pilots } = choosePilots(asked, cut);
  const isFirst = new Set(pilots.flatMap((p) => p.first));
  const marked = parts.map(({ part }, i) =>
    isFirst.has(i) && part.alike !== undefined ? { ...part, alike: `pilot ${part.alike}` } : part
  );
  return { parts: marked, pilots };
}

function apartOf(
  planning: Planning,
  partOf: ReadonlyMap<string, number>
): Pick<Component, 'apart' | 'apartBy'> {
  const found = new Map<string, { readonly pair: readonly [number, number]; readonly by: Set<string> }>();
  for (const { id, systems, must } of planning.estate.locks ?? []) {
    if (!('apartFrom' in must)) continue;
    for (const a of systems.flatMap((s) => partOf.get(s) ?? []))
      for (const b of must.apartFrom.flatMap((s) => partOf.get(s) ?? [])) {
        if (a === b) continue;
        const pair = [Math.min(a, b), Math.max(a, b)] as const;
        const known = found.get(pair.join()) ?? { pair, by: new Set() };
        known.by.add(id);
        found.set(pair.join(), known);
      }
  }
  const all = [...found.values()];
  return { apart: all.map((f) => f.pair), apartBy: all.map((f) => [...f.by]) };
}

/** What locks bind a part's steps to. */
function locksOf(planning: Planning, system: string, model: ProductModel): PartLock[] {
  return (planning.estate.locks ?? []).flatMap(({ id, systems, release, must }): PartLock[] => {
    if (!systems.includes(system) || 'apartFrom' in must) return [];
    const at = release === undefined ? undefined : model.releases.findIndex((r) => r.release.id === release);
    if (at === -1) return [];
    const on = { id, ...(at === undefined ? {} : { release: at }) };
    const day = parseDay(Object.values(must)[0] ?? '');
    if (day === undefined) return [];
    return [
      'notAfter' in must ? { ...on, to: day } : { ...on, from: day, ...('on' in must ? { isOn: true } : {}) }
    ];
  });
}

/**
 * What hangs on nothing and is worked on by people of whom there are only so many: each case on its chosen way. `linked`: systems of
 * components, which are none of these.
 */
export function findSingles(
  planning: Planning,
  plans: readonly CasePlan[],
  linked: ReadonlySet<string>
): Component[] {
  const cases = new Map(planning.gather().cases.map((c) => [c.id, c]));
  const inRounds = travelInRounds(planning, plans);
  return plans.flatMap((plan): Component[] => {
    const one = cases.get(plan.id);
    const systems = plan.systems.filter((s) => !linked.has(s));
    if (!one || systems.length === 0 || planning.crewsOf(one.system).length === 0) return [];
    const way = inRounds.get(plan.id) ?? wayfarerOf(planning, plan, one);
    const model = planning.modelFor(one.system);
    const [start] = model ? startsOf(model, one.system) : [];
    if (!way || !model || !start) return [];
    const { terms, label } = way;
    const party = way.party ?? { systems: systems.length, pilots: 0, watchDays: 0, first: [] };
    const finishBy = finishByOf(plan.deadline);
    const locks = systems.flatMap((s) => locksOf(planning, s, model));
    const part: MovingPart = {
      id: systems[0] ?? '',
      systems,
      importance: plan.importance ?? 'normal',
      stays: false,
      ...(finishBy === Infinity ? {} : { deadline: finishBy }),
      ...treeOf(terms, start, [label], false),
      ...(locks.length > 0 ? { locks } : {}),
      plan,
      model,
      terms,
      cut: false
    };
    const own = { ...party, systems: systems.length, pilots: Math.min(party.pilots, systems.length) };
    return [
      {
        parts: [part],
        bonds: [],
        apart: [],
        apartBy: [],
        pilots: [],
        single: { terms, moves: label.moves, party: own }
      }
    ];
  });
}

/** Whether it cannot be told where a system stands; a machine with nothing on it stands nowhere. */
function standsUnclear(planning: Planning, id: string): boolean {
  const system = planning.system(id);
  const model = system && planning.modelFor(system);
  return !model || startsOf(model, system).length !== 1;
}

/** A part that makes no step. */
const rooted = (part: MovingPart): MovingPart => ({
  ...part,
  nodes: part.nodes.slice(0, 1).map((n) => ({ ...n, next: [] })),
  isUnclear: true
});

function partFrom(
  planning: Planning,
  systems: readonly string[],
  { one, plan }: { readonly one: Case; readonly plan: CasePlan }
): MovingPart | undefined {
  const system = planning.system(systems[0] ?? '');
  const model = system && planning.modelFor(system);
  const [start, other] = system && model ? startsOf(model, system) : [];
  if (!system || !model || !start || other || start.release === NOTHING) return undefined;
  const looking = plan.goal && lookAt(planning, { model, one: { ...one, system }, plan }, plan.goal);
  const asked = planning.unpairedTermsFor(model, { ...one, system });
  // What is asked of the releases of linked systems hangs on the order.
  const linked = linkedDemandsOf(model).filter((d) => planning.links.find(system, d.word)?.systems.length);
  const lifted = new Set(linked.map((d) => clauseKey({ code: 'requirement', subject: d.requirement })));
  const terms = termsWith(asked, { lifted });
  const stays = plan.goalPlan !== undefined && isThere(plan.goalPlan);
  const decided = plan.decidedWay?.stands === true ? plan.decidedWay.way : undefined;
  const { ways, cut } =
    stays || !looking
      ? { ways: [], cut: false }
      : listWays(decided ? termsWith(terms, { way: decided }) : terms, { start, target: looking.place });
  const chosen = plan.goalPlan?.route;
  const steps = chosen?.restsOn.length === 0 ? wayOf(chosen).map((s) => s.step) : undefined;
  const isChosen = (way: Label): boolean =>
    steps !== undefined && way.moves.length === steps.length && way.moves.every((m, i) => m.id === steps[i]);
  const first = ways.find(isChosen) ?? ways[0];
  const sorted = first ? [first, ...ways.filter((w) => w !== first)] : [];
  const tree = treeOf(terms, start, sorted, stays);
  const finishBy = finishByOf(plan.deadline);
  const locks = locksOf(planning, system.id, model);
  return {
    id: systems[0] ?? '',
    systems,
    importance: plan.importance ?? 'normal',
    stays: plan.goalFrom === 'stay' || plan.goalFrom === 'kept back',
    ...(finishBy === Infinity ? {} : { deadline: finishBy }),
    ...tree,
    nodes: tree.nodes.map((n, i) => ({ ...n, outage: minutesOf(tree.moves[i]) * systems.length })),
    ...(locks.length > 0 ? { locks } : {}),
    ...((terms.goal.watchDays ?? 0) > 0 ? { watches: true } : {}),
    alike: JSON.stringify([one.id, locks]),
    plan,
    model,
    terms,
    cut
  };
}

/** Careful minutes of a counted step. */
export const minutesOf = (move: Move | undefined): number =>
  (move?.hop?.hop ?? move?.change?.change)?.carefulMinutes ?? 0;

/** Ways that begin alike share what they begin with. */
function treeOf(
  terms: Terms,
  start: Place,
  ways: readonly Label[],
  isThere: boolean
): Pick<MovingPart, 'nodes' | 'places' | 'moves'> {
  const nodes: (PartNode & { readonly next: number[] })[] = [
    {
      before: undefined,
      next: [],
      release: start.release,
      isGoal: isThere,
      isChosen: true,
      mayRest: true,
      steps: 0
    }
  ];
  const places: Place[] = [start];
  const moves: (Move | undefined)[] = [undefined];
  const known = new Map<string, number>();
  ways.forEach((way, k) => {
    let at = 0;
    way.moves.forEach((move, i) => {
      const isGoal = i === way.moves.length - 1;
      const cures = move.asked.cures.map((c) => c.cure.id).join();
      const key = `${at} ${move.id} ${move.level} ${move.to.edition}.${move.to.architecture} ${cures} ${isGoal}`;
      const node = known.get(key);
      if (node !== undefined) return void (at = node);
      const end = terms.serviceEnd[move.to.release];
      known.set(key, nodes.length);
      nodes[at]?.next.push(nodes.length);
      nodes.push({
        before: at,
        next: [],
        release: move.to.release,
        isGoal,
        isChosen: k === 0,
        // Out of service it may only be passed through, within the pass days.
        isTimed: !isGoal && typeof end === 'number',
        mayRest: isGoal || terms.goal.passDays > 0 || typeof end !== 'number' || end > terms.today,
        steps:
          1 + (move.level === move.from.patch ? 0 : 1) + move.asked.cures.length + move.asked.cautions.length
      });
      places.push(move.to);
      moves.push(move);
      at = nodes.length - 1;
    });
  });
  return { nodes, places, moves };
}

function bondsOf(
  parts: readonly MovingPart[],
  partOf: ReadonlyMap<string, number>,
  links: ReadonlyMap<string, readonly LinkEnd[]>
): Bond[] {
  const bonds = new Map<string, Bond>();
  parts.forEach((part, own) => {
    for (const { other: system, pairing: id, isOwn } of links.get(part.id) ?? []) {
      const other = partOf.get(system);
      const model = part.model.needs.pairings.find((p) => p.pairing.id === id);
      const demand = linkedDemandsOf(part.model).find((d) => d.requirement === id);
      const there = other === undefined ? undefined : parts[other];
      if (!isOwn || other === undefined || !there) continue;
      if (demand) bonds.set(`${id} ${own} ${other}`, demandBond(demand, { parts, own, other }));
      if (!model) continue;
      const { kind, together = false, apart } = model.pairing;
      const isPeer = kind === 'peer of';
      // Peers that say the same of each other are bound once.
      const isSame = isPeer && part.model === there.model && apart !== undefined;
      const key = isSame && other < own ? `${id} ${other} ${own}` : `${id} ${own} ${other}`;
      if (bonds.has(key)) continue;
      bonds.set(key, {
        pairing: id,
        own,
        other,
        isPeer,
        together,
        holds: (x, y) =>
          fitsTogether(
            model,
            { model: part.model, place: part.places[x] as Place },
            { model: there.model, place: there.places[y] as Place }
          ),
        ...(apart === undefined
          ? {}
          : {
              distance: (x, y) => Math.abs((part.places[x]?.release ?? 0) - (there.places[y]?.release ?? 0))
            })
      });
    }
  });
  return [...bonds.values()];
}

function demandBond(
  demand: LinkedDemand,
  {
    parts,
    own,
    other
  }: { readonly parts: readonly MovingPart[]; readonly own: number; readonly other: number }
): Bond {
  const [a, b] = [parts[own] as MovingPart, parts[other] as MovingPart];
  return {
    pairing: demand.requirement,
    own,
    other,
    isPeer: false,
    together: false,
    holds: (x, y) => demand.holds(a.places[x] as Place, { model: b.model, place: b.places[y] as Place })
  };
}

/** Where a node of a part stands, in the catalogue's ids. */
export const idsOfNode = (part: MovingPart, node: number): ReturnType<typeof idsOfPlace> =>
  idsOfPlace(part.terms, part.places[node] as Place);
