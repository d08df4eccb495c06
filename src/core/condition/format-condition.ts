import { CONDITION_WORDS, type Condition } from './condition';
import { formatFigure } from './measure';
import { quoteValue } from './token';

const RANK = { or: 0, and: 1, not: 2 } as const;

/** The condition as text; `parseCondition` reads it back to an equal tree. Brackets stand only where they are needed. */
export const formatCondition = (condition: Condition): string => format(condition, 0, AS_WRITTEN);

/** What stands in a condition by its id: a fact, a list, or the text of a range of releases. */
export type NamedIn = 'fact' | 'list' | 'range';
export type NameInCondition = (id: string, kind: NamedIn) => string;

/** The same as people say it: facts, lists and releases by their names. No text to be read back. */
export const formatConditionWith = (condition: Condition, nameOf: NameInCondition): string =>
  format(condition, 0, asSaid(nameOf));

/** How the parts of a condition are put. */
interface Style {
  readonly fact: (id: string) => string;
  /** What is joined stands in brackets inside a link, unless the link brings its own. */
  readonly rankInLink: number;
  readonly linked: (members: string, link: string, part: string) => string;
  readonly range: (text: string) => string;
  readonly listed: (is: string, list: string) => string;
  readonly values: (values: readonly string[]) => string;
}

const AS_WRITTEN: Style = {
  fact: (id) => id,
  rankInLink: 0,
  linked: (members, link, part) => `${members} linked ${link} (${part})`,
  range: (text) => `in (${text})`,
  listed: (is, list) => `${is}listed in ${list}`,
  values: (values) => {
    const quoted = values.map((v) => quoteValue(v, (w) => CONDITION_WORDS.has(w)));
    return quoted.length === 1 ? (quoted[0] ?? '') : `one of (${quoted.join(', ')})`;
  }
};

const asSaid = (nameOf: NameInCondition): Style => ({
  fact: (id) => nameOf(id, 'fact'),
  rankInLink: RANK.not,
  linked: (members, link, part) =>
    `${part} on ${members === 'lowest' ? 'the lowest' : members} linked ${link}`,
  range: (text) => `is ${nameOf(text, 'range')}`,
  listed: (is, list) => `${is}on the list “${nameOf(list, 'list')}”`,
  values: (values) =>
    values.length === 1 ? (values[0] ?? '') : `${values.slice(0, -1).join(', ')} or ${values.at(-1) ?? ''}`
});

function format(condition: Condition, within: number, style: Style): string {
  switch (condition.kind) {
    case 'and':
    case 'or': {
      const rank = RANK[condition.kind];
      const text = condition.parts.map((p) => format(p, rank + 1, style)).join(` ${condition.kind} `);
      return rank < within ? `(${text})` : text;
    }
    case 'not':
      return `not ${format(condition.part, RANK.not, style)}`;
    case 'always':
    case 'never':
      return condition.kind;
    case 'linked':
      return style.linked(condition.members, condition.link, format(condition.part, style.rankInLink, style));
    case 'figure':
      return `${style.fact(condition.fact)} ${condition.relation} ${formatFigure(condition.figure)}`;
    case 'range':
      return `${style.fact(condition.fact)} ${style.range(condition.range)}`;
    case 'listed':
      return `${style.fact(condition.fact)} ${style.listed(condition.negated ? 'is not ' : 'is ', condition.list)}`;
    case 'value':
      return `${style.fact(condition.fact)} is ${condition.negated ? 'not ' : ''}${style.values(condition.values)}`;
  }
}
