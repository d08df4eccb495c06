import type { System } from '$core/estate';

/** How many systems stand on each release of a product. */
export function countInstalled(
  systems: readonly System[],
  product: string | undefined
): ReadonlyMap<string, number> {
  const counts = new Map<string, number>();
  for (const s of systems)
    if ('is' in s.product && s.product.is === product && 'is' in s.release)
      counts.set(s.release.is, (counts.get(s.release.is) ?? 0) + 1);
  return counts;
}

/** Names of the systems that stand on a release. */
export const standingOn = (systems: readonly System[], product: string, release: string): string[] =>
  systems
    .filter(
      (s) => 'is' in s.product && s.product.is === product && 'is' in s.release && s.release.is === release
    )
    .map((s) => s.name);
