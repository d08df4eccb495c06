import type { Chapter } from 'virtual:handbook';
import { foldText } from '$core/version';

const MOST_HERE = 5;
const MOST_FOUND = 15;

/** What explains a screen: chapters of its place, the nearest first, then those whose words stand on it. */
export function chaptersOfScreen(
  chapters: readonly Chapter[],
  path: string,
  shown: string
): readonly Chapter[] {
  const screen = shown.toLowerCase();
  const score = (c: Chapter): number => {
    const place = Math.max(
      0,
      ...c.at.map((at) => (path === at || path.startsWith(`${at}/`) ? at.length : 0))
    );
    const said = c.words.filter((w) => screen.includes(w.toLowerCase())).length;
    // What is first of all of this view, what is of it too, its place, what is only spoken of.
    return (c.at[0] === path ? 1000 : c.at.includes(path) ? 500 : 0) + place * 10 + said;
  };
  const scored = chapters.filter((c) => c.doc === 'handbook').map((c) => ({ c, by: score(c) }));
  return scored
    .filter(({ by }) => by > 0)
    .sort((a, b) => b.by - a.by)
    .slice(0, MOST_HERE)
    .map(({ c }) => c);
}

/** Chapters with all of some words, in their title first; the handbook's before the contract's. */
export function findChapters(chapters: readonly Chapter[], asked: string): readonly Chapter[] {
  const wanted = foldText(asked).split(' ').filter(Boolean);
  if (wanted.length === 0) return [];
  const has = (text: string): boolean => {
    const folded = foldText(text);
    return wanted.every((w) => folded.includes(w));
  };
  const found = chapters.filter((c) => has(`${c.title} ${c.text} ${c.words.join(' ')}`));
  const inTitle = found.filter((c) => has(c.title));
  return [...inTitle, ...found.filter((c) => !inTitle.includes(c))].slice(0, MOST_FOUND);
}
