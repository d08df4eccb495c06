export { factsAsked, factsOfInterest, findUnknowns, nameOfFact, PARTS, type Unknown } from './asked-facts';
export { type Difference, findDifferences } from './changes';
export { type Checked, checkedOf, checkKey } from './checked';
export { keepCheck, likelyCauses, parseCheckItems, summariseCheck } from './checks';
export { formatFactText, parseFactText, saysNothing, splitUnit } from './fact-text';
export {
  addReading,
  FactDecisions,
  findFact,
  isAgreed,
  isSameValue,
  isStale,
  kindsOf,
  NO_DECISIONS,
  plainOf,
  seenOf,
  seenOfFact,
  statementsOf
} from './facts';
export { matchesQuery, parseQuery, type Searchable } from './find-systems';
export { type LinkEnd, LinkIndex, wordOf } from './links';
export { chooseValue, type Conflict, keysOfHeld, type MergedEstate, mergeEstates } from './merge-estates';
export { checkCalendars } from './check-calendars';
export type { WorkCalendar, WorkWindow } from './schema-calendar';
export { moveToTeam, type TeamMove } from './teams';
export { findPlaces, type Place } from './places';
export { readAgain } from './read-again';
export { type InstalledTexts, type InstalledUnderstanding, readInstalled } from './read-installed';
export {
  type Change,
  type Check,
  type Decision,
  DEFAULT_GOAL,
  emptyEstate,
  type Estate,
  estateSchema,
  type Fact,
  type FactValue,
  type CaseGoal,
  type Goal,
  type HostKey,
  IMPORTANCES,
  GOAL_RULES,
  LONG_LISTS,
  type ImportRecord,
  type Link,
  type Permission,
  PERMISSIONS,
  type Question,
  type Reading,
  type Recheck,
  type RememberedList,
  type RightHeld,
  type RightUseKind,
  type Site,
  type System,
  type SystemCompanion,
  type SystemEvent,
  type Target,
  type WayStep,
  type WhatIf,
  type Workspace,
  WORKSPACE_FORMAT,
  WORKSPACE_LINES_FORMAT,
  WORKSPACE_VERSION,
  workspaceSchema
} from './schema';
export { companionsSheet, linksSheet, rightsSheet } from './sheets/entry-sheets';
export { factsSheet } from './sheets/facts-sheet';
export type { CellEdit, Refusal, Sheet, SheetColumn, SheetSource } from './sheets/sheet';
export { newSystem, systemsSheet } from './sheets/systems-sheet';
export { BASE, readingKey, situationKey } from './situation';
export { newSystemId } from './system-id';
export { migrateEstate } from './migrate';
export {
  type CatalogueText,
  estateOfRecords,
  HeldEstate,
  KEYS,
  type Records,
  recordsOfEstate,
  recordsUnder,
  withWrites,
  type Write,
  writesBetween,
  writesOfNothing,
  writesOfWorkspace
} from './records';
export { type Collision, type Edit, editsOf, mergeRecord } from './merge-record';
export {
  addSystem,
  chooseTarget,
  decideFact,
  type DecidedBy,
  type DecidedFact,
  decisionsOn,
  dropDecision,
  dropRecheck,
  dropWhatIf,
  followGoal,
  forgetList,
  keepCatalogue,
  keepDecision,
  keepCalendars,
  keepGoal,
  keepImport,
  keepQuestions,
  keepRecheck,
  keepWorksheet,
  takeHostKeys,
  dropWorksheet,
  keepRights,
  keepSite,
  keepSystems,
  keepWhatIf,
  planAsOf,
  rememberList,
  ruleOn
} from './commands';
export { ORDER_BY, type OrderBy, type OrderLock } from './schema-order';
export {
  type ItemKind,
  type ItemState,
  type WorkEntry,
  type WorkItem,
  type Worksheet
} from './schema-worksheet';
