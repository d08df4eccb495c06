import { BASE_PATCH } from '../version';
import type { Reading, System } from './schema';

export const BASE: Reading = { is: BASE_PATCH };

/** A reading as one word for keys: its id, `?a|b` for candidates, `?` for unknown. */
export function readingKey(reading: Reading): string {
  if ('is' in reading) return reading.is;
  return 'oneOf' in reading ? `?${[...reading.oneOf].sort().join('|')}` : '?';
}

/** The key of a system's situation: same product, release, patch, edition, architecture and team. */
export function situationKey(system: System): string {
  const parts = [system.product, system.release, system.patch, system.edition, system.architecture].map(
    readingKey
  );
  const nodes = (system.members ?? []).flatMap((m) =>
    m.release ? [`${readingKey(m.release)} ${readingKey(m.patch ?? BASE)}`] : []
  );
  const text =
    system.stage === 'bare' || system.stage === 'candidate'
      ? `nothing installed, ${system.meantFor ?? 'purpose open'}`
      : 'is' in system.product
        ? ''
        : (system.installedText ?? '');
  return [...parts, system.team ?? '', [text, ...nodes].filter(Boolean).join(' + ')]
    .map((p) => p.replaceAll('/', '%2F'))
    .join('/');
}
