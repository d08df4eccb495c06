import type { ItemState } from '$core/estate';

/** What stands in an item's box. */
export const STATE_MARKS: Readonly<Record<ItemState, string>> = {
  open: '',
  running: '…',
  passed: '✓',
  'passed with a warning': '✓!',
  failed: '✗',
  'not needed': '–'
};
