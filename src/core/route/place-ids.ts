import { BASE_PATCH } from '../version/sequence';
import type { Place } from './move';
import type { Terms } from './terms';
import type { Standing } from './types';

/** A place as the catalogue's ids. */
export function idsOfPlace({ model }: Terms, place: Place): Standing {
  const release = model.releases[place.release];
  return {
    release: release?.release.id ?? '',
    patch: release?.patches[place.patch]?.id ?? BASE_PATCH,
    edition: release ? (model.editions[place.edition] ?? '') : '',
    architecture: release ? (model.architectures[place.architecture] ?? '') : ''
  };
}
