export {
  type ComponentOrder,
  type NamedConstraint,
  type Order,
  type OrderConflict,
  type OrderedPart,
  type OrderedStep,
  type OrderedWave,
  orderOf,
  type PartFate
} from './order';
