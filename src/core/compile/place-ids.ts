import { BASE_PATCH, type Standing } from '../version';
import type { Place } from './place';
import type { ProductModel } from './model';

/** A place as the catalogue's ids; one object a place. */
export function idsOfPlace({ model }: { readonly model: ProductModel }, place: Place): Standing {
  let made = MADE.get(model);
  if (!made) MADE.set(model, (made = new Map()));
  const key = `${place.release} ${place.patch} ${place.edition} ${place.architecture}`;
  let ids = made.get(key);
  if (!ids) made.set(key, (ids = findIds(model, place)));
  return ids;
}

const MADE = new WeakMap<ProductModel, Map<string, Standing>>();

function findIds(model: ProductModel, place: Place): Standing {
  const release = model.releases[place.release];
  return {
    release: release?.release.id ?? '',
    patch: release?.patches[place.patch]?.id ?? BASE_PATCH,
    edition: release ? (model.editions[place.edition] ?? '') : '',
    architecture: release ? (model.architectures[place.architecture] ?? '') : ''
  };
}
