import { formatDay } from '../date';
import type { ClauseCode, Reason } from '../route';
import { sayDay } from './dates';
import { sayDemanded, saySeen } from './seen';

const SENTENCES: Readonly<Record<ClauseCode, string>> = {
  'fresh not allowed': 'only by a fresh install, which the goal does not allow',
  'unsupported not allowed': 'only by an unsupported hop, which the goal does not allow',
  'keeps too little': 'it keeps less than the goal demands',
  barred:
    'the hop from {demanded} was barred{day}{seen}; it can be taken again once that decision is taken back',
  maturity: 'not published in a maturity the goal allows',
  level: 'the hop starts {demanded}; it stands on {seen}',
  'every patch': 'every current patch comes first; a newer one is out than {seen}',
  'newer than target': '{seen} is newer than the target, so the hop is forbidden',
  'patch withdrawn': 'the patch it needs was obtainable until {day}',
  closed: 'the hop closed on {day}',
  right: 'its right is by agreement or not for sale, and not held',
  spending: 'it costs money, which the goal does not allow',
  window: 'no window has room for the {demanded} it takes with its way back; {seen}',
  'pass days': 'it would stay too long on {subject}, out of service since {day}',
  resting: '{subject} goes out of service on {day}, before it is reached',
  'months left': 'too little service is left on {subject}, which ends on {day}',
  requirement: 'it needs {demanded}; seen: {seen}',
  'site demand': 'this site wants {demanded}; seen: {seen}',
  space: 'the hop takes {demanded}; seen: {seen}',
  cure: 'whether "{demanded}" helps here is not known; seen: {seen}',
  'cure limit': 'it is not known to take {demanded}; seen: {seen}',
  companion: '{demanded}: {seen}',
  caution: 'nobody has said whether it is hit by {demanded}',
  check: 'a check failed and nobody has said what it is about: {subject}',
  offer: 'nobody has said whether it is offered to this system',
  withheld: 'it may be withheld from this system: {seen}',
  pairing: 'what it is {demanded} does not go with it: {seen}',
  cell: 'nobody has said whether {demanded} is possible',
  'no hop': 'no published hop leads from {demanded}'
};

/** The one sentence for a reason; wording lives only here. */
export function describeReason(reason: Reason): string {
  const { code, subject, seen, demanded, day } = reason;
  if (code === 'level' && demanded?.kind === 'unstated')
    return 'the hop wants a starting level that nobody has stated, or that is stated two ways';
  if (demanded?.kind === 'unstated' && (code === 'requirement' || code === 'site demand'))
    return 'a rule is known whose figure is not, or is stated two ways';
  // A longer window would not do.
  if (seen?.[0]?.kind === 'no near window') return saySeen(seen);
  const asked = demanded ? sayDemanded(demanded) : undefined;
  if (code === 'barred')
    return SENTENCES.barred
      .replace('{demanded}', () => asked ?? subject)
      .replace('{day}', () => (day === undefined ? '' : ` on ${sayDay(day)}`))
      .replace('{seen}', () => (seen ? `: ${saySeen(seen)}` : ''));
  return SENTENCES[code]
    .replace('{seen}', () => (seen ? saySeen(seen) : 'what is installed'))
    .replace('{demanded}', () => asked ?? '')
    .replace('{subject}', () => subject)
    .replace('{day}', () => (day === undefined ? (asked ?? 'a day unknown') : formatDay(day)));
}
