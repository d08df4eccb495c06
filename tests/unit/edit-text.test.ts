import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { parseCatalogue } from '../../src/core/exchange/catalogue-file';
import { readYamlValue } from '../../src/core/exchange/read-yaml';
import { diffValues, editValue, isEqual } from '../../src/core/catalogue/diff-values';
import { editText } from '../../src/core/exchange/edit-text';
import { randomEdit, pathsOf, valueAt } from '../support/edits';
import { Random } from '../support/random';

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
    const random = new Random(21);
    for (let i = 0; i < 90; i++) {
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
    const random = new Random(24);
    for (let i = 0; i < 60; i++) {
      let after = value;
      for (let n = random.int(2, 8); n > 0; n--) after = editValue(after, randomEdit(random, after));
      const made = editText(yaml, diffValues(value, after));
      expect(made.ok && isEqual(readYamlValue(made.value), after), `run ${i}`).toBe(true);
      if (made.ok) expect(made.value.split('\n').slice(0, 2)).toEqual(yaml.split('\n').slice(0, 2));
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
    const random = new Random(22);
    const json = JSON.stringify(value, null, 2);
    for (let i = 0; i < 60; i++) {
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
  const random = new Random(23);
  for (let i = 0; i < 150; i++) {
    let after = value;
    for (let n = random.int(1, 6); n > 0; n--) after = editValue(after, randomEdit(random, after));
    expect(isEqual(diffValues(value, after).reduce(editValue, value), after)).toBe(true);
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
