import { BASE_PATCH, type Standing } from '../version';
import type { Place } from './place';
import type { ProductModel } from './model';

/** A place as the catalogue's ids. */
export function idsOfPlace({ model }: { readonly model: ProductModel }, place: Place): Standing {
  const release = model.releases[place.release];
  return {
    release: release?.release.id ?? '',
    patch: release?.patches[place.patch]?.id ?? BASE_PATCH,
    edition: release ? (model.editions[place.edition] ?? '') : '',
    architecture: release ? (model.architectures[place.architecture] ?? '') : ''
  };
}
