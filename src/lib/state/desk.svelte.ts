import { type Catalogue, Names, type Product } from '$core/catalogue';
import { type Day, formatDay, parseDay } from '$core/date';
import {
  recordsUnder,
  type CatalogueText,
  type DecidedBy,
  emptyEstate,
  type Estate,
  estateOfRecords,
  FactDecisions,
  kindsOf,
  nameOfFact,
  type System,
  type Write
} from '$core/estate';
import type { Result } from '$core/kit';
import { type CasePlan, findingOf, type SaidFinding } from '$core/plan';
import { describeIssue, describeStart, type Naming, sayCollisions, sayFinding } from '$core/wording';
import { WorkerClient } from '$lib/workers/client';
import { currentWorkspace } from '$lib/storage/database';
import { keepFound, lastFound } from '$lib/storage/last-found';
import { noteSeen } from '$lib/storage/last-seen';
import { newId } from './ids';
import { Keeper } from './keeper.svelte';
import { PlannerLink } from './planner-link.svelte';
import { rescue, sayLost } from './rescue';
import { signer } from './signer.svelte';
import { words } from './words.svelte';

/** What lies on the desk: the estate, its catalogue and its plan, as everybody reads them. What is changed goes through `keeper`. */
class Desk {
  estate = $state.raw<Estate>(emptyEstate());
  catalogueText = $state.raw<CatalogueText>({ fileName: '', text: '' });
  catalogue = $state.raw<Catalogue | undefined>();

  readonly isEmpty = $derived(this.estate.systems.length === 0);
  readonly today = $derived(parseDay(this.estate.site.asOf ?? '') ?? realToday());
  readonly systems = $derived(new Map(this.estate.systems.map((s): [string, System] => [s.id, s])));
  readonly products = $derived(
    new Map((this.catalogue?.products ?? []).map((p): [string, Product] => [p.id, p]))
  );

  /** Decisions on facts, worked out once for all who ask. */
  readonly decided = $derived(new FactDecisions(this.estate.decisions, formatDay(this.today)));
  /** What is decided, as of the day planned for. */
  readonly decidedOn = $derived({
    decisions: this.estate.decisions,
    decided: this.decided,
    today: this.today
  });
  /** Names as the desk knows them. */
  readonly naming: Naming = {
    names: (product) => this.namesOfProduct(product),
    system: (id) => this.systems.get(id)?.name ?? id,
    fact: (id) => nameOfFact(id, (fact) => kindsOf(this.catalogue).find(fact)?.name),
    list: (id) => this.catalogue?.lists?.find((l) => l.id === id)?.name ?? id,
    releaseOf: (system, release) => {
      const product = this.systems.get(system)?.product;
      return product && 'is' in product ? this.namesOfProduct(product.is).release(release) : release;
    },
    windowOf: (calendar, window) => {
      const own = this.estate.calendars?.find((c) => c.id === calendar);
      return (
        own?.windows.find((w) => w.id === window)?.name ??
        `a window of ${own?.team ?? own?.site ?? 'the estate'}`
      );
    }
  };

  readonly files = new WorkerClient();
  readonly keeper = new Keeper({
    show: (writes) => this.#show(writes),
    collided: (collisions) => (words.fault = sayCollisions(collisions, this.naming)),
    lost: (fault, error, wanted) => {
      words.fault = sayLost(fault, error);
      words.rescue = () => rescue(wanted);
    }
  });
  readonly planner: PlannerLink = new PlannerLink(() => ({
    isEmpty: this.isEmpty,
    catalogue: this.catalogue,
    today: this.today,
    unstored: this.keeper.unstored,
    mark: this.mark
  }));

  get plan() {
    return this.planner.plan;
  }

  /** A word for all a plan is made of, that nothing else has; undefined where there is none: see `keeper.mark`. */
  get mark(): string | undefined {
    const { mark } = this.keeper;
    return mark === undefined || this.#isShowing ? undefined : `${mark} ${this.today}`;
  }

  /** Counts what was put on show, so that what comes late does not take the place of what came after it. */
  #shows = 0;
  /** What the records hold is not on show yet. */
  #isShowing = false;

  /** Puts what the records hold on show, and plans. */
  async #show(writes: readonly Write[] | undefined): Promise<void> {
    const show = ++this.#shows;
    this.#isShowing = true;
    const { estate, catalogue: text } = estateOfRecords(this.keeper.records);
    const isKnown = text.text === this.catalogueText.text && (text.text === '' || this.catalogue);
    const catalogue = isKnown ? this.catalogue : await this.#readCatalogue(text);
    if (show === this.#shows) {
      [this.catalogue, this.catalogueText, this.estate] = [catalogue, text, estate];
      this.#isShowing = false;
    }
    this.planner.planWith(writes);
    if (!writes) void this.planner.recall();
    // What is gone is told until something is here again.
    if (!this.keeper.gone || !this.isEmpty) {
      const day = formatDay(realToday());
      noteSeen(currentWorkspace(), { systems: estate.systems.length, day });
    }
  }

  async #readCatalogue({ text }: CatalogueText): Promise<Catalogue | undefined> {
    if (text === '') return undefined;
    const workspace = currentWorkspace();
    const known = await lastFound<Catalogue>(workspace, 'catalogue', text);
    if (known) return known;
    const read: Result<Catalogue> = await this.files.call((w) => w.readCatalogue(text));
    if (read.ok) {
      void keepFound(workspace, 'catalogue', text, read.value);
      return read.value;
    }
    if (read.issues[0]) words.fault = `The catalogue cannot be read. ${describeIssue(read.issues[0])}`;
    return undefined;
  }

  /**
   * One change, kept and undoable, with the words it is announced by. `from`: the estate the writes were made of, where that
   * was not just now.
   */
  commit(label: string, writes: readonly Write[], from: Estate = this.estate): Promise<void> {
    const keys = writes.map(([key]) => key);
    const made = { estate: from, catalogue: this.catalogueText };
    return this.keeper.commit(label, writes, recordsUnder(keys, made, this.keeper.records));
  }

  /** Who decides, when, and an id for what is decided. */
  async decidedBy(): Promise<DecidedBy> {
    const by = this.keeper.readOnly ? {} : await signer.sign();
    return { id: newId('d'), day: formatDay(this.today), ...by };
  }

  namesOf(plan: CasePlan): Names {
    return this.namesOfProduct(plan.product ?? '');
  }

  namesOfProduct(id: string): Names {
    return new Names(this.products.get(id));
  }

  /** What every place says of a case. */
  found(plan: CasePlan): SaidFinding {
    return sayFinding(findingOf(plan, this.today), this.namesOf(plan), this.catalogue?.currency ?? '');
  }

  /** What is installed, in words. */
  describe(plan: CasePlan): string {
    const first = this.systems.get(plan.systems[0] ?? '');
    return describeStart(plan, first, this.namesOf(plan), (id) => this.namesOfProduct(id).product);
  }
}

function realToday(): Day {
  const now = new Date();
  return Math.floor(Date.UTC(now.getFullYear(), now.getMonth(), now.getDate()) / 86_400_000);
}

export const desk = new Desk();
