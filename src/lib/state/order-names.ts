import type { OrderNames } from '$core/wording';
import { desk } from './desk.svelte';

/** Names that orders are told with, as the desk knows them. */
export const orderNames: OrderNames = {
  product: (id) => desk.namesOfProduct(id),
  system: (id) => desk.naming.system(id)
};
