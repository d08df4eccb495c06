export { applyChanges } from './apply-changes';
export { findChangeFor } from './change-for';
export { planningWith, sourceOf, type Tried, tryChanges } from './try-changes';
