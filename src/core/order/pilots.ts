import { compareText } from '../kit';
import type { Pilots } from './problem';

/** Systems of a part, and the pilots its goal asks for: of how many of its `group` (team and product), and how long they are watched. */
export interface Piloted {
  readonly systems: readonly string[];
  readonly group?: string;
  readonly wanted: number;
  readonly watchDays: number;
}

/**
 * Which systems go first: of each group so many, from the largest part on, then by id. Returns the parts with pilots cut off from the
 * part they are of, and who waits for whom by their new indexes.
 */
export function choosePilots<P extends Piloted>(
  parts: readonly P[],
  cut: (part: P, systems: readonly string[]) => P
): { readonly parts: readonly P[]; readonly pilots: readonly Pilots[] } {
  const left = new Map<string, number>();
  const bySize = [...parts].sort(
    (a, b) => b.systems.length - a.systems.length || compareText(a.systems[0] ?? '', b.systems[0] ?? '')
  );
  const firsts = new Map<P, number>();
  for (const part of bySize) {
    if (part.group === undefined) continue;
    const wanted = left.get(part.group) ?? part.wanted;
    const own = Math.min(wanted, part.systems.length);
    left.set(part.group, wanted - own);
    firsts.set(part, own);
  }
  const told: { readonly part: P; readonly isPilot: boolean }[] = parts.flatMap((part) => {
    const own = firsts.get(part) ?? 0;
    if (own === 0 || own === part.systems.length) return [{ part, isPilot: own > 0 }];
    return [
      { part: cut(part, part.systems.slice(0, own)), isPilot: true },
      { part: cut(part, part.systems.slice(own)), isPilot: false }
    ];
  });
  const groups = [...new Set(told.flatMap(({ part }) => part.group ?? []))];
  const pilots = groups.flatMap((group): Pilots[] => {
    const members = (isPilot: boolean): number[] =>
      told.flatMap((t, i) => (t.part.group === group && t.isPilot === isPilot ? [i] : []));
    const [first, then] = [members(true), members(false)];
    const watchDays = Math.max(...told.filter((t) => t.part.group === group).map((t) => t.part.watchDays));
    return first.length > 0 && then.length > 0 ? [{ first, then, watchDays }] : [];
  });
  return { parts: told.map((t) => t.part), pilots };
}
