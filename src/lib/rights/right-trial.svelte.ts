import { factOfOption } from '$core/catalogue';
import { formatDay, parseDay } from '$core/date';
import type { Change } from '$core/estate';
import { type CasePlan, type Explored, sameTarget } from '$core/plan';
import { isSameWay, type Route, wayOf } from '$core/route';
import { sayDay, sayWay } from '$core/wording';
import type { RightsTried } from '$lib/workers/looker';
import { Answer } from '$lib/state/answer.svelte';
import { desk } from '$lib/state/desk.svelte';
import { looker } from '$lib/state/looker.svelte';
import { trials } from '$lib/state/trials.svelte';
import type { RightTread } from './tread-layout';

/** What is tried: another day, one more option on, another target or another way for one case. */
export type Tried = '' | 'day' | 'target' | 'way' | `option ${string}`;

/** One thing tried on a tread of units, on a copy: what it comes to then. */
export class RightTrial {
  what = $state<Tried>('');
  day = $state('');
  /** Id of the case that goes elsewhere, or by another way. */
  of = $state('');
  /** Place in the list of targets, or of ways. */
  pick = $state('');
  readonly #tread: () => RightTread;
  readonly #explored: Answer<Explored>;
  readonly #tried: Answer<RightsTried>;

  /** Made while a component is set up. */
  constructor(tread: () => RightTread) {
    this.#tread = tread;
    this.#explored = new Answer(
      () =>
        this.#one && (this.what === 'target' || this.what === 'way') ? [desk.plan, this.#one] : undefined,
      () => looker.exploreWith([], this.#one?.systems[0] ?? '')
    );
    this.#tried = new Answer(
      () => (this.changes.length > 0 ? [desk.plan, JSON.stringify(this.changes)] : undefined),
      () => looker.tryRights(this.changes)
    );
  }

  /** Cases that take it. */
  readonly cases = $derived.by((): readonly CasePlan[] => {
    const ids = new Set(this.#tread().needs.flatMap((n) => n.cases));
    return (desk.plan?.cases ?? []).filter((c) => ids.has(c.id));
  });
  readonly #one = $derived(this.cases.find((c) => c.id === this.of) ?? this.cases[0]);
  get one(): CasePlan | undefined {
    return this.#one;
  }

  readonly options = $derived.by((): readonly string[] => {
    const { needs } = this.#tread();
    const rights = needs.flatMap(
      (n) => desk.products.get(n.product)?.rights?.filter((r) => r.id === n.right) ?? []
    );
    return [...new Set(rights.flatMap((r) => r.units?.options ?? []))];
  });

  /** Targets that are open, but the goal's own. */
  readonly targets = $derived.by(() =>
    (this.#explored.current?.plan.targets ?? []).filter(
      (t) => t.route && t.verdict !== 'here' && !sameTarget(t.target, this.#one?.goal)
    )
  );
  /** Ways to the goal, but the chosen one. */
  readonly ways = $derived.by((): readonly Route[] => {
    const chosen = this.#one?.goalPlan?.route;
    const all = this.#explored.current?.looked?.routes ?? [];
    return all.filter((r) => r.restsOn.length === 0 && !(chosen && isSameWay(wayOf(chosen), wayOf(r))));
  });
  readonly isLooking = $derived.by(
    () => (this.what === 'target' || this.what === 'way') && this.#explored.current === undefined
  );

  readonly changes = $derived.by((): readonly Change[] => {
    const one = this.#one;
    if (this.what === 'day') return this.day === '' ? [] : [{ today: this.day }];
    if (this.what.startsWith('option ')) {
      const systems = [...new Set(this.#tread().needs.flatMap((n) => n.systems))];
      return systems.length === 0
        ? []
        : [{ fact: factOfOption(this.what.slice('option '.length)), value: 'on', systems }];
    }
    if (!one || this.pick === '') return [];
    const scope = { situation: one.situation };
    const target = this.targets[Number(this.pick)]?.target;
    const route = this.ways[Number(this.pick)];
    if (this.what === 'target' && target) return [{ decide: { kind: 'choose a target', scope, target } }];
    return this.what === 'way' && route
      ? [{ decide: { kind: 'choose a route', scope, route: wayOf(route) } }]
      : [];
  });

  /** The count as it would be; undefined while it is worked out, or nothing is tried. */
  get after(): RightsTried | undefined {
    return this.changes.length > 0 ? this.#tried.current : undefined;
  }

  /** What is tried, in words. */
  readonly words = $derived.by((): string => {
    const [change] = this.changes;
    if (!change) return '';
    if ('today' in change) return `on ${sayDay(parseDay(change.today) ?? desk.today)}`;
    if ('fact' in change) return `${this.what.slice('option '.length)} on`;
    const one = this.#one;
    const names = desk.namesOfProduct(one?.product ?? '');
    const whose = one ? desk.describe(one) : '';
    const target = this.targets[Number(this.pick)]?.target;
    if (this.what === 'target') return `${whose} to ${target ? names.target(target) : ''}`;
    const route = this.ways[Number(this.pick)];
    const currency = desk.catalogue?.currency ?? '';
    return `${whose} ${route ? sayWay(route, names, { currency, today: desk.today }) : ''}`;
  });

  start(what: Tried): void {
    this.what = what;
    this.pick = '';
    this.day = what === 'day' ? formatDay(desk.today) : '';
  }

  /** On to a what-if of its own, for the whole estate. */
  async keep(): Promise<void> {
    const name = this.words.slice(0, 300);
    await trials.saveWhatIf(`Trying: ${name}`, { name, changes: [...this.changes] });
  }
}
