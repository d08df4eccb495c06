import type { Option, Side } from '$core/compare';
import { parseDay } from '$core/date';
import { isCounted } from '$core/route';
import {
  describeReason,
  nameVerdict,
  sayContributor,
  sayCost,
  sayCostOfWay,
  sayCount,
  sayDay,
  sayDaysLeft,
  sayMinutes,
  sayMoney,
  sayRisks,
  saySpan,
  sayStep
} from '$core/wording';
import type { Names } from '$core/catalogue';

export interface Row {
  readonly label: string;
  /** One text a side; lines apart by a line break. */
  readonly texts: readonly string[];
}

export interface Telling {
  readonly names: Names;
  readonly currency: string;
  readonly today: number;
}

/** What an option is called at the head of its column. */
export function sayOption(option: Option, names: Names, trackName: (id: string) => string): string {
  switch (option.kind) {
    case 'target':
      return names.target(option.target);
    case 'route':
      return `${names.target(option.target)} by ${option.way.length === 1 ? 'one hop' : sayCount(option.way.length, 'hop')}, another way`;
    case 'stay':
      return 'Stay';
    case 'wait': {
      const day = parseDay(option.until);
      return `Wait until ${day === undefined ? option.until : sayDay(day)}`;
    }
    case 'replace':
      return 'A new machine';
    case 'track':
      return trackName(option.track);
  }
}

const sayVerdictOf = ({ verdict, route }: Side): string =>
  verdict === 'stay'
    ? 'nothing is done'
    : verdict === 'replace'
      ? 'on a new machine'
      : nameVerdict(verdict, route?.hops);

/** Every row of the comparison, whether it differs or not. */
export function rowsOf(sides: readonly Side[], telling: Telling): Row[] {
  const row = (label: string, text: (side: Side) => string): Row => ({ label, texts: sides.map(text) });
  const { names, currency } = telling;
  return [
    row('Verdict', sayVerdictOf),
    row('Why not', (s) => (s.route ? '' : s.reasons.map((r) => describeReason(r)).join('\n'))),
    row('Steps', (s) => s.route?.steps.map((step) => sayStep(step, names)).join('\n') ?? ''),
    row('Hops', (s) => (s.route ? String(s.route.hops) : '')),
    row('Kept', (s) => (s.verdict === 'stay' ? 'everything' : (s.route?.kept ?? ''))),
    row('Money', (s) => moneyOf(s, currency)),
    row('Units', (s) => s.route?.units.map((u) => `${u.number} of ${u.pool}`).join('\n') ?? ''),
    row('Work, careful', (s) => (s.route ? sayMinutes(s.route.carefulMinutes) : '')),
    row('Work, as a rule', (s) => (s.route ? sayMinutes(s.route.typicalMinutes) : '')),
    row('Done by', (s) =>
      s.route ? (s.route.finish.exact ? sayDay(s.route.finish.last) : 'a day nobody knows') : ''
    ),
    row('Risks', (s) => sayRisks(s.route?.risks ?? []).join('\n')),
    row('Needs first', (s) => [...new Set(s.route?.needsFirst.map((n) => n.system) ?? [])].join('\n')),
    row('Service ends', (s) => (s.serviceEnd === 'unknown' ? 'nobody has said' : sayDay(s.serviceEnd))),
    row('Service left then', serviceLeft),
    row('Deadline', (s) =>
      s.deadline.setBy
        ? `${sayDay(s.deadline.setBy.day)}: ${sayContributor(s.deadline.setBy, names)}`
        : 'none known'
    ),
    row('What missing it costs', (s) => (s.deadline.setBy ? sayCost(s.deadline.setBy, currency) : '')),
    row('Time to start', (s) => (s.slack === undefined ? '' : sayDaysLeft(s.slack))),
    row('Features gained', (s) => s.features.gained.join('\n')),
    row('Features lost', (s) =>
      s.features.lost.map((f) => `${f.name}${f.instead ? `; instead: ${f.instead}` : ''}`).join('\n')
    ),
    row('Way out', (s) => s.leaving ?? ''),
    row('Forfeits', (s) => s.forfeits ?? ''),
    row('Changes of edition', (s) =>
      (s.route?.steps.filter(isCounted) ?? [])
        .filter((step) => step.from.edition !== step.to.edition)
        .map((step) => `${names.edition(step.from.edition)} to ${names.edition(step.to.edition)}`)
        .join('\n')
    )
  ].filter((r) => r.texts.some((t) => t !== ''));
}

function moneyOf(side: Side, currency: string): string {
  if (side.machineCents !== undefined) return sayMoney(side.machineCents, currency);
  if (!side.route) return side.verdict === 'stay' ? 'no money' : '';
  return sayCostOfWay(side.route, currency);
}

function serviceLeft({ monthsLeft }: Side): string {
  if (monthsLeft === undefined) return '';
  return monthsLeft < 0 ? `none; over for ${saySpan(60, -monthsLeft)}` : saySpan(0, Math.max(2, monthsLeft));
}
