import { compareText } from '../kit';
import type { LinkEnd, LinkIndex, System } from '../estate';

/**
 * Colours that are equal for linked systems that cannot be told apart by their own keys and those of what they are linked
 * with, to any depth: colours are refined by those of neighbours until no more come about. Equal colours mean the same in
 * another estate too, so that plans can be kept by them: each carries a digest of everything it is linked with at all.
 * Systems linked with nothing have none. Method: colour refinement (B. Weisfeiler, A. Leman, 1968). Cost: links times rounds.
 */
export function coloursOf(
  systems: readonly System[],
  first: (system: System) => string,
  links: LinkIndex
): ReadonlyMap<string, string> {
  const ends = new Map<string, readonly LinkEnd[]>();
  const linked = new Map<string, System>();
  for (const system of systems) {
    const around = links.around(system);
    if (around.length === 0) continue;
    ends.set(system.id, around);
    linked.set(system.id, system);
    for (const { system: end } of around) if (typeof end !== 'string') linked.set(end.id, end);
  }
  const inOrder = [...linked.values()].sort((a, b) => compareText(a.id, b.id));
  let colours = new Map(inOrder.map((s) => [s.id, digest(first(s))]));
  for (let count = 0; count < new Set(colours.values()).size;) {
    count = new Set(colours.values()).size;
    const last = colours;
    const colourOf = ({ word, system }: LinkEnd): string =>
      `${word}:${typeof system === 'string' ? system : (last.get(system.id) ?? '')}`;
    colours = new Map(
      inOrder.map((s) => [
        s.id,
        digest(`${last.get(s.id)}|${(ends.get(s.id) ?? []).map(colourOf).sort().join('&')}`)
      ])
    );
  }
  const groups = groupsOf(inOrder, ends);
  const whole = new Map(
    [...groups.values()].map((ids) => [
      ids,
      digest(
        ids
          .map((id) => colours.get(id))
          .sort()
          .join()
      )
    ])
  );
  return new Map(
    inOrder.map(({ id }) => [id, `${colours.get(id)}.${whole.get(groups.get(id) ?? []) ?? ''}`])
  );
}

/** Everything a system is linked with at all, in either direction. */
function groupsOf(
  systems: readonly System[],
  ends: ReadonlyMap<string, readonly LinkEnd[]>
): ReadonlyMap<string, readonly string[]> {
  const next = new Map<string, string[]>(systems.map((s) => [s.id, []]));
  for (const [id, around] of ends)
    for (const { system } of around)
      if (typeof system !== 'string') {
        next.get(id)?.push(system.id);
        next.get(system.id)?.push(id);
      }
  const groups = new Map<string, string[]>();
  for (const { id } of systems) {
    if (groups.has(id)) continue;
    const group: string[] = [];
    const queue = [id];
    for (let one = queue.pop(); one !== undefined; one = queue.pop()) {
      if (groups.has(one)) continue;
      groups.set(one, group);
      group.push(one);
      queue.push(...(next.get(one) ?? []));
    }
  }
  return groups;
}

/** A short text that is equal for equal texts and, as far as 106 bits go, for no others: two runs of a multiplying hash. */
function digest(text: string): string {
  return `${hash(text, 0x9e3779b9)}${hash(text, 0x85ebca6b)}`;
}

function hash(text: string, seed: number): string {
  let [a, b] = [0xdeadbeef ^ seed, 0x41c6ce57 ^ seed];
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    a = Math.imul(a ^ code, 2654435761);
    b = Math.imul(b ^ code, 1597334677);
  }
  a = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909);
  b = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909);
  return (4294967296 * (2097151 & b) + (a >>> 0)).toString(36);
}
