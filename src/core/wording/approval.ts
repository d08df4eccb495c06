import { compareText } from '../kit';
import { type Catalogue, type Hop, Names, type Product } from '../catalogue';
import type { Estate } from '../estate';
import { calendarDate, type Day } from '../date';
import { type CasePlan, findingOf } from '../plan';
import { isCounted, type Route } from '../route';
import { sayBlock } from './calendar';
import { sayCount, sayDay, sayMinutes, sayMoney } from './dates';
import { sayBegin, sayFinding } from './finding';
import { sayRisks } from './risk';
import { sayInTime } from './rounds';
import { sayStep } from './step';
import { sayCost } from './verdict';

/** What whoever approves a piece of work has to know, in the order it is asked. */
export interface ApprovalSheet {
  readonly title: string;
  readonly rows: readonly { readonly label: string; readonly lines: readonly string[] }[];
}

interface Approved {
  readonly plan: CasePlan;
  readonly product: Product;
  readonly names: Names;
  readonly currency: string;
  readonly today: Day;
  readonly nodes: number;
  /** Names of the systems, in the plan's order, and of their teams. */
  readonly systems: readonly string[];
  readonly teams: readonly string[];
}

/** The sheet of a case of an estate. */
export function approvalFor(
  plan: CasePlan,
  {
    catalogue,
    estate,
    today
  }: { readonly catalogue: Catalogue; readonly estate: Estate; readonly today: Day }
): ApprovalSheet | undefined {
  const product = catalogue.products.find((p) => p.id === plan.product);
  if (!product) return undefined;
  const ids = new Set(plan.systems);
  const systems = estate.systems.filter((s) => ids.has(s.id)).sort((a, b) => compareText(a.id, b.id));
  return approvalOf({
    plan,
    product,
    names: new Names(product),
    currency: catalogue.currency ?? '',
    today,
    nodes: systems[0]?.nodes ?? 1,
    systems: systems.map((s) => s.name),
    teams: [...new Set(systems.map((s) => s.team ?? 'no team'))]
  });
}

const NAMED = 24;

/** One page for whoever approves; undefined where no way is certain that could be approved. */
function approvalOf(about: Approved): ApprovalSheet | undefined {
  const { plan, names, systems, teams, today } = about;
  const route = plan.goalPlan?.route;
  if (!route || !plan.start || route.steps.length === 0) return undefined;
  const { target } = plan.goalPlan;
  const more = systems.length > NAMED ? ` and ${systems.length - NAMED} more` : '';
  const { setBy } = plan.deadline;
  const said = sayFinding(findingOf(plan, today), names, about.currency);
  const late = sayInTime(plan);
  return {
    title: `${names.product} ${names.level(plan.start)} to ${names.target(target)}, ${sayCount(systems.length, 'system')}`,
    rows: [
      { label: 'Systems', lines: [`${systems.slice(0, NAMED).join(', ')}${more}; ${teams.join(', ')}`] },
      { label: 'Found', lines: [said.left ? `${said.verdict}; ${said.left}` : said.verdict] },
      { label: 'The way', lines: wayOf(about, route) },
      { label: 'Outage', lines: outageOf(about, route) },
      { label: 'Cost', lines: costOf(about, route, said.sum) },
      { label: 'Risk', lines: riskOf(route) },
      {
        label: 'Deadline',
        lines: [
          setBy ? `${said.day}: ${said.sets}; ${sayCost(setBy, about.currency)}` : 'no deadline known',
          ...(late ? [late] : [])
        ]
      },
      {
        label: 'Begin by',
        lines: [sayBegin(plan, today)]
      },
      { label: 'Way back', lines: wayBackOf(about, route) }
    ]
  };
}

const hopsOf = ({ product }: Approved, route: Route): Hop[] =>
  route.steps.flatMap((s) => product.hops?.find((h) => isCounted(s) && h.id === s.id) ?? []);

/** Each step with its day; with the night where it has one. */
function wayOf({ names, plan, today, nodes }: Approved, route: Route): string[] {
  const { year } = calendarDate(today);
  const steps = route.steps.map((step) => {
    const at = 'at' in step ? step.at : undefined;
    const when = !step.days.exact ? 'day unknown' : at ? sayBlock(at, year) : sayDay(step.days.first);
    const times = step.kind === 'work-around' ? step.times : nodes;
    return `${sayStep(step, names)}: ${when}, ${sayMinutes(step.carefulMinutes * times)} careful`;
  });
  const rounds = plan.rounds?.length ?? 0;
  const pilots = (plan.rounds ?? []).filter((r) => r.isPilot).reduce((n, r) => n + r.systems, 0);
  return rounds > 1
    ? [
        ...steps,
        `In ${rounds} rounds${pilots > 0 ? `, ${sayCount(pilots, 'pilot')} first` : ''}; the last ends on ${sayDay(plan.rounds?.at(-1)?.finish.last ?? 0)}`
      ]
    : steps;
}

/** What is published of it; else that nobody says. */
function outageOf(about: Approved, route: Route): string[] {
  const hops = hopsOf(about, route);
  const sum = (pick: (hop: Hop) => number | undefined): string => {
    const known = hops.map(pick);
    const total = known.reduce<number>((n, m) => n + (m ?? 0), 0);
    const untold = known.filter((m) => m === undefined).length;
    if (untold === hops.length) return 'nobody has published it';
    return `${sayMinutes(total)}${untold > 0 ? ` and what ${sayCount(untold, 'step')} of it takes, which nobody has published` : ''}`;
  };
  return [
    `Out of use: ${sum((h) => h.doing?.outageMinutes)}`,
    ...(about.nodes > 1 ? [`Without a spare: ${sum((h) => h.doing?.reducedMinutes)}`] : []),
    `Work on one system: ${sayMinutes(route.carefulMinutes)} careful, ${sayMinutes(route.typicalMinutes)} as a rule`
  ];
}

function costOf({ currency, systems }: Approved, route: Route, one: string): string[] {
  // What is not known of one is not known of all; where one may pay less, all may.
  const most = route.least.costCents < route.costCents ? 'at most ' : '';
  const all =
    systems.length > 1 && route.unknownSums.length === 0
      ? `, ${most}${sayMoney(route.costCents * systems.length, currency)} for all`
      : '';
  const units = route.units.map(
    (u) =>
      `${u.number === 'unknown' ? 'nobody knows how many units' : sayCount(u.number, 'unit')} of ${u.pool} a system, drawn over the estate`
  );
  return [one === 'no money' ? one : `${one} a system${all}`, ...units];
}

const riskOf = (route: Route): string[] => {
  const risks = sayRisks(route.risks);
  return [
    route.kept === 'everything' ? 'Everything is kept' : `Keeps ${route.kept}`,
    ...(risks.length > 0 ? risks : ['No risk is known'])
  ];
};

/** Until when one can go back at every step, what it loses and takes; the last minute to turn round. */
function wayBackOf(about: Approved, route: Route): string[] {
  const { year } = calendarDate(about.today);
  return route.steps.filter(isCounted).map((step) => {
    const back = about.product.hops?.find((h) => h.id === step.id)?.doing?.wayBack;
    const turn = step.at ? `; ${sayBlock(step.at, year).split(', ').at(-1) ?? ''}` : '';
    return `${sayStep(step, about.names)}: ${sayWayBack(back)}${turn}`;
  });
}

/** `until 10 days after it; loses what was written since; 40 min`; that nobody has told. */
export function sayWayBack(back: NonNullable<Hop['doing']>['wayBack']): string {
  if (!back) return 'nobody has published a way back';
  if (back.until === 'never') return 'cannot be turned round once begun';
  const until =
    'days' in back.until ? `until ${sayCount(back.until.days, 'day')} after it` : `until ${back.until.event}`;
  return [
    until,
    ...(back.restores ? [`restores ${back.restores}`] : []),
    ...(back.loses ? [`loses ${back.loses}`] : []),
    ...(back.minutes === undefined ? [] : [sayMinutes(back.minutes)])
  ].join('; ');
}

/** Sheets as Markdown, one after the other. */
export const approvalMarkdown = (sheets: readonly ApprovalSheet[]): string =>
  sheets
    .map(({ title, rows }) =>
      [
        `# ${escapeMark(title)}`,
        '',
        ...rows.flatMap(({ label, lines }) => [
          `**${label}**`,
          '',
          ...lines.map((l) => `- ${escapeMark(l)}`),
          ''
        ])
      ].join('\n')
    )
    .join('\n');

const escapeMark = (text: string): string => text.replace(/[\\`*_[\]<>#|]/g, '\\$&');
