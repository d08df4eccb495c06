import type { Worksheet } from '../estate';
import type { Difference, Experience, NightRun } from '../worksheet';
import { sayCount, sayDay, sayMinutes } from './dates';
import { parseDay } from '../date';
import { sayTask, type WorkNames } from './worksheet';

const dayOf = (iso: string): string => sayDay(parseDay(iso) ?? 0);

/** What became of one worksheet in a night, a sentence each. */
export function sayNightRun(
  { sheet, hops, failed, warnings, gates, next, done, of }: NightRun,
  names: WorkNames
): string[] {
  const task = (item: Worksheet['items'][number]): string => sayTask(item, sheet, names);
  const open = failed.filter((i) => i.kind !== 'hop');
  return [
    ...hops.map(({ item, state, by }) => {
      const took = by.minutes === undefined ? '' : `, ${sayMinutes(by.minutes)}`;
      const predicted =
        item.carefulMinutes === undefined ? '' : ` (careful ${sayMinutes(item.carefulMinutes)})`;
      return `${task(item)}: ${state}${took}${took === '' ? '' : predicted}${by.note ? `: ${by.note}` : ''}`;
    }),
    ...warnings
      .filter((w) => w.item.kind !== 'hop')
      .map(
        ({ item, by }) =>
          `With a warning: ${task(item)}${by.who ? `, accepted by ${by.who}` : ''}: ${by.note ?? ''}`
      ),
    ...gates.map((g) => `Gone through shut: ${g.gate ?? ''}${g.who ? `, by ${g.who}` : ''}: ${g.note ?? ''}`),
    ...open.map((i) => `Failed: ${task(i)}`),
    next ? `${done} of ${of} done; next: ${task(next)}` : `all ${of} done`
  ];
}

/** The night's report. Markdown. */
export function nightMarkdown(night: string, runs: readonly NightRun[], names: WorkNames): string {
  const failed = runs.filter((r) => r.failed.length > 0).length;
  const over = runs.filter((r) => !r.next).length;
  const lines = [
    `# The night of ${dayOf(night)}`,
    '',
    `${sayCount(runs.length, 'worksheet')}: ${over} done, ${failed} with something failed, ${runs.length - over} to go on with.`,
    ''
  ];
  for (const run of runs) {
    const { sheet, began, ended } = run;
    const own = names.product(sheet.product);
    lines.push(
      `## ${names.system(sheet.system)}: ${own.product} ${own.level(sheet.start)} to ${own.level(sheet.target)}`,
      '',
      began && ended ? `First entry ${began}, last ${ended}.` : 'Nothing was entered.',
      '',
      ...sayNightRun(run, names).map((text) => `- ${text}`),
      ''
    );
  }
  return lines.join('\n');
}

const KINDS: Readonly<Record<Difference['kind'], string>> = {
  release: 'Release',
  patch: 'Patch',
  edition: 'Edition',
  architecture: 'Architecture',
  fact: 'Fact',
  companion: 'Companion',
  gained: 'Feature gained',
  lost: 'Feature lost'
};

/** One difference between before and after: what it is about, how it was, how it is. */
export function sayDifference(
  { kind, what, before, after, instead }: Difference,
  { product }: Pick<Worksheet, 'product'>,
  names: WorkNames
): { readonly what: string; readonly before: string; readonly after: string } {
  const own = names.product(product);
  const nameOf = (id: string | undefined): string => {
    if (id === undefined) return 'not told';
    return kind === 'release' ? own.release(id) : kind === 'edition' ? own.edition(id) || id : id;
  };
  const about = kind === 'fact' || kind === 'companion' ? `${KINDS[kind]} ${what}` : KINDS[kind];
  if (kind === 'gained') return { what: about, before: '', after: what };
  if (kind === 'lost')
    return { what: about, before: what, after: instead === undefined ? '' : `instead: ${instead}` };
  if (kind === 'companion')
    return { what: about, before: before ? 'there' : 'not there', after: after ? 'there' : 'gone' };
  return { what: about, before: nameOf(before), after: nameOf(after) };
}

/** What was seen of an entry beside what was predicted: `seen 8 times, 40 min, at most 1 h 10 min; predicted 1 h, careful 2 h` */
export function sayExperience({ runs, failed, typicalMinutes, carefulMinutes }: Experience): string {
  const seen =
    runs.n === 0
      ? ''
      : `seen ${runs.n === 1 ? 'once' : `${runs.n} times`}: ${sayMinutes(runs.typicalMinutes)}${runs.n > 1 ? `, at most ${sayMinutes(runs.carefulMinutes)}` : ''}`;
  const went = failed === 0 ? '' : `failed ${failed === 1 ? 'once' : `${failed} times`}`;
  const said =
    typicalMinutes === undefined && carefulMinutes === undefined
      ? ''
      : `predicted ${[typicalMinutes, carefulMinutes].flatMap((m, i) => (m === undefined ? [] : `${i === 1 ? 'careful ' : ''}${sayMinutes(m)}`)).join(', ')}`;
  return [seen, went, said].filter((t) => t !== '').join('; ');
}
