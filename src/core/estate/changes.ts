import { readingKey } from './standing';
import { formatFactText } from './fact-text';
import type { System } from './schema';

/** One thing in which two records of a system differ, in words. */
export interface Difference {
  readonly what: string;
  readonly before: string;
  readonly after: string;
}

const READINGS = ['product', 'release', 'patch', 'edition', 'architecture'] as const;
const TEXTS = [
  'name',
  'team',
  'site',
  'observed',
  'note',
  'purl',
  'cpe',
  'stage',
  'meantFor',
  'missingSince'
] as const;

/** What two records of a system state differently; days and sources of facts do not count, nor where either came from. */
export function findDifferences(before: System, after: System): Difference[] {
  const list: Difference[] = [];
  const add = (what: string, a: string, b: string): void => {
    if (a !== b) list.push({ what, before: a, after: b });
  };
  for (const part of READINGS) add(part, readingKey(before[part]), readingKey(after[part]));
  if (!('is' in before.product) && !('is' in after.product))
    add('installed', before.installedText ?? '', after.installedText ?? '');
  for (const field of TEXTS) add(field, before[field] ?? '', after[field] ?? '');
  add('nodes', String(before.nodes ?? 1), String(after.nodes ?? 1));
  for (const id of new Set([...Object.keys(before.facts ?? {}), ...Object.keys(after.facts ?? {})]))
    add(id, formatFactText(before.facts?.[id]), formatFactText(after.facts?.[id]));
  add('companions', listOf(before.companions), listOf(after.companions));
  add('links', listOf(before.links), listOf(after.links));
  return list;
}

const listOf = (items: readonly object[] | undefined): string =>
  (items ?? [])
    .map((item) =>
      Object.entries(item)
        .filter(([key]) => key !== 'day' && key !== 'source' && key !== 'kind')
        .map(([, v]) => String(v))
        .join(' ')
    )
    .sort()
    .join('; ');

/** `release: 4, now 5` */
export const sayDifference = ({ what, before, after }: Difference): string =>
  `${what}: ${before === '' ? 'nothing' : before}, now ${after === '' ? 'nothing' : after}`;
