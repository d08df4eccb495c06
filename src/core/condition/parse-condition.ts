import { parseRange } from '../version';
import { CONDITION_WORDS, type Condition, type Quantifier, type Relation } from './condition';
import { parseFigure, type Figure } from './measure';
import { cutTokens, type Token } from './token';

/** Where and why a text is no condition: `at` and `length` are places in the text, from 0. */
export interface ConditionFault {
  readonly code:
    | 'condition-too-long'
    | 'condition-too-deep'
    | 'condition-sign'
    | 'condition-word'
    | 'condition-end'
    | 'condition-range'
    | 'condition-figure';
  readonly at: number;
  readonly length: number;
  readonly found: string;
  /** What would have fitted there. */
  readonly expected: readonly string[];
}

export type ConditionParse = { readonly condition: Condition } | { readonly fault: ConditionFault };

const MAX_LENGTH = 4000;
const MAX_DEPTH = 64;

/** Reads a condition (grammar: condition.ts) by recursive descent, one word ahead. The first fault ends it. Never throws. */
export function parseCondition(text: string): ConditionParse {
  if (text.length > MAX_LENGTH)
    return { fault: { code: 'condition-too-long', at: MAX_LENGTH, length: 1, found: '', expected: [] } };
  const cut = cutTokens(text);
  if ('at' in cut)
    return {
      fault: { code: 'condition-sign', at: cut.at, length: 1, found: text[cut.at] ?? '', expected: [] }
    };
  const reader = new Reader(text, cut.tokens);
  try {
    const condition = reader.either(0);
    reader.end();
    return { condition };
  } catch (stop) {
    if (stop instanceof Stop) return { fault: stop.fault };
    throw stop;
  }
}

/** Thrown inside the reader only; `parseCondition` turns it into a value. */
class Stop extends Error {
  constructor(readonly fault: ConditionFault) {
    super(fault.code);
  }
}

const STARTS = ['a fact', 'not', '(', 'every', 'some', 'lowest', 'always', 'never'];

class Reader {
  readonly #text: string;
  readonly #tokens: readonly Token[];
  #next = 0;

  constructor(text: string, tokens: readonly Token[]) {
    this.#text = text;
    this.#tokens = tokens;
  }

  either(depth: number): Condition {
    return this.#chain('or', depth, () => this.#both(depth));
  }

  end(): void {
    if (this.#peek()) this.#stop('condition-word', ['and', 'or', 'the end']);
  }

  #both(depth: number): Condition {
    return this.#chain('and', depth, () => this.#single(depth + 1));
  }

  #chain(word: 'and' | 'or', depth: number, read: () => Condition): Condition {
    if (depth > MAX_DEPTH) this.#stop('condition-too-deep', []);
    const parts = [read()];
    while (this.#take(word)) parts.push(read());
    const [only] = parts;
    return parts.length === 1 && only ? only : { kind: word, parts };
  }

  #single(depth: number): Condition {
    if (depth > MAX_DEPTH) this.#stop('condition-too-deep', []);
    if (this.#take('not')) return { kind: 'not', part: this.#single(depth + 1) };
    if (this.#take('(')) return this.#closing(this.either(depth + 1));
    if (this.#take('always')) return { kind: 'always' };
    if (this.#take('never')) return { kind: 'never' };
    for (const members of ['every', 'some', 'lowest'] as const)
      if (this.#take(members)) return this.#linked(members, depth);
    return this.#comparison();
  }

  #linked(members: Quantifier, depth: number): Condition {
    this.#must('linked');
    const link = this.#word('the kind of link');
    this.#must('(');
    return { kind: 'linked', members, link, part: this.#closing(this.either(depth + 1)) };
  }

  #comparison(): Condition {
    const fact = this.#word('', STARTS);
    if (this.#take('at')) {
      const which = this.#take('least') ? 'at least' : this.#take('most') ? 'at most' : undefined;
      if (!which) this.#stop('condition-word', ['least', 'most']);
      return this.#figure(fact, which as Relation);
    }
    if (this.#take('above')) return this.#figure(fact, 'above');
    if (this.#take('below')) return this.#figure(fact, 'below');
    if (this.#take('in')) return this.#range(fact);
    if (this.#take('is')) return this.#is(fact);
    return this.#stop('condition-word', ['at least', 'at most', 'above', 'below', 'is', 'in (']);
  }

  #figure(fact: string, relation: Relation): Condition {
    const token = this.#peek();
    if (token?.kind !== 'word') return this.#stop('condition-figure', ['a figure']);
    this.#next++;
    const unit = this.#peek();
    const withUnit =
      unit?.kind === 'word' && /^[A-Za-z]+$/.test(unit.text) && !CONDITION_WORDS.has(unit.text)
        ? parseFigure(`${token.text} ${unit.text}`)
        : undefined;
    if (withUnit) this.#next++;
    const figure: Figure | undefined = withUnit ?? parseFigure(token.text);
    if (!figure) {
      this.#next--;
      return this.#stop('condition-figure', ['a figure']);
    }
    return { kind: 'figure', fact, relation, figure };
  }

  #range(fact: string): Condition {
    const open = this.#peek();
    this.#must('(');
    const from = (open?.at ?? 0) + 1;
    while (this.#peek() && this.#peek()?.text !== ')') this.#next++;
    const close = this.#peek();
    if (!close) return this.#stop('condition-end', [')']);
    const range = this.#text.slice(from, close.at).trim().replace(/\s+/g, ' ');
    if (!('range' in parseRange(range)))
      throw new Stop({
        code: 'condition-range',
        at: from,
        length: Math.max(1, close.at - from),
        found: range,
        expected: ['a range']
      });
    this.#next++;
    return { kind: 'range', fact, range };
  }

  #is(fact: string): Condition {
    const negated = this.#take('not');
    if (this.#take('listed')) {
      this.#must('in');
      return { kind: 'listed', fact, negated, list: this.#word('a list') };
    }
    if (!this.#take('one')) return { kind: 'value', fact, negated, values: [this.#value()] };
    this.#must('of');
    this.#must('(');
    const values = [this.#value()];
    while (this.#take(',')) values.push(this.#value());
    if (!this.#take(')')) this.#stop(this.#peek() ? 'condition-word' : 'condition-end', [',', ')']);
    return { kind: 'value', fact, negated, values };
  }

  #value(): string {
    const token = this.#peek();
    if (token?.kind === 'quoted') return (this.#next++, token.text);
    return this.#word('a value');
  }

  #word(what: string, expected = [what]): string {
    const token = this.#peek();
    if (token?.kind !== 'word' || CONDITION_WORDS.has(token.text))
      return this.#stop(token ? 'condition-word' : 'condition-end', expected);
    this.#next++;
    return token.text;
  }

  #closing(condition: Condition): Condition {
    if (!this.#take(')')) this.#stop(this.#peek() ? 'condition-word' : 'condition-end', ['and', 'or', ')']);
    return condition;
  }

  #must(text: string): void {
    if (!this.#take(text)) this.#stop(this.#peek() ? 'condition-word' : 'condition-end', [text]);
  }

  #take(text: string): boolean {
    const token = this.#peek();
    if (!token || token.kind === 'quoted' || token.text !== text) return false;
    this.#next++;
    return true;
  }

  #peek(): Token | undefined {
    return this.#tokens[this.#next];
  }

  #stop(code: ConditionFault['code'], expected: readonly string[]): never {
    const token = this.#peek();
    throw new Stop({
      code: token ? code : code === 'condition-too-deep' ? code : 'condition-end',
      at: token?.at ?? this.#text.length,
      length: token?.length ?? 1,
      found: token?.text ?? '',
      expected
    });
  }
}
