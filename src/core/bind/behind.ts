import { findPublication, modelOf } from '../compile';
import type { Product } from '../catalogue';
import type { Day } from '../date';
import type { System } from '../estate';

/** How far what is installed stands behind the newest general release of its strand. */
export interface Behind {
  readonly newest: string;
  /** Published releases after the installed one; undefined where its release is not known for certain. */
  readonly releases?: number;
}

/** Compared by the product's own sequence; releases not published by the day do not count. Undefined where none is. */
export function findBehind(
  product: Product,
  system: System,
  today: Day,
  countsExpected: boolean
): Behind | undefined {
  const model = modelOf(product);
  const installed =
    'is' in system.release
      ? model.releases[model.sequence.indexById.get(system.release.is) ?? -1]
      : undefined;
  const strand = installed?.strand ?? model.releases[model.releases.length - 1]?.strand;
  const out = model.releases.filter((r) => {
    const day = findPublication(r, ['general'], countsExpected)?.day;
    return r.strand === strand && typeof day === 'number' && day <= today;
  });
  const newest = out[out.length - 1];
  if (!newest) return undefined;
  return {
    newest: newest.release.id,
    ...(installed ? { releases: out.filter((r) => r.index > installed.index).length } : {})
  };
}
