import type { Demands } from '../catalogue/find-demands';
import { unknownFactsOf, type Evaluation } from '../condition/evaluate-condition';
import type { FactKinds } from '../condition/fact-kind';
import type { Seen } from '../condition/evidence';
import type { Truth } from '../condition/truth';
import { foldText } from '../version/words';
import type { LookedCase } from './look-case';
import {
  LOSSES,
  type Dealt,
  type Loss,
  type Mark,
  type ReadyCell,
  type ReadyItem,
  type ReadyKind
} from './ready-types';
import { findShortfall } from './shortfall';
import { isCounted, type Reason } from '../route/types';

type Asked = Omit<ReadyItem, 'key' | 'cells' | 'open'> & {
  readonly cell: Omit<ReadyCell, 'case' | 'systems'>;
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
        (a.key < b.key ? -1 : 1)
    );
}

function askedOf(looked: LookedCase, kinds: FactKinds): Asked[] {
  const { demands } = looked;
  if (!demands) return [];
  return [
    ...demands.requirements.flatMap((r) => ofRequirement(looked, r, kinds)),
    ...demands.companions.map((c) => ofCompanion(looked, c)),
    ...demands.cautions.map((c) => ofCaution(looked, c)),
    ...ofLinked(looked),
    ...ofClauses(looked)
  ];
}

const MARKS: Readonly<Record<Truth, Mark>> = { yes: 'holds', no: 'fails', unknown: 'unknown' };

const LOSS_OF_GRADE: Readonly<Record<Demands['requirements'][number]['requirement']['grade'], Loss>> = {
  blocks: 'the goal',
  warning: 'the goal',
  degrades: 'degraded',
  loses: 'a feature',
  advises: 'advice'
};

function ofRequirement(
  { plan, way, decided }: LookedCase,
  { requirement, truth, evaluation, site }: Demands['requirements'][number],
  kinds: FactKinds
): Asked[] {
  const cured = way?.steps.some((s) => s.kind === 'cure' && s.requirement === requirement.id) ?? false;
  const waived = decided?.waived.has(requirement.id) ?? false;
  const asked = (kind: ReadyKind, demanded: string, loss: Loss, truth: Truth, of?: Evaluation): Asked => {
    const accepted = kind === 'requirement' && (decided?.accepted.has(requirement.id) ?? false);
    const isWaived = waived && (kind === 'site demand' || requirement.grade !== 'blocks');
    const dealt: Dealt | undefined =
      truth === 'yes' ? undefined : cured ? 'cured' : accepted ? 'accepted' : isWaived ? 'waived' : undefined;
    return {
      product: plan.product ?? '',
      kind,
      id: requirement.id,
      demanded,
      loss,
      cell: {
        mark: MARKS[truth],
        ...(dealt ? { dealt } : {}),
        ...(of ? toldBy(of, kinds) : {})
      }
    };
  };
  const own = asked('requirement', requirement.needs, LOSS_OF_GRADE[requirement.grade], truth, evaluation);
  if (!site || !requirement.site) return [own];
  const grade = requirement.site.grade ?? requirement.grade;
  return [
    own,
    asked('site demand', requirement.site.needs, LOSS_OF_GRADE[grade], site.truth, site.evaluation)
  ];
}

function toldBy(evaluation: Evaluation, kinds: FactKinds): Partial<ReadyCell> {
  const shortfall = findShortfall(evaluation, kinds);
  const unknown = unknownFactsOf(evaluation);
  const seen = seenIn(evaluation);
  return {
    ...(shortfall ? { shortfall } : {}),
    ...(seen.length > 0 ? { seen: [...new Set(seen)].join(', ') } : {}),
    ...(unknown.length > 0 ? { unknown } : {})
  };
}

const seenIn = ({ seen, parts, truth }: Evaluation): string[] =>
  truth === 'yes' ? [] : [...(seen ? sayKnown(seen) : []), ...parts.flatMap(seenIn)];

const sayKnown = (seen: Seen): string[] =>
  seen.kind === 'known'
    ? [String(seen.value)]
    : seen.kind === 'disputed'
      ? [seen.statements.flatMap(sayKnown).join(' or ')]
      : [];

/** An essential one that does not work closes the goal; what nobody has listed is unknown, not fine. */
function ofCompanion(
  { one, plan, decided }: LookedCase,
  { companion, has, verdict, loses }: Demands['companions'][number]
): Asked {
  const names = [companion.id, companion.name, ...(companion.aliases ?? [])].map(foldText);
  const own = one.system.companions?.find((c) => names.includes(foldText(c.name)));
  const essential = own?.essential ?? companion.essential ?? false;
  const stops = verdict === 'does not work';
  const mark: Mark = verdict === 'not listed' || (has === 'may' && verdict !== 'works') ? 'unknown' : 'fails';
  const loss: Loss = verdict === 'with less' ? 'a feature' : essential ? 'the goal' : 'a companion';
  const work = !stops && verdict !== 'not listed' && verdict !== 'with less';
  return {
    product: plan.product ?? '',
    kind: 'companion',
    id: companion.id,
    demanded: `${companion.name}: ${verdict}${loses ? `, ${loses}` : ''}`,
    loss: work ? 'a companion' : loss,
    cell: { mark, ...(decided?.ignored.has(companion.id) ? { dealt: 'ignored' as const } : {}) }
  };
}

const LOSS_OF_CAUTION: Readonly<Record<Demands['cautions'][number]['caution']['consequence'], Loss>> = {
  'service lost': 'service lost',
  stall: 'stall',
  rebuild: 'rebuild',
  degraded: 'degraded',
  cosmetic: 'cosmetic'
};

/** A caution that hits is dealt with by its work-around on the way. */
function ofCaution(
  { plan, way, decided }: LookedCase,
  { caution, truth }: Demands['cautions'][number]
): Asked {
  const done = way?.steps.some((s) => s.kind === 'work-around' && s.id === caution.id) ?? false;
  const dealt: Dealt | undefined = decided?.ignored.has(caution.id) ? 'ignored' : done ? 'cured' : undefined;
  return {
    product: plan.product ?? '',
    kind: 'caution',
    id: caution.id,
    demanded: caution.name,
    loss: LOSS_OF_CAUTION[caution.consequence],
    cell: { mark: truth === 'yes' ? 'fails' : 'unknown', ...(dealt ? { dealt } : {}) }
  };
}

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
      demanded: 'its price, which nobody has published',
      loss: 'advice' as const,
      cell: { mark: 'unknown' as const }
    }))
  ];
}
