import { dealPilots, type Piloted } from '../plan';
import type { Pilots } from './problem';

/** A part with the pilots its goal asks for, and how long they are watched. */
export interface PilotedPart extends Piloted {
  readonly watchDays: number;
}

/**
 * Which systems go first. Returns the parts with pilots cut off from the part they are of, and who waits for whom by their new indexes.
 */
export function choosePilots<P extends PilotedPart>(
  parts: readonly P[],
  cut: (part: P, systems: readonly string[]) => P
): { readonly parts: readonly P[]; readonly pilots: readonly Pilots[] } {
  const firsts = dealPilots(parts);
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
