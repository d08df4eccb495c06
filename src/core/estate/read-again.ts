import type { Catalogue } from '../catalogue/schema';
import { readInstalled } from './read-installed';
import type { System } from './schema';

/**
 * Systems whose product or release was not known, read again from their text against a catalogue that may know them now.
 * Only those that became clearer come back; nobody's settled reading is touched.
 */
export function readAgain(catalogue: Catalogue, systems: readonly System[]): System[] {
  return systems.flatMap((system) => {
    if ('is' in system.product && 'is' in system.release) return [];
    const text = system.installedText?.trim();
    if (!text) return [];
    const { readings } = readInstalled(catalogue, { installed: text });
    const clearer = clarity(readings) > clarity(system);
    return clearer ? [{ ...system, ...readings }] : [];
  });
}

const clarity = ({ product, release }: Pick<System, 'product' | 'release'>): number =>
  ('is' in product ? 4 : 'oneOf' in product ? 1 : 0) + ('is' in release ? 2 : 'oneOf' in release ? 1 : 0);
