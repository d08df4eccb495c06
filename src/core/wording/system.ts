import { Names, type Product } from '../catalogue';
import type { Difference, Reading, System } from '../estate';
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
    'is' in release && !('is' in patch) ? 'patch level unknown' : '',
    'is' in edition ? names.edition(edition.is) : '',
    'is' in architecture ? names.architecture(architecture.is) : ''
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
