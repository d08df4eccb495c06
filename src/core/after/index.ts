export {
  type CureLeaves,
  factAfter,
  factsLeft,
  isOfTheMachine,
  type Leaves,
  nodeFactAfter,
  UNTOLD
} from './facts-after';
