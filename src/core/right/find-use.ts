import { compareText } from '../kit';
import { NOTHING, type Place, type ProductModel, type RightModel } from '../compile';
import { type CountedKind, factOfOption } from '../catalogue';
import {
  and,
  collapse,
  type Evidence,
  type FactKinds,
  figureIn,
  parseFigure,
  type Run,
  switchTruth,
  type Truth,
  truthOf
} from '../condition';
import { type Day, type MaybeDay, parseDateText, readDay, type StepDays } from '../date';
import type { RightUse, UnitUse } from './right-use';

/** What rights are judged by: the product, what the estate holds, and how days are read. */
export interface RightTerms {
  readonly model: ProductModel;
  /** Ids of agreements and other rights the estate holds. */
  readonly held: ReadonlySet<string>;
  readonly goal: { readonly allow: { readonly spending: boolean } };
  readonly countsExpected: boolean;
  readonly today: Day;
  /** The day on which is ordered what has to be bought. */
  readonly leadsFrom: Day;
  /** Per release, for the goal's maturities. */
  readonly publication: readonly (MaybeDay | undefined)[];
  readonly notes: { meet(clause: string): void };
}

/** A step as rights see it. */
export interface RightStep {
  readonly kind: CountedKind;
  readonly id: string;
  readonly from: Place;
  readonly level: number;
  readonly to: Place;
  /** Absent, both: an empty cell, which nobody sells a right for. */
  readonly hop?: object;
  readonly change?: object;
  readonly asked: { readonly activated: Truth };
}

export interface FoundUse {
  /** Without the number of its units; see `countUnits`. */
  readonly use: Omit<RightUse, 'units'>;
  /** Set where it is counted in units. */
  readonly units?: RightUnits;
  /** `unknown`: usable only if an unknown fact or day turns out well. */
  readonly met: Truth;
  /** Only rights by agreement or not for sale apply, and none is held. */
  readonly closes: boolean;
  /** Those rights, as text. */
  readonly locked: string;
}

const ASK: FoundUse['use'] = { kind: 'ask', costCents: 'unknown' };
const NONE: FoundUse = { use: ASK, met: 'yes', closes: false, locked: '' };

/**
 * The right a step is made under, on the days it falls on.
 *
 * 1. Of the published rights that apply to the step and are usable that day, the cheapest: known price before
 *    unknown, then price, then id; where the goal forbids spending, free first, then unknown.
 * 2. None usable, but rights by agreement or not for sale apply and are not held: the step is closed.
 * 3. None at all: the publisher must be asked; the sum is unknown, the step open.
 * A right counted in units ranks by its price, and costs no money on the route.
 */
export function findUse(terms: RightTerms, step: RightStep, on: StepDays, run: Run): FoundUse {
  if (!step.hop && !step.change) return NONE;
  let best: Usable | undefined;
  let locked = '';
  for (const model of terms.model.rights) {
    if (!appliesTo(terms, model, step)) continue;
    const { right } = model;
    if ((right.kind === 'agreement' || right.kind === 'not for sale') && !terms.held.has(right.id)) {
      locked += `${locked === '' ? '' : ' or '}${right.id}`;
      continue;
    }
    const met = isUsable(terms, model, step, on);
    if (met === 'unknown') terms.notes.meet(`right ${right.id}`);
    if (!collapse(met, run, 'demand')) continue;
    const next: Usable = { model, met, price: priceOf(terms, model, on), id: right.id };
    if (!best || compareUses(next, best, terms.goal.allow.spending) < 0) best = next;
  }
  if (!best) return locked === '' ? NONE : { use: ASK, met: 'yes', closes: true, locked };
  const { right } = best.model;
  const units = right.kind === 'free' ? undefined : right.units;
  return { use: useOf(terms, best), ...(units ? { units } : {}), met: best.met, closes: false, locked: '' };
}

interface Usable {
  readonly model: RightModel;
  readonly met: Truth;
  readonly price: number | 'unknown';
  readonly id: string;
}

function appliesTo(terms: RightTerms, { right, from, to }: RightModel, step: RightStep): boolean {
  const { model } = terms;
  const nothing = step.from.release === NOTHING;
  const left = nothing ? '' : (model.editions[step.from.edition] ?? '');
  const reached = model.editions[step.to.edition] ?? '';
  return (
    (!right.hops || right.hops.includes(step.id)) &&
    (!right.ways || right.ways.includes(step.kind)) &&
    (!right.fromEditions || right.fromEditions.includes(left)) &&
    (!right.toEditions || right.toEditions.includes(reached)) &&
    (!right.mapsEditions || maps(right.mapsEditions, left, reached)) &&
    !(nothing && right.kind === 'carried') &&
    (!from || from[step.from.release]?.[step.level] === true) &&
    (!to || to[step.to.release]?.[step.to.patch] === true)
  );
}

/** A carried right leads to the edition it maps the held one to, whatever that is called (FIELD-NOTES N35). */
function maps(table: NonNullable<RightModel['right']['mapsEditions']>, from: string, to: string): boolean {
  const row = Object.hasOwn(table, from) ? table[from] : undefined;
  return typeof row === 'string' ? row === to : (row ?? []).includes(to);
}

function isUsable(terms: RightTerms, { right, until }: RightModel, step: RightStep, on: StepDays): Truth {
  const carried = right.kind === 'carried' ? step.asked.activated : 'yes';
  return until
    ? and(
        carried,
        isInTime(terms, { until: readDay(until, terms.countsExpected), counts: right.counts }, step, on)
      )
    : carried;
}

function isInTime(
  terms: RightTerms,
  { until, counts }: { readonly until: MaybeDay; readonly counts: string | undefined },
  step: RightStep,
  on: StepDays
): Truth {
  if (until === 'unknown') return 'unknown';
  if (counts === 'order day') return truthOf(terms.leadsFrom <= until);
  if (counts !== 'release day') return on.last > until ? 'no' : on.exact ? 'yes' : 'unknown';
  const published = terms.publication[step.to.release];
  if (published === undefined || published === 'unknown') return until > terms.today ? 'unknown' : 'no';
  return truthOf(published <= until);
}

/** The price on the step's days, or that of the order: an offer counts only where it is certain to reach to the last of them. */
function priceOf(terms: RightTerms, { right }: RightModel, on: StepDays): number | 'unknown' {
  if (right.kind === 'ask') return 'unknown';
  if (right.kind !== 'purchase') return 0;
  const end = right.offer && offerEnd(terms, right.offer);
  if (right.offer && end !== undefined) {
    const isOffered = right.counts === 'order day' ? terms.leadsFrom <= end : on.exact && on.last <= end;
    if (isOffered) return right.offer.priceCents;
  }
  return right.priceCents ?? 'unknown';
}

/** The last day of an offer price; undefined where there is none or nobody knows. */
export function offerEnd(
  terms: Pick<RightTerms, 'countsExpected'>,
  offer: RightModel['right']['offer']
): number | undefined {
  const date = offer && parseDateText(offer.until);
  const day = date && readDay(date, terms.countsExpected);
  return typeof day === 'number' ? day : undefined;
}

const KINDS = {
  free: 'free',
  carried: 'carried',
  purchase: 'purchase',
  ask: 'ask',
  agreement: 'held',
  'not for sale': 'held'
} as const;

/** By right, then by whether expected days count, then by price: one object each. */
const USES = new WeakMap<RightModel, Map<string, FoundUse['use']>>();

function useOf({ countsExpected }: RightTerms, { model, price }: Usable): FoundUse['use'] {
  const made = USES.get(model) ?? new Map<string, FoundUse['use']>();
  USES.set(model, made);
  const key = countsExpected ? `${price} expected` : `${price}`;
  const known = made.get(key) ?? makeUse(countsExpected, model, price);
  made.set(key, known);
  return known;
}

function makeUse(
  countsExpected: boolean,
  { right, until }: RightModel,
  price: Usable['price']
): FoundUse['use'] {
  const day = until && right.counts !== 'release day' ? readDay(until, countsExpected) : 'unknown';
  const counted = right.units && right.kind !== 'free';
  return {
    kind: KINDS[right.kind],
    right: right.id,
    costCents: counted && right.kind === 'purchase' ? 0 : price,
    ...(right.kind === 'purchase' ? { priceCents: price } : {}),
    ...(right.leadDays ? { leadDays: right.leadDays } : {}),
    ...(day === 'unknown' ? {} : { until: day })
  };
}

export type RightUnits = NonNullable<RightModel['right']['units']>;

/** What units are counted of: a system as it stands before the step. */
export interface CountedOf {
  readonly evidence: Evidence;
  readonly kinds: FactKinds;
  readonly nodes: number;
  /** The edition arrived at; undefined where the product comes in one only. */
  readonly edition: string | undefined;
}

/**
 * Units a step takes: so many, or as many as a fact says; nodes are counted where each node takes them. Each option that is
 * on takes as many again; one nobody has told of makes the number unknown.
 */
export function countUnits(units: RightUnits, { evidence, kinds, nodes, edition }: CountedOf): UnitUse {
  const on = (units.options ?? []).map((option) => switchTruth(evidence.fact(factOfOption(option))));
  let each: number | 'unknown' = (units.number ?? 1) * (units.each === 'node' ? nodes : 1);
  if (units.fact !== undefined) {
    const seen = evidence.fact(units.fact);
    const measure = kinds.find(units.fact)?.measure;
    const figure = seen.kind === 'known' ? parseFigure(String(seen.value)) : undefined;
    each = (measure && figure && figureIn(measure, figure)) ?? 'unknown';
  }
  const number =
    each === 'unknown' || on.includes('unknown')
      ? 'unknown'
      : each * (1 + on.filter((truth) => truth === 'yes').length);
  const named = units.edition ?? edition;
  return { pool: units.pool, ...(named === undefined ? {} : { edition: named }), number };
}

/** Rank of a price, least first; forbidden spending puts a price behind an unknown sum. */
function rankOf({ price }: Usable, maySpend: boolean): number {
  if (price === 0) return 0;
  return (price === 'unknown') === maySpend ? 2 : 1;
}

const compareUses = (a: Usable, b: Usable, maySpend: boolean): number =>
  rankOf(a, maySpend) - rankOf(b, maySpend) ||
  (typeof a.price === 'number' && typeof b.price === 'number' ? a.price - b.price : 0) ||
  compareText(a.id, b.id);
