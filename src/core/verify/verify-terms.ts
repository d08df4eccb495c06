import { MATURITIES, type Product, type Release } from '../catalogue/schema';
import { collapse, type Truth } from '../condition/truth';
import type { Day } from '../date/day';
import { parseDateText, readDay, type MaybeDay } from '../date/interval';
import { findServiceEnd } from '../date/service';
import type { Goal } from '../estate/schema';
import type { Evidence } from '../condition/evidence';
import { evaluateCondition, readSwitch } from '../condition/evaluate-condition';
import type { FactKinds } from '../condition/fact-kind';
import { parseCondition } from '../condition/parse-condition';
import type { CountedStep } from '../route/types';
import type { Asking } from '../bind/asking';
import type { Standing } from '../version/standing';
import type { VerifyCalendar } from './verify-windows';

/** What the verifier is told: the catalogue's own entry and the case's inputs. */
export interface VerifyTerms {
  /** The system; what is linked names it. */
  readonly system?: string;
  readonly product: Product;
  readonly goal: Goal;
  readonly countsExpected: boolean;
  readonly today: Day;
  readonly nodes: number;
  readonly calendar?: VerifyCalendar;
  readonly wayBackMinutes?: number;
  readonly activated: Truth;
  readonly held: ReadonlySet<string>;
  readonly asking: Asking;
  readonly kinds: FactKinds;
  /** Systems at the other end of a pairing, each with its own terms; unknown where nobody has told. */
  linked(pairing: NonNullable<Product['pairings']>[number]): readonly VerifyLinked[] | 'unknown';
  opensOf(id: string): MaybeDay | undefined;
}

export interface VerifyLinked {
  readonly system: string;
  /** With its own goal and its own pairings. */
  readonly terms: VerifyTerms;
  readonly start: Standing | undefined;
  readonly stays: boolean;
}

/** Verifier's terms of a product; reads the file's texts anew. */
export function verifyTermsOf(given: Omit<VerifyTerms, 'opensOf'>): VerifyTerms {
  const entries = [...(given.product.hops ?? []), ...(given.product.editionChanges ?? [])];
  return {
    ...given,
    opensOf: (id) => readText(given.countsExpected, entries.find((e) => e.id === id)?.opens)
  };
}

/** Whether nobody knows a day. */
export const isUnknown = (day: MaybeDay): boolean => day === 'unknown';

/** The day a date text counts as; undefined where there is no text. */
export function readText(countsExpected: boolean, text: string | undefined): MaybeDay | undefined {
  const date = text === undefined ? undefined : parseDateText(text);
  return date && readDay(date, countsExpected);
}

const releaseOf = (product: Product, id: string): Release | undefined =>
  product.releases.find((r) => r.id === id);

/** When a release is published for the goal's maturities; undefined: it comes in none of them. */
export function publicationOf(terms: VerifyTerms, releaseId: string): MaybeDay | undefined {
  const release = releaseOf(terms.product, releaseId);
  return release && earliestOf(terms, release);
}

/** When a patch level is published; undefined for the base level. */
export function patchPublicationOf(
  terms: VerifyTerms,
  releaseId: string,
  patch: string
): MaybeDay | undefined {
  const level = releaseOf(terms.product, releaseId)?.patches?.find((p) => p.id === patch);
  return readText(terms.countsExpected, level?.published);
}

/** The days a counted step onto a standing waits for: publication, settling on the target, first open day. */
export function waitsOf(terms: VerifyTerms, step: CountedStep, isTarget: boolean): MaybeDay[] {
  const base = publicationOf(terms, step.to.release);
  const settled = isTarget && typeof base === 'number' ? settledFrom(terms, step.to.release, base) : base;
  const arrives =
    step.kind === 'edition change' ? undefined : patchPublicationOf(terms, step.to.release, step.to.patch);
  return [settled, arrives, terms.opensOf(step.id)].filter((day) => day !== undefined);
}

/** From when a goal takes a release as its target: so many days behind its publication, and its first patch level where it waits for that. */
function settledFrom(terms: VerifyTerms, releaseId: string, published: number): MaybeDay {
  const settled = published + terms.goal.settlingDays;
  const hasLevels = terms.product.releases.some((r) => (r.patches ?? []).length > 0);
  if (!terms.goal.afterFirstPatch || !hasLevels) return settled;
  let first: number | undefined;
  for (const { published: stated } of releaseOf(terms.product, releaseId)?.patches ?? []) {
    const out = readText(terms.countsExpected, stated);
    if (typeof out === 'number' && (first === undefined || out < first)) first = out;
  }
  return first === undefined ? 'unknown' : Math.max(first, settled);
}

function earliestOf(terms: VerifyTerms, release: Release): MaybeDay | undefined {
  const stated = typeof release.published === 'string' ? { general: release.published } : release.published;
  const days = MATURITIES.filter((m) => terms.goal.maturities.includes(m)).flatMap(
    (m) => readText(terms.countsExpected, stated[m]) ?? []
  );
  const known = days.filter((d) => typeof d === 'number');
  return known.length > 0 ? Math.min(...known) : days[0];
}

/** The last day in service by the goal's phase; unknown where nothing usable is published. */
export function endOfService(terms: VerifyTerms, releaseId: string): MaybeDay {
  const release = releaseOf(terms.product, releaseId);
  const phases = release?.service ?? terms.product.lines?.find((l) => l.id === release?.line)?.service ?? [];
  const dated = phases.flatMap((p) => {
    const until = parseDateText(p.until);
    return until ? [{ phase: p.phase, until }] : [];
  });
  return findServiceEnd(dated, terms.goal.phase, terms.countsExpected);
}

/** The day a hop that can be had by offer alone is certain to be offered to the system; undefined: nothing to wait for. */
export function offerOf(terms: VerifyTerms, step: CountedStep, evidence: Evidence): MaybeDay | undefined {
  const hop = terms.product.hops?.find((h) => h.id === step.id);
  if (!hop || (hop.doing?.obtain ?? []).some((o) => o.way !== 'offer')) return undefined;
  const isSo = (text: string, role: 'demand' | 'guard'): boolean => {
    const parsed = parseCondition(text);
    const truth =
      'condition' in parsed ? evaluateCondition(parsed.condition, evidence, terms.kinds).truth : 'unknown';
    return collapse(truth, 'sure', role);
  };
  const bounds: MaybeDay[] = [];
  if (hop.withheld && isSo(hop.withheld.from, 'guard'))
    bounds.push(readText(terms.countsExpected, hop.withheld.until ?? 'unknown') ?? 'unknown');
  const offer = terms.product.offers?.findLast((o) => o.hops.includes(hop.id));
  const said = offer && evidence.fact(`offer.${offer.id}`);
  const made = said?.kind === 'known' ? readSwitch(said.value) : undefined;
  const complete = readText(terms.countsExpected, offer?.complete ?? 'unknown') ?? 'unknown';
  const isOver = complete !== 'unknown' && complete <= terms.today;
  if (offer && made !== 'on' && (made !== undefined || !isOver)) {
    const first = made === undefined && offer.firstTo !== undefined && isSo(offer.firstTo, 'demand');
    const begins = readText(terms.countsExpected, offer.begins) ?? 'unknown';
    if (!first) bounds.push(isOver ? 'unknown' : complete);
    else if (begins === 'unknown' || begins > terms.today) bounds.push(begins);
  }
  if (bounds.length === 0) return undefined;
  return bounds.includes('unknown') ? 'unknown' : Math.max(...(bounds as Day[]));
}
