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
export type { Lever } from './order-types';
export { movesBetween, type OrderSum, type StepMove, sumOfOrder } from './compare-orders';
