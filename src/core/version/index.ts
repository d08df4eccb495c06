export {
  matchesRange,
  matchesRelease,
  parseRange,
  placesOf,
  type PlaceTable,
  type Range,
  RANGE_WORDS,
  tabulateRange
} from './range';
export {
  BASE_PATCH,
  compareReleases,
  ONLY,
  patchIndex,
  type Position,
  type Sequence,
  sequenceOf
} from './sequence';
export type { Standing } from './standing';
export { foldText, wordsOf } from './words';
