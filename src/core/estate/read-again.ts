import type { Catalogue } from '../catalogue';
import { readInstalled } from './read-installed';
import type { Reading, System } from './schema';
import { readingKey } from './situation';

/**
 * Systems whose product or release was not known, read again from their text against a catalogue that may know them now.
 * Only those that became clearer come back; nobody's settled reading is touched.
 */
export function readAgain(catalogue: Catalogue, systems: readonly System[]): System[] {
  return systems.flatMap((system) => {
    if ('is' in system.product && 'is' in system.release) return [];
    const text = system.installedText?.trim();
    if (!text) return [];
    const alone = readInstalled(catalogue, { installed: text }).readings;
    // A bare version says nothing of its product; where that is known, it is read as one of that product.
    const { is } = 'is' in system.product ? system.product : { is: undefined };
    const readings =
      is !== undefined && !('is' in alone.product) && !('oneOf' in alone.product)
        ? readInstalled(catalogue, { product: is, installed: text }).readings
        : alone;
    if ('is' in system.product && readingKey(readings.product) !== system.product.is) return [];
    const next = {
      product: readings.product,
      release: keep(system.release, readings.release),
      patch: keep(system.patch, readings.patch),
      edition: keep(system.edition, readings.edition),
      architecture: keep(system.architecture, readings.architecture)
    };
    return clarity(next) > clarity(system) ? [{ ...system, ...next }] : [];
  });
}

/** What is settled already stays. */
const keep = (was: Reading, now: Reading): Reading => ('is' in was ? was : now);

const clarity = ({ product, release }: Pick<System, 'product' | 'release'>): number =>
  ('is' in product ? 4 : 'oneOf' in product ? 1 : 0) + ('is' in release ? 2 : 'oneOf' in release ? 1 : 0);
