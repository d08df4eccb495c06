import type { Plugin } from 'vite';
import type { Chapter } from 'virtual:handbook';

export function chaptersOf(doc: Chapter['doc'], markdown: string): Chapter[];
export const handbook: () => Plugin;
