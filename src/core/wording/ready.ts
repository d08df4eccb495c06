import type { Change } from '../estate';
import type { Question } from '../plan';
import type { Loss, ReadyItem, Remedy } from '../ready';
import { sayCount, sayDay, sayMinutes } from './dates';
import { sayIsoDay, sayLock } from './lock';
import { formatConditionWith, type NameInCondition, parseCondition } from '../condition';
import { parseDay } from '../date';
import { type Names, splitEntryPath } from '../catalogue';
import { clauseOf } from '../route';
import { sayArrival, sayHop, sayHopWithStart } from './hop';
import { describeReason } from './reason';

/** What names are looked up in. */
export interface Naming {
  names(product: string): Names;
  system(id: string): string;
  fact(id: string): string;
  list(id: string): string;
  /** A release of the product a system runs. */
  releaseOf(system: string, release: string): string;
  /** A window of a calendar. */
  windowOf(calendar: string, window: string): string;
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
      return item.reason ? describeReason(item.reason) : 'its price, which nobody has published';
    case 'caution':
      return item.demanded;
    case 'companion':
      return [`${item.demanded}: ${item.fare?.verdict ?? ''}`, item.fare?.loses].filter(Boolean).join(', ');
    case 'unlisted':
      return `${item.demanded}: no list has heard of it`;
    case 'requirement':
    case 'site demand': {
      const name = names.requirement(item.id);
      const demanded =
        item.demanded === 'unknown'
          ? 'a figure nobody has stated, or stated two ways'
          : sayConditionText(item.demanded, naming, names);
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
      return `Right: ${names.right(remedy.id)}`;
    case 'first':
      return `${naming.system(remedy.id)} first`;
    case 'replace':
      return `${names.product}: a new machine each`;
    case 'decision':
      return remedy.changes[0] ? sayChange(remedy.changes[0], naming) : remedy.id;
    case 'other':
      return `No fix is recorded: ${remedy.reason ? describeReason(remedy.reason) : remedy.id}`;
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
  if ('lock' in change) return sayLock(change.lock, naming);
  if ('unlock' in change) return 'What was laid down for the order is let go';
  if ('orderBy' in change) return `The order is chosen by: ${change.orderBy}`;
  if ('freeze' in change)
    return `No freeze from ${sayIsoDay(change.freeze.first)} to ${sayIsoDay(change.freeze.last)}`;
  if ('window' in change)
    return [
      change.minutes === undefined ? [] : `lasts ${sayMinutes(change.minutes)}`,
      change.crew === undefined ? [] : `has people for ${sayCount(change.crew, 'system')} at once`
    ]
      .flat()
      .join(' and ')
      .replace(/^/, `${naming.windowOf(change.calendar, change.window)}: `);
  const { kind, about, target } = change.decide;
  if (target) return `${kind}: ${target.release} ${target.edition}`;
  const what = about === undefined ? '' : sayEntry(about, naming);
  return kind === 'ignore'
    ? `No longer used, or not minded: ${what}`
    : kind === 'accept'
      ? `Accept the warning: ${what}`
      : kind === 'waive'
        ? `Waive the demand: ${what}`
        : `${kind}${what ? `: ${what}` : ''}`;
}

/** An entry of the catalogue by its name, what lies deeper in it behind; see `joinEntryPath`. */
export function sayEntry(path: string, naming: Naming): string {
  const [product = '', list = '', id = '', ...deeper] = splitEntryPath(path);
  const names = naming.names(product);
  if (list === 'releases' || list === 'lines') {
    const [part = '', of = ''] = deeper;
    const within = part === 'patches' ? names.patch(id, of) : deeper.length > 0 ? `${of} ${part}`.trim() : '';
    const entry = list === 'lines' ? `line ${id}` : names.release(id);
    return within === '' ? entry : part === 'patches' ? `${entry} ${within}` : `${entry}: ${within}`;
  }
  const entry = ((): string => {
    switch (list) {
      case '':
        return names.product;
      case 'companions':
        return names.companion(id);
      case 'cautions':
        return names.caution(id);
      case 'rights':
        return names.right(id);
      case 'hops':
        return sayHopWithStart(names, id);
      case 'editionChanges':
        return `the change to ${sayArrival(names, id)}`;
      case 'editions':
        return names.edition(id);
      case 'checks':
        return `“${id}”`;
      case 'requirements':
        return sayDemand(names.demand(id), naming, names);
      default:
        return id;
    }
  })();
  return deeper.length === 0 ? entry : `${entry}: ${deeper.join(' ')}`;
}

/** A demand by its name or what it asks for; one nobody has put a figure to says so. */
const sayDemand = (demand: string, naming: Said, names: Names): string =>
  demand === 'unknown' ? 'a rule nobody has put a figure to' : sayConditionText(demand, naming, names);

/** What a question asks for, as the rest of a sentence. */
export function sayQuestion({ about }: Pick<Question, 'about'>, names: Names, naming: Said): string {
  if ('fact' in about) return naming.fact(about.fact);
  if ('installed' in about) return 'what is installed';
  const { code, subject: id } = clauseOf(about.clause) ?? { code: undefined, subject: about.clause };
  switch (code) {
    case 'companion':
      return `whether it has ${names.companion(id)}, and how that fares`;
    case 'requirement':
    case 'site demand': {
      const demand = sayDemand(names.demand(id, code === 'site demand'), naming, names);
      return code === 'site demand' ? `what this site wants: ${demand}` : `what is demanded: ${demand}`;
    }
    case 'caution':
      return `whether it is hit by ${names.caution(id)}`;
    case 'cure limit':
      return `how much ${naming.fact(names.factOfCure(id) ?? id)} it takes`;
    case 'cure':
      return `whether this helps: ${names.cure(id)}`;
    case 'pairing':
      return `whether what it is ${names.pairing(id)} goes with it`;
    case 'right':
      return id === ''
        ? 'whether there is a right to it'
        : `whether it has ${id
            .split(' or ')
            .map((right) => names.right(right))
            .join(' or ')}`;
    case 'offer':
      return `whether ${sayHop(names, id)} is offered to it`;
    case 'withheld':
      return `whether ${sayHop(names, id)} is withheld from it`;
    case 'cell': {
      const [hop = '', editions] = id.split(': ');
      if (editions !== undefined)
        return `whether ${sayHop(names, hop)} takes ${sayCellEnds(editions, (e) => names.edition(e))}`;
      return `whether ${sayCellEnds(id, (r) => names.release(r))} is possible`;
    }
    case 'space':
      return naming.fact(id);
    case 'level':
      return `what level ${sayHop(names, id)} starts from`;
    case 'closed':
      return `until when ${sayHop(names, id)} is open`;
    case 'patch withdrawn':
      return 'until when the patch before it can be had';
    case 'resting':
    case 'pass days':
    case 'months left':
      return `until when ${names.release(id)} is served`;
    case 'maturity':
      return 'when it is published, and how mature';
    case 'spending':
      return 'what it costs';
    case 'check':
      return `what this check is about: ${id}`;
    default:
      return id;
  }
}

/** `ids to ids`, each by its name. */
const sayCellEnds = (ends: string, nameOf: (id: string) => string): string =>
  ends.split(' to ').map(nameOf).join(' to ');

/** A condition's text as people say it: facts, lists and releases by their names. One that cannot be read stays as it is. */
export function sayConditionText(text: string, naming: Said, names: Names): string {
  const parsed = parseCondition(text);
  return 'condition' in parsed ? formatConditionWith(parsed.condition, nameInCondition(naming, names)) : text;
}

type Said = Pick<Naming, 'fact' | 'list'>;

/** What a condition of a product speaks of, by the names people know. */
export const nameInCondition =
  (naming: Said, names: Names): NameInCondition =>
  (id, kind) =>
    kind === 'range' ? names.range(id) : naming[kind](id);
