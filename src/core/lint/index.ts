export type { LintCode, LintFinding } from './finding';
export { lintCatalogue } from './lint-catalogue';
