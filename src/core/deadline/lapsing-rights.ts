import { offerEnd } from '../right';
import { type Label, type Terms, useRight } from '../route';
import type { Contributor } from './deadline';

/** Dated rights of the chosen route: what the step costs once they lapse. They set no deadline. */
export function lapsingRights(terms: Terms, chosen: Label): Contributor[] {
  return chosen.moves.flatMap((move, i): Contributor[] => {
    const use = chosen.judgement.rights[i]?.use;
    if (!use?.right || use.costCents === 'unknown') return [];
    const { right, costCents } = use;
    const offer = terms.model.rights.find((r) => r.right.id === right)?.right.offer;
    const ends = [use.until, offerEnd(terms, offer)].filter((d) => d !== undefined && d >= terms.today);
    return [...new Set(ends)].flatMap((day): Contributor[] => {
      if (day === undefined) return [];
      const after = useRight(
        { ...terms, leadsFrom: day + 1 },
        move,
        { first: day + 1, last: day + 1, exact: true },
        'sure'
      ).use;
      const cents = after.costCents === 'unknown' ? 'unknown' : after.costCents - costCents;
      if (cents === 0 && after.units && after.right !== right) {
        const { pool, number } = after.units;
        return [{ kind: 'right', subject: right, day, sets: false, cost: { code: 'units', pool, number } }];
      }
      if (cents === 0) return [];
      return [{ kind: 'right', subject: right, day, sets: false, cost: { code: 'money', cents } }];
    });
  });
}
