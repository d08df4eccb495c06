import { type Condition, type Evaluation, formatConditionWith, type NameInCondition } from '../condition';
import type { Issue } from '../kit';
import { sayFactSeen } from './seen';

/** What is wrong with a condition's text, as the rest of a sentence: `: "leest" where least or most would fit`. */
export function describeConditionFault({ code, found, expected }: NonNullable<Issue['fault']>): string {
  const wanted = expected.length > 0 ? `${expected.slice(0, 4).join(', ')} would fit` : '';
  switch (code) {
    case 'condition-too-long':
      return ': it is longer than 4,000 signs';
    case 'condition-too-deep':
      return ': its brackets are nested deeper than 64';
    case 'condition-sign':
      return `: the sign ${found} cannot stand there`;
    case 'condition-range':
      return `: "${found}" is not a range of releases`;
    case 'condition-figure':
      return `: "${found}" is not a figure`;
    case 'condition-end':
      return `: it ends where ${wanted}`;
    default:
      return `: "${found}" stands where ${wanted}`;
  }
}

/** An evaluation as indented lines, the whole first: each with its truth and what was seen. */
export function describeEvaluation(evaluation: Evaluation, nameOf: NameInCondition, depth = 0): string[] {
  const seen = evaluation.seen ? `; seen: ${sayFactSeen(evaluation.seen)}` : '';
  const line = `${'  '.repeat(depth)}${evaluation.truth}: ${headOf(evaluation.condition, nameOf)}${seen}`;
  return [line, ...evaluation.parts.flatMap((p) => describeEvaluation(p, nameOf, depth + 1))];
}

const JOINTS: Readonly<Partial<Record<Condition['kind'], string>>> = {
  and: 'all of',
  or: 'one of',
  not: 'not'
};

const headOf = (condition: Condition, nameOf: NameInCondition): string =>
  condition.kind === 'linked'
    ? `${condition.members} linked ${condition.link}`
    : (JOINTS[condition.kind] ?? formatConditionWith(condition, nameOf));
