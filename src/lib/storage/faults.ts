/** Why the browser's storage did not do what it was asked, as far as it tells. */
export type StorageFault = 'full' | 'newer' | 'refused' | 'unknown';

/** Names that engines give to a store without room; an aborted write has one of them inside. */
const FULL = new Set(['QuotaExceededError', 'NS_ERROR_DOM_QUOTA_REACHED']);
/** Private windows, blocked site data, a store that is broken. */
const REFUSED = new Set([
  'SecurityError',
  'InvalidStateError',
  'UnknownError',
  'MissingAPIError',
  'OpenFailedError'
]);

/** Reads what was thrown; the library wraps what the engine says, so what is inside is looked at as well. */
export function storageFaultOf(error: unknown): StorageFault {
  for (let at: unknown = error, depth = 0; at instanceof Error && depth < 5; depth++) {
    if (at.message === 'newer-version') return 'newer';
    if (FULL.has(at.name) || /quota|no space|disk (is )?full/i.test(at.message)) return 'full';
    if (REFUSED.has(at.name)) return 'refused';
    at = 'inner' in at ? at.inner : at.cause;
  }
  // An engine that runs out of room in the middle of a write tells only that it ended it, sometimes by its words alone.
  return error instanceof Error && (error.name === 'AbortError' || error.message.includes('AbortError'))
    ? 'full'
    : 'unknown';
}

/** Whether this browser keeps what is stored until somebody deletes it; undefined where it does not tell. */
export async function keepsForGood(): Promise<boolean | undefined> {
  return navigator.storage?.persisted?.().catch(() => undefined);
}

/** Asks the browser to keep what is stored; what it answers. */
export async function askToKeep(): Promise<boolean | undefined> {
  return navigator.storage?.persist?.().catch(() => undefined);
}

/** Bytes that are taken and that may be, as the browser reckons. */
export async function roomLeft(): Promise<{ usage: number; quota: number } | undefined> {
  const room = await navigator.storage?.estimate?.().catch(() => undefined);
  return room?.usage === undefined || room.quota === undefined
    ? undefined
    : { usage: room.usage, quota: room.quota };
}
