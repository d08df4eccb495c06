import { createHash } from 'node:crypto';
import { formatDay } from '../../src/core/date/day';
import type { Plan, TargetPlan } from '../../src/core/plan/plan-types';
import type { Route, Step } from '../../src/core/route/types';
import type { Reason } from '../../src/core/route/reason';
import { describeReason } from '../../src/core/wording/reason';
import { sayRisks } from '../../src/core/wording/risk';

const dayOf = (day: number | 'unknown' | 'none' | undefined): string =>
  typeof day === 'number' ? formatDay(day) : String(day);

const reasonsOf = (reasons: readonly Reason[]): string => reasons.map((r) => describeReason(r)).join('; ');

function stepOf(step: Step): string {
  const { days } = step;
  const name = step.kind === 'patch' ? step.to.patch : step.id;
  const right =
    'right' in step ? ` under ${step.right.kind} ${step.right.right ?? ''} ${step.right.costCents}` : '';
  return `${step.kind} ${name} ${dayOf(days.first)}..${dayOf(days.last)}${days.exact ? '' : '?'}${right}`;
}

const routeOf = (route: Route | undefined): string =>
  route
    ? [
        route.steps.map(stepOf).join(', '),
        `${route.costCents}+${route.unknownSums.join('+')} (${route.least.costCents})`,
        `${route.typicalMinutes}/${route.carefulMinutes} (${route.least.typicalMinutes}/${route.least.carefulMinutes})`,
        `keeps ${route.kept}`,
        `risks ${sayRisks(route.risks).length}`,
        `units ${route.units.map((u) => `${u.pool} ${u.edition ?? ''} ${u.number}`).join(', ')}`,
        `first ${route.needsFirst.map((n) => `${n.system} ${n.to.release} ${n.together ? 'together' : ''}`).join(', ')}`,
        `opens ${dayOf(route.waitsUntil)}`,
        `rests on ${reasonsOf(route.restsOn)}`
      ].join(' | ')
    : 'no route';

const targetOf = ({ target, verdict, sure, best, route, reasons, opens }: TargetPlan): string =>
  `${target.release} ${target.edition} ${target.architecture}: ${verdict} (${sure}, ${best}), opens ${dayOf(opens)} | ${routeOf(route)} | ${reasonsOf(reasons)}`;

/** What a plan says of every system, a line each: the goal in full, all other targets as one digest. */
export function linesOfPlan(plan: Plan): string[] {
  const lines = plan.cases.flatMap((c) => {
    const digest = createHash('sha256').update(c.targets.map(targetOf).join('\n')).digest('hex').slice(0, 16);
    const goal = c.goalPlan ? targetOf(c.goalPlan) : 'no goal';
    const end = c.deadline.contributors.map((d) => `${d.kind} ${d.subject} ${dayOf(d.day)}`).join(', ');
    return c.systems.map(
      (system) =>
        `${system}: ${c.verdict}, by ${dayOf(c.deadline.day)} (${end}), start ${dayOf(c.latestStart)} | ${goal} | targets ${digest}`
    );
  });
  return lines.sort();
}
