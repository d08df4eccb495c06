import { formatDay } from '$core/date';
import { estateOfRecords, type Records } from '$core/estate';
import type { StorageFault } from '$lib/storage/faults';
import { downloadBlob } from './download';

const LOST: Readonly<Record<StorageFault, string>> = {
  full: 'Not stored: there is no room left for this browser to store it in. What was stored before is as it was. Take out what was not stored, make room, and bring it in again.',
  newer: 'Not stored: a newer version of the application has written here. Load the page anew.',
  refused:
    'Not stored: this browser does not let the page store anything. Take out what was not stored, so that it is not lost.',
  unknown: 'Not stored: most often that is a disk without room. What was stored before is as it was.'
};

/** What could not be stored, why, and what to do. */
export const sayLost = (fault: StorageFault, error: unknown): string =>
  fault === 'unknown'
    ? `${LOST.unknown} The browser says: ${error instanceof Error ? error.message : String(error)}`
    : LOST[fault];

/** Records as they would have been, as a workspace file. */
export async function rescue(wanted: Records): Promise<void> {
  const { workspaceBlob } = await import('./workspace-blob');
  const { estate, catalogue } = estateOfRecords(wanted);
  const { blob, ending } = workspaceBlob(estate, catalogue);
  downloadBlob(`${datedName('not-stored')}${ending}`, blob);
}

/** `workspace 2031-03-10`: by the day it is taken out. */
export const datedName = (stem: string): string =>
  `${stem} ${formatDay(Math.floor(Date.now() / 86_400_000))}`;
