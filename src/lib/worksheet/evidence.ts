import type { WorkEntry } from '$core/estate';

const hex = (bytes: Uint8Array): string => [...bytes].map((b) => b.toString(16).padStart(2, '0')).join('');

/** SHA-256. Pages that came without encryption have none from the browser. */
async function digest(bytes: ArrayBuffer): Promise<Uint8Array> {
  const { subtle } = crypto as { readonly subtle?: SubtleCrypto };
  if (subtle) return new Uint8Array(await subtle.digest('SHA-256', bytes));
  const { sha256 } = await import('@noble/hashes/sha2');
  return sha256(new Uint8Array(bytes));
}

/** Files by name, length and SHA-256; the files themselves stay where they are. */
export const hashFiles = (files: readonly File[]): Promise<NonNullable<WorkEntry['evidence']>> =>
  Promise.all(
    files.map(async (file) => ({
      name: file.name.slice(0, 500),
      sha256: hex(await digest(await file.arrayBuffer())),
      bytes: file.size
    }))
  );
