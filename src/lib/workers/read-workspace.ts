import type { Workspace } from '$core/estate';
import { looksLikeWorkspaceLines, parseWorkspace, readWorkspaceLines } from '$core/exchange';
import type { Result } from '$core/kit';

/** Whether a file is a workspace of a record a line. */
export const isWorkspaceLines = async (file: Blob): Promise<boolean> =>
  looksLikeWorkspaceLines(new Uint8Array(await file.slice(0, 200).arrayBuffer()));

/** Reads a workspace file of either kind; a record a line as it comes, so that its text is never whole in memory. */
export async function readWorkspaceBlob(file: Blob): Promise<Result<Workspace>> {
  return (await isWorkspaceLines(file))
    ? readWorkspaceLines(chunksOf(file))
    : parseWorkspace(await file.text());
}

/** Bytes read at once. */
const CHUNK = 1 << 22;

async function* chunksOf(file: Blob): AsyncGenerator<Uint8Array> {
  for (let at = 0; at < file.size; at += CHUNK)
    yield new Uint8Array(await file.slice(at, at + CHUNK).arrayBuffer());
}
