import { nameVerdict, sayDay, shortestReason } from '$core/wording';
import type { Tread } from './layout';

/** What a tread of the stair is to whoever stands on it, beside its name. */
export function wordsOfTread(tread: Tread): string {
  if (tread.state === 'installed') return 'you stand here';
  if (tread.state === 'older') return 'older than what is installed';
  const kind =
    tread.preview && tread.published
      ? 'preview'
      : !tread.published
        ? tread.from === 'unknown'
          ? 'announced, no day known'
          : `announced, ${sayDay(tread.from)} at the latest`
        : '';
  const verdict = !tread.target
    ? ''
    : tread.state === 'closed'
      ? `closed: ${shortestReason(tread.target)}`
      : tread.state === 'cannot tell' || tread.state === 'not yet'
        ? nameVerdict(tread.state)
        : '';
  return [kind, verdict].filter(Boolean).join('; ');
}
