export { orderOf } from './order';
export type {
  ComponentOrder,
  NamedConstraint,
  Order,
  OrderConflict,
  OrderedPart,
  OrderedStep,
  OrderedWave,
  PartFate
} from './order-types';
