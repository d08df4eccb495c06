import type { Bond, Problem } from './problem';

/**
 * For each part all that are alike in everything - nodes, and what they are bound to - so that any two may be exchanged without anything
 * being told apart; itself among them. Equal lists are the same object.
 */
export function twinsOf(
  { parts, apart = [] }: Problem,
  bonds: readonly Bond[],
  mark: (part: number) => string = () => ''
): readonly (readonly number[])[] {
  const groups: number[][] = [];
  const of: number[][] = [];
  parts.forEach((part, i) => {
    const found =
      part.alike === undefined || apart.some((pair) => pair.includes(i))
        ? undefined
        : groups.find(
            ([first]) => first !== undefined && mark(first) === mark(i) && areAlike(parts, bonds, [first, i])
          );
    const group = found ?? [];
    if (!found) groups.push(group);
    group.push(i);
    of.push(group);
  });
  return of;
}

function areAlike(
  parts: Problem['parts'],
  bonds: readonly Bond[],
  [a, b]: readonly [number, number]
): boolean {
  const [x, y] = [parts[a], parts[b]];
  if (x?.alike !== y?.alike || x?.systems.length !== y?.systems.length || x?.deadline !== y?.deadline)
    return false;
  return bondsOf(bonds, a, b) === bondsOf(bonds, b, a);
}

/** What a part is bound to, with the other one left open; of a pairing of peers between the two, that there is one. */
function bondsOf(bonds: readonly Bond[], part: number, other: number): string {
  return bonds
    .flatMap((bond) => {
      if (bond.own !== part && bond.other !== part) return [];
      const there = bond.own === part ? bond.other : bond.own;
      const isEven = bond.distance !== undefined;
      const role =
        there === other && isEven ? 'both' : bond.own === part || (isEven && bond.isPeer) ? 'own' : 'other';
      return [`${bond.pairing} ${role} ${there === other ? '' : there}`];
    })
    .sort()
    .join('|');
}
