import { CONDITION_WORDS, type Condition } from './condition';
import { formatFigure } from './measure';
import { quoteValue } from './token';

const RANK = { or: 0, and: 1, not: 2 } as const;

/** The condition as text; `parseCondition` reads it back to an equal tree. Brackets stand only where they are needed. */
export const formatCondition = (condition: Condition): string => format(condition, 0, (id) => id);

/** The same with facts by the names people know them under; no text to be read back. */
export const formatConditionWith = (condition: Condition, nameOf: (fact: string) => string): string =>
  format(condition, 0, nameOf);

function format(condition: Condition, within: number, nameOf: (fact: string) => string): string {
  switch (condition.kind) {
    case 'and':
    case 'or': {
      const rank = RANK[condition.kind];
      const text = condition.parts.map((p) => format(p, rank + 1, nameOf)).join(` ${condition.kind} `);
      return rank < within ? `(${text})` : text;
    }
    case 'not':
      return `not ${format(condition.part, RANK.not, nameOf)}`;
    case 'always':
    case 'never':
      return condition.kind;
    case 'linked':
      return `${condition.members} linked ${condition.link} (${format(condition.part, 0, nameOf)})`;
    case 'figure':
      return `${nameOf(condition.fact)} ${condition.relation} ${formatFigure(condition.figure)}`;
    case 'range':
      return `${nameOf(condition.fact)} in (${condition.range})`;
    case 'listed':
      return `${nameOf(condition.fact)} is ${condition.negated ? 'not ' : ''}listed in ${condition.list}`;
    case 'value': {
      const values = condition.values.map((v) => quoteValue(v, (w) => CONDITION_WORDS.has(w)));
      const is = `${nameOf(condition.fact)} is ${condition.negated ? 'not ' : ''}`;
      return values.length === 1 ? is + (values[0] ?? '') : `${is}one of (${values.join(', ')})`;
    }
  }
}
