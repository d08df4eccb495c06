import { sayFigure } from '../condition';

const AMOUNT = /^(\d+)( B| Hz)?$/;

/**
 * The answers to a question that are worth asking about, with what a person calls them: of the amounts on both sides of a
 * threshold, which lie one base unit apart, `below 20 GB`, `20 GB` and `above 20 GB`.
 * @param answers as `Question.answers` has them
 */
export function nameAnswers(
  answers: readonly string[]
): { readonly answer: string; readonly name: string }[] {
  const amounts = new Set(answers.flatMap((a) => (AMOUNT.test(a) ? [Number.parseInt(a, 10)] : [])));
  const isEdge = (n: number): boolean => amounts.has(n - 1) && amounts.has(n) && amounts.has(n + 1);
  return answers.flatMap((answer) => {
    const [, digits, unit] = AMOUNT.exec(answer) ?? [];
    if (digits === undefined) return [{ answer, name: answer }];
    const n = Number(digits);
    const say = (base: number): string => sayAmount(base, unit);
    if (isEdge(n)) return [{ answer, name: say(n) }];
    if (isEdge(n + 1)) return [{ answer, name: `below ${say(n + 1)}` }];
    if (isEdge(n - 1)) return [{ answer, name: `above ${say(n - 1)}` }];
    // A byte more than none is no machine's answer.
    return unit !== undefined && n < 2 ? [] : [{ answer, name: say(n) }];
  });
}

function sayAmount(base: number, unit: string | undefined): string {
  if (unit === undefined) return String(base);
  if (unit === ' Hz') return sayFigure('frequency', base);
  return sayFigure(base % 2 ** 20 === 0 ? 'memory' : 'disk', base);
}
