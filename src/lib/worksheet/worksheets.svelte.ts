import {
  dropDecision,
  dropWorksheet,
  type Decision,
  FactDecisions,
  type ItemState,
  keepDecision,
  keepRights,
  keepSystems,
  keepWorksheet,
  kindsOf,
  LinkIndex,
  type RightHeld,
  type WorkEntry,
  type WorkItem,
  type Worksheet,
  type Write
} from '$core/estate';
import { formatDay } from '$core/date';
import type { Catalogue } from '$core/catalogue';
import { compareText, type Issue } from '$core/kit';
import type { CasePlan } from '$core/plan';
import { isCounted } from '$core/route';
import { sayTask } from '$core/wording';
import {
  companionsSeen,
  effectOf,
  endedBy,
  enoughRuns,
  experienceOf,
  heldAfter,
  makeItems,
  seenOf,
  systemAfter
} from '$core/worksheet';
import { draft } from '$lib/state/draft.svelte';
import { desk } from '$lib/state/desk.svelte';
import { newId } from '$lib/state/ids';
import { ordering } from '$lib/state/ordering.svelte';
import { orderNames } from '$lib/state/order-names';
import { plain } from '$lib/state/plain.svelte';
import { signer } from '$lib/state/signer.svelte';

/** What somebody enters of an item. */
export interface Entering {
  readonly state?: ItemState;
  readonly gate?: string;
  readonly note?: string;
  readonly minutes?: number;
  readonly evidence?: WorkEntry['evidence'];
}

/** What a step writes into; the rights that are left go from one worksheet to the next. */
interface Writing {
  readonly who: string | undefined;
  readonly at: string;
  readonly day: string;
  rights: readonly RightHeld[];
}

/** The minute it is, as entries have it. */
export const nowIso = (): string => `${new Date().toISOString().slice(0, 19)}Z`;

/** Worksheets: made, worked on, let go. The one writer of them. */
class Worksheets {
  readonly all = $derived<readonly Worksheet[]>(desk.estate.worksheets ?? []);

  readonly byName = $derived(
    [...this.all].sort(
      (a, b) =>
        compareText(orderNames.system(a.system), orderNames.system(b.system)) || compareText(a.id, b.id)
    )
  );
  /** What all of them have seen of each entry of the catalogue. */
  readonly experience = $derived(experienceOf(this.all));

  readonly companions = $derived(companionsSeen(this.all));

  find(id: string | null): Worksheet | undefined {
    return this.all.find((w) => w.id === id);
  }

  /** Makes one for each of some systems, case by case on its chosen way, as one step to undo. Their ids; none where there is no way. */
  async make(
    ...of: readonly (readonly [plan: CasePlan, systems: readonly string[]])[]
  ): Promise<readonly string[]> {
    const { who } = await signer.sign();
    const links = new LinkIndex(desk.estate.systems);
    const made = of.flatMap(([plan, systems]) => this.#draw(plan, systems, { who, links }));
    const [first] = made;
    if (!first) return [];
    const label =
      made.length === 1
        ? `Made a worksheet for ${orderNames.system(first.system)}`
        : `Made ${made.length} worksheets`;
    await desk.commit(label, plain(made.flatMap(keepWorksheet)));
    return made.map((w) => w.id);
  }

  #draw(
    plan: CasePlan,
    systems: readonly string[],
    { who, links }: { readonly who: string | undefined; readonly links: LinkIndex }
  ): Worksheet[] {
    const { route, target } = plan.goalPlan ?? {};
    const product = desk.products.get(plan.product ?? '');
    const { start } = plan;
    if (!route || !target || !product || !start) return [];
    const first = route.steps.find(isCounted);
    return systems.flatMap((id): Worksheet[] => {
      const system = desk.systems.get(id);
      if (!system) return [];
      const items = makeItems({
        route,
        product,
        system,
        isCritical: plan.importance === 'critical',
        fallbacks: plan.fallbacks,
        runsOf: (about) => enoughRuns(this.experience, about),
        linkedBy: (word) => (links.find(system, word)?.systems ?? []).map((s) => s.id)
      });
      const last = route.steps.filter(isCounted).at(-1);
      const wave = ordering.of(id);
      const laid = wave?.order.waves.find((w) => w.steps.some((s) => s.part === wave.part));
      const night = laid?.first ?? (first?.days.exact ? first.days.first : undefined);
      return [
        {
          id: newId('w'),
          system: id,
          product: product.id,
          made: formatDay(desk.today),
          ...(who === undefined ? {} : { who }),
          ...(night === undefined ? {} : { night: formatDay(night) }),
          start: { ...start },
          target: { ...target, patch: last?.to.patch ?? '' },
          before: seenOf(system),
          ...(route.needsFirst.length > 0
            ? { needsFirst: route.needsFirst.map((n) => ({ system: n.system, release: n.to.release })) }
            : {}),
          items,
          entries: []
        }
      ];
    });
  }

  /** Enters what has become of an item; what is installed changes with it, in the same step to undo. */
  enter(sheet: Worksheet, item: WorkItem, entering: Entering): Promise<void> {
    return this.enterAll([sheet], item, entering);
  }

  /** Enters the same of an item on several worksheets that have it, as one step to undo. */
  async enterAll(sheets: readonly Worksheet[], item: WorkItem, entering: Entering): Promise<void> {
    const [one] = sheets;
    if (!one) return;
    const { who } = await signer.sign();
    const at = nowIso();
    // As of another day the work is done then.
    const [planned, real] = [formatDay(desk.today), at.slice(0, 10)];
    const writing: Writing = {
      who,
      at,
      day: real < planned ? planned : real,
      rights: desk.estate.rightsHeld
    };
    const writes = sheets.flatMap((sheet) => this.#writesOf(sheet, item.id, entering, writing));
    if (writing.rights !== desk.estate.rightsHeld) writes.push(...keepRights(writing.rights));
    const what = sayTask(item, one, orderNames);
    const said =
      entering.gate === undefined ? (entering.state ?? 'noted') : `went through the gate ${entering.gate}`;
    const of = sheets.length === 1 ? '' : `, on ${sheets.length} worksheets`;
    await desk.commit(`${said}: ${what}`.slice(0, 160) + of, plain(writes));
  }

  #writesOf(sheet: Worksheet, id: string, entering: Entering, writing: Writing): Write[] {
    const { who, at, day } = writing;
    const item = sheet.items.find((i) => i.id === id);
    if (!item) return [];
    const entry: WorkEntry = {
      id: newId('e'),
      item: item.id,
      at,
      ...entering,
      ...(who === undefined ? {} : { who })
    };
    const system = desk.systems.get(sheet.system);
    const effect = effectOf(sheet, entry);
    const kinds = kindsOf(desk.catalogue);
    const writes: Write[] = keepWorksheet({ ...sheet, entries: [...sheet.entries, entry] });
    if (effect && system)
      writes.push(
        // What was decided of a fact ends where the work has made it another.
        ...endedBy(effect, system.id, { decisions: desk.estate.decisions, kinds }).flatMap(dropDecision),
        ...keepSystems([
          systemAfter(system, effect, {
            day,
            kinds,
            decided: new FactDecisions(desk.estate.decisions, day),
            was: desk.namesOfProduct(sheet.product).level(wasOf(sheet, item)),
            note: `worksheet: ${sayTask(item, sheet, orderNames)}`,
            ...(who === undefined ? {} : { who })
          })
        ])
      );
    if (effect?.draws && system) {
      const { team, site } = system;
      const held = heldAfter(writing.rights, effect.draws, { team, site, day });
      if (held.some((h, i) => h !== writing.rights[i])) writing.rights = held;
    }
    return writes;
  }

  /** Worksheets that have the very same items, this one among them: made of one situation. */
  alike(sheet: Worksheet): readonly Worksheet[] {
    const key = (w: Worksheet): string => `${w.product} ${w.items.map((i) => i.id).join('|')}`;
    const own = key(sheet);
    return this.byName.filter((w) => w.items.length === sheet.items.length && key(w) === own);
  }

  /** States own experience in the catalogue's draft. Why it could not be done; nothing where it was. */
  async learn(
    state: (catalogue: Catalogue, day: string) => Catalogue | undefined
  ): Promise<readonly Issue[]> {
    await draft.open();
    return draft.revise('own experience', (c) => state(c, formatDay(desk.today)) ?? c);
  }

  /** Bars a hop that failed, for its system or for all that are alike, so that the plan is made anew without it. */
  async bar(sheet: Worksheet, item: WorkItem, forAll: boolean): Promise<void> {
    const by = await desk.decidedBy();
    const plan = desk.plan?.cases.find((c) => c.systems.includes(sheet.system));
    const decision: Decision = {
      ...by,
      kind: 'bar',
      scope: forAll && plan ? { situation: plan.situation } : { system: sheet.system },
      about: item.about,
      reason: `failed on ${orderNames.system(sheet.system)}`
    };
    await desk.commit(`Barred ${sayTask(item, sheet, orderNames)}`, plain(keepDecision(decision)));
  }

  drop(sheet: Worksheet): Promise<void> {
    return desk.commit(`Let go the worksheet of ${orderNames.system(sheet.system)}`, dropWorksheet(sheet));
  }
}

/** Where a system stood before an item was done: behind the last step of its worksheet before it. */
function wasOf(sheet: Worksheet, item: WorkItem): Worksheet['start'] {
  const before = sheet.items
    .slice(0, sheet.items.indexOf(item))
    .filter((i) => i.to && (i.kind === 'hop' || i.kind === 'patch'));
  return before.filter((i) => i.step !== item.step || i.kind !== item.kind).at(-1)?.to ?? sheet.start;
}

export const worksheets = new Worksheets();
