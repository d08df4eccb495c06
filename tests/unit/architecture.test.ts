import { readdirSync, readFileSync } from 'node:fs';
import { expect, test } from 'vitest';

/** The folders of a line of the drawing, lowest line first. */
function drawnLayers(): string[] {
  const drawing = /```layers\n([\s\S]*?)```/.exec(readFileSync('ARCHITECTURE.md', 'utf8'))?.[1] ?? '';
  const lines = drawing.trimEnd().split('\n');
  return lines.reverse().flatMap((line) => (line.split(/ {2,}/)[0] ?? '').split(', '));
}

const ruledLayers = (): string[] => {
  const rules = readFileSync('dependency-rules.cjs', 'utf8');
  return [...(/const LAYERS = \[([^\]]*)\]/.exec(rules)?.[1] ?? '').matchAll(/'([\w-]+)'/g)].map(
    (m) => m[1] ?? ''
  );
};

test('the drawing of the layers, the rule CI checks imports by and the folders there are, are the same', () => {
  expect(drawnLayers()).toEqual(ruledLayers());
  const folders = readdirSync('src/core', { withFileTypes: true });
  expect(
    folders
      .filter((f) => f.isDirectory())
      .map((f) => f.name)
      .sort()
  ).toEqual([...ruledLayers(), 'verify'].sort());
  expect(folders.filter((f) => !f.isDirectory()).map((f) => f.name)).toEqual(['index.ts']);
});
