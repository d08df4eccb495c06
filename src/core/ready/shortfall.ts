import { type Evaluation, type FactKinds, figureIn, parseFigure, sayFigure } from '../condition';

/** What is missing of a measured fact, as a figure. */
export interface Shortfall {
  readonly fact: string;
  readonly seen: string;
  readonly demanded: string;
  /** The difference, in a unit people use; `2 GB`. */
  readonly missing: string;
}

/** The first comparison of a figure that fails in an evaluation, with what is missing; undefined where no figure is short. */
export function findShortfall(evaluation: Evaluation, kinds: FactKinds): Shortfall | undefined {
  const { condition, parts, seen, truth } = evaluation;
  if (truth !== 'no') return undefined;
  if (condition.kind !== 'figure') {
    for (const part of parts) {
      const found = findShortfall(part, kinds);
      if (found) return found;
    }
    return undefined;
  }
  const measure = kinds.find(condition.fact)?.measure;
  if (!measure || measure === 'day' || measure === 'year' || seen?.kind !== 'known') return undefined;
  const had = figureIn(measure, parseFigure(String(seen.value)) ?? { amount: '' });
  const wanted = figureIn(measure, condition.figure);
  if (had === undefined || wanted === undefined || had >= wanted) return undefined;
  return {
    fact: condition.fact,
    seen: String(seen.value),
    demanded: sayFigure(measure, wanted),
    missing: sayFigure(measure, wanted - had)
  };
}
