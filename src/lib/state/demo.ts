import catalogueUrl from '../../../demo/catalogue.yaml?url';
import messyUrl from '../../../demo/messy-machines.csv?url';
import workspaceUrl from '../../../demo/saltmarsh.json?url';
import type { Workspace } from '$core/estate';
import type { Result } from '$core/kit';
import { describeIssue } from '$core/wording';
import { desk } from './desk.svelte';
import { openWorkspace, setCatalogue } from './acts';
import { words } from './words.svelte';

export { messyUrl };

/** The demo as it is opened. */
export const demoWorkspace = (): Promise<Result<Workspace>> =>
  desk.files.call(async (w) => w.readWorkspace(await (await fetch(workspaceUrl)).blob()));

/** Opens the demo in place of what is on the desk; undo brings that back. */
export async function openDemo(): Promise<void> {
  const read = await demoWorkspace();
  if (read.ok) await openWorkspace('Opened the demo, Saltmarsh Valley Tramways', read.value);
  else words.fault = read.issues.map(describeIssue).join(' ');
}

/** Takes the demo's catalogue only. */
export async function takeDemoCatalogue(): Promise<void> {
  await setCatalogue('Took the demo catalogue', {
    fileName: 'catalogue.yaml',
    text: await (await fetch(catalogueUrl)).text()
  });
}
