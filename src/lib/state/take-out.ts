import { desk } from './desk.svelte';
import { downloadBlob } from './download';
import { datedName } from './rescue';
import { workspaceBlob } from './workspace-blob';

function takeOut(stem: string): void {
  const { blob, ending } = workspaceBlob(desk.estate, desk.catalogueText);
  downloadBlob(`${stem}${ending}`, blob);
}

/** Everything here as a file. */
export const takeOutWorkspace = (): void => takeOut('workspace');

/** The same under a name with the day, to go back to. */
export const takeOutDated = (): void => takeOut(datedName('workspace'));
