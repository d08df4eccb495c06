import { foldText, parseRange } from '../version';
import type { Comparison, Condition } from './condition';
import type { Evidence, LinkedEvidence, Seen } from './evidence';
import type { FactKinds } from './fact-kind';
import { figureIn, parseFigure, type Figure, type Measure } from './measure';
import { and, not, or, truthOf, type Truth } from './truth';

/** How a condition came out, with the same for each of its parts: the reason as a tree. */
export interface Evaluation {
  readonly condition: Condition;
  readonly truth: Truth;
  readonly parts: readonly Evaluation[];
  /** For a comparison: what was seen. */
  readonly seen?: Seen;
  /** Of what is asked of linked systems: their names, in the order of the parts, as far as they have any. */
  readonly of?: readonly (string | undefined)[];
}

/**
 * Evaluates a condition in strong Kleene logic. Unknown and disputed facts, values that cannot be compared with what is
 * demanded, links nobody has told of: unknown. No linked member at all: `every` and `lowest` hold, `some` does not.
 * Replacing an unknown by a value never turns yes into no or back. Cost: size of the condition times linked members.
 */
export function evaluateCondition(condition: Condition, evidence: Evidence, kinds: FactKinds): Evaluation {
  const evaluate = (part: Condition): Evaluation => evaluateCondition(part, evidence, kinds);
  switch (condition.kind) {
    case 'and':
    case 'or': {
      const parts = condition.parts.map(evaluate);
      const join = condition.kind === 'and' ? and : or;
      return { condition, parts, truth: parts.map((p) => p.truth).reduce(join) };
    }
    case 'not': {
      const part = evaluate(condition.part);
      return { condition, parts: [part], truth: not(part.truth) };
    }
    case 'always':
      return { condition, parts: [], truth: 'yes' };
    case 'never':
      return { condition, parts: [], truth: 'no' };
    case 'linked': {
      const linked = evidence.linked(condition.link);
      if (linked === 'unknown') return { condition, parts: [], truth: 'unknown' };
      const parts = linked.members.map((m) => evaluateCondition(condition.part, m, kinds));
      const of = linked.members.map((m) => m.name);
      return { condition, parts, truth: truthOfLinked(condition.members, linked, parts), of };
    }
    default:
      return evaluateComparison(condition, evidence, kinds);
  }
}

/** The facts an evaluation could not settle for want of knowing them, each once. Those of linked systems are left out. */
export function unknownFactsOf({ condition, parts, seen, truth }: Evaluation): string[] {
  if (truth !== 'unknown' || condition.kind === 'linked') return [];
  const own =
    'fact' in condition && (seen?.kind === 'unknown' || seen?.kind === 'disputed') ? [condition.fact] : [];
  return [...new Set([...own, ...parts.flatMap(unknownFactsOf)])];
}

/** Whether a condition holds; one whose figure nobody has stated is unknown. */
export const truthIn = (condition: Condition | 'unknown', evidence: Evidence, kinds: FactKinds): Truth =>
  condition === 'unknown' ? 'unknown' : evaluateCondition(condition, evidence, kinds).truth;

function truthOfLinked(
  members: 'every' | 'some' | 'lowest',
  linked: LinkedEvidence,
  parts: readonly Evaluation[]
): Truth {
  const truths = parts.map((p) => p.truth);
  if (members === 'some') return truths.reduce(or, 'no');
  if (members === 'every' || truths.length === 0) return truths.reduce(and, 'yes');
  if (linked.lowest !== 'unknown') return truths[linked.lowest] ?? 'unknown';
  return truths.every((t) => t === truths[0]) ? (truths[0] ?? 'unknown') : 'unknown';
}

function evaluateComparison(condition: Comparison, evidence: Evidence, kinds: FactKinds): Evaluation {
  if (condition.kind === 'range') {
    const parsed = parseRange(condition.range);
    return { condition, parts: [], truth: 'range' in parsed ? evidence.inRange(parsed.range) : 'unknown' };
  }
  const seen = evidence.fact(condition.fact);
  const kind = kinds.find(condition.fact);
  const truth = kind ? truthOfComparison(condition, seen, kind.measure, evidence) : 'unknown';
  return { condition, parts: [], truth, seen };
}

function truthOfComparison(
  condition: Exclude<Comparison, { kind: 'range' }>,
  seen: Seen,
  measure: Measure,
  evidence: Evidence
): Truth {
  if (condition.kind === 'figure') return compareFigures(condition.relation, condition.figure, seen, measure);
  if (seen.kind !== 'known') return 'unknown';
  const value = measure === 'switch' ? readSwitch(seen.value) : foldText(String(seen.value));
  if (value === undefined) return 'unknown';
  const found =
    condition.kind === 'listed'
      ? evidence.listed(condition.list, String(seen.value))
      : truthOf(condition.values.some((v) => isValue(measure, value, v)));
  return condition.negated ? not(found) : found;
}

function compareFigures(relation: string, demanded: Figure, seen: Seen, measure: Measure): Truth {
  const limit = figureIn(measure, demanded);
  if (limit === undefined || seen.kind === 'unknown' || seen.kind === 'disputed') return 'unknown';
  const value = readFigure(measure, seen.value);
  if (value === undefined) return 'unknown';
  const floor = relation === 'at least' || relation === 'below' ? value >= limit : value > limit;
  const asked = relation === 'at least' || relation === 'above';
  // Known to be at least so much: settles that a limit is reached, never that it is not.
  if (seen.kind === 'at least' && !floor) return 'unknown';
  return truthOf(floor === asked);
}

/** A fact's value in base units; undefined where it cannot be read so, a bare number of a measure with units among them. */
function readFigure(measure: Measure, value: string | number | boolean): number | undefined {
  if (typeof value === 'boolean') return undefined;
  const figure = parseFigure(String(value));
  return figure && figureIn(measure, figure);
}

/** A switch as a word: on, off or absent; undefined where the value is none of these. */
export function readSwitch(value: string | number | boolean): 'on' | 'off' | 'absent' | undefined {
  if (value === true) return 'on';
  if (value === false) return 'off';
  const word = foldText(String(value));
  if (['on', 'yes', 'true', 'enabled'].includes(word)) return 'on';
  if (['off', 'no', 'false', 'disabled'].includes(word)) return 'off';
  return ['absent', 'none', 'missing'].includes(word) ? 'absent' : undefined;
}

/** Whether a switch is on; unknown where it is not known to be on, off or absent. */
export function switchTruth(seen: Seen): Truth {
  const word = seen.kind === 'known' ? readSwitch(seen.value) : undefined;
  return word === undefined ? 'unknown' : truthOf(word === 'on');
}

const isValue = (measure: Measure, value: string, demanded: string): boolean => {
  const wanted = foldText(demanded);
  if (measure !== 'switch') return wanted === value;
  return wanted === 'present' ? value !== 'absent' : readSwitch(demanded) === value;
};
