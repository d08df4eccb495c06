import type { System } from '../estate';
import type { CasePlan, Planning } from '../plan';
import { linkedDemandsOf } from './linked-demands';

/** Another system that one hangs on, or that hangs on it. */
export interface LinkEnd {
  readonly other: string;
  /** The pairing of a product, and whether this end has it. */
  readonly pairing: string;
  readonly isOwn: boolean;
}

/** Links of each system, and those of which nobody has told what a pairing of theirs links them with. */
export interface Links {
  readonly links: ReadonlyMap<string, readonly LinkEnd[]>;
  readonly unclear: ReadonlySet<string>;
}

/** What pairings link each system with. */
export function linksOf(planning: Planning, planOf: ReadonlyMap<string, CasePlan>): Links {
  const links = new Map<string, LinkEnd[]>();
  const unclear = new Set<string>();
  const add = (id: string, end: LinkEnd): void => void links.set(id, [...(links.get(id) ?? []), end]);
  for (const { id, systems, must } of planning.estate.locks ?? []) {
    if (!('apartFrom' in must)) continue;
    const isKnown = (s: string): boolean => planOf.has(s);
    for (const a of systems.filter(isKnown))
      for (const b of must.apartFrom.filter(isKnown)) {
        if (a === b) continue;
        add(a, { other: b, pairing: `lock ${id}`, isOwn: true });
        add(b, { other: a, pairing: `lock ${id}`, isOwn: false });
      }
  }
  for (const { id } of planning.estate.systems) {
    const system = planning.system(id);
    const model = system && planOf.has(id) ? planning.modelFor(system) : undefined;
    for (const { requirement, word } of system && model ? linkedDemandsOf(model) : [])
      for (const { id: other } of planning.links.find(system as System, word)?.systems ?? []) {
        if (!planOf.has(other)) continue;
        add(id, { other, pairing: requirement, isOwn: true });
        add(other, { other: id, pairing: requirement, isOwn: false });
      }
    for (const { pairing } of model?.needs.pairings ?? []) {
      const partners = planning.partnersOf(id, pairing);
      if (partners === 'unknown') unclear.add(id);
      if (partners === 'unknown') continue;
      for (const { system: other } of partners) {
        if (!planOf.has(other)) continue;
        add(id, { other, pairing: pairing.id, isOwn: true });
        add(other, { other: id, pairing: pairing.id, isOwn: false });
      }
    }
  }
  joinPilots(planning, planOf, { links, add });
  return { links, unclear };
}

/** Linked systems that share pilots are of one component: each is tied to the first of them. */
function joinPilots(
  planning: Planning,
  planOf: ReadonlyMap<string, CasePlan>,
  {
    links,
    add
  }: {
    readonly links: ReadonlyMap<string, readonly LinkEnd[]>;
    readonly add: (id: string, end: LinkEnd) => void;
  }
): void {
  const goals = new Map(planning.gather().cases.map((c) => [c.id, c.goal]));
  const firsts = new Map<string, string>();
  for (const id of [...links.keys()]) {
    const plan = planOf.get(id);
    const group = plan?.goalPlan?.route && goals.get(plan.id)?.pilots && pilotGroupOf(planning, id);
    if (!group) continue;
    const first = firsts.get(group) ?? id;
    firsts.set(group, first);
    if (first === id) continue;
    add(id, { other: first, pairing: PILOTS, isOwn: true });
    add(first, { other: id, pairing: PILOTS, isOwn: false });
  }
}

/** What ties systems that share pilots; no pairing has this id. */
export const PILOTS = ' pilots';

/** Systems of a team and a product share their pilots. */
export function pilotGroupOf(planning: Planning, id: string): string | undefined {
  const system = planning.system(id);
  const model = system && planning.modelFor(system);
  return model && JSON.stringify([system.team, model.product.id]);
}
