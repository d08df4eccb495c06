import type { z } from 'zod';
import { formatDay } from '../date';
import type { Contributor } from '../deadline';
import {
  type CasePlan,
  type Exploration,
  type Plan,
  type Question,
  type TargetPlan,
  type SaidFinding,
  urgencyOf,
  type Waiting,
  type WaitStretch
} from '../plan';
import type { RightUse } from '../right';
import type { BlockAt, Reason, Route, Step } from '../route';
import type { PlanWords } from './plan-words';
import {
  type blockAt,
  type lookedFile,
  PLAN_FORMAT,
  PLAN_VERSION,
  type PlanFile,
  type questionFile,
  type reasonFile,
  type rightUseFile,
  type routeFile,
  type stepFile
} from './plan-file-schema';

type StretchFile = NonNullable<PlanFile['waiting']>[number];

/**
 * The plan as a value of the published schema; `lookInto`, where a depth is asked for, gives what there is to say of a case's goal;
 * `waiting`, where it is asked for, what the chosen ways cost later.
 */
export function planFileOf(
  plan: Plan,
  words: PlanWords,
  lookInto?: (one: CasePlan) => Exploration | undefined,
  waiting?: Waiting
): PlanFile {
  const writer = new PlanWriter(words);
  const systems = new Map(plan.cases.map((c) => [c.id, c.systems]));
  const systemsOf = (id: string): string[] => [...(systems.get(id) ?? [])];
  return {
    format: PLAN_FORMAT,
    version: PLAN_VERSION,
    today: formatDay(plan.today),
    systems: plan.systems,
    situations: plan.situations,
    cases: plan.cases.map((one) => {
      const seen = lookInto?.(one);
      return {
        ...writer.case(one),
        urgency: urgencyOf(one, plan.today),
        found: foundFileOf(words.found(one, plan.today)),
        ...(seen ? { looked: writer.looked(seen) } : {})
      };
    }),
    rights: plan.rights.map(
      ({ group: _group, shares: _shares, cases: _cases, by, systems, purchases, ...need }) => {
        void [_group, _shares, _cases];
        return {
          ...need,
          purchases: purchases.map((p) => ({ ...p, day: formatDay(p.day) })),
          by: formatDay(by),
          systems: [...systems]
        };
      }
    ),
    ...(waiting ? { waiting: waiting.stretches.map((s) => writer.stretch(s, systemsOf)) } : {}),
    pools: plan.pools.map(({ group: _group, until, draws, ...pool }) => {
      void _group;
      return {
        ...pool,
        ...(until === undefined ? {} : { until: formatDay(until) }),
        draws: draws.map((d) => ({ ...d, day: formatDay(d.day) }))
      };
    })
  };
}

/** The parts of the file in which something is said. */
class PlanWriter {
  readonly #words: PlanWords;

  constructor(words: PlanWords) {
    this.#words = words;
  }

  stretch(
    { cents, without, causes, from, to, ...sums }: WaitStretch,
    systemsOf: (id: string) => string[]
  ): StretchFile {
    return {
      ...sums,
      from: formatDay(from),
      to: formatDay(to),
      costCents: cents,
      without: without.map((w) => ({ systems: systemsOf(w.case), reason: this.#reason(w.reason) })),
      causes: causes.map((c): StretchFile['causes'][number] => {
        switch (c.kind) {
          case 'pool':
            return { kind: c.kind, name: c.pool.name, units: c.units, lapsed: formatDay(c.lapsed) };
          case 'closes':
            return { kind: c.kind, systems: systemsOf(c.case), reason: this.#reason(c.reason) };
          case 'opens':
            return { kind: c.kind, systems: systemsOf(c.case) };
          default:
            return {
              kind: c.kind,
              systems: systemsOf(c.case),
              before: useOf(c.before),
              after: useOf(c.after),
              ...(c.lapsed === undefined ? {} : { lapsed: formatDay(c.lapsed) })
            };
        }
      })
    };
  }

  case(plan: CasePlan): PlanFile['cases'][number] {
    return {
      systems: [...plan.systems],
      ...(plan.product === undefined ? {} : { product: plan.product }),
      ...(plan.start ? { start: { ...plan.start } } : {}),
      startIsSure: plan.startIsSure,
      starts: plan.starts,
      ...(plan.goal ? { goal: plan.goal } : {}),
      ...(plan.restsOn ? { restsOn: plan.restsOn.map((r) => ({ ...r })) } : {}),
      goalFrom: plan.goalFrom,
      ...(plan.importance ? { importance: plan.importance } : {}),
      ...(plan.goalPlan ? { goalPlan: this.#target(plan.goalPlan) } : {}),
      verdict: plan.verdict,
      ...(plan.decidedWay
        ? {
            decidedWay: {
              way: plan.decidedWay.way.map((s) => s.step),
              stands: plan.decidedWay.stands,
              reasons: plan.decidedWay.reasons.map((x) => this.#reason(x))
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
      ...(plan.rounds ? { rounds: roundFilesOf(plan) } : {}),
      ...(plan.inTime === undefined ? {} : { inTime: plan.inTime }),
      ...(plan.bestOpen ? { bestOpen: plan.bestOpen } : {}),
      cut: plan.cut,
      targets: plan.targets.map((x) => this.#target(x))
    };
  }

  looked(seen: Exploration): z.infer<typeof lookedFile> {
    const { notStraight } = seen;
    return {
      routes: seen.routes.map((x) => this.#route(x)),
      routesCut: seen.routesCut,
      openings: seen.openings.openings.map((o) => ({
        clauses: [...o.clauses],
        reasons: o.reasons.map((x) => this.#reason(x)),
        verdict: o.verdict,
        route: this.#route(o.route)
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
        ...(f.route ? { route: this.#route(f.route) } : {})
      })),
      ...(notStraight
        ? {
            notStraight: {
              kind: notStraight.kind,
              ...('hop' in notStraight ? { hop: notStraight.hop } : {}),
              ...('reasons' in notStraight
                ? { reasons: notStraight.reasons.map((x) => this.#reason(x)) }
                : {})
            }
          }
        : {})
    };
  }

  #target(t: TargetPlan): PlanFile['cases'][number]['targets'][number] {
    const { route: planned, reasons, opens, ...rest } = t;
    return {
      ...rest,
      ...(opens === undefined ? {} : { opens: maybeDay(opens) }),
      ...(planned ? { route: this.#route(planned) } : {}),
      reasons: reasons.map((x) => this.#reason(x))
    };
  }

  #reason(r: Reason): z.infer<typeof reasonFile> {
    const { day: on, unknown, seen, demanded, ...rest } = r;
    return {
      ...rest,
      ...(seen ? { seen: this.#words.seen(seen) } : {}),
      ...(demanded ? { demanded: this.#words.demanded(demanded) } : {}),
      ...(on === undefined ? {} : { day: formatDay(on) }),
      ...(unknown ? { unknown: [...unknown] } : {}),
      text: this.#words.reason(r)
    };
  }

  #route(r: Route): z.infer<typeof routeFile> {
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
      risks: this.#words.risks(risks),
      units: units.map((u) => ({ ...u })),
      needsFirst: needsFirst.map((n) => ({
        pairing: n.pairing,
        system: n.system,
        product: n.product,
        to: { ...n.to },
        finishDay: n.finish.exact ? formatDay(n.finish.last) : 'unknown',
        together: n.together
      })),
      restsOn: restsOn.map((x) => this.#reason(x)),
      steps: steps.map(stepFileOf),
      finishDay: finish.exact ? formatDay(finish.last) : 'unknown',
      waitsUntil: maybeDay(waitsUntil)
    };
  }
}

const questionFileOf = ({ about, answers, places }: Question): z.infer<typeof questionFile> => ({
  about: { ...about },
  answers: [...answers],
  places: places.map((p) => ({ ...p }))
});

function contributorFileOf(c: Contributor): PlanFile['cases'][number]['deadline']['contributors'][number] {
  const { day: on, early, ...rest } = c;
  return { ...rest, day: formatDay(on), ...(early === undefined ? {} : { early: formatDay(early) }) };
}

function stepFileOf(s: Step): z.infer<typeof stepFile> {
  const common = {
    from: { ...s.from },
    to: { ...s.to },
    firstDay: s.days.exact ? formatDay(s.days.first) : 'unknown',
    lastDay: s.days.exact ? formatDay(s.days.last) : 'unknown',
    typicalMinutes: s.typicalMinutes,
    carefulMinutes: s.carefulMinutes
  };
  if (s.kind === 'patch') return { kind: s.kind, ...common, ...(s.at ? { at: blockFileOf(s.at) } : {}) };
  if (s.kind === 'work-around')
    return { kind: s.kind, id: s.id, ...common, times: s.times, ...(s.behind ? { behind: true } : {}) };
  if (s.kind === 'work') return { kind: s.kind, id: s.id, ...common, needsKey: s.needsKey };
  if (s.kind === 'cure') {
    const { kind, id, costCents, leadDays, ifNeeded } = s;
    return { kind, id, ...common, costCents, leadDays, ...(ifNeeded ? { ifNeeded } : {}) };
  }
  return {
    kind: s.kind,
    id: s.id,
    ...common,
    kept: s.kept,
    ...(s.obtain ? { obtain: { ...s.obtain, others: s.obtain.others.map((o) => ({ ...o })) } } : {}),
    right: useOf(s.right),
    ...(s.at ? { at: blockFileOf(s.at) } : {}),
    ...(s.nodesAt ? { nodesAt: s.nodesAt.map(blockFileOf) } : {})
  };
}

/** The rounds of a case, with who goes in each. */
function roundFilesOf({ rounds = [], systems }: CasePlan): NonNullable<PlanFile['cases'][number]['rounds']> {
  let done = 0;
  return rounds.map((round) => ({
    systems: systems.slice(done, (done += round.systems)),
    isPilot: round.isPilot,
    inTime: round.inTime,
    finish: round.finish.exact ? formatDay(round.finish.last) : 'unknown',
    steps: round.steps.map(({ id, days, at, nodesAt, patchAt, right }) => ({
      id,
      firstDay: days.exact ? formatDay(days.first) : 'unknown',
      lastDay: days.exact ? formatDay(days.last) : 'unknown',
      right: useOf(right),
      ...(at ? { at: blockFileOf(at) } : {}),
      ...(nodesAt ? { nodesAt: nodesAt.map(blockFileOf) } : {}),
      ...(patchAt ? { patchAt: blockFileOf(patchAt) } : {})
    }))
  }));
}

const instant = (minute: number): string => new Date(minute * 60_000).toISOString();

const blockFileOf = ({ window, zone, begins, ends, closes, turnBy }: BlockAt): z.infer<typeof blockAt> => ({
  window,
  zone,
  begins: instant(begins),
  ends: instant(ends),
  closes: instant(closes),
  turnBy: instant(turnBy)
});

function useOf({ until, units, ...right }: RightUse): z.infer<typeof rightUseFile> {
  return {
    ...right,
    ...(until === undefined ? {} : { until: formatDay(until) }),
    ...(units ? { units: { ...units } } : {})
  };
}

const maybeDay = (value: number | 'unknown'): string => (value === 'unknown' ? value : formatDay(value));

const foundFileOf = ({ reasons, ...said }: SaidFinding): NonNullable<PlanFile['cases'][number]['found']> => ({
  ...said,
  reasons: [...reasons]
});
