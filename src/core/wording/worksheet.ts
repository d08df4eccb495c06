import { type Names, splitEntryPath } from '../catalogue';
import type { ItemKind, ItemState, WorkItem, Worksheet } from '../estate';
import { type Drift, type Gate, type GateName, progressOf, standingOf } from '../worksheet';
import { sayMinutes } from './dates';
import { sayArrival, sayHopWithStart } from './hop';

/** Names that worksheets are told with. */
export interface WorkNames {
  product(id: string): Names;
  system(id: string): string;
}

/** The parts of a worksheet, in its order; kinds that follow one another in a part belong together. */
const PARTS: Readonly<Record<ItemKind, string>> = {
  fetch: 'Fetch',
  access: 'Access',
  decide: 'Decide beforehand',
  'back up': 'Back up',
  prove: 'Back up',
  snapshot: 'Make ready',
  check: 'Check ahead',
  patch: 'Make ready',
  cure: 'Make ready',
  'work-around': 'Make ready',
  'follow-on': 'Make ready',
  work: 'Make ready',
  hop: 'The hop',
  'hand-over': 'The hop',
  'way back': 'The way back',
  'post-work': 'Afterwards',
  verify: 'Look at it',
  tidy: 'Tidy up'
};

/** A part of a worksheet: items that stand together under one heading. */
export interface WorkPart {
  readonly heading: string;
  readonly items: readonly WorkItem[];
}

/** A worksheet's items in their parts, in turn; hop by hop where there are several. */
export function partsOf({ items, product }: Worksheet, names: WorkNames): WorkPart[] {
  const hops = new Set(items.flatMap((i) => i.step ?? [])).size;
  const target = (step: number): string => {
    const to = items.find((i) => i.kind === 'hop' && i.step === step)?.to;
    const own = names.product(product);
    const isOtherEdition =
      to !== undefined && to.edition !== items.find((i) => i.kind === 'hop')?.to?.edition;
    return to ? ` (${own.level(to)}${isOtherEdition ? ` ${own.edition(to.edition)}` : ''})` : '';
  };
  const parts: { heading: string; items: WorkItem[] }[] = [];
  for (const item of items) {
    const ofStep = hops > 1 && item.step !== undefined && item.kind !== 'fetch' ? target(item.step) : '';
    const heading =
      item.needless === undefined ? `${PARTS[item.kind]}${ofStep}` : 'Not needed for this target';
    const last = parts.at(-1);
    if (last?.heading === heading) last.items.push(item);
    else parts.push({ heading, items: [item] });
  }
  return parts;
}

/** What is to be done, in a line. */
export function sayTask(item: WorkItem, { product, system }: Worksheet, names: WorkNames): string {
  const own = names.product(product);
  const [, , id = ''] = splitEntryPath(item.about);
  const node = item.node === undefined ? '' : `, node ${item.node}`;
  const on = item.of === undefined ? '' : ` on ${names.system(item.of)}`;
  const text = item.text ?? '';
  const details = (item.details ?? []).join('; ');
  switch (item.kind) {
    case 'fetch':
      if (item.details?.[0] === 'fallback') {
        const how = item.details.includes('fresh install') ? 'a fresh install of' : 'the way to';
        const what = text === '' ? '' : `: ${text}`;
        return `Have in hand what the fallback needs, ${how} ${item.to ? own.level(item.to) : ''}${what}`;
      }
      if (details === 'driver') return `Have ${text} for ${own.companion(id)} on a medium`;
      if (item.about.includes('/cautions/')) return `Read ${text}`;
      return item.about.includes('/rights/')
        ? `Have ${own.right(id)} in hand`
        : item.about.includes('/companions/')
          ? `Have the key of ${own.companion(id)}${details === '' ? '' : `: ${details}`}`
          : `${item.about.startsWith('references') ? 'Read' : 'Have'} ${text}${details === '' ? '' : `: ${details}`}`;
    case 'access':
      return `Get in at the ${text}${details === '' ? '' : `: ${details}`}`;
    case 'decide':
      return details === '' ? `Decide: ${text}` : `Accept: ${text}`;
    case 'back up':
      return 'Back up, finished and dated';
    case 'prove':
      return details === ''
        ? 'Look that the back-up is whole and can be read'
        : 'Prove the back-up: restore something from it';
    case 'snapshot':
      return item.step === 0
        ? 'Snapshot, to undo this step alone'
        : 'Another snapshot, to undo the next step alone';
    case 'check':
      if (item.about.startsWith('rule'))
        return 'Mains power holds for as long as the work takes; date and time are right';
      return `Check “${own.caution(id)}”: ${text}`;
    case 'patch':
      return `Patch to ${item.to ? own.level(item.to) : ''}, restart, and look again until nothing more is offered`;
    case 'cure':
      return own.cure(text);
    case 'work-around':
      return `Work around “${own.caution(id)}”${on}${node}: ${text}`;
    case 'follow-on':
      return `${text.replace(/\.$/, '')}; ${details}`;
    case 'work':
      return item.about.includes('/companions/') ? `${capital(text)} ${own.companion(id)}` : capital(text);
    case 'hop':
      return `${names.system(system)}${node} to ${item.to ? own.level(item.to) : ''}${item.to && own.edition(item.to.edition) ? ` ${own.edition(item.to.edition)}` : ''}`;
    case 'hand-over':
      return `Hand the load over, so that node ${item.node ?? ''} carries none; roles end swapped, and that is normal`;
    case 'way back':
      return text === 'never'
        ? 'There is no way back from here'
        : `Test whether the way back is still open (until: ${text})${details === '' ? '' : `; ${details}`}`;
    case 'post-work':
      return item.about.includes('/companions/') ? `${capital(text)} ${own.companion(id)}` : capital(text);
    case 'tidy':
      return item.about.startsWith('name') ? `Rename what still carries “${text}”` : `Left behind: ${text}`;
    case 'verify':
      if (item.about.includes('/rights/')) return `${own.right(id)}: activated, and units left as counted`;
      if (item.about.startsWith('link')) return `${names.system(item.of ?? '')} shows the new release`;
      if (item.about.startsWith('companions')) return `${text} works`;
      if (item.about === 'rule: sign in and services')
        return 'Sign in; what ran before runs, and starts by itself after a restart';
      if (item.about.startsWith('rule')) return `Node ${item.node ?? ''} is there and has its role`;
      return item.to
        ? `Load anew and read the version, once with another tool: ${own.level(item.to)}${own.edition(item.to.edition) ? ` ${own.edition(item.to.edition)}` : ''}`
        : text;
  }
}

const capital = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;

/** Where an item comes from. */
export function sayOrigin({ about }: Pick<WorkItem, 'about'>, names: WorkNames): string {
  const [product = '', list = '', id = ''] = splitEntryPath(about);
  const own = names.product(product);
  switch (list) {
    case 'hops':
      return `${own.product}: ${sayHopWithStart(own, id)}`;
    case 'editionChanges':
      return `${own.product}: ${sayArrival(own, id)}`;
    case 'cautions':
      return `known problem “${own.caution(id)}”`;
    case 'requirements':
      return own.requirement(id) === id
        ? `what ${own.product} asks`
        : `what ${own.product} asks: ${own.requirement(id)}`;
    case 'rights':
      return `right “${own.right(id)}”`;
    case 'companions':
      return `companion ${own.companion(id)}`;
    case 'releases':
      return `patch of ${own.release(id)} of ${own.product}`;
    default:
      return about;
  }
}

/** Minutes of an item, typical and careful. */
export function sayItemMinutes({ typicalMinutes, carefulMinutes, handsOnMinutes, runs }: WorkItem): string {
  if ((typicalMinutes ?? 0) === 0 && (carefulMinutes ?? 0) === 0) return '';
  const hands = `${handsOnMinutes === undefined ? '' : `, ${sayMinutes(handsOnMinutes)} hands-on`}${runs === undefined ? '' : `, by ${runs} own runs`}`;
  if (carefulMinutes === undefined)
    return typicalMinutes === undefined ? '' : `${sayMinutes(typicalMinutes)}${hands}`;
  return typicalMinutes === undefined || typicalMinutes === carefulMinutes
    ? `${sayMinutes(carefulMinutes)}${hands}`
    : `${sayMinutes(typicalMinutes)}, careful ${sayMinutes(carefulMinutes)}${hands}`;
}

/**
 * How something that runs is told: on time; slower than typical, which is normal; past the careful figure. `minutes` it has run.
 */
export function sayRunning(
  { typicalMinutes = 0, carefulMinutes, normal = [], stuck = [] }: WorkItem,
  minutes: number
): string {
  const careful = carefulMinutes ?? typicalMinutes;
  if (careful === 0) return `running for ${sayMinutes(minutes)}`;
  if (minutes <= typicalMinutes) return `running for ${sayMinutes(minutes)} of ${sayMinutes(typicalMinutes)}`;
  if (minutes <= careful)
    return `slow, but normal: ${sayMinutes(minutes)}, up to ${sayMinutes(careful)} are${normal.length > 0 ? `; ${normal.join('; ')}` : ''}`;
  const then = stuck.map((s) => `if ${s.looks}: ${s.then}`).join('; ');
  return `longer than the careful ${sayMinutes(careful)}: ${sayMinutes(minutes)}. ${then === '' ? 'Perhaps it is stuck.' : `Stuck? ${then}`}`;
}

/** What a worksheet is for: from where to where, with the edition where the product has several. */
export function sayJob({ product, start, target }: Worksheet, names: WorkNames): string {
  const own = names.product(product);
  const at = (standing: Worksheet['start']): string =>
    [own.level(standing), own.edition(standing.edition)].filter(Boolean).join(' ');
  return `${own.product} ${at(start)} to ${at(target)}`;
}

const SHUT: Readonly<Record<Exclude<GateName, 'back-up'>, string>> = {
  access: 'access or media are not in hand',
  checks: 'a check is open or has failed',
  'work-arounds': 'what makes ready is not clean on every node and linked system',
  'the step before': 'what comes before is not through',
  'what it hangs on': 'what it hangs on is not there yet',
  'the same hop elsewhere': 'it has failed on others, and nobody has said that the rest go on'
};

/** What of a back-up is open, by the items that keep its gate shut. */
const BACK_UP_OPEN: Readonly<Partial<Record<WorkItem['kind'], string>>> = {
  'back up': 'the back-up is not finished',
  prove: 'it is not proven that the back-up can be restored',
  snapshot: 'the snapshot is not taken'
};

/** Why a gate is shut, or how it came to be open; `items`: those of its worksheet. */
export function sayGate(
  { name, isOpen, opened, waitsFor, isStale, shutBy }: Gate,
  names: WorkNames,
  items: readonly WorkItem[]
): string {
  if (opened)
    return `${name}: gone through by decision${opened.who ? ` of ${opened.who}` : ''}: ${opened.note ?? ''}`;
  if (isOpen) return `${name}: open`;
  if (isStale) return `${name}: the back-up is older than a week`;
  const who = waitsFor.map((s) => names.system(s)).join(', ');
  if (name === 'back-up') {
    const kinds = new Set(items.filter((i) => shutBy.includes(i.id)).map((i) => i.kind));
    return `${name}: ${[...kinds].flatMap((k) => BACK_UP_OPEN[k] ?? []).join(', ')}`;
  }
  return `${name}: ${SHUT[name]}${who === '' ? '' : `: ${who}`}`;
}

const MARKS: Readonly<Record<ItemState, string>> = {
  open: ' ',
  running: '~',
  passed: 'x',
  'passed with a warning': 'x',
  failed: '!',
  'not needed': '-'
};

/** A worksheet with all that was entered, for paper or a ticket. Markdown. */
export function worksheetMarkdown(sheet: Worksheet, names: WorkNames): string {
  const progress = progressOf(sheet);
  const standing = standingOf(sheet);
  const lines = [
    `# ${names.system(sheet.system)}: ${sayJob(sheet, names)}`,
    '',
    `Made ${sheet.made}${sheet.who ? ` by ${sheet.who}` : ''}${sheet.night ? `, planned for ${sheet.night}` : ''}. ${standing.done} of ${standing.of} done.`,
    ''
  ];
  for (const { heading, items } of partsOf(sheet, names)) {
    lines.push(`## ${heading}`, '');
    for (const item of items) {
      const { state, by } = progress.get(item.id) ?? { state: 'open' as const };
      const took = by?.minutes === undefined ? '' : `, ${sayMinutes(by.minutes)}`;
      const said = by
        ? ` - ${state}, ${by.at}${by.who ? `, ${by.who}` : ''}${took}${by.note ? `: ${by.note}` : ''}`
        : '';
      const task = sayTask(item, sheet, names);
      lines.push(`- [${MARKS[state]}] ${item.needless === undefined ? task : `~~${task}~~`}${said}`);
      const minutes = sayItemMinutes(item);
      if (minutes !== '') lines.push(`  - takes ${minutes}`);
      for (const text of item.normal ?? []) lines.push(`  - normal: ${text}`);
      for (const s of item.stuck ?? []) lines.push(`  - stuck: ${s.looks}; then ${s.then}`);
      lines.push(`  - from: ${sayOrigin(item, names)}`);
    }
    lines.push('');
  }
  return lines.join('\n');
}

const DRIFTS: Readonly<Record<Drift, string>> = {
  'stands elsewhere': 'what is installed is not what the worksheet goes on from',
  'other target': 'its target is another now',
  'other way': 'the way that is chosen now takes other steps',
  'no way': 'its target is no longer reached',
  gone: 'the system is gone'
};
/** What is no longer as it was when a worksheet was made. */
export const sayDrift = (drift: Drift): string => DRIFTS[drift];
