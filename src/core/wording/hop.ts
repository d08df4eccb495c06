import type { Names } from '../catalogue';
import type { WayStep } from '../estate';

/** `the hop to 31.5` */
export function sayHop(names: Names, id: string): string {
  const hop = names.hopOf(id);
  return hop ? `the hop to ${names.release(hop.to)}` : 'the change of edition';
}

/** `the hop from 4 to 5`, `the hop up to 3 to 5`: with its starts as they are written. */
export function sayHopWithStart(names: Names, id: string): string {
  const hop = names.hopOf(id);
  if (!hop) return id;
  const from = names.isRelease(hop.from) ? `from ${names.release(hop.from)}` : hop.from;
  return `the hop ${from} to ${names.release(hop.to)}`;
}

/** `the hop to 31.5 closes: media withdrawn` */
export function sayClosing(names: Names, id: string): string {
  const because = names.hopOf(id)?.closesBecause;
  return `${sayHop(names, id)} closes${because ? `: ${because}` : ''}`;
}

/** A step of a chosen way: `4 Studio, under Desk upgrade`; what every way to its release has in common is left out. */
export function sayWayStep(names: Names, { step, edition, cures = [], right }: WayStep): string {
  const to = names.hopOf(step) && edition !== undefined ? names.edition(edition) : '';
  const arrival = [sayArrival(names, step), to].filter(Boolean).join(' ');
  const under = right?.right === undefined ? '' : `under ${names.right(right.right)}`;
  return [arrival, ...cures.map((c) => names.cure(c)), under].filter(Boolean).join(', ');
}

/** Where a hop or a change of edition leads: `4`, `a fresh install of 5`, `Bureau`. */
export function sayArrival(names: Names, id: string): string {
  const hop = names.hopOf(id);
  if (hop) return `${hop.kind === 'fresh install' ? 'a fresh install of ' : ''}${names.release(hop.to)}`;
  const change = names.editionChangeOf(id);
  return change ? names.edition(change.to) : id;
}
