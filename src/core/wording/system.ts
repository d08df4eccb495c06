import { hasLevels, Names, type Product } from '../catalogue';
import type { Difference, Reading, System } from '../estate';
import type { CasePlan } from '../plan';
import { BASE_PATCH } from '../version';

/** What is installed, in words: as far as it is known, else the text it was read from. */
export function describeInstalled(system: System, product: Product | undefined): string {
  if (system.stage === 'bare' || system.stage === 'candidate') return 'nothing installed';
  if (!('is' in system.product)) return system.installedText ?? 'unknown';
  const names = new Names(product);
  const { release, patch, edition, architecture } = system;
  const level =
    'is' in release
      ? names.level({ release: release.is, patch: 'is' in patch ? patch.is : BASE_PATCH })
      : describeReading(release, (id) => names.release(id), 'release');
  return [
    product?.name ?? system.product.is,
    level,
    'is' in release && !('is' in patch) && product && hasLevels(product, release.is)
      ? 'patch level unknown'
      : '',
    'is' in edition ? names.edition(edition.is) : '',
    'is' in architecture ? names.architecture(architecture.is) : ''
  ]
    .filter(Boolean)
    .join(' ');
}

/** Where a case stands, in words, by one of its systems: what is installed, or that nothing is. */
export function describeStart(
  { product, start, startIsSure }: CasePlan,
  system: System | undefined,
  names: Names,
  nameOfProduct: (id: string) => string
): string {
  if (system?.stage === 'bare' || system?.stage === 'candidate')
    return system.meantFor
      ? `Nothing installed, meant for ${nameOfProduct(system.meantFor)}`
      : 'Nothing installed';
  const text = system?.installedText;
  if (!product || !start) return text ?? 'Unknown product';
  if (startIsSure)
    return [
      names.product,
      names.level(start),
      names.edition(start.edition),
      names.architecture(start.architecture)
    ]
      .filter(Boolean)
      .join(' ');
  if (text?.toLowerCase().startsWith(names.product.toLowerCase())) return text;
  return [
    names.product,
    system && 'is' in system.release ? names.release(system.release.is) : '',
    system && 'is' in system.edition ? names.edition(system.edition.is) : ''
  ]
    .filter(Boolean)
    .join(' ');
}

/** A reading in words: the name, `4 or 5`, or `release unknown`. */
function describeReading(reading: Reading, name: (id: string) => string, part: string): string {
  if ('is' in reading) return name(reading.is);
  return 'oneOf' in reading ? reading.oneOf.map(name).join(' or ') : `${part} unknown`;
}

/** `release: 4, now 5` */
const sayDifference = ({ what, before, after }: Difference): string =>
  `${what}: ${before === '' ? 'nothing' : before}, now ${after === '' ? 'nothing' : after}`;

/** What an import's comparison reads as. */
export const importWords = { installed: describeInstalled, difference: sayDifference } as const;
