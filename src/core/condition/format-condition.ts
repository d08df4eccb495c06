import { CONDITION_WORDS, type Condition } from './condition';
import { formatFigure } from './measure';
import { quoteValue } from './token';

const RANK = { or: 0, and: 1, not: 2 } as const;

/** The condition as text; `parseCondition` reads it back to an equal tree. Brackets stand only where they are needed. */
export const formatCondition = (condition: Condition): string => format(condition, 0);

function format(condition: Condition, within: number): string {
  switch (condition.kind) {
    case 'and':
    case 'or': {
      const rank = RANK[condition.kind];
      const text = condition.parts.map((p) => format(p, rank + 1)).join(` ${condition.kind} `);
      return rank < within ? `(${text})` : text;
    }
    case 'not':
      return `not ${format(condition.part, RANK.not)}`;
    case 'always':
    case 'never':
      return condition.kind;
    case 'linked':
      return `${condition.members} linked ${condition.link} (${format(condition.part, 0)})`;
    case 'figure':
      return `${condition.fact} ${condition.relation} ${formatFigure(condition.figure)}`;
    case 'range':
      return `${condition.fact} in (${condition.range})`;
    case 'listed':
      return `${condition.fact} is ${condition.negated ? 'not ' : ''}listed in ${condition.list}`;
    case 'value': {
      const values = condition.values.map((v) => quoteValue(v, (w) => CONDITION_WORDS.has(w)));
      const is = `${condition.fact} is ${condition.negated ? 'not ' : ''}`;
      return values.length === 1 ? is + (values[0] ?? '') : `${is}one of (${values.join(', ')})`;
    }
  }
}
