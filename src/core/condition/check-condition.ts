import { comparisonsOf, type Comparison, type Condition } from './condition';
import { readSwitch } from './evaluate-condition';
import type { FactKinds } from './fact-kind';
import { figureIn, formatFigure, isOrdered, unitsOf } from './measure';

/** What a condition asks that cannot be asked: facts without a kind, figures of another measure, lists there are none of. */
export interface ConditionMisfit {
  readonly code: 'no-such-fact' | 'wrong-measure' | 'no-such-list' | 'no-such-switch';
  readonly detail: string;
}

/** Checks names and measures of a condition, from left to right; empty when all fit. Ranges are the catalogue's to check. */
export function checkCondition(
  condition: Condition,
  kinds: FactKinds,
  lists: ReadonlySet<string>
): ConditionMisfit[] {
  return comparisonsOf(condition).flatMap((c) => checkComparison(c, kinds, lists));
}

function checkComparison(
  comparison: Comparison,
  kinds: FactKinds,
  lists: ReadonlySet<string>
): ConditionMisfit[] {
  if (comparison.kind === 'range')
    return comparison.fact === 'release' ? [] : [{ code: 'no-such-fact', detail: comparison.fact }];
  const kind = kinds.find(comparison.fact);
  if (!kind) return [{ code: 'no-such-fact', detail: comparison.fact }];
  if (comparison.kind === 'listed')
    return lists.has(comparison.list) ? [] : [{ code: 'no-such-list', detail: comparison.list }];
  if (comparison.kind === 'figure')
    return figureIn(kind.measure, comparison.figure) === undefined
      ? [
          {
            code: 'wrong-measure',
            detail: `${formatFigure(comparison.figure)} for ${kind.id}${say(unitsOf(kind.measure))}`
          }
        ]
      : [];
  if (kind.measure === 'switch')
    return comparison.values.flatMap((v) =>
      v === 'present' || readSwitch(v) !== undefined ? [] : [{ code: 'no-such-switch' as const, detail: v }]
    );
  return isOrdered(kind.measure)
    ? [{ code: 'wrong-measure', detail: `"is" for ${kind.id}; write at least, at most, above or below` }]
    : [];
}

const say = (units: readonly string[]): string => (units.length === 0 ? '' : ` (${units.join(', ')})`);
