import { compareText } from '../kit';
import { type Condition, FactKinds, factsIn, type NameInCondition, parseCondition } from '../condition';
import { type DateInterval, parseDateText } from '../date';
import { foldText, parseRange, type PlaceTable, type Range, type Sequence, tabulateRange } from '../version';
import {
  type Catalogue,
  type Caution,
  type Companion,
  Names,
  type Offer,
  type Pairing,
  type Product,
  type Requirement
} from '../catalogue';

/** A condition that is there but cannot be read: no figure, or stated in two ways. */
type Demanded = Condition | 'unknown';
export type Grade = Requirement['grade'];
export type Cure = NonNullable<Requirement['cures']>[number];

/** A demand of a requirement: the published one, or the one the site goes by. */
export interface DemandModel {
  readonly requirement: Requirement;
  readonly isSite: boolean;
  readonly grade: Grade;
  readonly at: PlaceTable;
  readonly when?: Demanded;
  readonly needs: Demanded;
  /** It asks for free space and nothing else, and names no fresh install: one makes that space itself, and is not asked. */
  readonly isOfSpace: boolean;
}

export interface CureModel {
  readonly cure: Cure;
  readonly requirement: string;
  /** Its own condition. */
  readonly when?: Demanded;
  /** Whom its requirement concerns: never one where that is certainly not this system. */
  readonly guard?: Demanded;
}

export interface CautionModel {
  readonly caution: Caution;
  readonly from?: PlaceTable;
  readonly to: PlaceTable;
  readonly when?: Demanded;
}

export interface CompanionModel {
  readonly companion: Companion;
  /** Folded names it goes by. */
  readonly names: ReadonlySet<string>;
  readonly fares: readonly {
    readonly fare: Companion['fares'][number];
    readonly at: PlaceTable;
    readonly when?: Demanded;
  }[];
}

export interface OfferModel {
  readonly offer: Offer;
  readonly begins: DateInterval;
  readonly complete?: DateInterval;
  readonly firstTo?: Demanded;
}

export interface PairingModel {
  readonly pairing: Pairing;
  readonly fits: readonly { readonly own: PlaceTable; readonly other: Range }[];
}

/** What a catalogue declares once for all its products. */
export type Shared = Partial<Pick<Catalogue, 'facts' | 'lists'>>;

/** What a product asks and warns of, with its texts read once. */
export interface NeedModel {
  /** Facts, lists and ranges of releases as people know them. */
  readonly nameOf: NameInCondition;
  readonly kinds: FactKinds;
  readonly demands: readonly DemandModel[];
  /** Cures by requirement, those that replace the machine left out. */
  readonly cures: ReadonlyMap<string, readonly CureModel[]>;
  readonly cautions: readonly CautionModel[];
  readonly companions: readonly CompanionModel[];
  readonly offers: ReadonlyMap<string, OfferModel>;
  readonly withheld: ReadonlyMap<string, Demanded>;
  readonly pairings: readonly PairingModel[];
  /** Nothing of all this: steps are asked nothing. */
  readonly isEmpty: boolean;
}

const nameInProduct =
  (kinds: FactKinds, names: Names, lists: Catalogue['lists']): NameInCondition =>
  (id, kind) =>
    kind === 'range'
      ? names.range(id)
      : ((kind === 'fact' ? kinds.find(id)?.name : lists?.find((l) => l.id === id)?.name) ?? id);

/** Reads what a product asks. Texts the schema would have refused count as unknown. Cost: size of the product. */
export function needModelOf(product: Product, sequence: Sequence, shared: Shared = {}): NeedModel {
  const kinds = new FactKinds(shared.facts);
  const names = new Names(product);
  const table = (text: string): PlaceTable => tabulateRange(sequence, rangeOf(text));
  const demands = sorted(product.requirements).flatMap((r) => demandsOf(r, table(r.at), kinds));
  const cautions = sorted(product.cautions).map((caution) => ({
    caution,
    ...(caution.from === undefined ? {} : { from: table(caution.from) }),
    to: table(caution.to),
    ...whenOf(caution.when)
  }));
  const companions = sorted(product.companions).map((companion) => ({
    companion,
    names: new Set([companion.id, companion.name, ...(companion.aliases ?? [])].map(foldText)),
    fares: companion.fares.map((fare) => ({ fare, at: table(fare.at), ...whenOf(fare.when) }))
  }));
  const offers = new Map(
    (product.offers ?? []).flatMap((o) => o.hops.map((h) => [h, offerModel(o)] as const))
  );
  const withheld = new Map(
    (product.hops ?? []).flatMap((h) => (h.withheld ? [[h.id, conditionOf(h.withheld.from)] as const] : []))
  );
  const pairings = sorted(product.pairings).map((pairing) => ({
    pairing,
    fits: (pairing.fits ?? []).map((f) => ({ own: table(f.own), other: rangeOf(f.other) }))
  }));
  const uses = (product.hops ?? []).some((h) => h.uses || h.sets || h.takes);
  return {
    kinds,
    nameOf: nameInProduct(kinds, names, shared.lists),
    demands,
    cures: curesOf(product),
    cautions,
    companions,
    offers,
    withheld,
    pairings,
    isEmpty: demands.length + cautions.length + companions.length + offers.size + withheld.size === 0 && !uses
  };
}

/** By id, so that the order of the file changes nothing. */
const sorted = <T extends { readonly id: string }>(entries: readonly T[] | undefined): T[] =>
  [...(entries ?? [])].sort((a, b) => compareText(a.id, b.id));

function demandsOf(requirement: Requirement, at: PlaceTable, kinds: FactKinds): DemandModel[] {
  const { site, grade, methods, hops } = requirement;
  const base = { requirement, at, ...whenOf(requirement.when) };
  const asked = (text: string): Pick<DemandModel, 'needs' | 'isOfSpace'> => {
    const needs = conditionOf(text);
    return { needs, isOfSpace: methods === undefined && hops === undefined && isOfSpace(needs, kinds) };
  };
  const published = { ...base, isSite: false, grade, ...asked(requirement.needs) };
  return site
    ? [published, { ...base, isSite: true, grade: site.grade ?? grade, ...asked(site.needs) }]
    : [published];
}

/** Whether a demand asks for room on a disk that a fresh install makes empty, and for nothing else. */
function isOfSpace(needs: Demanded, kinds: FactKinds): boolean {
  if (needs === 'unknown' || needs.kind === 'linked') return false;
  const asked = factsIn([needs]).map((id) => kinds.find(id));
  return asked.length > 0 && asked.every((kind) => kind?.measure === 'disk' && kind.keptBy === 'software');
}

const curesOf = (product: Product): ReadonlyMap<string, readonly CureModel[]> =>
  new Map(
    (product.requirements ?? []).map((r) => [
      r.id,
      (r.cures ?? [])
        .filter((cure) => cure.kind !== 'replacement')
        .map((cure) => ({
          cure,
          requirement: r.id,
          ...whenOf(cure.when),
          ...(r.when === undefined ? {} : { guard: conditionOf(r.when) })
        }))
        .sort((a, b) => compareText(a.cure.id, b.cure.id))
    ])
  );

const offerModel = (offer: Offer): OfferModel => {
  const complete = offer.complete === undefined ? undefined : parseDateText(offer.complete);
  const firstTo = offer.firstTo === undefined ? undefined : conditionOf(offer.firstTo);
  return {
    offer,
    begins: parseDateText(offer.begins) ?? { certainty: 'unknown' },
    ...(complete ? { complete } : {}),
    ...(firstTo ? { firstTo } : {})
  };
};

const whenOf = (text: string | undefined): { when?: Demanded } =>
  text === undefined ? {} : { when: conditionOf(text) };

function conditionOf(text: string): Demanded {
  const parsed = parseCondition(text);
  return 'condition' in parsed ? parsed.condition : 'unknown';
}

function rangeOf(text: string): Range {
  const parsed = parseRange(text);
  if (!('range' in parsed)) throw new Error(`not a range: ${text}`);
  return parsed.range;
}
