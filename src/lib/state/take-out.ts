import { formatWorkspace } from '$core/exchange';
import { desk } from './desk.svelte';
import { downloadText } from './download';

/** Everything here as a file. */
export const takeOutWorkspace = (): void =>
  downloadText('workspace.json', formatWorkspace(desk.estate, desk.catalogueText), 'application/json');
