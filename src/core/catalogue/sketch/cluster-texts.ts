import { compareText } from '../../kit';
import type { Installed } from './installed';
import { foldText } from '../../version';
import { SERVICE_WORD } from '../tables/cells';

/** Machines whose text names something the catalogue does not have, gathered by what looks like one product. */
export interface TextCluster {
  readonly name: string;
  /** Spellings of the name that were met. */
  readonly spellings: readonly string[];
  /** In a suggested sequence; labels are compared as numbers only to suggest, the person decides. */
  readonly versions: readonly VersionCluster[];
  readonly systems: number;
}

export interface VersionCluster {
  readonly label: string;
  /** Words behind the label that may be an edition; empty where there are none. */
  readonly rest: string;
  /** The texts as they were read. */
  readonly texts: readonly string[];
  readonly systems: readonly string[];
}

/** Systems whose product the catalogue does not have, with what was read of them. */
export const findUnmatched = <T extends Installed>(systems: readonly T[]): T[] =>
  systems.filter((s) => !('is' in s.product) && (s.installedText ?? '').trim() !== '');

/**
 * Gathers texts by the words before the first one with a digit, and inside that by the words with digits that follow.
 * A text without digits is a product of its own with one version, `as installed`. Largest cluster first, then by name.
 */
export function clusterTexts(systems: readonly Installed[]): TextCluster[] {
  const clusters = new Map<
    string,
    Map<string, { label: string; rest: string; texts: Set<string>; systems: string[] }>
  >();
  const spellings = new Map<string, Set<string>>();
  for (const system of findUnmatched(systems)) {
    const { name, label, rest } = splitText(system.installedText ?? '');
    const key = foldText(name);
    const versions = clusters.get(key) ?? new Map<string, never>();
    clusters.set(key, versions);
    (spellings.get(key) ?? spellings.set(key, new Set()).get(key))?.add(name);
    const versionKey = `${foldText(label)}|${foldText(rest)}`;
    const version = versions.get(versionKey) ?? { label, rest, texts: new Set<string>(), systems: [] };
    versions.set(versionKey, version);
    version.texts.add((system.installedText ?? '').trim());
    version.systems.push(system.id);
  }
  return [...clusters]
    .map(([key, versions]) => {
      const list = [...versions.values()]
        .map((v) => ({ ...v, texts: [...v.texts].sort() }))
        .sort((a, b) => compareLabels(a.label, b.label) || compareText(a.rest, b.rest));
      const names = [...(spellings.get(key) ?? [])].sort();
      return {
        name: names[0] ?? key,
        spellings: names,
        versions: list,
        systems: list.reduce((n, v) => n + v.systems.length, 0)
      };
    })
    .sort((a, b) => b.systems - a.systems || compareText(a.name, b.name));
}

/** `Kestrel panel 3.1 R2 Studio`: name, label and rest. */
export function splitText(text: string): {
  readonly name: string;
  readonly label: string;
  readonly rest: string;
} {
  const words = text
    .trim()
    .split(/[\s,;()]+/)
    .filter(Boolean);
  if (isBare(words))
    return { name: '', label: words.filter((w) => !VERSION_WORD.test(w)).join(' '), rest: '' };
  const first = words.findIndex((w, i) => i > 0 && /\d/.test(w));
  if (first < 0) return { name: words.join(' '), label: 'as installed', rest: '' };
  let end = first + 1;
  while (end < words.length && /\d/.test(words[end] ?? '')) end++;
  // A lone word in front of a number belongs to the label: version 3, release 4, line 5.
  const name = words.slice(0, first).filter((w, i) => i === 0 || !VERSION_WORD.test(w));
  // What says how long it is served is no edition.
  const rest = words.slice(end).filter((w) => !SERVICE_WORD.test(w));
  return { name: name.join(' '), label: words.slice(first, end).join(' '), rest: rest.join(' ') };
}

const VERSION_WORD = /^(version|release|line|ver\.?|v|rel\.?)$/i;

const VERSION = /^(v?\d+([._-]\w+)*([a-z]{1,3}\d+)?|(sp|r|u)\d+)$/i;

/** A version and nothing that says of what: `61.2.9`, `version 7`. */
const isBare = (words: readonly string[]): boolean =>
  words.some((w) => VERSION.test(w)) &&
  words.every((w) => VERSION.test(w) || VERSION_WORD.test(w) || SERVICE_WORD.test(w));

/** Suggests an order: runs of digits as numbers, the rest as text; what has fewer parts first. */
export function compareLabels(a: string, b: string): number {
  const parts = (text: string): string[] => foldText(text).match(/\d+|[^\d.\s_-]+/g) ?? [];
  const [x, y] = [parts(a), parts(b)];
  for (let i = 0; i < Math.max(x.length, y.length); i++) {
    const [p, q] = [x[i], y[i]];
    if (p === undefined || q === undefined) return p === undefined ? -1 : 1;
    const both = /^\d/.test(p) && /^\d/.test(q);
    const order = both ? Number(p) - Number(q) : p < q ? -1 : p > q ? 1 : 0;
    if (order !== 0) return order < 0 ? -1 : 1;
  }
  return 0;
}
