export { checkCatalogue } from './check';
export { copyRelease } from './copy-release';
export { COUNTED_KINDS, type CountedKind } from './counted';
export { diffValues, type Edit, editValue, isEqual } from './diff-values';
export { joinEntryPath, splitEntryPath } from './entry-path';
export { type FeatureDifference, findFeatureDifference } from './features';
export { mergeCatalogues } from './merge';
export { migrateCatalogue } from './migrate';
export { Names } from './names';
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
  type Right
} from './schema';
export { type Dispute, type Ruling, settleCatalogue, statementsOf } from './settle';
export { clusterTexts, findUnmatched } from './sketch/cluster-texts';
export { applyDateTable, type DateRow, type DateTable, parseDateTable } from './sketch/date-table';
export {
  fillHops,
  freeId,
  type HopSketch,
  joinSketches,
  productOfSketch,
  type ProductSketch,
  type ReleaseSketch,
  sketchOf
} from './sketch/sketch';
export { findUnlisted, listRelease } from './sketch/unlisted';
export {
  COLUMN_ROLES,
  type ColumnRole,
  type DateOrder,
  type LifeCycle,
  type LifeCycleRow,
  readLifeCycle,
  type ReleaseChange,
  suggestColumns,
  takeLifeCycle
} from './life-cycle';
export {
  CELL_MEANINGS,
  type CellMeaning,
  type HopChange,
  type HopGrid,
  readHopGrid,
  suggestMeaning,
  takeHopGrid
} from './hop-grid';
