import { formatWorkspace } from '$core/exchange';
import { desk } from './desk.svelte';
import { downloadText } from './download';
import { datedName } from './rescue';

const takeOut = (fileName: string): void =>
  downloadText(fileName, formatWorkspace(desk.estate, desk.catalogueText), 'application/json');

/** Everything here as a file. */
export const takeOutWorkspace = (): void => takeOut('workspace.json');

/** The same under a name with the day, to go back to. */
export const takeOutDated = (): void => takeOut(datedName('workspace'));
