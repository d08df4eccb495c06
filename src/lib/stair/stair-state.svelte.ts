import { decisionsOn } from '$core/estate';
import { type CasePlan, sameTarget, type TargetPlan } from '$core/plan';
import { findDeviations } from '$lib/estate/deviations';
import { chooseTarget } from '$lib/state/acts';
import { demandsOn } from '$lib/state/demands';
import { desk } from '$lib/state/desk.svelte';
import { describeSource } from '$lib/state/sources';
import { tryout } from '$lib/state/tryout.svelte';
import { layOutStair, leastHeight, type StairLayout } from './layout';
import { moveBend } from './scale';

/** Narrower than this the drawing is scrolled, not squeezed. */
const LEAST_WIDTH = 420;
/** A target is looked into when the eye has come to rest on it. */
const REST_MS = 250;

/** How a stretch of time is moved: by days, closer or further; undefined: as it was. */
export type Bending = { readonly days?: number; readonly zoom?: number } | undefined;

/** One stair as it is looked at: whose it is, what is looked at on it, how it is drawn. */
export class StairState {
  /** A tread or a target under the eye; the goal where there is none. */
  lookedAt = $state.raw<TargetPlan | undefined>();
  /** The room there is for the drawing, in px. */
  width = $state(880);
  room = $state(640);
  /** The stretch of time in the middle, where somebody has dragged it; on this stair only. */
  #bent = $state.raw<{ readonly at: string; readonly bend: StairLayout['scale']['bend'] } | undefined>();
  readonly #at: () => string | null;
  #resting: ReturnType<typeof setTimeout> | undefined;
  #asked: { of: unknown; key: string } = { of: undefined, key: '' };

  /**
   * Made while a page is set up; the worker is asked for whatever comes to be looked at.
   * @param at the system whose stair it is; null: the first of the estate's order
   */
  constructor(at: () => string | null) {
    this.#at = at;
    $effect(() => this.#follow());
  }

  readonly #cases = $derived(desk.plan?.cases ?? []);
  readonly planned = $derived.by(() => {
    const at = this.#at();
    return at === null ? this.#cases[0] : this.#cases.find((c) => c.systems.includes(at));
  });
  /** The same with every target, once the worker has looked into it. */
  readonly #asItIs = $derived.by(() => {
    const { explored } = desk.planner;
    return explored?.of === desk.plan && this.planned?.systems.includes(explored?.system ?? '')
      ? explored?.found
      : undefined;
  });
  /** Something tried takes the place of how it is, until it is kept or dropped. */
  readonly trial = $derived(tryout.for(this.planned));
  readonly explored = $derived(this.trial?.found ?? this.#asItIs);
  /** Looked into is one system; how the others of its case go stands in the plan of all. */
  readonly plan = $derived.by(() => {
    const { explored, planned, trial } = this;
    return explored && planned?.rounds && !trial ? inRounds(explored.plan, planned) : explored?.plan;
  });
  readonly product = $derived(desk.products.get(this.plan?.product ?? ''));
  readonly names = $derived(desk.namesOfProduct(this.plan?.product ?? ''));
  readonly system = $derived(desk.systems.get(this.plan?.systems[0] ?? ''));
  readonly goal = $derived(this.plan?.goalPlan);
  readonly looked = $derived.by(() => {
    const { goal, lookedAt } = this;
    if (!lookedAt || sameTarget(lookedAt.target, goal?.target)) return goal;
    return this.plan?.targets.find((t) => sameTarget(t.target, lookedAt.target));
  });
  readonly isGoal = $derived(this.looked !== undefined && sameTarget(this.looked.target, this.goal?.target));
  /** What is said of the target looked at, where that has been looked into. */
  readonly inDepth = $derived.by(() => {
    const found = this.explored?.looked;
    return found && this.looked && sameTarget(found.target, this.looked.target) ? found : undefined;
  });
  readonly bestOpen = $derived(this.plan?.targets.find((t) => sameTarget(t.target, this.plan?.bestOpen)));
  readonly demands = $derived(
    this.looked?.route && this.plan && this.system
      ? demandsOn(this.plan, this.system, this.looked)
      : undefined
  );
  readonly decided = $derived(this.plan ? decisionsOn(desk.estate, this.plan) : []);
  readonly next = $derived(
    this.planned ? this.#cases[(this.#cases.indexOf(this.planned) + 1) % this.#cases.length] : undefined
  );
  readonly currency = $derived(desk.catalogue?.currency ?? '');

  readonly height = $derived(
    Math.max(this.room, leastHeight(Math.min(this.product?.releases.length ?? 1, 40)))
  );
  readonly drawnWidth = $derived(Math.max(LEAST_WIDTH, this.width));
  readonly isBent = $derived(this.plan !== undefined && this.#bent?.at === this.plan.id);
  readonly layout = $derived.by(() => {
    const { plan, product, planned } = this;
    if (!plan?.start || !product) return undefined;
    const goalOf = (team: string | undefined) => desk.estate.goals.find((g) => g.team === team);
    return layOutStair({
      product,
      plan,
      looked: this.looked,
      today: desk.today,
      countsExpected: desk.estate.site.countsExpected,
      width: this.drawnWidth,
      height: this.height,
      bend: this.#bent?.at === plan.id ? this.#bent.bend : undefined,
      phase: (goalOf(this.system?.team) ?? goalOf(undefined))?.phase ?? 'security',
      deviating: this.#cases.filter((c) => c.situation === planned?.situation && c.id !== planned?.id)
    });
  });

  /** Looking into the system, or into the target looked at, was stopped. */
  readonly isStopped = $derived.by(() => {
    const first = this.planned?.systems[0] ?? '';
    return desk.planner.hasStopped(first, this.#asItIs ? this.looked?.target : undefined);
  });

  lookAgain(): void {
    this.#asked = { of: undefined, key: '' };
    desk.planner.lookAgain();
  }

  /** Asks the worker for what is looked at: the system at once, a target when the eye has come to rest. */
  #follow(): void {
    const first = this.planned?.systems[0];
    const { target } = this.looked ?? {};
    clearTimeout(this.#resting);
    if (first === undefined || !desk.plan) return;
    if (!this.#asItIs) return void desk.planner.explore(first);
    if (!target || this.trial || sameTarget(this.#asItIs.looked?.target, target)) return;
    const key = `${first} ${Object.values(target).join(' ')}`;
    if (this.#asked.of === desk.plan && this.#asked.key === key) return;
    this.#asked = { of: desk.plan, key };
    this.#resting = setTimeout(() => void desk.planner.explore(first, target), REST_MS);
  }

  /** Makes a target the goal of the situation; nothing where it is already, or cannot be. */
  async pick(target: TargetPlan | undefined, keepInSight: (plan: CasePlan) => Promise<void>): Promise<void> {
    const { plan } = this;
    if (!plan || !target || sameTarget(target.target, this.goal?.target)) return;
    if (target.older || target.verdict === 'here') return;
    await keepInSight(plan);
    this.lookedAt = undefined;
    await chooseTarget(plan, target.target);
  }

  bendBy(change: Bending): void {
    const { layout, plan } = this;
    if (!layout || !plan) return;
    this.#bent = change && { at: plan.id, bend: moveBend(layout.scale, change) };
  }

  bendTo(bend: StairLayout['scale']['bend']): void {
    if (this.plan) this.#bent = { at: this.plan.id, bend };
  }

  deviates(other: CasePlan): string {
    const its = desk.systems.get(other.systems[0] ?? '');
    return its && this.system ? findDeviations(its, this.system, desk.decidedOn).join('; ') : '';
  }

  sourcesOf(id: string): string {
    return describeSource(desk.catalogue, this.product, id);
  }
}

function inRounds(plan: CasePlan, { rounds, inTime, latestStart, slack }: CasePlan): CasePlan {
  const { latestStart: _latest, slack: _slack, ...rest } = plan;
  void [_latest, _slack];
  return {
    ...rest,
    ...(rounds ? { rounds } : {}),
    ...(inTime === undefined ? {} : { inTime }),
    ...(latestStart === undefined ? {} : { latestStart }),
    ...(slack === undefined ? {} : { slack })
  };
}
