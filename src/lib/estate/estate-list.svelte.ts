import { MediaQuery } from 'svelte/reactivity';
import { compareText } from '$core/kit';
import { findUnmatched } from '$core/catalogue';
import { kindsOf, matchesQuery, parseQuery, type Searchable } from '$core/estate';
import { type CasePlan, findMissingPaths, type UrgencyBand, urgencyOf } from '$core/plan';
import { desk } from '$lib/state/desk.svelte';
import { bandsOf, layLines, linesBetween } from '$lib/state/rows';
import { settings } from '$lib/state/settings.svelte';
import { findDeviations } from './deviations';
import { searchableSystem } from './searchable';

/** Situations up to which rows have two lines. */
const TWO_LINED = 50;
/** Drawn above and below what is in sight, in px. */
const MARGIN = 300;

/** The estate's long table: what is found, in which order, which lines are in sight, which one is picked. */
export class EstateList {
  find = $state('');
  scrolled = $state(0);
  height = $state(600);
  selected = $state(0);
  /** On paper every row is drawn, not only those in sight. */
  printing = $state(false);

  readonly #cases = $derived(desk.plan?.cases ?? []);
  readonly #query = $derived(parseQuery(this.find));
  readonly #kinds = $derived(kindsOf(desk.catalogue));
  readonly #searchable = $derived(
    new Map(
      this.#cases.flatMap((plan) =>
        plan.systems.flatMap((id): [string, Searchable][] => {
          const system = desk.systems.get(id);
          return system ? [[id, searchableSystem(system, desk.products.get(plan.product ?? ''), plan)]] : [];
        })
      )
    )
  );
  readonly found = $derived(
    this.#query.groups.length === 0 ? this.#cases : this.#cases.filter((c) => this.#isFound(c))
  );
  readonly #isNarrow = new MediaQuery('max-width: 700px');
  readonly oneLine = $derived(
    !this.#isNarrow.current &&
      (settings.oneLine || new Set(this.found.map((p) => p.situation)).size > TWO_LINED)
  );
  readonly #lines = $derived(
    layLines(
      bandsOf(this.found, desk.today),
      this.#isNarrow.current ? 'narrow' : this.oneLine ? 'one line' : 'two lines'
    )
  );
  readonly total = $derived.by(() => {
    const last = this.#lines.at(-1);
    return (last?.top ?? 0) + (last?.height ?? 0);
  });
  readonly inSight = $derived(
    this.printing
      ? this.#lines
      : linesBetween(this.#lines, this.scrolled - MARGIN, this.scrolled + this.height + MARGIN)
  );
  readonly rows = $derived(this.#lines.flatMap((l) => (l.kind === 'row' ? [l] : [])));

  readonly retired = $derived(desk.estate.systems.filter((s) => s.stage === 'retired').length);
  readonly unplaced = $derived(findUnmatched(desk.estate.systems).length);
  readonly untold = $derived(systemsIn(this.#cases.filter((c) => c.verdict === 'cannot tell')));
  readonly cut = $derived(this.#cases.filter((c) => c.cut).length);
  readonly late = $derived(systemsIn(this.#cases.filter((c) => this.#isIn(c, 'too late to start'))));
  readonly past = $derived(systemsIn(this.#cases.filter((c) => this.#isIn(c, 'past its deadline'))));
  readonly missing = $derived(findMissingPaths(this.#cases, desk.products));
  readonly #bySituation = $derived(groupBySituation(this.#cases));

  #isIn(plan: CasePlan, band: UrgencyBand): boolean {
    return urgencyOf(plan, desk.today).band === band;
  }

  /** A case is found with any of its systems. */
  #isFound(plan: CasePlan): boolean {
    return plan.systems.some((id) => {
      const row = this.#searchable.get(id);
      return row !== undefined && matchesQuery(this.#query, row, this.#kinds);
    });
  }

  /** Team and name, and in what a case deviates from the others of its situation. */
  teamOf(plan: CasePlan): string {
    const system = desk.systems.get(plan.systems[0] ?? '');
    return [
      system?.team ?? 'no team',
      plan.importance,
      plan.goalFrom === 'kept back' ? 'kept back' : '',
      plan.systems.length === 1 ? system?.name : '',
      this.#partOf(plan)
    ]
      .filter(Boolean)
      .join(', ');
  }

  #partOf(plan: CasePlan): string {
    const alike = this.#bySituation.get(plan.situation) ?? [];
    const [base] = alike;
    const [own, other] = [plan, base].map((c) => desk.systems.get(c?.systems[0] ?? ''));
    if (!base || alike.length < 2 || !own || !other) return '';
    const share = `${plan.systems.length} of ${systemsIn(alike)}`;
    return base === plan
      ? `${share} in this situation`
      : `${share}: ${findDeviations(own, other, desk.decidedOn).join(', ')}`;
  }

  /** The picked row so many rows on; gives back where to scroll to where it is not in sight. */
  move(by: number, scrollTop: number): number | undefined {
    this.selected = Math.min(this.rows.length - 1, Math.max(0, this.selected + by));
    const next = this.rows[this.selected];
    if (!next || (next.top >= scrollTop + 40 && next.top + next.height <= scrollTop + this.height))
      return undefined;
    return Math.max(0, next.top - this.height / 2);
  }
}

const systemsIn = (plans: readonly CasePlan[]): number => plans.reduce((sum, p) => sum + p.systems.length, 0);

/** Cases by their situation, the largest first: what the others deviate from. */
function groupBySituation(plans: readonly CasePlan[]): Map<string, CasePlan[]> {
  const groups = new Map<string, CasePlan[]>();
  for (const plan of plans) {
    const group = groups.get(plan.situation);
    if (group) group.push(plan);
    else groups.set(plan.situation, [plan]);
  }
  for (const group of groups.values())
    group.sort((a, b) => b.systems.length - a.systems.length || compareText(a.id, b.id));
  return groups;
}
