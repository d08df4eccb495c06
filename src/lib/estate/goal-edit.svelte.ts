import type { Goal } from '$core/estate';
import type { GoalPart } from '$core/wording';
import { looker } from '$lib/state/looker.svelte';

/** What is being changed: a phrase, or the named target of a product. */
export type Editing = GoalPart | { readonly product: string };

/** One change of a goal in hand: tried as it is made, kept or left by whoever makes it. */
export class GoalEdit {
  editing = $state.raw<Editing | undefined>();
  /** The goal as it would be. */
  draft = $state.raw<Goal | undefined>();
  /** Systems whose verdict the draft moves; undefined while that is worked out. */
  moves = $state<number | undefined>();

  open(editing: Editing): void {
    this.editing = editing;
    this.draft = undefined;
    this.moves = undefined;
  }

  close(): void {
    this.editing = undefined;
    this.draft = undefined;
  }

  async change(next: Goal): Promise<void> {
    this.draft = next;
    this.moves = undefined;
    const tried = await looker.tryGoal(next.team, $state.snapshot(next) as Goal);
    if (tried && this.draft === next)
      this.moves = tried.changes.reduce((n, c) => n + (c.verdictChanges ? c.systems.length : 0), 0);
  }
}
