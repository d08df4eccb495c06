export { findLine, parseCatalogue } from './catalogue-file';
export { completeCatalogueText, type Completion } from './complete-text';
export { parseCsv, type TableText } from './csv-in';
export { type PriceLine, readPrices, withPrices } from './prices-in';
export { looksLikeCycloneDx, parseCycloneDx } from './cyclonedx';
export { decodeText } from './decode-text';
export { formatEstateCsv } from './estate-csv';
export { MAX_FILE_BYTES } from './guard';
export { type Candidate, identifyText } from './identify';
export { readRows } from './import-rows';
export { formatInline, parseInline } from './inline-value';
export { parseJsonTable } from './json-table';
export type { MachineRecord } from './machine-record';
export {
  headingKey,
  IMPORT_FIELDS,
  unreadColumns,
  type ImportField,
  type ImportKey,
  type Mapping,
  suggestMapping
} from './mapping';
export { looksLikeOsRelease, parseOsRelease } from './os-release';
export { formatCsv, guardCell, restoreCell } from './csv-out';
export { formatPlanCsv } from './plan-csv';
export { orderFile } from './order-file';
export { type DueSystem, dueWithin, formatDueJunit } from './plan-due';
export { planFileOf } from './plan-file';
export type { PlanWords } from './plan-words';
export {
  type ImportContext,
  type ImportedRow,
  type ImportPreview,
  importRecordOf,
  previewStepwise
} from './preview-import';
export { looksLikeRecord, parseRecords, RECORD_HEAD } from './record-text';
export { reviseCatalogueText, type RevisedCatalogue } from './revise-catalogue';
export { looksLikeSheet, readSheet, readSheets } from './sheet-in';
export { formatWorkspace, parseJson, parseWorkspace } from './workspace-file';
export { formatWorkspaceLines, looksLikeWorkspaceLines, readWorkspaceLines } from './workspace-lines';
export { readLarge } from './zod-issues';
export { formatCalendarFile } from './calendar-out';
export { readCalendarFile, type ReadCalendar } from './calendar-in';
export { type PublishedTable, readPublishedTables, tablesOfRows } from './published-tables';
