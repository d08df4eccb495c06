import { readingKey } from './situation';
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
  'asked',
  'stage',
  'meantFor',
  'missingSince'
] as const;

/** What two records of a system state differently; days and sources of facts do not count, nor where either came from. */
export function findDifferences(before: System, after: System): Difference[] {
  const list: Difference[] = [];
  if (before === after) return list;
  const add = (what: string, a: string, b: string): void => {
    if (a !== b) list.push({ what, before: a, after: b });
  };
  for (const part of READINGS)
    if (before[part] !== after[part]) add(part, readingKey(before[part]), readingKey(after[part]));
  if (!('is' in before.product) && !('is' in after.product))
    add('installed', before.installedText ?? '', after.installedText ?? '');
  for (const field of TEXTS) add(field, before[field] ?? '', after[field] ?? '');
  add('nodes', String(before.nodes ?? 1), String(after.nodes ?? 1));
  if (before.facts !== after.facts)
    for (const id of new Set([...Object.keys(before.facts ?? {}), ...Object.keys(after.facts ?? {})])) {
      const [a, b] = [before.facts?.[id], after.facts?.[id]];
      if (a !== b) add(id, formatFactText(a), formatFactText(b));
    }
  if (before.companions !== after.companions) add('companions', sayCompanions(before), sayCompanions(after));
  if (before.links !== after.links) add('links', sayLinks(before), sayLinks(after));
  return list;
}

const sayCompanions = ({ companions = [] }: System): string =>
  companions
    .map(({ name, version, essential, keyInHand }) =>
      [
        name,
        version ?? '',
        essential === undefined ? '' : essential ? '(essential)' : '(nice to have)',
        keyInHand === undefined ? '' : keyInHand ? '(key in hand)' : '(key missing)'
      ]
        .filter(Boolean)
        .join(' ')
    )
    .sort()
    .join('; ');

const sayLinks = ({ links = [] }: System): string =>
  links
    .map((l) => `${l.kind} ${'to' in l ? l.to : 'nothing'}${l.as === undefined ? '' : ` (${l.as})`}`)
    .sort()
    .join('; ');
