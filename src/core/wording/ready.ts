import type { Change } from '../estate/schema';
import type { Question } from '../find-out';
import type { Loss, ReadyItem, Remedy } from '../ready/ready-types';
import { sayCount, sayDay } from './dates';
import { parseDay } from '../date/day';
import type { Names } from './names';
import { describeReason } from './reason';

/** What names are looked up in. */
export interface Naming {
  names(product: string): Names;
  system(id: string): string;
  fact(id: string): string;
}

const LOST: Readonly<Record<Loss, string>> = {
  'the goal': 'The goal is lost',
  'service lost': 'Service is lost',
  stall: 'It stalls',
  rebuild: 'Something has to be built anew',
  'a companion': 'A companion needs work or is lost',
  degraded: 'It works badly',
  'a feature': 'A feature is lost',
  advice: 'Advice',
  cosmetic: 'Nothing but looks'
};

/** What is lost while it does not hold, as a heading. */
export const sayLoss = (loss: Loss): string => LOST[loss];

/** One thing asked, in a line. */
export function sayItem(item: ReadyItem, naming: Naming): string {
  const names = naming.names(item.product);
  switch (item.kind) {
    case 'linked':
      return `${naming.system(item.id)} goes first, to ${item.demanded}`;
    case 'clause':
      return item.reason ? describeReason(item.reason) : item.demanded;
    case 'caution':
    case 'companion':
      return item.demanded;
    case 'unlisted':
      return `${item.demanded}: no list has heard of it`;
    case 'requirement':
    case 'site demand': {
      const name = names.requirement(item.id);
      const demanded =
        item.demanded === 'unknown'
          ? 'a figure nobody has stated, or stated two ways'
          : nameFacts(item.demanded, naming);
      return `${name === item.id ? '' : `${name}: `}${demanded}${item.kind === 'site demand' ? ' (the site’s own)' : ''}`;
    }
  }
}

/** A remedy, in a line. */
export function sayRemedy(remedy: Remedy, naming: Naming): string {
  const names = naming.names(remedy.product);
  switch (remedy.kind) {
    case 'cure':
      return names.cure(remedy.id);
    case 'perhaps':
      return `${names.cure(remedy.id)}, if it is needed`;
    case 'right':
      return remedy.costCents === 'unknown' && remedy.key.includes('/ask/')
        ? `Ask the price: ${names.product}, ${names.closing(remedy.id).replace(/ closes.*/, '')}`
        : `Right: ${names.right(remedy.id)}`;
    case 'first':
      return `${naming.system(remedy.id)} first`;
    case 'replace':
      return `${names.product}: a new machine each`;
    case 'decision':
      return remedy.changes[0] ? sayChange(remedy.changes[0], naming) : remedy.id;
    case 'other':
      return `Nobody here can: ${remedy.reason ? describeReason(remedy.reason) : remedy.id}`;
  }
}

const ALLOWED = {
  fresh: 'fresh installs',
  unsupported: 'unsupported hops',
  spending: 'spending money',
  restingOutOfService: 'resting out of service'
} as const;

/** A change tried or kept, in a line. */
export function sayChange(change: Change, naming: Naming): string {
  if ('today' in change) {
    const day = parseDay(change.today);
    return `As of ${day === undefined ? change.today : sayDay(day)}, nothing done meanwhile`;
  }
  if ('allow' in change)
    return `${change.team ?? 'All other teams'}: ${ALLOWED[change.allow]} ${change.allowed ? 'allowed' : 'not allowed'}`;
  if ('cure' in change)
    return `${naming.names(change.product).cure(change.cure)}, ${sayCount(change.systems.length, 'system')}`;
  if ('fact' in change) {
    const [first, ...rest] = change.systems;
    const of = rest.length === 0 ? naming.system(first ?? '') : sayCount(change.systems.length, 'system');
    return `${naming.fact(change.fact)} of ${of} is ${String(change.value)}`;
  }
  const { kind, about, target } = change.decide;
  const [product = '', list = '', id = ''] = (about ?? '').split('/');
  const names = naming.names(product);
  const what =
    list === 'companions'
      ? names.companion(id)
      : list === 'cautions'
        ? names.caution(id)
        : nameFacts(names.demand(id), naming);
  if (target) return `${kind}: ${target.release} ${target.edition}`;
  return kind === 'ignore'
    ? `No longer used, or not minded: ${what}`
    : kind === 'accept'
      ? `Accept the warning: ${what}`
      : kind === 'waive'
        ? `Waive the demand: ${what}`
        : `${kind}${what ? `: ${what}` : ''}`;
}

/** What a question asks for, as the rest of a sentence. */
export function sayQuestion(
  { about }: Pick<Question, 'about'>,
  names: Names,
  nameOfFact: (id: string) => string
): string {
  if ('fact' in about) return nameOfFact(about.fact);
  if ('installed' in about) return 'what is installed';
  const [code = '', ...rest] = about.clause.split(' ');
  const id = rest.join(' ');
  switch (code) {
    case 'companion':
      return `whether it has ${names.companion(id)}, and how that fares`;
    case 'requirement':
      return `what ${names.requirement(id)} demands`;
    case 'offer':
      return `whether ${names.closing(id).replace(/^the | closes.*$/g, '')} is offered to it`;
    case 'withheld':
      return `whether ${names.closing(id).replace(/^the | closes.*$/g, '')} is withheld from it`;
    case 'cell':
      return `whether ${id} is possible`;
    default:
      return about.clause;
  }
}

/** A condition's text with the names of facts in the place of their ids. */
export const nameFacts = (text: string, naming: Pick<Naming, 'fact'>): string =>
  text.replace(/"[^"]*"|[a-z][\w.-]*\w/g, (word) => (word.startsWith('"') ? word : naming.fact(word)));
