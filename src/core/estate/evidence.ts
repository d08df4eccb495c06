import type { Evidence, Seen } from '../condition/evidence';
import { truthOf, type Truth } from '../condition/truth';
import type { Catalogue, Product } from '../catalogue/schema';
import type { Standing } from '../route/types';
import { matchesRange } from '../version/range';
import { sequenceOf } from '../version/sequence';
import { foldText } from '../version/words';
import type { System } from './schema';

/**
 * What is known of a system standing on a place, as conditions ask it. A fact nobody recorded is unknown; a value missing
 * from a partial list is unknown, from a whole one absent. Links are not recorded yet: unknown.
 */
export function evidenceOf(
  catalogue: Catalogue,
  product: Product,
  system: System,
  standing: Standing
): Evidence {
  const sequence = sequenceOf(product);
  return {
    fact: (id) => seenOf(system, standing, id),
    listed: (list, value) => truthOfListed(catalogue, list, value),
    inRange: (range) => truthOf(matchesRange(sequence, range, standing)),
    linked: () => 'unknown'
  };
}

function seenOf(system: System, standing: Standing, id: string): Seen {
  if (id === 'edition' || id === 'architecture') return { kind: 'known', value: standing[id] };
  const fact = system.facts && Object.hasOwn(system.facts, id) ? system.facts[id] : undefined;
  if (!fact) return { kind: 'unknown', why: 'not asked' };
  if (!('value' in fact)) return { kind: 'unknown', why: fact.unknown };
  return {
    kind: 'known',
    value: fact.value,
    ...(fact.day === undefined ? {} : { day: fact.day }),
    ...(fact.source === undefined ? {} : { source: fact.source })
  };
}

function truthOfListed(catalogue: Catalogue, id: string, value: string): Truth {
  const list = catalogue.lists?.find((l) => l.id === id);
  if (!list) return 'unknown';
  if (list.entries.some((e) => foldText(e) === foldText(value))) return 'yes';
  return list.partial ? 'unknown' : 'no';
}
