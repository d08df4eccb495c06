import { formatConditionWith } from '../condition';
import { formatDateText, formatDay } from '../date';
import { sayCount, sayMinutes } from './dates';
import type { BareSeen, Demanded, SeenPart } from '../route';

/** What was seen of a fact, in words. */
export function sayFactSeen(seen: BareSeen): string {
  switch (seen.kind) {
    case 'known':
      return String(seen.value);
    case 'at least':
      return `at least ${seen.value}`;
    case 'unknown':
      return `unknown (${seen.why})`;
    case 'disputed':
      return `disputed (${seen.statements.map(sayFactSeen).join(' or ')})`;
  }
}

/** What is known of several facts, without their names; what nobody has read is left out. */
export const sayKnown = (seen: readonly BareSeen[]): string =>
  [...new Set(seen.map(knownOf).filter(Boolean))].join(', ');

const knownOf = (seen: BareSeen): string =>
  seen.kind === 'disputed'
    ? seen.statements.map(knownOf).filter(Boolean).join(' or ')
    : seen.kind === 'known'
      ? String(seen.value)
      : '';

/** What was seen where a clause does not hold; what reads the same is said once. */
export const saySeen = (seen: readonly SeenPart[]): string => [...new Set(seen.map(sayPart))].join(', ');

const MOST_NAMED = 3;
/** The first few names, and how many more there are. */
const sayMost = (names: readonly string[]): string =>
  `${names.slice(0, MOST_NAMED).join(', ')}${names.length > MOST_NAMED ? ` and ${sayCount(names.length - MOST_NAMED, 'more system')}` : ''}`;

function sayPart(part: SeenPart): string {
  switch (part.kind) {
    case 'level':
      return `${part.release}/${part.patch}`;
    case 'day':
      return formatDay(part.day);
    case 'room':
      return part.minutes === 0
        ? 'none is for it'
        : part.isFrozen
          ? 'those that are long enough all fall into freezes: one night more, or a freeze opened by decision, would do'
          : `the longest has ${sayMinutes(part.minutes)}`;
    case 'no near window':
      return `a stay on ${part.release}, out of service, may last ${sayCount(part.days, 'day')} at most, and no two windows lie so near: more days of passing through, or windows nearer to each other, would do`;
    case 'fact':
      return `${part.name} ${sayFactSeen(part.seen)}`;
    case 'fare':
      return `${part.isSure ? '' : 'perhaps '}${part.verdict}${part.has ? '' : '; nobody has said whether it is there'}`;
    case 'no link':
      return part.isKnown ? `no linked ${part.link}` : `linked ${part.link}: nobody has said`;
    case 'linked': {
      const what = part.parts.map(sayPart).join(' and ');
      return `${part.name}: ${what || (part.truth === 'no' ? 'does not' : 'not known')}`;
    }
    case 'more':
      return `${part.number} more`;
    case 'not said':
      return 'not said';
    case 'no figure':
      return 'the rule is known, its figure is not';
    case 'no fit':
      return `${part.systems.length > 0 ? `${sayMost(part.systems)} ` : ''}${part.isKnown ? 'does not fit, and cannot be brought there' : 'not known'}`;
    case 'published':
      return part.text;
  }
}

/** What is demanded where a clause does not hold, as a part of a sentence. */
export function sayDemanded(demanded: Demanded): string {
  switch (demanded.kind) {
    case 'unstated':
      return 'unknown';
    case 'minutes':
      return `${sayMinutes(demanded.minutes)}${demanded.byNode === undefined ? '' : `, or ${sayMinutes(demanded.byNode)} for a node by itself,`}`;
    case 'levels':
      return demanded.range;
    case 'date':
      return formatDateText(demanded.date);
    case 'condition':
      return formatConditionWith(demanded.condition, (id) => demanded.names[id] ?? id);
    case 'figure':
      return `${demanded.fact} ${demanded.figure}`.trim();
    case 'named':
      return demanded.name;
    case 'cell': {
      const { from, to, editions } = demanded;
      return editions ? `${from} to ${to}, ${editions[0]} to ${editions[1]},` : `${from} to ${to}`;
    }
  }
}
