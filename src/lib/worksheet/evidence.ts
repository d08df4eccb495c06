import type { WorkEntry } from '$core/estate';

const hex = (bytes: ArrayBuffer): string =>
  [...new Uint8Array(bytes)].map((b) => b.toString(16).padStart(2, '0')).join('');

/** Files by name, length and SHA-256; the files themselves stay where they are. */
export const hashFiles = (files: readonly File[]): Promise<NonNullable<WorkEntry['evidence']>> =>
  Promise.all(
    files.map(async (file) => ({
      name: file.name.slice(0, 500),
      sha256: hex(await crypto.subtle.digest('SHA-256', await file.arrayBuffer())),
      bytes: file.size
    }))
  );
