import { goto } from '$app/navigation';
import { demoWorkspace, openDemo } from './demo';
import { desk } from './desk.svelte';
import { openBeside } from './workspaces';

const KEY = 'orange-stair tour';
/** The machine the question is about. */
const TOUR_SYSTEM = 'draw-01';

/** One look: where, at what, and what it says. */
export interface TourStep {
  readonly path: string;
  /** What is framed, where it is there. */
  readonly at: string;
  readonly title: string;
  readonly text: string;
}

export const TOUR: readonly TourStep[] = [
  {
    path: '/estate',
    at: `[data-case="${TOUR_SYSTEM}"]`,
    title: 'The draughtsmen’s desktops: what must be done, by when?',
    text: 'Nine machines alike are one line. It says how many days are left until the latest safe start, draws the way to their goal, and names what sets the deadline. The most urgent stand first.'
  },
  {
    path: `/stair?at=${TOUR_SYSTEM}`,
    at: 'svg.stair',
    title: 'Where they can go',
    text: 'Time runs to the right, releases upward. They stand on the ink line; the orange way climbs on the days its hops are planned, and the flag is the deadline. Another tread can be picked as the target.'
  },
  {
    path: `/stair?at=${TOUR_SYSTEM}`,
    at: '.why, [data-verdict]',
    title: 'Why, and what it takes',
    text: 'The column beside it says the way step by step, with what each needs first and what it asks to be bought. Every sentence opens to its reason: what was demanded, what was read, who says so and when.'
  },
  {
    path: '/ready',
    at: 'main',
    title: 'What stands in the way, over all of them',
    text: 'One cure often serves many. What opens most comes first; what only a fact nobody has read may ask for is a question, never a purchase.'
  },
  {
    path: '/worksheet',
    at: 'main',
    title: 'The list the work is done from',
    text: 'Take a way on its stair and make its worksheet: what to fetch, gates, each hop with what is normal and the last minute to turn round. What happens is recorded, and a hop that fails is planned anew.'
  }
];

/** A walk through one question of the demo, beside which one can do anything, and that can be left at any step. */
class Tour {
  /** The step it is at; undefined while there is none. */
  step = $state<number | undefined>(stored());

  readonly now = $derived(this.step === undefined ? undefined : TOUR[this.step]);

  /** With the demo: on an empty desk, else in a workspace of its own beside what is there. */
  async start(): Promise<void> {
    const isThere = desk.systems.has(TOUR_SYSTEM);
    this.#at(0);
    if (isThere) return goto('/estate');
    if (desk.isEmpty) {
      await openDemo();
      return goto('/estate');
    }
    const read = await demoWorkspace();
    if (read.ok) await openBeside('The demo', read.value, false);
  }

  next(): void {
    const next = (this.step ?? -1) + 1;
    this.#at(next < TOUR.length ? next : undefined);
  }

  back(): void {
    this.#at(Math.max(0, (this.step ?? 0) - 1));
  }

  leave(): void {
    this.#at(undefined);
  }

  /** Stays with the tab over a reload. */
  #at(step: number | undefined): void {
    this.step = step;
    if (step === undefined) sessionStorage.removeItem(KEY);
    else sessionStorage.setItem(KEY, String(step));
  }
}

function stored(): number | undefined {
  const step = Number(globalThis.sessionStorage?.getItem(KEY) ?? NaN);
  return Number.isInteger(step) && TOUR[step] ? step : undefined;
}

export const tour = new Tour();
