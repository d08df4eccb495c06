import { z } from 'zod';
import { URGENCY_BANDS } from '../plan';
import { VERDICTS } from '../route';
import { COUNTED_KINDS, KEPT } from '../catalogue';

export const PLAN_FORMAT = 'orange-stair-plan';
export const PLAN_VERSION = 4;

const day = z.string().describe('YYYY-MM-DD');
const dayOrUnknown = z.union([day, z.literal('unknown')]);
const sum = z.union([z.number(), z.literal('unknown')]);
const target = z.strictObject({ release: z.string(), edition: z.string(), architecture: z.string() });
const standing = z.strictObject({ ...target.shape, patch: z.string() });
export const reasonFile = z.strictObject({
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
export const rightUseFile = z.strictObject({
  kind: z.enum(['free', 'carried', 'held', 'purchase', 'ask']),
  right: z.string().optional(),
  costCents: sum,
  priceCents: sum.optional(),
  leadDays: z.number().optional(),
  until: day.optional(),
  units: unitUse.optional()
});
export const blockAt = z
  .strictObject({
    window: z.string(),
    zone: z.string(),
    begins: z.string(),
    ends: z.string(),
    closes: z.string(),
    turnBy: z.string().describe('the last minute to turn round')
  })
  .describe('instants of ISO 8601');

export const stepFile = z.strictObject({
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
  at: blockAt
    .optional()
    .describe('where its block lies in a window; the last of them where nodes go one by one'),
  nodesAt: z.array(blockAt).optional().describe('where its nodes go one by one: the block of each'),
  times: z.number().optional().describe('of a work-around: how often it is done; minutes are of one time'),
  behind: z.literal(true).optional().describe('of a work-around: it is done behind the step, not before it'),
  needsKey: z.boolean().optional().describe('of work: it wants a key'),
  kept: z.enum(KEPT).optional(),
  right: rightUseFile.optional(),
  obtain: z
    .strictObject({
      way: z.string().optional(),
      risk: z.string().optional(),
      note: z.string().optional(),
      atOnce: z.number().optional().describe('how many systems can have it so at once'),
      started: z.string().optional(),
      status: z.enum(['offered', 'not offered yet', 'withheld', 'perhaps withheld']).optional(),
      because: z.string().optional(),
      others: z.array(z.strictObject({ way: z.string(), risk: z.string().optional() }))
    })
    .optional()
    .describe('how the hop is had on this machine')
});
export const routeFile = z.strictObject({
  steps: z.array(stepFile),
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
  restsOn: z.array(reasonFile).describe('unknown conditions; none in a sure route'),
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
  route: routeFile.optional(),
  reasons: z.array(reasonFile)
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
export const questionFile = z.strictObject({
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
export const lookedFile = z.strictObject({
  routes: z.array(routeFile).describe('every unbeaten way, in the order of preference'),
  routesCut: z.boolean(),
  openings: z.array(
    z.strictObject({
      clauses: z.array(z.string()),
      reasons: z.array(reasonFile),
      verdict: z.enum(VERDICTS),
      route: routeFile
    })
  ),
  openingsCut: z.boolean(),
  questions: z.array(z.array(questionFile)).describe('least sets that settle the verdict'),
  matter: z.array(questionFile).describe('where none settles it, all that matter'),
  questionsCut: z.boolean(),
  savings: z
    .array(
      z.strictObject({
        question: questionFile,
        savesCents: z.union([z.number(), z.literal('unknown')]),
        savesMinutes: z.number()
      })
    )
    .describe('what finding out may save where something is needed only perhaps'),
  fallbacks: z.array(z.strictObject({ hop: z.string(), route: routeFile.optional() })),
  notStraight: z
    .strictObject({ kind: z.string(), hop: z.string().optional(), reasons: z.array(reasonFile).optional() })
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
  goalFrom: z.enum(['rule', 'goal', 'decision', 'kept back', 'stay', 'none']),
  importance: z.enum(['critical', 'spare']).optional().describe('as the goal says; absent: normal'),
  goalPlan: targetPlan.optional(),
  verdict: shownVerdict,
  decidedWay: z
    .strictObject({ way: z.array(z.string()), stands: z.boolean(), reasons: z.array(reasonFile) })
    .optional()
    .describe('a way somebody has chosen, and why it does not stand where it does not'),
  track: z
    .strictObject({ id: z.string(), name: z.string(), leaving: z.string(), forfeits: z.string().optional() })
    .optional()
    .describe('the preview track it stands on'),
  looked: lookedFile.optional().describe('only where a depth was asked for: the goal looked into'),
  deadline: z.strictObject({ day: day.optional(), contributors: z.array(contributor) }),
  latestStart: z.union([day, z.literal('none')]).optional(),
  slackDays: z.number().optional(),
  urgency: z
    .strictObject({
      band: z.enum(URGENCY_BANDS),
      days: z.number().optional().describe('below nought: past'),
      counts: z.enum(['latest start', 'deadline']).optional().describe('what the days count to')
    })
    .optional(),
  found: z
    .strictObject({
      verdict: z.string(),
      target: z.string(),
      day: z.string().describe('of the deadline'),
      sets: z.string().describe('what sets it'),
      left: z.string().describe('days left, or past'),
      sum: z.string().describe('what one system pays on its way'),
      reasons: z.array(z.string()).describe('at most three, the strongest first'),
      line: z.string()
    })
    .optional()
    .describe('what every screen says of the case, each empty where there is nothing to say'),
  rounds: z
    .array(
      z.strictObject({
        systems: z.array(z.string()),
        isPilot: z.boolean(),
        inTime: z.boolean().describe('it keeps every clause and every end'),
        finish: dayOrUnknown,
        steps: z.array(
          z.strictObject({
            id: z.string(),
            firstDay: dayOrUnknown,
            lastDay: dayOrUnknown,
            at: blockAt.optional(),
            nodesAt: z.array(blockAt).optional(),
            patchAt: blockAt.optional(),
            right: rightUseFile
          })
        )
      })
    )
    .optional()
    .describe('where its systems go in rounds: a crew at a time, pilots first; as far as windows have room'),
  inTime: z.number().optional().describe('how many of its systems are in time'),
  bestOpen: target.optional(),
  cut: z.boolean(),
  targets: z.array(targetPlan)
});

const systemsOf = z.array(z.string()).describe('the systems of a case');
const waitStretch = z.strictObject({
  from: day,
  to: day.describe('the last day, included'),
  costCents: z.number().describe('rights to be bought, as far as prices are known'),
  unpriced: z.number().describe('rights of a price or number nobody knows'),
  needed: z.number(),
  drawn: z.number(),
  toBuy: z.number(),
  short: z.number(),
  without: z
    .array(z.strictObject({ systems: systemsOf, reason: reasonFile }))
    .describe('ways that no longer hold; the sums are without them'),
  causes: z
    .array(
      z.union([
        z.strictObject({
          kind: z.literal('right'),
          systems: systemsOf,
          before: rightUseFile,
          after: rightUseFile,
          lapsed: day.optional()
        }),
        z.strictObject({ kind: z.literal('pool'), name: z.string(), units: z.number(), lapsed: day }),
        z.strictObject({ kind: z.literal('closes'), systems: systemsOf, reason: reasonFile }),
        z.strictObject({ kind: z.literal('opens'), systems: systemsOf })
      ])
    )
    .describe('why it is other than in the stretch before')
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
      needed: sum.describe('unknown where nobody knows of one of the systems; `least` has what is known'),
      held: z.number().describe('in pools that may serve it'),
      drawn: z.number().describe('what of it is drawn from pools'),
      toBuy: sum,
      short: z.number().describe('what can neither be drawn nor bought'),
      costCents: sum.describe('of whole packs, each at the price of its day'),
      least: z.strictObject({ needed: z.number(), toBuy: z.number(), costCents: z.number() }),
      atMost: z.boolean().describe('nobody knows what a pool holds that may serve it'),
      purchases: z.array(
        z.strictObject({ day, packs: z.number(), units: z.number(), priceCents: sum.describe('of one pack') })
      ),
      perhaps: z
        .strictObject({ needed: sum, drawn: z.number() })
        .describe('wanted by routes that rest on what nobody knows; never bought'),
      exact: z.boolean().describe('nothing cheaper exists; else nothing costs less than `boundCents`'),
      boundCents: z.number(),
      by: day,
      systems: z.array(z.string())
    })
  ),
  waiting: z
    .array(waitStretch)
    .optional()
    .describe('only where asked for: what the chosen ways cost when they begin on later days'),
  pools: z.array(
    z.strictObject({
      name: z.string().describe('the name of the pool, else the right'),
      right: z.string(),
      product: z.string().optional(),
      isCounted: z.boolean().describe('units, which serve their own edition only'),
      edition: z.string().optional(),
      team: z.string().optional(),
      site: z.string().optional(),
      until: day.optional().describe('the last day on which it serves'),
      held: sum,
      drawn: z.number(),
      perhaps: z.number().describe('perhaps drawn beside'),
      remainder: sum.describe('held less drawn'),
      lapsed: z.boolean(),
      draws: z.array(
        z.strictObject({
          product: z.string(),
          right: z.string(),
          edition: z.string(),
          system: z.string(),
          units: z.number(),
          day,
          certain: z.boolean()
        })
      )
    })
  )
});
export type PlanFile = z.infer<typeof planFileSchema>;
