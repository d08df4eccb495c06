import type { Caution, Hop, Product } from '../catalogue';
import type { System, WorkItem } from '../estate';
import { isCounted, type CountedStep, type Route, type Step, type WorkStep } from '../route';
import { BASE_PATCH, matchesRange, parseRange, sequenceOf, type Standing } from '../version';

/** What a worksheet is made from. */
export interface Making {
  readonly route: Route;
  readonly product: Product;
  readonly system: System;
  /** Ids of the systems a system is linked with by a word. */
  linkedBy(word: string): readonly string[];
  /** A restore has to be proved before anything is changed. */
  readonly isCritical: boolean;
}

type Draft = Omit<WorkItem, 'id'>;

/**
 * The items of a way for one system, in the order work is done in (docs/reckoning.md 15): what is prepared beforehand for all hops, then
 * hop by hop what makes ready, the hop itself - a node at a time - and what comes behind it, then what is looked at in the end. Each has
 * the entry of the catalogue, the fact or the rule it comes from.
 */
export function makeItems(making: Making): WorkItem[] {
  const counted = making.route.steps.filter(isCounted);
  const drafts = [
    ...counted.flatMap((step, k) => fetched(making, step, k)),
    ...keys(making),
    ...(making.system.references ?? []).map((r): Draft => ({
      kind: 'fetch',
      about: 'references of the system',
      text: r.title,
      details: [r.url]
    })),
    ...once(counted.flatMap((step) => accessOf(making, step))),
    ...once(counted.flatMap((step) => decided(making, step))),
    ...backedUp(making),
    ...checked(making),
    ...stepByStep(making),
    ...atTheEnd(making, counted),
    ...needless(making, counted)
  ];
  const seen = new Map<string, number>();
  return drafts.map((draft) => {
    const base = [draft.kind, draft.about, draft.step ?? '', draft.node ?? '', draft.of ?? '']
      .join(' ')
      .trim();
    const nth = (seen.get(base) ?? 0) + 1;
    seen.set(base, nth);
    return { id: (nth === 1 ? base : `${base} #${nth}`).slice(0, 300), ...draft };
  });
}

const hopOf = ({ product }: Making, { id }: CountedStep): Hop | undefined =>
  product.hops?.find((h) => h.id === id);

/** The entry of the catalogue a counted step is. */
const entryOf = (making: Making, step: CountedStep): string =>
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

/** What is done step by step: what makes ready, the hop, what comes behind it. */
function stepByStep(making: Making): Draft[] {
  const drafts: Draft[] = [];
  const { steps } = making.route;
  let k = 0;
  let isSnapped = false;
  for (let i = 0; i < steps.length; i++) {
    const step = steps[i] as Step;
    if (!isSnapped) {
      drafts.push({ kind: 'snapshot', about: 'rule: one before each separable step', step: k });
      isSnapped = true;
    }
    drafts.push(...draftsOf(making, step, k));
    if (!isCounted(step)) continue;
    const behind: Step[] = [];
    for (let next = steps[i + 1]; next && isBehind(next); next = steps[++i + 1]) behind.push(next);
    drafts.push(
      { kind: 'verify', about: entryOf(making, step), step: k, to: { ...step.to } },
      ...behind.flatMap((s) => draftsOf(making, s, k).map((d): Draft => ({ ...d, kind: 'post-work' }))),
      ...behindHop(making, step, k)
    );
    k++;
    isSnapped = false;
  }
  return drafts;
}

/** Work that puts back what a hop took away. */
const isBehind = (step: Step): boolean =>
  step.kind === 'work' && step.task !== 'back up' && step.task !== 'take off';

function draftsOf(making: Making, step: Step, k: number): Draft[] {
  const { product, system } = making;
  const times = { typicalMinutes: step.typicalMinutes, carefulMinutes: step.carefulMinutes };
  switch (step.kind) {
    case 'patch':
      return [
        {
          kind: 'patch',
          about: `${product.id}/releases/${step.to.release}/patches/${step.to.patch}`,
          step: k,
          to: { ...step.to },
          ...times
        }
      ];
    case 'cure':
      return [
        {
          kind: 'cure',
          about: `${product.id}/requirements/${step.requirement}`,
          text: step.id,
          step: k,
          ...times
        }
      ];
    case 'work-around':
      return workAround(making, step, k);
    case 'work':
      // The back-up stands at the head of the list.
      if (step.task === 'back up') return [];
      return [
        {
          kind: 'work',
          about: step.companion === undefined ? 'route' : `${product.id}/companions/${step.companion}`,
          text: step.task,
          step: k,
          ...times
        }
      ];
    default:
      return hopDrafts(making, step, { k, nodes: system.nodes ?? 1 });
  }
}

function workAround(making: Making, step: Extract<Step, { kind: 'work-around' }>, k: number): Draft[] {
  const caution = making.product.cautions?.find((c) => c.id === step.id);
  const about = `${making.product.id}/cautions/${step.id}`;
  const { how, per, clean, typicalMinutes, carefulMinutes } = caution?.workAround ?? {};
  const base: Draft = {
    kind: 'work-around',
    about,
    step: k,
    ...(how === undefined ? {} : { text: how }),
    ...(clean === undefined ? {} : { details: [`clean when: ${clean}`] }),
    typicalMinutes: typicalMinutes ?? step.typicalMinutes,
    carefulMinutes: carefulMinutes ?? step.carefulMinutes
  };
  const linked = per === undefined || per === 'system' ? [] : making.linkedBy(per);
  const each: Draft[] =
    linked.length > 0
      ? linked.map((of) => ({ ...base, of }))
      : step.times > 1
        ? Array.from({ length: step.times }, (_, n) => ({ ...base, node: n + 1 }))
        : [base];
  const { followOn } = caution ?? {};
  if (!followOn) return each;
  return [
    ...each,
    {
      kind: 'follow-on',
      about,
      step: k,
      text: followOn.how,
      details: [`until: ${followOn.until}`],
      ...(followOn.minutesEach === undefined ? {} : { carefulMinutes: followOn.minutesEach })
    }
  ];
}

function hopDrafts(
  making: Making,
  step: CountedStep,
  { k, nodes }: { readonly k: number; readonly nodes: number }
): Draft[] {
  const hop = hopOf(making, step);
  const { handsOnMinutes, normal, stuck, started } = hop?.doing ?? {};
  const about = entryOf(making, step);
  const each = (node: number | undefined): Draft => {
    const at = node === undefined ? step.at : (step.nodesAt?.[node - 1] ?? step.at);
    return {
      kind: 'hop',
      about,
      step: k,
      ...(node === undefined ? {} : { node }),
      to: { ...step.to },
      ...(hop?.sets ? { sets: hop.sets } : {}),
      ...drawsOf(step),
      ...(started === undefined && step.obtain?.started === undefined
        ? {}
        : { details: [`started: ${step.obtain?.started ?? started ?? ''}`] }),
      typicalMinutes: Math.round(step.typicalMinutes / nodes),
      carefulMinutes: Math.round(step.carefulMinutes / nodes),
      ...(handsOnMinutes === undefined ? {} : { handsOnMinutes }),
      ...(normal ? { normal } : {}),
      ...(stuck
        ? { stuck: stuck.map(({ watch, ...s }) => (watch === undefined ? s : { ...s, watch })) }
        : {}),
      ...(at ? { turnBy: at.turnBy, zone: at.zone } : {})
    };
  };
  if (nodes === 1) return [each(undefined)];
  return Array.from({ length: nodes }, (_, n) => n + 1).flatMap((node): Draft[] => [
    ...(node === 1
      ? []
      : [{ kind: 'hand-over' as const, about: 'rule: one node carries the load', step: k, node }]),
    each(node)
  ]);
}

/** What a step takes of what is held: its units, or one of a right that is bought a system at a time. */
function drawsOf({ right: { right, kind, units } }: CountedStep): Pick<Draft, 'draws'> {
  if (right === undefined) return {};
  if (units)
    return typeof units.number === 'number' && units.number > 0
      ? {
          draws: {
            right,
            number: units.number,
            ...(units.edition === undefined ? {} : { edition: units.edition })
          }
        }
      : {};
  return kind === 'purchase' ? { draws: { right, number: 1 } } : {};
}

function behindHop(making: Making, step: CountedStep, k: number): Draft[] {
  const about = entryOf(making, step);
  const { wayBack, post = [], verify = [] } = hopOf(making, step)?.doing ?? {};
  const until = wayBack?.until;
  const back: Draft[] = wayBack
    ? [
        {
          kind: 'way back',
          about,
          step: k,
          text:
            until === 'never'
              ? 'never'
              : until && 'event' in until
                ? until.event
                : `${until && 'days' in until ? until.days : 0} days`,
          details: [
            ...(wayBack.how === undefined ? [] : [wayBack.how]),
            ...(wayBack.restores === undefined ? [] : [`restores: ${wayBack.restores}`]),
            ...(wayBack.loses === undefined ? [] : [`loses: ${wayBack.loses}`])
          ],
          ...(wayBack.minutes === undefined ? {} : { carefulMinutes: wayBack.minutes })
        }
      ]
    : [];
  return [
    ...post.map((p): Draft => ({
      kind: 'post-work',
      about,
      step: k,
      text: p.what,
      ...(p.minutes === undefined ? {} : { carefulMinutes: p.minutes })
    })),
    ...verify.map((text): Draft => ({ kind: 'verify', about, step: k, text })),
    ...back
  ];
}

function atTheEnd(making: Making, counted: readonly CountedStep[]): Draft[] {
  const { product, system } = making;
  const nodes = system.nodes ?? 1;
  const last = counted.at(-1);
  const managers = making.linkedBy('managed by');
  const leaves = counted.flatMap((step) =>
    (hopOf(making, step)?.doing?.leaves ?? []).map((text): Draft => ({
      kind: 'tidy',
      about: entryOf(making, step),
      text
    }))
  );
  const old = product.releases.find((r) => r.id === counted[0]?.from.release);
  const label = old?.name ?? old?.id;
  return [
    ...(last?.right.right === undefined || last.right.kind === 'free'
      ? []
      : [{ kind: 'verify' as const, about: `${product.id}/rights/${last.right.right}` }]),
    ...(nodes > 1
      ? Array.from({ length: nodes }, (_, n): Draft => ({
          kind: 'verify',
          about: 'rule: every node and its role',
          node: n + 1
        }))
      : []),
    ...managers.map((of): Draft => ({ kind: 'verify', about: 'link: managed by', of })),
    ...(system.companions ?? [])
      .filter((c) => c.essential)
      .map((c): Draft => ({ kind: 'verify', about: 'companions of the system', text: c.name })),
    ...leaves,
    ...(label !== undefined && label.length > 2 && system.name.includes(label)
      ? [{ kind: 'tidy' as const, about: 'name of the system', text: label }]
      : [])
  ];
}

/** Known problems of what is left that the target is rid of. */
function needless({ product, route }: Making, counted: readonly CountedStep[]): Draft[] {
  const [first] = counted;
  if (!first) return [];
  const own = new Set(route.steps.flatMap((s) => (s.kind === 'work-around' ? [s.id] : [])));
  const isIn = (text: string | undefined, at: Standing): boolean => {
    if (text === undefined) return true;
    const parsed = parseRange(text);
    const position = { release: at.release, patch: at.patch || BASE_PATCH };
    return 'range' in parsed && matchesRange(sequenceOf(product), parsed.range, position);
  };
  const isRid = (c: Caution): boolean =>
    !own.has(c.id) &&
    c.workAround !== undefined &&
    isIn(c.from, first.from) &&
    counted.every((step) => !isIn(c.to, step.to));
  return (product.cautions ?? []).filter(isRid).map((c): Draft => ({
    kind: 'work-around',
    about: `${product.id}/cautions/${c.id}`,
    text: c.workAround?.how ?? '',
    needless: counted.at(-1)?.to.release ?? ''
  }));
}
