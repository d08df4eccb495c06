import type { Seen } from './evidence';

/** What was seen of a fact, in words. */
export function formatSeen(seen: Seen): string {
  switch (seen.kind) {
    case 'known':
      return String(seen.value);
    case 'at least':
      return `at least ${seen.value}`;
    case 'unknown':
      return `unknown (${seen.why})`;
    case 'disputed':
      return `disputed (${seen.statements.map(formatSeen).join(' or ')})`;
  }
}
