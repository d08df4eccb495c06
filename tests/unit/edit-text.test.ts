import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { parseCatalogue } from '../../src/core/exchange/catalogue-file';
import { renderBlock } from '../../src/core/exchange/render-yaml';
import { readYamlValue } from '../../src/core/exchange/read-yaml';
import { diffValues, editValue, isEqual } from '../../src/core/catalogue/diff-values';
import { editText, editTogether } from '../../src/core/exchange/edit-text';
import { randomEdit, pathsOf, valueAt } from '../support/edits';
import { countOf, randomOf } from '../support/laws';

const yaml = readFileSync('demo/catalogue.yaml', 'utf8');
const value = readYamlValue(yaml);
const textAfter = (text: string, edit: Parameters<typeof editText>[1][number]): string => {
  const made = editText(text, [edit]);
  if (!made.ok) throw new Error(JSON.stringify([made.issues, edit]));
  return made.value;
};

/** Lines at the start and at the end that both have. */
function commonLines(a: string, b: string): number {
  const [x, y] = [a.split('\n'), b.split('\n')];
  const most = Math.min(x.length, y.length);
  let head = 0;
  while (head < most && x[head] === y[head]) head++;
  let tail = 0;
  while (tail < most - head && x[x.length - 1 - tail] === y[y.length - 1 - tail]) tail++;
  return head + tail;
}

describe('an edit in a YAML file', () => {
  test('has the meaning asked for and leaves every line it does not touch byte for byte', () => {
    const random = randomOf(21);
    for (let i = 0; i < countOf(300); i++) {
      const edit = randomEdit(random, value);
      const text = textAfter(yaml, edit);
      expect(isEqual(readYamlValue(text), editValue(value, edit)), JSON.stringify(edit)).toBe(true);
      const touched = edit.kind === 'insert' ? 1 : linesOf(edit.path);
      expect(commonLines(yaml, text), JSON.stringify(edit)).toBeGreaterThanOrEqual(
        yaml.split('\n').length - touched
      );
    }
  });

  test('many at once mean what they should, and the head of the file stays', () => {
    const random = randomOf(24);
    let inOneGo = 0;
    const runs = countOf(200);
    for (let i = 0; i < runs; i++) {
      let after = value;
      for (let n = random.int(2, 8); n > 0; n--) after = editValue(after, randomEdit(random, after));
      const edits = diffValues(value, after);
      const together = editTogether(yaml, edits);
      if (together !== undefined) inOneGo++;
      expect(together === undefined || isEqual(readYamlValue(together), after), `run ${i}`).toBe(true);
      const made = editText(yaml, edits);
      expect(made.ok && isEqual(readYamlValue(made.value), after), `run ${i}`).toBe(true);
      if (made.ok) expect(made.value.split('\n').slice(0, 2)).toEqual(yaml.split('\n').slice(0, 2));
    }
    expect(inOneGo).toBeGreaterThan(runs * 0.75);
  });

  test('next to block texts, blank lines and comments', () => {
    const text =
      'a:\n  note: |\n    one\n    two\n\n  # of b\n  b: 1\n\nlist:\n  - x: |-\n      deep\n\n  - y\n\n# end\n';
    for (const edit of [
      { kind: 'set', path: ['a', 'note'], value: 'short' },
      { kind: 'set', path: ['a', 'c'], value: '2' },
      { kind: 'remove', path: ['a', 'note'] },
      { kind: 'insert', path: ['list'], at: 1, values: ['z'] },
      { kind: 'insert', path: ['list'], at: 2, values: ['z'] },
      { kind: 'remove', path: ['list', 0] }
    ] as const) {
      const made = textAfter(text, edit);
      expect(isEqual(readYamlValue(made), editValue(readYamlValue(text), edit)), made).toBe(true);
      for (const line of ['  # of b', '  b: 1', '# end', '  - y'])
        expect(made.split('\n'), made).toContain(line);
    }
  });

  test('where one value stands in several places it is never changed by halves', () => {
    const text = 'a: &x {k: one, l: two}\nb: *x\nc:\n  - &y three\n  - *y\n';
    for (const edit of [
      { kind: 'set', path: ['a', 'k'], value: 'new' },
      { kind: 'set', path: ['b'], value: 'new' },
      { kind: 'set', path: ['b', 'k'], value: 'new' },
      { kind: 'remove', path: ['a', 'l'] },
      { kind: 'set', path: ['c', 0], value: 'new' },
      { kind: 'set', path: ['c', 1], value: 'new' }
    ] as const) {
      const made = editText(text, [edit]);
      expect(
        !made.ok || isEqual(readYamlValue(made.value), editValue(readYamlValue(text), edit)),
        JSON.stringify(edit)
      ).toBe(true);
    }
  });

  test('keeps comments, on lines of their own and behind values', () => {
    const text =
      '# head\na: 1 # one\nlist:\n  # first\n  - {id: x, n: a} # x\n  # second\n  - id: y # y\n    n: b\n# foot\n';
    const made = editText(text, [
      { kind: 'set', path: ['a'], value: '2' },
      { kind: 'insert', path: ['list'], at: 1, values: [{ id: 'new' }] },
      { kind: 'set', path: ['list', 2, 'm'], value: 'c' },
      { kind: 'remove', path: ['list', 0, 'n'] }
    ]);
    expect(made).toEqual({
      ok: true,
      value:
        '# head\na: "2" # one\nlist:\n  # first\n  - {id: x} # x\n  # second\n  - {id: new}\n  - id: y # y\n    n: b\n    m: c\n# foot\n'
    });
  });

  test('through JSON the meaning is kept', () => {
    const random = randomOf(22);
    const json = JSON.stringify(value, null, 2);
    for (let i = 0; i < countOf(200); i++) {
      const edit = randomEdit(random, value);
      expect(isEqual(JSON.parse(textAfter(json, edit)), editValue(value, edit))).toBe(true);
    }
    const [a, b] = [parseCatalogue(yaml), parseCatalogue(json)];
    expect(a.ok && b.ok && a.value).toEqual(b.ok && b.value);
  });

  test('that cannot be made is refused, and the text stays', () => {
    expect(editText('a: [', [{ kind: 'set', path: ['a'], value: 1 }])).toMatchObject({
      ok: false
    });
  });
});

test('edits found between two values turn the one into the other', () => {
  const random = randomOf(23);
  for (let i = 0; i < countOf(500); i++) {
    let after = value;
    for (let n = random.int(1, 6); n > 0; n--) after = editValue(after, randomEdit(random, after));
    expect(isEqual(diffValues(value, after).reduce(editValue, value), after)).toBe(true);
  }
});

test('between any two lists of entries', () => {
  const random = randomOf(25);
  const list = (): { id: string; n: number }[] =>
    random
      .shuffle([...'abcdefgh'].filter(() => random.chance(0.6)))
      .map((id) => ({ id, n: random.int(0, 1) }));
  for (let i = 0; i < 400; i++) {
    const [before, after] = [{ list: list() }, { list: list() }];
    const edits = diffValues(before, after);
    expect(edits.reduce(editValue, before as unknown)).toEqual(after);
    const made = editTogether(
      `list:${renderBlock(before.list, 2)
        .map((l) => `\n  ${l}`)
        .join('')}\nend: x\n`,
      edits
    );
    if (made !== undefined && before.list.length > 0)
      expect(
        isEqual(readYamlValue(made), readYamlValue(`list: ${JSON.stringify(after.list)}\nend: x\n`)),
        made
      ).toBe(true);
  }
});

test('a release that moves is taken out and put in; the others are left alone', () => {
  const list = (ids: string): unknown => ({ releases: [...ids].map((id) => ({ id })) });
  const edits = diffValues(list('abcdef'), list('abdecf'));
  expect(edits).toEqual([
    { kind: 'remove', path: ['releases', 2] },
    { kind: 'insert', path: ['releases'], at: 4, values: [{ id: 'c' }] }
  ]);
});

/** How many lines the value at a path, with its key, stands on in the demo's text; one more for good measure. */
function linesOf(path: readonly (string | number)[]): number {
  if (!pathsOf(value).some((p) => p.join('/') === path.join('/'))) return 1;
  const without = textAfter(yaml, {
    kind: 'set',
    path,
    value: typeof valueAt(value, path) === 'object' ? 'x' : 'xx'
  });
  return yaml.split('\n').length - commonLines(yaml, without) + 1;
}
