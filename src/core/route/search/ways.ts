import { targetKey } from '../../compile';
import { type Ends, noted, type Terms } from '../terms';
import { Expander } from './expand';
import { compareByPreference, startLabel, type Label } from './label';
import { aheadOf } from './ahead';

/** Ways looked for, and labels worked off for them, at most. */
const MOST_WAYS = 60;
const MOST_LABELS = 1_500;

export interface Ways {
  /** One for each sequence of counted steps, with the levels and cures it is preferred with; first by preference. */
  readonly ways: readonly Label[];
  readonly cut: boolean;
}

/** Every sequence of counted steps that leads to a target for certain, however much better another may be. Cost: a label a sequence. */
export function listWays(given: Terms, { start, target }: Ends): Ways {
  const terms = noted(given);
  const expander = new Expander(terms, 'sure', { target });
  const ahead = aheadOf(terms.model, target.release, { inPlace: false, cells: false, levels: false });
  const key = targetKey(target);
  let stones: readonly Label[] = [startLabel(terms, start)];
  const ways: Label[] = [];
  let labels = 0;
  while (stones.length > 0 && labels < MOST_LABELS && ways.length < MOST_WAYS) {
    const next = new Map<string, Label>();
    const ends = new Map<string, Label>();
    for (const label of stones)
      for (const longer of expander.next({ label, asTarget: false })) {
        labels++;
        if (ahead.hopsFrom(longer.label.at.release) === undefined) continue;
        if (!longer.asTarget) keepBetter(next, longer.label);
        else if (targetKey(longer.label.at) === key) keepBetter(ends, longer.label);
        else
          for (const inside of expander.next(longer))
            if (targetKey(inside.label.at) === key) keepBetter(ends, inside.label);
      }
    ways.push(...ends.values());
    stones = [...next.values()];
  }
  ways.sort((a, b) => compareByPreference(a.criteria, b.criteria));
  return { ways: ways.slice(0, MOST_WAYS), cut: stones.length > 0 || ways.length > MOST_WAYS };
}

function keepBetter(found: Map<string, Label>, label: Label): void {
  const key = label.moves.map((m) => `${m.id}>${m.to.edition}.${m.to.architecture}`).join(' ');
  const known = found.get(key);
  if (!known || compareByPreference(label.criteria, known.criteria) < 0) found.set(key, label);
}
