import type { Change, Target } from '$core/estate';
import { type CasePlan, type Explored, type Plan, sameTarget, type TargetPlan } from '$core/plan';
import type { Opening } from '$core/route';
import { sourceOf } from '$core/what-if';
import { desk } from './desk.svelte';
import { looker } from './looker.svelte';
import { trials } from './trials.svelte';

/** Something tried on one stair: how it would be, beside how it is. */
export interface Trial {
  readonly words: string;
  /** What somebody here would change; none where nobody here can. */
  readonly changes: readonly Change[];
  readonly of: Plan;
  readonly system: string;
  readonly target: Target;
  readonly before: TargetPlan;
  readonly found: Explored;
}

/** What is tried on the stair that is looked at; one thing at a time, never kept by itself. */
class Tryout {
  trial = $state.raw<Trial | undefined>();
  busy = $state('');

  /** The trial, while it belongs to what is looked at. */
  for(plan: CasePlan | undefined): Trial | undefined {
    const { trial } = this;
    return trial && trial.of === desk.plan && plan?.systems.includes(trial.system) ? trial : undefined;
  }

  /** Plans one system anew with changes made. */
  async withChanges(
    words: string,
    plan: CasePlan,
    before: TargetPlan,
    changes: readonly Change[]
  ): Promise<void> {
    const [system] = plan.systems;
    const of = desk.plan;
    if (system === undefined || !of) return;
    this.busy = words;
    const found = await looker.exploreWith(changes, system, before.target);
    this.busy = '';
    if (found && desk.plan === of)
      this.trial = { words, changes, of, system, target: before.target, before, found };
  }

  /** Shows the way an opening leads to; nobody here can lift it, so it cannot be kept. */
  withOpening(words: string, explored: Explored, before: TargetPlan, opening: Opening): void {
    const [system] = explored.plan.systems;
    const of = desk.plan;
    if (system === undefined || !of) return;
    const lifted: TargetPlan = {
      ...before,
      verdict: opening.verdict,
      sure: opening.verdict,
      best: opening.verdict,
      route: opening.route,
      reasons: []
    };
    const swap = (t: TargetPlan): TargetPlan => (sameTarget(t.target, before.target) ? lifted : t);
    const { goalPlan } = explored.plan;
    const plan: CasePlan = {
      ...explored.plan,
      targets: explored.plan.targets.map(swap),
      ...(goalPlan ? { goalPlan: swap(goalPlan) } : {})
    };
    this.trial = {
      words,
      changes: [],
      of,
      system,
      target: before.target,
      before,
      found: { plan }
    };
  }

  drop(): void {
    this.trial = undefined;
  }

  async keep(): Promise<void> {
    const { trial } = this;
    this.trial = undefined;
    if (trial && trial.changes.length > 0)
      await trials.keep(`Kept: ${trial.words}`, trial.changes, sourceOf('tried', desk.today));
  }

  /** On to a what-if of its own, for the whole estate. */
  async asWhatIf(): Promise<void> {
    const { trial } = this;
    if (trial && trial.changes.length > 0)
      await trials.saveWhatIf(`Trying: ${trial.words}`, {
        name: trial.words.slice(0, 300),
        changes: [...trial.changes]
      });
  }
}

export const tryout = new Tryout();
