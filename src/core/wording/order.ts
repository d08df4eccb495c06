import type { Names } from '../catalogue';
import { calendarDate } from '../date';
import type { DueEntry } from '../plan';
import type {
  ComponentOrder,
  Lever,
  NamedConstraint,
  OrderedPart,
  OrderedStep,
  OrderedWave,
  StepMove
} from '../order';
import { sayBlock } from './calendar';
import { sayCount, sayDay, sayMinutes } from './dates';

/** Names that orders are told with. */
export interface OrderNames {
  product(id: string): Names;
  system(id: string): string;
}

/** `hosts host-b-01 and 4 more`: a part by its systems. */
export function sayPart({ systems }: Pick<OrderedPart, 'systems'>, names: OrderNames): string {
  const [first = '', ...more] = systems.map((s) => names.system(s));
  return more.length === 0
    ? first
    : more.length === 1
      ? `${first} and ${more[0]}`
      : `${first} and ${more.length} more`;
}

/** `depot-hub: 8.50 to 9` */
export function sayOrderedStep(step: OrderedStep, order: ComponentOrder, names: OrderNames): string {
  const part = order.parts[step.part];
  if (!part) return '';
  const own = names.product(part.product);
  const edition = step.from.edition === step.to.edition ? '' : ` ${own.edition(step.to.edition)}`;
  return `${sayPart(part, names)}: ${own.level(step.from)} to ${own.release(step.to.release)}${edition}`;
}

/** When a step is made: the window of each round, else its days. */
export function sayStepDays(step: OrderedStep, today: number): string {
  const { year } = calendarDate(today);
  const rounds = step.rounds.map((r) => {
    const when = r.at
      ? sayBlock(r.at, year)
      : r.first === r.last
        ? sayDay(r.first)
        : `${sayDay(r.first)} to ${sayDay(r.last)}`;
    return step.rounds.length > 1 ? `${sayCount(r.systems, 'system')}: ${when}` : when;
  });
  return rounds.join('; ');
}

interface Left {
  /** What would not fit. */
  readonly what: string;
  /** Who had to leave, where to, and in which waves. */
  readonly who: Set<string>;
  readonly to: string;
  readonly waves: Set<number>;
}

/** Why a step comes behind others: what would not fit together otherwise. A sentence for each place that others had to leave. */
export function sayBecause(step: OrderedStep, order: ComponentOrder, names: OrderNames): string[] {
  const own = order.parts[step.part];
  if (!own) return [];
  const mine = names.product(own.product);
  const found = new Map<string, Left>();
  for (const { wave, part } of step.because) {
    const there = order.waves[wave]?.steps.find((s) => s.part === part);
    const other = order.parts[part];
    if (!there || !other) continue;
    const theirs = names.product(other.product);
    const [from, to] = [theirs.release(there.from.release), theirs.release(there.to.release)];
    const what = `${mine.product} ${mine.release(step.to.release)} does not fit ${theirs.product} ${from}`;
    const left = found.get(`${what} ${to}`) ?? { what, who: new Set(), to, waves: new Set() };
    left.who.add(sayPart(other, names));
    left.waves.add(wave + 1);
    found.set(`${what} ${to}`, left);
  }
  return [...found.values()].map(({ what, who, to, waves }) => {
    const which = [...waves].sort((a, b) => a - b).join(', ');
    return `${what}: ${[...who].join(', ')} went to ${to} in ${waves.size > 1 ? 'waves' : 'wave'} ${which}.`;
  });
}

const FATES: Readonly<Record<OrderedPart['fate'], string>> = {
  reached: 'reached',
  here: 'is there',
  stays: 'stays, by decision',
  'no way': 'has no way of its own',
  'not told': 'hangs on something of which nobody has told what it is or where it stands',
  'no order': 'no order reaches it',
  'in conflict': 'not together with the others',
  'no room':
    'no window has room for it, too few people watch what must change at once, or what is laid down leaves no day'
};
/** `no order reaches it` */
export const sayFate = ({ fate }: Pick<OrderedPart, 'fate'>): string => FATES[fate];

/** One thing that stands in the way of goals. */
export function sayConstraint(
  { kind, parts, release }: NamedConstraint,
  order: ComponentOrder,
  names: OrderNames
): string {
  const [own, other] = parts.map((p) => order.parts[p]);
  if (!own) return '';
  const mine = names.product(own.product);
  switch (kind) {
    case 'pairing':
      return other
        ? `${sayPart(own, names)} and ${sayPart(other, names)} have to fit: ${mine.product} on ${names.product(other.product).product}${sayWhereNot(own, other)}`
        : '';
    case 'stay':
      return `Somebody has decided that ${sayPart(own, names)} stays.`;
    case 'pilots':
      return `${parts.map((p) => sayPart(order.parts[p] as OrderedPart, names)).join(', ')} would have to be there first, as pilots.`;
    case 'lock':
      return other
        ? `Somebody has laid down that ${sayPart(own, names)} and ${sayPart(other, names)} never go together.`
        : '';
    case 'rest':
      return `${sayPart(own, names)} must not rest on ${mine.release(release ?? '')}, which is out of service.`;
  }
}

/** `Any one of these out of the way, an order is found.`; nothing where one alone does not do. */
export function sayOpenings(constraints: readonly NamedConstraint[]): string {
  const opening = constraints.filter((c) => c.opens);
  if (opening.length === 0 && constraints.length === 1)
    return 'Were it not for this, something else forbids it still.';
  if (opening.length === 0)
    return constraints.length > 0 ? 'None of these alone, out of the way, would do.' : '';
  if (constraints.length === 1) return 'Were it not for this, an order is found.';
  return opening.length === constraints.length
    ? 'With any one of these out of the way an order is found.'
    : `With one of these out of the way an order is found: ${opening.map((c) => constraints.indexOf(c) + 1).join(' or ')} of ${constraints.length}.`;
}

/** Who goes first in a wave as pilots, and who waits for pilots. */
export function sayPilotsOf(order: ComponentOrder, wave: number, names: OrderNames): string[] {
  const moving = order.waves[wave]?.steps.map((s) => s.part) ?? [];
  const who = (parts: readonly number[]): string =>
    parts.map((p) => sayPart(order.parts[p] as OrderedPart, names)).join(', ');
  return order.pilots.flatMap(({ first, then, watchDays }) => {
    const watched = watchDays > 0 ? ` and ${sayCount(watchDays, 'whole day')} behind` : '';
    const own = first.filter((p) => moving.includes(p));
    if (own.length > 0) return [`${who(own)}: pilots. ${who(then)} begin when they are there${watched}.`];
    const waiting = then.filter((p) => moving.includes(p));
    return waiting.length > 0
      ? [`${who(waiting)} waited for the pilots ${who(first)} to be there${watched}.`]
      : [];
  });
}

/** What is perhaps reached besides: who, in how many waves, and what nobody knows whether it fits. */
export function sayPerhaps(order: ComponentOrder, names: OrderNames): string {
  const { perhaps } = order;
  if (!perhaps) return '';
  const who = perhaps.goals.map((p) => sayPart(order.parts[p] as OrderedPart, names)).join(', ');
  const rests = perhaps.rests.map(({ parts, places }) =>
    parts
      .map((p, i) => {
        const own = names.product(order.parts[p]?.product ?? '');
        return `${own.product} ${own.level(places[i as 0 | 1])}`;
      })
      .join(' with ')
  );
  const days = perhaps.waves.at(-1);
  return `Perhaps ${who} too, in ${sayCount(perhaps.waves.length, 'wave')}${days ? `, done ${sayDay(days.last)}` : ''}: nobody has told whether ${[...new Set(rests)].join(', and ')} fit together.`;
}

const sayWhereNot = (own: OrderedPart, other: OrderedPart): string => {
  const stuck = [own, other].find((p) => p.fate === 'no way');
  return stuck ? ', and one of the two has no way of its own.' : '.';
};

/** What moving a wave to a later day would do; nothing where no deadline sets a latest one. */
export function sayLatest(
  { latest, latestFor }: OrderedWave,
  order: ComponentOrder,
  names: OrderNames
): string {
  const part = latestFor === undefined ? undefined : order.parts[latestFor];
  if (latest === undefined) return '';
  if (!part)
    return `Later than ${sayDay(latest)} leaves no day for what follows: a deadline is missed, or what is laid down is not kept.`;
  const deadline = part.deadline === undefined ? '' : `, ${sayDay(part.deadline)}`;
  return `Later than ${sayDay(latest)} leaves no day for what follows: the deadline of ${sayPart(part, names)}${deadline}, is missed.`;
}

/** `Wave 2 of 3, 11 Mar 2031` */
export const sayWave = (order: ComponentOrder, wave: number): string => {
  const { first, last } = order.waves[wave] as OrderedWave;
  const days = first === last ? sayDay(first) : `${sayDay(first)} to ${sayDay(last)}`;
  return `Wave ${wave + 1} of ${order.waves.length}, ${days}`;
};

/** What an order puts into a calendar: every block of every step; the same step keeps its entry when its day moves. */
export function orderEntries(orders: readonly ComponentOrder[], names: OrderNames): DueEntry[] {
  return orders.flatMap((order) =>
    order.waves.flatMap((wave, w) =>
      wave.steps.flatMap((step) =>
        step.rounds.map((round, r): DueEntry => ({
          about: `order ${order.parts[step.part]?.id ?? ''} ${step.step} ${r}`,
          ...(round.at ? { from: round.at.begins, to: round.at.ends } : { day: round.first }),
          summary: sayOrderedStep(step, order, names),
          description: [sayWave(order, w), ...sayBecause(step, order, names)].join('. ')
        }))
      )
    )
  );
}

/** An order as a run sheet: a heading a wave, a box a step. Markdown. */
export function orderMarkdown(orders: readonly ComponentOrder[], names: OrderNames, today: number): string {
  const lines: string[] = ['# Order of work', ''];
  const waves = orders
    .flatMap((order) => order.waves.map((wave, i) => ({ order, wave, i })))
    .sort((a, b) => a.wave.first - b.wave.first || (a.order.id < b.order.id ? -1 : 1));
  for (const { order, wave, i } of waves) {
    lines.push(
      `## ${sayWave(order, i)}: ${order.parts
        .map((p) => names.product(p.product).product)
        .filter((p, k, all) => all.indexOf(p) === k)
        .join(', ')}`,
      ''
    );
    if (i > 0) lines.push(`Not before wave ${i} has gone well; if it has not, wait for a decision.`, '');
    for (const told of sayPilotsOf(order, i, names)) lines.push(told, '');
    for (const step of wave.steps) {
      const bound = wave.bound.some((set) => set.includes(step.part));
      lines.push(
        `- [ ] ${sayOrderedStep(step, order, names)}; ${sayStepDays(step, today)}; ${sayMinutes(step.carefulMinutes)} careful${bound ? '; at the same minute as what is bound with it' : ''}`
      );
      for (const why of sayBecause(step, order, names)) lines.push(`  - ${why}`);
    }
    lines.push('');
  }
  for (const order of orders)
    for (const { goals, constraints } of order.conflicts) {
      lines.push(
        `## No order: ${goals.map((g) => sayPart(order.parts[g] as OrderedPart, names)).join(', ')}`,
        ''
      );
      for (const c of constraints) lines.push(`- ${sayConstraint(c, order, names)}`);
      lines.push('', sayOpenings(constraints), '');
    }
  for (const order of orders) if (order.perhaps) lines.push(sayPerhaps(order, names), '');
  return lines.join('\n');
}

/** `host-b-01 and 3 more to 9: 14 Mar 2031 instead of 12 Mar 2031` */
export function sayStepMove(
  { systems, product, release, before, after }: StepMove,
  names: OrderNames
): string {
  const who = `${sayPart({ systems }, names)} to ${names.product(product).release(release)}`;
  if (before === undefined) return `${who}: ${sayDay(after ?? 0)}, not made before`;
  return after === undefined
    ? `${who}: not made any more, ${sayDay(before)} before`
    : `${who}: ${sayDay(after)} instead of ${sayDay(before)}`;
}

/** What would save a deadline, as the rest of a sentence. */
export function sayLevers(levers: readonly Lever[], { lock, calendar }: LeverNames): string {
  return levers
    .map((lever) => {
      switch (lever.kind) {
        case 'crew':
          return `more people of ${calendar(lever.id)}`;
        case 'windows':
          return `work outside the windows of ${calendar(lever.id)}`;
        case 'freeze':
          return `the freeze from ${sayDay(lever.first)} to ${sayDay(lever.last)} gone`;
        case 'lock':
          return `letting go “${lock(lever.id)}”`;
      }
    })
    .join(' and ');
}

/** Names that levers are told with. */
export interface LeverNames {
  /** What is laid down, in words. */
  lock(id: string): string;
  /** A calendar, or those who work its windows. */
  calendar(id: string): string;
}

/** How one part fares in the order, in a sentence or two. */
export function sayInOrder(order: ComponentOrder, index: number, names: OrderNames): string {
  const part = order.parts[index];
  if (!part) return '';
  const first = order.waves.findIndex((w) => w.steps.some((s) => s.part === index));
  if (part.fate === 'reached' && first >= 0) {
    const waits =
      part.waitsFor.length === 0
        ? ''
        : `, after ${part.waitsFor.map((p) => sayPart(order.parts[p] as OrderedPart, names)).join(', ')}`;
    return `Proven in the order: ${sayWave(order, first).replace(/^W/, 'w')}${waits}, done ${sayDay(part.finish ?? 0)}.`;
  }
  const own = order.conflicts.find((c) => c.goals.length === 1 && c.goals[0] === index);
  const shared = order.conflicts.find((c) => c.goals.length > 1 && c.goals.includes(index));
  const why = (own ?? shared)?.constraints.map((c) => sayConstraint(c, order, names)).join(' ') ?? '';
  const fate = sayFate(part);
  return `${fate.charAt(0).toUpperCase()}${fate.slice(1)}${why === '' ? '.' : `: ${why}`}`;
}

/** `12 days in the order`: where that is less than alone; nothing otherwise. */
export function sayOrderSlack(
  order: ComponentOrder,
  index: number,
  { alone, names }: { readonly alone: number | undefined; readonly names: OrderNames }
): string {
  const part = order.parts[index];
  if (part?.fate === 'no order') return 'no order reaches it';
  if (part?.fate === 'in conflict') return 'not together with the others';
  if (part?.slack === undefined || alone === undefined || part.slack >= alone) return '';
  const others = part.waitsFor.flatMap((p) => order.parts[p] ?? []);
  const after = others[0] ? `, ${sayPart(others[0], names)} first` : '';
  return `${sayCount(part.slack, 'day')} in the order${after}${others.length > 1 ? ` and ${others.length - 1} more` : ''}`;
}
