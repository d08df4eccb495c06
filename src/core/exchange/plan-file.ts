import { z } from 'zod';
import { formatDay } from '../date';
import type { Contributor } from '../deadline';
import type { CasePlan, Exploration, Plan, Question, TargetPlan } from '../plan';
import { type Reason, type Route, type Step, VERDICTS } from '../route';
import { COUNTED_KINDS, KEPT } from '../catalogue';
import { describeReason, sayRisks } from '../wording';

const PLAN_FORMAT = 'orange-stair-plan';
const PLAN_VERSION = 3;

const day = z.string().describe('YYYY-MM-DD');
const dayOrUnknown = z.union([day, z.literal('unknown')]);
const target = z.strictObject({ release: z.string(), edition: z.string(), architecture: z.string() });
const standing = z.strictObject({ ...target.shape, patch: z.string() });
const reason = z.strictObject({
  code: z.string(),
  subject: z.string(),
  seen: z.string().optional(),
  demanded: z.string().optional(),
  day: day.optional(),
  source: z.string().optional(),
  unknown: z.array(z.string()).optional().describe('facts nobody knows that it turns on'),
  text: z.string()
});
const unitUse = z.strictObject({
  pool: z.string(),
  edition: z.string().optional(),
  number: z.union([z.number(), z.literal('unknown')])
});
const step = z.strictObject({
  kind: z.enum(['patch', 'cure', 'work-around', 'work', ...COUNTED_KINDS]),
  id: z.string().optional(),
  from: standing,
  to: standing,
  firstDay: dayOrUnknown,
  lastDay: dayOrUnknown,
  typicalMinutes: z.number(),
  carefulMinutes: z.number(),
  costCents: z
    .union([z.number(), z.literal('unknown')])
    .optional()
    .describe('of a cure'),
  leadDays: z.number().optional(),
  ifNeeded: z
    .boolean()
    .optional()
    .describe('of a cure: some reading of what nobody has read makes it needless, so ask before buying'),
  times: z.number().optional().describe('of a work-around: how often it is done; minutes are of one time'),
  needsKey: z.boolean().optional().describe('of work: it wants a key'),
  kept: z.enum(KEPT).optional(),
  right: z
    .strictObject({
      kind: z.enum(['free', 'carried', 'held', 'purchase', 'ask']),
      right: z.string().optional(),
      costCents: z.union([z.number(), z.literal('unknown')]),
      priceCents: z.union([z.number(), z.literal('unknown')]).optional(),
      until: day.optional(),
      units: unitUse.optional()
    })
    .optional(),
  obtain: z
    .strictObject({
      way: z.string().optional(),
      risk: z.string().optional(),
      note: z.string().optional(),
      started: z.string().optional(),
      status: z.enum(['offered', 'not offered yet', 'withheld', 'perhaps withheld']).optional(),
      because: z.string().optional(),
      others: z.array(z.strictObject({ way: z.string(), risk: z.string().optional() }))
    })
    .optional()
    .describe('how the hop is had on this machine')
});
const route = z.strictObject({
  steps: z.array(step),
  kept: z.enum(KEPT),
  hops: z.number(),
  costCents: z.number(),
  unknownSums: z.array(z.string()),
  typicalMinutes: z.number(),
  carefulMinutes: z.number(),
  least: z
    .strictObject({
      costCents: z.number(),
      unknownSums: z.array(z.string()),
      typicalMinutes: z.number(),
      carefulMinutes: z.number()
    })
    .describe('the same without what is needed only perhaps'),
  risks: z.array(z.string()),
  units: z.array(unitUse),
  needsFirst: z
    .array(
      z.strictObject({
        pairing: z.string(),
        system: z.string(),
        product: z.string(),
        to: standing,
        finishDay: dayOrUnknown,
        together: z.boolean().describe('neither waits for the other: both go at once')
      })
    )
    .describe(
      'linked systems that must be brought there first; where there are any, the order is not yet proven'
    ),
  restsOn: z.array(reason).describe('unknown conditions; none in a sure route'),
  finishDay: dayOrUnknown,
  waitsUntil: dayOrUnknown
});
const shownVerdict = z.enum([...VERDICTS, 'cannot tell']);
const targetPlan = z.strictObject({
  target,
  verdict: shownVerdict,
  sure: z.enum(VERDICTS),
  best: z.enum(VERDICTS),
  perhaps: z.enum(VERDICTS).optional(),
  older: z.boolean(),
  opens: dayOrUnknown.optional(),
  route: route.optional(),
  reasons: z.array(reason)
});
const contributor = z.strictObject({
  kind: z.string(),
  subject: z.string(),
  day,
  early: day.optional(),
  certainty: z.string().optional(),
  phase: z.string().optional(),
  disputed: z.boolean().optional().describe('stated in several ways; the earliest counts'),
  source: z.string().optional(),
  sets: z.boolean(),
  cost: z.strictObject({
    code: z.string(),
    kept: z.string().optional(),
    pool: z.string().optional(),
    number: z.union([z.number(), z.literal('unknown')]).optional(),
    cents: z.union([z.number(), z.literal('unknown')]).optional()
  })
});
const question = z.strictObject({
  about: z.union([
    z.strictObject({ fact: z.string() }),
    z.strictObject({ clause: z.string() }),
    z.strictObject({ installed: z.literal(true) })
  ]),
  answers: z.array(z.string()),
  places: z.array(
    z.strictObject({ where: z.string(), fallback: z.string().optional(), ask: z.string().optional() })
  )
});
const looked = z.strictObject({
  routes: z.array(route).describe('every unbeaten way, in the order of preference'),
  routesCut: z.boolean(),
  openings: z.array(
    z.strictObject({
      clauses: z.array(z.string()),
      reasons: z.array(reason),
      verdict: z.enum(VERDICTS),
      route
    })
  ),
  openingsCut: z.boolean(),
  questions: z.array(z.array(question)).describe('least sets that settle the verdict'),
  matter: z.array(question).describe('where none settles it, all that matter'),
  questionsCut: z.boolean(),
  savings: z
    .array(
      z.strictObject({
        question,
        savesCents: z.union([z.number(), z.literal('unknown')]),
        savesMinutes: z.number()
      })
    )
    .describe('what finding out may save where something is needed only perhaps'),
  fallbacks: z.array(z.strictObject({ hop: z.string(), route: route.optional() })),
  notStraight: z
    .strictObject({ kind: z.string(), hop: z.string().optional(), reasons: z.array(reason).optional() })
    .optional()
});
const casePlan = z.strictObject({
  systems: z.array(z.string()),
  product: z.string().optional(),
  start: standing.optional(),
  startIsSure: z.boolean(),
  starts: z.number(),
  goal: target.optional(),
  restsOn: z
    .array(z.strictObject({ entry: z.string(), ruled: z.string().optional() }))
    .optional()
    .describe('disputed entries of the catalogue the verdict touches, and the statement a ruling lets hold'),
  goalFrom: z.enum(['rule', 'goal', 'decision', 'stay', 'none']),
  goalPlan: targetPlan.optional(),
  verdict: shownVerdict,
  decidedWay: z
    .strictObject({ way: z.array(z.string()), stands: z.boolean(), reasons: z.array(reason) })
    .optional()
    .describe('a way somebody has chosen, and why it does not stand where it does not'),
  track: z
    .strictObject({ id: z.string(), name: z.string(), leaving: z.string(), forfeits: z.string().optional() })
    .optional()
    .describe('the preview track it stands on'),
  looked: looked.optional().describe('only where a depth was asked for: the goal looked into'),
  deadline: z.strictObject({ day: day.optional(), contributors: z.array(contributor) }),
  latestStart: z.union([day, z.literal('none')]).optional(),
  slackDays: z.number().optional(),
  bestOpen: target.optional(),
  cut: z.boolean(),
  targets: z.array(targetPlan)
});

/** The plan as it leaves by the API and the command line. Days are ISO text; sums are of one system. */
export const planFileSchema = z.strictObject({
  format: z.literal(PLAN_FORMAT),
  version: z.literal(PLAN_VERSION),
  today: day,
  systems: z.number(),
  situations: z.number(),
  cases: z.array(casePlan),
  rights: z.array(
    z.strictObject({
      product: z.string(),
      right: z.string(),
      edition: z.string().describe('the edition it leads to; of units the edition they belong to'),
      pool: z.string().optional().describe('of rights counted in units'),
      needed: z.union([z.number(), z.literal('unknown')]),
      held: z.number(),
      toBuy: z.union([z.number(), z.literal('unknown')]),
      costCents: z.union([z.number(), z.literal('unknown')]),
      by: day,
      systems: z.array(z.string())
    })
  )
});
export type PlanFile = z.infer<typeof planFileSchema>;

/** The plan as a value of the published schema; `lookInto`, where a depth is asked for, gives what there is to say of a case's goal. */
export function planFileOf(plan: Plan, lookInto?: (one: CasePlan) => Exploration | undefined): PlanFile {
  return {
    format: PLAN_FORMAT,
    version: PLAN_VERSION,
    today: formatDay(plan.today),
    systems: plan.systems,
    situations: plan.situations,
    cases: plan.cases.map((one) => {
      const seen = lookInto?.(one);
      return { ...caseFileOf(one), ...(seen ? { looked: lookedFileOf(seen) } : {}) };
    }),
    rights: plan.rights.map(({ shares: _shares, cases: _cases, by, systems, ...need }) => {
      void [_shares, _cases];
      return { ...need, by: formatDay(by), systems: [...systems] };
    })
  };
}

function caseFileOf(plan: CasePlan): PlanFile['cases'][number] {
  return {
    systems: [...plan.systems],
    ...(plan.product === undefined ? {} : { product: plan.product }),
    ...(plan.start ? { start: { ...plan.start } } : {}),
    startIsSure: plan.startIsSure,
    starts: plan.starts,
    ...(plan.goal ? { goal: plan.goal } : {}),
    ...(plan.restsOn ? { restsOn: plan.restsOn.map((r) => ({ ...r })) } : {}),
    goalFrom: plan.goalFrom,
    ...(plan.goalPlan ? { goalPlan: targetFileOf(plan.goalPlan) } : {}),
    verdict: plan.verdict,
    ...(plan.decidedWay
      ? {
          decidedWay: {
            way: [...plan.decidedWay.way],
            stands: plan.decidedWay.stands,
            reasons: plan.decidedWay.reasons.map(reasonFileOf)
          }
        }
      : {}),
    ...(plan.track ? { track: { ...plan.track } } : {}),
    deadline: {
      ...(plan.deadline.day === undefined ? {} : { day: formatDay(plan.deadline.day) }),
      contributors: plan.deadline.contributors.map(contributorFileOf)
    },
    ...(plan.latestStart === undefined
      ? {}
      : { latestStart: plan.latestStart === 'none' ? ('none' as const) : formatDay(plan.latestStart) }),
    ...(plan.slack === undefined ? {} : { slackDays: plan.slack }),
    ...(plan.bestOpen ? { bestOpen: plan.bestOpen } : {}),
    cut: plan.cut,
    targets: plan.targets.map(targetFileOf)
  };
}

function lookedFileOf(seen: Exploration): z.infer<typeof looked> {
  const { notStraight } = seen;
  return {
    routes: seen.routes.map(routeFileOf),
    routesCut: seen.routesCut,
    openings: seen.openings.openings.map((o) => ({
      clauses: [...o.clauses],
      reasons: o.reasons.map(reasonFileOf),
      verdict: o.verdict,
      route: routeFileOf(o.route)
    })),
    openingsCut: seen.openings.cut,
    questions: seen.questions.map((set) => set.map(questionFileOf)),
    matter: seen.matter.map(questionFileOf),
    questionsCut: seen.questionsCut,
    savings: seen.savings.map(({ question: asked, savesCents, savesMinutes }) => ({
      question: questionFileOf(asked),
      savesCents,
      savesMinutes
    })),
    fallbacks: seen.fallbacks.map((f) => ({
      hop: f.id,
      ...(f.route ? { route: routeFileOf(f.route) } : {})
    })),
    ...(notStraight
      ? {
          notStraight: {
            kind: notStraight.kind,
            ...('hop' in notStraight ? { hop: notStraight.hop } : {}),
            ...('reasons' in notStraight ? { reasons: notStraight.reasons.map(reasonFileOf) } : {})
          }
        }
      : {})
  };
}

const questionFileOf = ({ about, answers, places }: Question): z.infer<typeof question> => ({
  about: { ...about },
  answers: [...answers],
  places: places.map((p) => ({ ...p }))
});

function contributorFileOf(c: Contributor): PlanFile['cases'][number]['deadline']['contributors'][number] {
  const { day: on, early, ...rest } = c;
  return { ...rest, day: formatDay(on), ...(early === undefined ? {} : { early: formatDay(early) }) };
}

function targetFileOf(t: TargetPlan): PlanFile['cases'][number]['targets'][number] {
  const { route: planned, reasons, opens, ...rest } = t;
  return {
    ...rest,
    ...(opens === undefined ? {} : { opens: maybeDay(opens) }),
    ...(planned ? { route: routeFileOf(planned) } : {}),
    reasons: reasons.map(reasonFileOf)
  };
}

function reasonFileOf(r: Reason): z.infer<typeof reason> {
  const { day: on, unknown, ...rest } = r;
  return {
    ...rest,
    ...(on === undefined ? {} : { day: formatDay(on) }),
    ...(unknown ? { unknown: [...unknown] } : {}),
    text: describeReason(r)
  };
}

function routeFileOf(r: Route): z.infer<typeof route> {
  const {
    steps,
    finish,
    waitsUntil,
    unknownSums,
    risks,
    units,
    needsFirst,
    restsOn,
    kept,
    hops,
    costCents,
    typicalMinutes,
    carefulMinutes,
    least
  } = r;
  return {
    kept,
    hops,
    costCents,
    typicalMinutes,
    carefulMinutes,
    least: { ...least, unknownSums: [...least.unknownSums] },
    unknownSums: [...unknownSums],
    risks: sayRisks(risks),
    units: units.map((u) => ({ ...u })),
    needsFirst: needsFirst.map((n) => ({
      pairing: n.pairing,
      system: n.system,
      product: n.product,
      to: { ...n.to },
      finishDay: n.finish.exact ? formatDay(n.finish.last) : 'unknown',
      together: n.together
    })),
    restsOn: restsOn.map(reasonFileOf),
    steps: steps.map(stepFileOf),
    finishDay: finish.exact ? formatDay(finish.last) : 'unknown',
    waitsUntil: maybeDay(waitsUntil)
  };
}

function stepFileOf(s: Step): z.infer<typeof step> {
  const common = {
    from: { ...s.from },
    to: { ...s.to },
    firstDay: s.days.exact ? formatDay(s.days.first) : 'unknown',
    lastDay: s.days.exact ? formatDay(s.days.last) : 'unknown',
    typicalMinutes: s.typicalMinutes,
    carefulMinutes: s.carefulMinutes
  };
  if (s.kind === 'patch') return { kind: s.kind, ...common };
  if (s.kind === 'work-around') return { kind: s.kind, id: s.id, ...common, times: s.times };
  if (s.kind === 'work') return { kind: s.kind, id: s.id, ...common, needsKey: s.needsKey };
  if (s.kind === 'cure') {
    const { kind, id, costCents, leadDays, ifNeeded } = s;
    return { kind, id, ...common, costCents, leadDays, ...(ifNeeded ? { ifNeeded } : {}) };
  }
  const { until, units, ...right } = s.right;
  return {
    kind: s.kind,
    id: s.id,
    ...common,
    kept: s.kept,
    ...(s.obtain ? { obtain: { ...s.obtain, others: s.obtain.others.map((o) => ({ ...o })) } } : {}),
    right: {
      ...right,
      ...(until === undefined ? {} : { until: formatDay(until) }),
      ...(units ? { units: { ...units } } : {})
    }
  };
}

const maybeDay = (value: number | 'unknown'): string => (value === 'unknown' ? value : formatDay(value));
