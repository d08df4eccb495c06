import type { Names } from '../catalogue';
import type { NotNext } from '../plan';
import type { Goal, IMPORTANCES } from '../estate';
import { parseDay } from '../date';
import { sayCount, sayDay, sayNumber } from './dates';

/** What of a goal is said as one phrase, in the order of the sentence; a product whose target is named has its own. */
export const GOAL_PARTS = [
  'rule',
  'maturities',
  'settlingDays',
  'pilots',
  'watchDays',
  'mustKeep',
  'accepts',
  'allow',
  'spendingCents',
  'phase',
  'passDays',
  'monthsLeft',
  'importance',
  'keepBack'
] as const;
export type GoalPart = (typeof GOAL_PARTS)[number];

/** A phrase: what leads to it, the words that can be changed, what follows. */
export interface Phrase {
  readonly before: string;
  readonly words: string;
  readonly after?: string;
}

export const RULE_WORDS: Readonly<Record<Goal['rule'], string>> = {
  newest: 'the newest release',
  'one before the newest': 'the release before the newest',
  'newest with service left': 'the newest release with the months of service wanted still left',
  'nearest in full service': 'the nearest release in full service',
  'longest served': 'the release that is served longest',
  'cheapest in service': 'the release in service that costs least to reach',
  'leave alone while near': 'the newest release, leaving alone what is near it',
  'stay until a day': 'what is installed until a day, then the newest release'
};

export const MATURITY_WORDS: Readonly<Record<Goal['maturities'][number], string>> = {
  general: 'general releases',
  preview: 'previews',
  early: 'early releases'
};

export const PHASE_WORDS: Readonly<Record<Goal['phase'], string>> = {
  full: 'full service only',
  security: 'security updates',
  extension: 'even a paid extension only'
};

export const ALLOW_WORDS: Readonly<Record<keyof Goal['allow'], string>> = {
  fresh: 'fresh installs',
  unsupported: 'unsupported hops',
  spending: 'spending money',
  restingOutOfService: 'resting out of service'
};

const and = (words: readonly string[]): string =>
  words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1) ?? ''}`;

function sayRule(goal: Goal): string {
  if (goal.rule === 'leave alone while near')
    return `the newest release, leaving alone what is at most ${sayCount(goal.behind ?? 0, 'release')} behind`;
  const until = goal.rule === 'stay until a day' ? parseDay(goal.stayUntil ?? '') : undefined;
  return until === undefined
    ? RULE_WORDS[goal.rule]
    : `what is installed until ${sayDay(until)}, then the newest release`;
}

/** `4 weeks`, or in days where it is no whole number of weeks. */
const sayLength = (days: number): string =>
  days % 7 === 0 && days > 0 ? sayCount(days / 7, 'week') : sayCount(days, 'day');

export const IMPORTANCE_WORDS: Readonly<Record<(typeof IMPORTANCES)[number], string>> = {
  critical: 'critical',
  normal: 'neither critical nor spare',
  spare: 'spare'
};

const sayLimit = ({ spendingCents, allow }: Goal): string =>
  !allow.spending
    ? 'nothing'
    : spendingCents === undefined
      ? 'whatever it takes'
      : `${sayNumber(spendingCents / 100)} at most`;

function sayKeepBack({ keepBack }: Goal): string {
  if (!keepBack) return 'none of its systems';
  const { named, systems, until, ranDays = 0 } = keepBack;
  const which = named
    ? `${sayCount(named.length, 'system')} by name`
    : `${sayCount(systems, 'system')} of each product, the last by name,`;
  if (until !== undefined) return `${which} until ${sayDay(parseDay(until) ?? 0)}`;
  return `${which} until all others have ${ranDays === 0 ? 'got there' : `run for ${sayLength(ranDays)}`}`;
}

function sayPilots({ pilots }: Goal): string {
  if (!pilots) return 'none of its systems';
  const watched = pilots.watchDays === 0 ? '' : ` and watches them for ${sayLength(pilots.watchDays)}`;
  return `${sayCount(pilots.systems, 'system')} of each product${watched}`;
}

/** One phrase of a goal's sentence. */
export function sayGoalPart(goal: Goal, part: GoalPart): Phrase {
  switch (part) {
    case 'rule':
      return { before: 'aims at', words: sayRule(goal) };
    case 'maturities':
      return { before: 'counts', words: and(goal.maturities.map((m) => MATURITY_WORDS[m])) };
    case 'settlingDays':
      return {
        before: 'takes a release',
        words: `${goal.settlingDays === 0 ? 'on the day it is out' : `${sayLength(goal.settlingDays)} after it is out`}${
          goal.afterFirstPatch ? ', with its first patch level' : ''
        }`
      };
    case 'pilots':
      return { before: 'sends ahead', words: sayPilots(goal) };
    case 'watchDays':
      return {
        before: 'watches each arrival',
        words: goal.watchDays ? `for ${sayLength(goal.watchDays)}` : 'for no time in particular',
        after: 'before the next step'
      };
    case 'mustKeep':
      return { before: 'must keep', words: goal.mustKeep ?? 'nothing in particular' };
    case 'accepts':
      return { before: 'is content with keeping', words: goal.accepts ?? 'as much as can be' };
    case 'allow': {
      const allowed = Object.entries(ALLOW_WORDS).filter(([key]) => goal.allow[key as keyof Goal['allow']]);
      return {
        before: 'allows',
        words: and(allowed.map(([, words]) => words)) || 'nothing out of the ordinary'
      };
    }
    case 'phase':
      return { before: 'calls in service what has', words: PHASE_WORDS[goal.phase] };
    case 'passDays':
      return {
        before: 'passes through what is out of service',
        words: goal.passDays === 0 ? 'never' : `for ${sayLength(goal.passDays)} at most`
      };
    case 'monthsLeft':
      return {
        before: 'wants',
        words: goal.monthsLeft ? sayCount(goal.monthsLeft, 'month') : 'no months in particular',
        after: 'of service left on arrival'
      };
    case 'spendingCents':
      return {
        before: 'lets a system cost',
        words: sayLimit(goal)
      };
    case 'importance':
      return { before: 'calls its systems', words: IMPORTANCE_WORDS[goal.importance ?? 'normal'] };
    case 'keepBack':
      return { before: 'keeps back', words: sayKeepBack(goal) };
  }
}

/** The site's goal in a line: what it aims at and waits for, and who aims elsewhere. */
export function sayGoalBrief(goal: Goal, all: readonly Goal[]): string {
  const named = goal.targets?.length ?? 0;
  const teams = all.filter((g) => g.team !== undefined).length;
  return [
    sayGoalPart(goal, 'rule').words,
    ...(goal.maturities.some((m) => m !== 'general')
      ? [`counting ${sayGoalPart(goal, 'maturities').words}`]
      : []),
    sayGoalPart(goal, 'settlingDays').words,
    ...(named > 0 ? [sayCount(named, 'product has a named target', 'products have named targets')] : []),
    ...(teams > 0 ? [sayCount(teams, 'team has its own', 'teams have their own')] : [])
  ].join('; ');
}

/** The phrase of a product whose target is named. */
export function sayNamedTarget(goal: Goal, product: string, names: Names): Phrase {
  const named = goal.targets?.find((t) => t.product === product);
  return {
    before: `takes ${names.product} to`,
    words: named
      ? [names.release(named.release), named.edition === undefined ? '' : names.edition(named.edition)]
          .filter(Boolean)
          .join(' ')
      : 'what the rule says'
  };
}

/** Parts of a goal in which it differs from another. */
export const partsThatDiffer = (goal: Goal, from: Goal): GoalPart[] =>
  GOAL_PARTS.filter((part) => sayGoalPart(goal, part).words !== sayGoalPart(from, part).words);

/** `not 7: it is out on 12 May 2031`; why not the release behind the one chosen. */
export function sayNotNext({ release, why, day }: NotNext, names: Names): string {
  const on = day === undefined ? '' : sayDay(day);
  const words = {
    'not out': `it is out on ${on}`,
    settling: `it counts from ${on} on`,
    'first patch': 'nobody knows when its first patch level is out',
    'no day': 'nobody knows when it is out',
    maturity: 'it is no release of the kinds that count',
    'passed over': 'it is decided to be passed over',
    edition: 'it does not come in the edition or architecture wanted',
    rule: 'the rule chooses another'
  } as const;
  return `not ${names.release(release)}: ${words[why]}`;
}
