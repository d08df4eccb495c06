import type { Hop, Product } from '../catalogue';
import type { System, WorkItem } from '../estate';
import { isCounted, type CountedStep, type Route, type WorkStep } from '../route';
import type { Runs } from './experience';
import { isIn } from './in-range';

/** What a worksheet is made from. */
export interface Making {
  readonly route: Route;
  readonly product: Product;
  readonly system: System;
  /** Ids of the systems a system is linked with by a word. */
  linkedBy(word: string): readonly string[];
  /** A restore has to be proved before anything is changed. */
  readonly isCritical: boolean;
  /** What is done instead where a hop of the way fails, with that hop's id. */
  readonly fallbacks?: readonly { readonly id: string; readonly route?: Route }[];
  /** How long an entry of the catalogue took in own earlier runs, where there are enough of them. */
  runsOf?(about: string): Runs | undefined;
}

export type Draft = Omit<WorkItem, 'id'>;

/** What is prepared beforehand for all hops: fetched, in hand, decided, backed up and proven, checked. */
export function prepared(making: Making, counted: readonly CountedStep[]): Draft[] {
  return [
    ...counted.flatMap((step, k) => fetched(making, step, k)),
    ...fallbackMedia(making),
    ...drivers(making, counted.at(-1)),
    ...keys(making),
    ...articles(making),
    ...once(counted.flatMap((step) => accessOf(making, step))),
    ...once(counted.flatMap((step) => decided(making, step))),
    ...backedUp(making),
    ...checked(making),
    { kind: 'check', about: 'rule: power and clock' }
  ];
}

/** The hop of the catalogue that a counted step is; undefined for a change of edition. */
export const hopOf = ({ product }: Making, { id }: CountedStep): Hop | undefined =>
  product.hops?.find((h) => h.id === id);

/** The entry of the catalogue a counted step is. */
export const entryOf = (making: Making, step: CountedStep): string =>
  `${making.product.id}/${step.kind === 'edition change' ? 'editionChanges' : 'hops'}/${step.id}`;

function fetched(making: Making, step: CountedStep, k: number): Draft[] {
  const about = entryOf(making, step);
  const media = (hopOf(making, step)?.doing?.media ?? []).map((m): Draft => ({
    kind: 'fetch',
    about,
    step: k,
    text: m.name,
    details: [
      ...(m.size === undefined ? [] : [m.size]),
      ...(m.boundTo === undefined ? [] : [`bound to: ${m.boundTo}`]),
      ...(m.origin === undefined ? [] : [`from: ${m.origin}`]),
      ...(m.checksum === undefined ? [] : [`checksum: ${m.checksum}`])
    ],
    ...(m.minutes === undefined ? {} : { carefulMinutes: m.minutes })
  }));
  const { kind, right } = step.right;
  const bought: Draft[] =
    right !== undefined && (kind === 'purchase' || kind === 'ask')
      ? [{ kind: 'fetch', about: `${making.product.id}/rights/${right}`, step: k }]
      : [];
  return [...media, ...bought];
}

/** Keys of what is put on again. */
function keys({ route, product, system }: Making): Draft[] {
  return route.steps.flatMap((step): Draft[] => {
    if (step.kind !== 'work' || !step.needsKey || step.companion === undefined) return [];
    const has = system.companions?.find((c) => c.name === step.companion)?.keyInHand;
    return [
      {
        kind: 'fetch',
        about: `${product.id}/companions/${step.companion}`,
        text: 'its key',
        ...(has === true ? { details: ['in hand'] } : {})
      }
    ];
  });
}

/** What the fallback of each hop needs, to be there before that hop is begun. */
function fallbackMedia(making: Making): Draft[] {
  const found = new Map<string, Draft>();
  for (const { id, route } of making.fallbacks ?? []) {
    const step = route?.steps.find(isCounted);
    if (!step || !making.route.steps.some((s) => isCounted(s) && s.id === id)) continue;
    const about = entryOf(making, step);
    if (making.route.steps.some((s) => isCounted(s) && s.id === step.id)) continue;
    const media = hopOf(making, step)?.doing?.media ?? [];
    const text = media.map((m) => m.name).join(', ');
    if (text === '' && step.kind !== 'fresh install') continue;
    found.set(about, {
      kind: 'fetch',
      about,
      ...(text === '' ? {} : { text }),
      details: ['fallback', ...(step.kind === 'fresh install' ? ['fresh install'] : [])],
      to: { ...step.to }
    });
  }
  return [...found.values()];
}

/** Drivers that companions want on a medium beforehand. */
function drivers({ product, system }: Making, last: CountedStep | undefined): Draft[] {
  if (!last) return [];
  return (system.companions ?? []).flatMap(({ name }): Draft[] => {
    const known = product.companions?.find((c) => c.name === name || c.id === name);
    const driver = known?.fares.find((f) => isIn(product, f.at, last.to) && f.driver !== undefined)?.driver;
    return known && driver !== undefined
      ? [{ kind: 'fetch', about: `${product.id}/companions/${known.id}`, text: driver, details: ['driver'] }]
      : [];
  });
}

/** What is to be read: what the system refers to, and the known problems of the way. */
function articles({ product, system, route }: Making): Draft[] {
  const ids = new Set(route.steps.flatMap((s) => (s.kind === 'work-around' ? [s.id] : [])));
  return [
    ...(system.references ?? []).map((r): Draft => ({
      kind: 'fetch',
      about: 'references of the system',
      text: r.title,
      details: [r.url]
    })),
    ...(product.cautions ?? []).flatMap((c): Draft[] =>
      ids.has(c.id) && c.reference !== undefined
        ? [{ kind: 'fetch', about: `${product.id}/cautions/${c.id}`, text: c.reference }]
        : []
    )
  ];
}

function accessOf(making: Making, step: CountedStep): Draft[] {
  return (hopOf(making, step)?.doing?.access ?? []).map((a) => ({
    kind: 'access',
    about: entryOf(making, step),
    text: a.layer,
    details: [a.account, a.rights, a.connection].flatMap((t) => t ?? [])
  }));
}

function decided(making: Making, step: CountedStep): Draft[] {
  const { terms = [], choices = [] } = hopOf(making, step)?.doing ?? {};
  const about = entryOf(making, step);
  return [
    ...terms.map((text): Draft => ({ kind: 'decide', about, text, details: ['terms to be accepted'] })),
    ...choices.map((text): Draft => ({ kind: 'decide', about, text }))
  ];
}

/** What several hops want alike is prepared once. */
function once(drafts: readonly Draft[]): Draft[] {
  const seen = new Set<string>();
  return drafts.filter((d) => {
    const key = JSON.stringify([d.kind, d.text, d.details]);
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
}

function backedUp({ route, isCritical }: Making): Draft[] {
  const work = route.steps.find((s): s is WorkStep => s.kind === 'work' && s.task === 'back up');
  return [
    {
      kind: 'back up',
      about: 'rule: back-up',
      ...(work ? { typicalMinutes: work.typicalMinutes, carefulMinutes: work.carefulMinutes } : {})
    },
    { kind: 'prove', about: 'rule: back-up', ...(isCritical ? { details: ['critical'] } : {}) }
  ];
}

/** The checks of the known problems of this way, ahead of the window and each by itself. */
function checked(making: Making): Draft[] {
  const ids = new Set(making.route.steps.flatMap((s) => (s.kind === 'work-around' ? [s.id] : [])));
  return (making.product.cautions ?? [])
    .filter((c) => ids.has(c.id) && c.check !== undefined)
    .map((c): Draft => ({
      kind: 'check',
      about: `${making.product.id}/cautions/${c.id}`,
      text: c.check ?? ''
    }));
}
