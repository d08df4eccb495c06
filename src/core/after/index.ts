export {
  type CureLeaves,
  factAfter,
  factsLeft,
  isLeft,
  isOfTheMachine,
  type Leaves,
  nodeFactAfter,
  UNTOLD
} from './facts-after';
