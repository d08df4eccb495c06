import type { Caution } from '../catalogue';
import type { WorkItem } from '../estate';
import { type CureStep, isCounted, type CountedStep, type Step } from '../route';
import type { Standing } from '../version';
import { isTimed } from './experience';
import { isIn } from './in-range';
import { type Draft, entryOf, hopOf, type Making, prepared } from './prepare';

/**
 * The items of a way for one system, in the order work is done in (docs/reckoning.md 15): what is prepared beforehand for all hops, then
 * hop by hop what makes ready, the hop itself - a node at a time - and what comes behind it, then what is looked at in the end. Each has
 * the entry of the catalogue, the fact or the rule it comes from.
 */
export function makeItems(making: Making): WorkItem[] {
  const counted = making.route.steps.filter(isCounted);
  const drafts = [
    ...prepared(making, counted),
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
    const { n, ...own } = (isTimed(draft) ? making.runsOf?.(draft.about) : undefined) ?? {};
    return {
      id: (nth === 1 ? base : `${base} #${nth}`).slice(0, 300),
      ...draft,
      ...own,
      ...(n === undefined ? {} : { runs: n })
    };
  });
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

/** Work that puts back what a hop took away, and what a known problem wants done behind it. */
const isBehind = (step: Step): boolean =>
  step.kind === 'work-around'
    ? step.behind === true
    : step.kind === 'work' && step.task !== 'back up' && step.task !== 'take off';

function draftsOf(making: Making, step: Step, k: number): Draft[] {
  const { product, system } = making;
  // What is one item is done on every node.
  const nodes = system.nodes ?? 1;
  const times = {
    typicalMinutes: step.typicalMinutes * nodes,
    carefulMinutes: step.carefulMinutes * nodes
  };
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
          ...cureOf(making, step),
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
      return hopDrafts(making, step, { k, nodes });
  }
}

/** What a cure makes of the fact it is for, as the catalogue has it today. */
function cureOf({ product }: Making, { requirement, id }: CureStep): Pick<Draft, 'cure'> {
  const found = product.requirements?.find((r) => r.id === requirement)?.cures?.find((c) => c.id === id);
  if (!found || (found.set === undefined && found.raise === undefined)) return {};
  const { fact, set, raise } = found;
  return {
    cure: { id, fact, ...(set === undefined ? {} : { set }), ...(raise === undefined ? {} : { raise }) }
  };
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
      ...(hop?.uses ? { uses: hop.uses } : {}),
      ...(step.kind === 'fresh install' ? { afresh: true as const } : {}),
      ...drawsOf(step),
      ...(started === undefined && step.obtain?.started === undefined
        ? {}
        : { details: [`started: ${step.obtain?.started ?? started ?? ''}`] }),
      typicalMinutes: step.typicalMinutes,
      carefulMinutes: step.carefulMinutes,
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
    { kind: 'verify', about: 'rule: sign in and services' },
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
  const has = (text: string | undefined, at: Standing): boolean =>
    text === undefined || isIn(product, text, at);
  const isRid = (c: Caution): boolean =>
    !own.has(c.id) &&
    c.workAround !== undefined &&
    has(c.from, first.from) &&
    counted.every((step) => !has(c.to, step.to));
  return (product.cautions ?? []).filter(isRid).map((c): Draft => ({
    kind: 'work-around',
    about: `${product.id}/cautions/${c.id}`,
    text: c.workAround?.how ?? '',
    needless: counted.at(-1)?.to.release ?? ''
  }));
}
