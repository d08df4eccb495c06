import { compareText } from '../kit';
import type { CautionOnWay, CompanionOnWay, RequirementOnWay } from '../plan';
import type { Caution, Requirement } from '../catalogue';
import { type Evaluation, type FactKinds, type Truth, unknownFactsOf } from '../condition';
import type { LookedCase } from './look-case';
import { LOSSES, type Loss, type Mark, type ReadyCell, type ReadyItem } from './ready-types';
import { foldText } from '../version';
import { findShortfall } from './shortfall';
import { type BareSeen, bareSeen, isCounted, type Reason } from '../route';

type Asked = Omit<ReadyItem, 'key' | 'cells' | 'open'> & {
  /** Of all systems of the case, where it does not say of which. */
  readonly cell: Omit<ReadyCell, 'case' | 'systems'> & Partial<Pick<ReadyCell, 'systems'>>;
};

/**
 * What is asked on the way to goals, gathered over cases: requirements with the site's own values, companions, cautions, what
 * is linked, and the clauses that close a goal. Sorted by what is lost while it does not hold, then by systems for which it is
 * open, then by key. Cost: cases times what each is asked.
 */
export function gatherItems(looked: readonly LookedCase[], kinds: FactKinds): ReadyItem[] {
  const items = new Map<string, Asked & { key: string; cells: ReadyCell[] }>();
  for (const one of looked)
    for (const asked of askedOf(one, kinds)) {
      const key = `${asked.product}/${asked.kind}/${asked.id}`;
      const known = items.get(key) ?? { ...asked, key, cells: [] };
      known.cells.push({ case: one.plan.id, systems: one.plan.systems, ...asked.cell });
      items.set(key, known);
    }
  return [...items.values()]
    .map(({ cell: _cell, ...item }): ReadyItem => {
      void _cell;
      const open = item.cells.filter((c) => c.mark !== 'holds' && c.dealt === undefined);
      return { ...item, open: open.reduce((n, c) => n + c.systems.length, 0) };
    })
    .sort(
      (a, b) =>
        Number(a.open === 0) - Number(b.open === 0) ||
        LOSSES.indexOf(a.loss) - LOSSES.indexOf(b.loss) ||
        b.open - a.open ||
        compareText(a.key, b.key)
    );
}

function askedOf(looked: LookedCase, kinds: FactKinds): Asked[] {
  const { asked } = looked;
  if (!asked) return [];
  return [
    ...asked.requirements.map((r) => ofRequirement(looked, r, kinds)),
    ...asked.companions.flatMap((c) => ofCompanion(looked, c)),
    ...asked.cautions.map((c) => ofCaution(looked, c)),
    ...ofUnlisted(looked),
    ...ofLinked(looked),
    ...ofClauses(looked)
  ];
}

const MARKS: Readonly<Record<Truth, Mark>> = { yes: 'holds', no: 'fails', unknown: 'unknown' };

const LOSS_OF_GRADE: Readonly<Record<Requirement['grade'], Loss>> = {
  blocks: 'the goal',
  warning: 'the goal',
  degrades: 'degraded',
  loses: 'a feature',
  advises: 'advice'
};

function ofRequirement(
  { plan }: LookedCase,
  { requirement, isSite, truth, needs, dealt, ifNeeded }: RequirementOnWay,
  kinds: FactKinds
): Asked {
  const { site } = requirement;
  const grade = isSite ? (site?.grade ?? requirement.grade) : requirement.grade;
  return {
    product: plan.product ?? '',
    kind: isSite ? 'site demand' : 'requirement',
    id: requirement.id,
    demanded: isSite ? (site?.needs ?? '') : requirement.needs,
    loss: LOSS_OF_GRADE[grade],
    cell: {
      mark: MARKS[truth],
      // What is needed only perhaps is a question first.
      ...(ifNeeded ? { ifNeeded } : dealt ? { dealt } : {}),
      ...(needs ? toldBy(needs, kinds) : {})
    }
  };
}

function toldBy(evaluation: Evaluation, kinds: FactKinds): Partial<ReadyCell> {
  const shortfall = findShortfall(evaluation, kinds);
  const unknown = unknownFactsOf(evaluation);
  const seen = seenIn(evaluation);
  return {
    ...(shortfall ? { shortfall } : {}),
    ...(seen.length > 0 ? { seen } : {}),
    ...(unknown.length > 0 ? { unknown } : {})
  };
}

/** What is known of the facts that keep it from holding. */
const seenIn = ({ seen, parts, truth }: Evaluation): BareSeen[] =>
  truth === 'yes'
    ? []
    : [
        ...(seen && (seen.kind === 'known' || seen.kind === 'disputed') ? [bareSeen(seen)] : []),
        ...parts.flatMap(seenIn)
      ];

/** An essential one that does not work closes the goal; what nobody has listed is unknown, not fine. */
function ofCompanion(
  { plan }: LookedCase,
  { companion, has, verdict, essential, loses, dealt }: CompanionOnWay
): Asked[] {
  if (verdict === 'works') return [];
  const stops = verdict === 'does not work';
  const mark: Mark = verdict === 'not listed' || has === 'unknown' ? 'unknown' : 'fails';
  const loss: Loss = verdict === 'with less' ? 'a feature' : essential ? 'the goal' : 'a companion';
  const work = !stops && verdict !== 'not listed' && verdict !== 'with less';
  return [
    {
      product: plan.product ?? '',
      kind: 'companion',
      id: companion.id,
      demanded: companion.name,
      fare: { verdict, ...(loses === undefined ? {} : { loses }) },
      loss: work ? 'a companion' : loss,
      cell: { mark, ...(dealt ? { dealt } : {}) }
    }
  ];
}

/** What the system has and the product's lists have never heard of: named, and unknown. */
const ofUnlisted = ({ plan, unlisted }: LookedCase): Asked[] =>
  (unlisted ?? []).map(({ name, systems, ignored }) => ({
    product: plan.product ?? '',
    kind: 'unlisted' as const,
    id: foldText(name),
    demanded: name,
    loss: 'a companion' as const,
    cell: { mark: 'unknown' as const, systems, ...(ignored ? { dealt: 'ignored' as const } : {}) }
  }));

const LOSS_OF_CAUTION: Readonly<Record<Caution['consequence'], Loss>> = {
  'service lost': 'service lost',
  stall: 'stall',
  rebuild: 'rebuild',
  degraded: 'degraded',
  cosmetic: 'cosmetic'
};

/** A caution that hits is dealt with by its work-around on the way. */
const ofCaution = ({ plan }: LookedCase, { caution, truth, dealt }: CautionOnWay): Asked => ({
  product: plan.product ?? '',
  kind: 'caution',
  id: caution.id,
  demanded: caution.name,
  loss: LOSS_OF_CAUTION[caution.consequence],
  cell: { mark: truth === 'no' ? 'fails' : 'unknown', ...(dealt ? { dealt } : {}) }
});

/** Linked systems that have to go first; the way already says how. */
const ofLinked = ({ plan, way }: LookedCase): Asked[] =>
  [...new Map((way?.needsFirst ?? []).map((n) => [n.system, n])).values()].map((need) => ({
    product: plan.product ?? '',
    kind: 'linked' as const,
    id: need.system,
    demanded: need.to.release,
    loss: 'the goal' as const,
    cell: { mark: 'fails' as const, dealt: 'cured' as const }
  }));

/** Clauses that close the goal and are none of the above. */
function ofClauses({ plan, found }: LookedCase): Asked[] {
  const reasons: readonly Reason[] =
    found?.openings.openings[0]?.reasons ?? (plan.goalPlan?.route ? [] : (plan.goalPlan?.reasons ?? []));
  const told = new Set(['requirement', 'site demand', 'companion', 'caution']);
  const prices = (plan.goalPlan?.route?.steps ?? []).filter((s) => isCounted(s) && s.right.kind === 'ask');
  return [
    ...reasons
      .filter((r) => !told.has(r.code))
      .map((reason) => ({
        product: plan.product ?? '',
        kind: 'clause' as const,
        id: `${reason.code} ${reason.subject}`.trim(),
        demanded: '',
        reason,
        loss: 'the goal' as const,
        cell: {
          mark: reason.unknown || plan.verdict === 'cannot tell' ? ('unknown' as const) : ('fails' as const)
        }
      })),
    ...prices.map((s) => ({
      product: plan.product ?? '',
      kind: 'clause' as const,
      id: `ask ${'id' in s ? s.id : ''}`,
      demanded: '',
      loss: 'advice' as const,
      cell: { mark: 'unknown' as const }
    }))
  ];
}
