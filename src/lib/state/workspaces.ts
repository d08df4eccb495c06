import { type CatalogueText, type Estate, recordsOfEstate, type Workspace } from '$core/estate';
import { setCurrentWorkspace } from '$lib/storage/database';
import { makeWorkspace } from '$lib/storage/workspaces';
import { desk } from './desk.svelte';
import { plain } from './plain.svelte';

/** A workspace file's estate, without what says that it is one. */
function estateOf({ catalogue, format: _format, version: _version, ...estate }: Workspace): {
  estate: Estate;
  catalogue: CatalogueText;
} {
  void [_format, _version];
  return { estate, catalogue };
}

/** A workspace from a file as one of its own, beside this one, and this tab on it. */
export async function openBeside(name: string, workspace: Workspace, readOnly: boolean): Promise<void> {
  const { estate, catalogue } = estateOf(workspace);
  switchTo(await makeWorkspace(name, readOnly, recordsOfEstate(plain(estate), plain(catalogue))));
}

/** What is here as a workspace of its own that can be changed, and this tab on it. */
export async function copyWorkspace(name: string): Promise<void> {
  const { estate, catalogueText } = desk;
  switchTo(await makeWorkspace(name, false, recordsOfEstate(plain(estate), plain(catalogueText))));
}

export async function makeEmptyWorkspace(name: string): Promise<void> {
  switchTo(await makeWorkspace(name, false, []));
}

/** Another workspace on this tab; everything is read anew. */
export function switchTo(id: string): void {
  setCurrentWorkspace(id);
  location.assign('/estate');
}
