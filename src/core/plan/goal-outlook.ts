import { passedOverOf, startsOf } from '../bind';
import { idsOfPlace } from '../compile';
import type { Day } from '../date';
import { type NotNext, whyNotNext } from './choose-target';
import { goalOf } from './find-goal';
import type { Planning } from './planning';

/** What the goal of a team chooses for systems alike, today and on later days. */
export interface GoalOutlook {
  readonly product: string;
  /** Where they stand. */
  readonly release: string;
  readonly systems: number;
  /** Days on which another target is chosen, from today on; no release: none. */
  readonly choices: readonly { readonly from: Day; readonly release?: string }[];
  /** Why not the release behind today's choice. */
  readonly notNext?: NotNext;
}

const A_YEAR = 365;

/**
 * What a team's goal - the goal of all that have none of their own, where no team is named - chooses on each day of a year, and
 * why not the next release today. Systems for which somebody decided, or whose target is named, choose nothing by rule.
 */
export function goalOutlook(
  planning: Planning,
  isOfTeam: (team: string | undefined) => boolean
): GoalOutlook[] {
  const found = new Map<string, GoalOutlook>();
  for (const one of planning.gather().cases) {
    const model = planning.modelFor(one.system);
    const [start] = model ? startsOf(model, one.system) : [];
    if (!model || !start || !isOfTeam(one.system.team)) continue;
    const terms = planning.termsFor(model, one);
    const now = goalOf(terms, start, one.decisions);
    if (now.from !== 'rule' || !now.place) continue;
    const choices: { from: Day; release?: string }[] = [];
    // The cheapest is looked for along every way: today's only.
    const ahead = one.goal.rule === 'cheapest in service' ? 0 : A_YEAR;
    for (let day = planning.today; day <= planning.today + ahead; day++) {
      const { place } = goalOf({ ...terms, today: day, from: day, leadsFrom: day }, start, one.decisions);
      const release = place && idsOfPlace(terms, place).release;
      if (choices.length > 0 && choices.at(-1)?.release === release) continue;
      choices.push({ from: day, ...(release === undefined ? {} : { release }) });
    }
    const notNext = whyNotNext(terms, start, now.place, passedOverOf(model.product, one.decisions));
    const { release } = idsOfPlace(terms, start);
    const key = JSON.stringify([model.product.id, release, choices, notNext]);
    found.set(key, {
      product: model.product.id,
      release,
      systems: (found.get(key)?.systems ?? 0) + one.systems.length,
      choices,
      ...(notNext ? { notNext } : {})
    });
  }
  return [...found.values()].sort((a, b) => b.systems - a.systems || (a.product < b.product ? -1 : 1));
}
