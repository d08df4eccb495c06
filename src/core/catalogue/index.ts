export { checkCatalogue } from './check';
export { copyRelease } from './copy-release';
export { COUNTED_KINDS, type CountedKind } from './counted';
export { diffValues, type Edit, editValue, entryAt, isEqual } from './diff-values';
export { joinEntryPath, splitEntryPath } from './entry-path';
export { findTrack, type OnTrack } from './find-track';
export { type FeatureDifference, findFeatureDifference } from './features';
export { mergeCatalogues } from './merge';
export { migrateCatalogue } from './migrate';
export { hasLevels, Names } from './names';
export { choicesAt, type FieldOutline, outlineAt } from './outline';
export { type InstalledParse, parseInstalled } from './parse-installed';
export { factsNeededBy } from './schema-hop';
export { factOfOption } from './schema-right';
export {
  type Catalogue,
  CATALOGUE_FORMAT,
  CATALOGUE_VERSION,
  catalogueSchema,
  type Caution,
  type Companion,
  type EditionChange,
  emptyCatalogue,
  type Hop,
  type Kept,
  KEPT,
  MATURITIES,
  type Maturity,
  NUMBER_KEYS,
  type Offer,
  type Pairing,
  type Patch,
  type Product,
  type Release,
  type Requirement,
  type Right,
  type Source
} from './schema';
export { type Dispute, type Ruling, settleCatalogue, statementsOf } from './settle';
export {
  answerPath,
  answerPathsByRule,
  findBetween,
  findOpenCells,
  type PathAnswer,
  type PathRule,
  type SaidBy,
  sequencedOf
} from './answer-paths';
export { matchInstalled } from './match-installed';
export { clusterTexts, findUnmatched, splitText } from './sketch/cluster-texts';
export { applyDateTable, type DateRow, type DateTable, parseDateTable } from './sketch/date-table';
export {
  ANY_REACH,
  fillHops,
  freeId,
  type HopSentence,
  type HopSketch,
  joinSketches,
  longServed,
  NO_NAME,
  productOfSketch,
  type ProductSketch,
  type ReleaseSketch,
  sketchOf,
  GUESS
} from './sketch/sketch';
export { fallInto } from './sketch/fall-into';
export { findUnlisted, listRelease, placeTexts } from './sketch/unlisted';
export { applyHopGrid, applyLifeCycle, intoReleases } from './sketch/apply-tables';
export { companionKindOf } from './tables/companions';
export { LIST_FACTS, listFactOf } from './tables/compat-list';
export { partByProduct, productNamedIn, suggestKind, TABLE_READERS } from './tables/kinds';
export { placesOfProduct, rangeOfWords } from './tables/places';
export {
  LEFT_OUT,
  TABLE_KINDS,
  type TableAbout,
  type TableChange,
  type TableDetail,
  type TableGround,
  type TableKind,
  type TableReading,
  type TableTaken
} from './tables/reader';
export type { DateOrder } from './tables/cells';
export { type ColumnRole, readLifeCycle, suggestColumns, takeLifeCycle } from './tables/life-cycle';
export { CELL_MEANINGS, type CellMeaning, readHopGrid, suggestMeaning, takeHopGrid } from './tables/hop-grid';
