import { expect, test } from 'vitest';
import { Names } from '../../src/core/catalogue/names';
import { formatDay } from '../../src/core/date/day';
import { PLAN_COLUMNS, formatPlanCsv } from '../../src/core/exchange/plan-csv';
import { dueWithin, formatDueJunit } from '../../src/core/exchange/plan-due';
import { planFileOf } from '../../src/core/exchange/plan-file';
import { parseCsv } from '../../src/core/exchange/csv-in';
import { exploreSystem } from '../../src/core/plan/explore';
import { findingOf } from '../../src/core/plan/finding';
import { plan, type PlanInput } from '../../src/core/plan/plan';
import { Planning } from '../../src/core/plan/planning';
import { isThere, type CasePlan, type SaidFinding } from '../../src/core/plan';
import { approvalFor, approvalMarkdown } from '../../src/core/wording/approval';
import { inFiles } from '../../src/core/wording/dates';
import { dueEntries } from '../../src/core/wording/due-entries';
import { sayDueFound } from '../../src/core/wording/due';
import { sayFinding } from '../../src/core/wording/finding';
import { planWordsOf } from '../../src/core/wording/plan-words';
import { lawInput } from '../support/demo';
import { seedsOf } from '../support/laws';
import { Random } from '../support/random';
import { estateOf } from '../support/world-estates';
import { fullWorldOf } from '../support/worlds';

/** With days and no hops, and with hops and no days. */
const bare = (input: PlanInput, without: 'hops' | 'days'): PlanInput => ({
  ...input,
  catalogue: {
    ...input.catalogue,
    products: input.catalogue.products.map(({ hops, hopTable, ...p }) =>
      without === 'hops'
        ? p
        : {
            ...p,
            ...(hops ? { hops } : {}),
            ...(hopTable ? { hopTable } : {}),
            releases: p.releases.map((r) => ({ ...r, published: '2029-01-01', service: [] }))
          }
    )
  }
});

/** Read off the plan by itself: the day that sets the deadline, and how far it is. */
function naive(one: CasePlan, today: number): { readonly day: string; readonly left: RegExp } {
  const sets = one.deadline.contributors.filter((c) => c.sets).map((c) => c.day);
  const due = sets.length > 0 ? Math.min(...sets) : undefined;
  const day = due === undefined ? '' : formatDay(due);
  const stays = one.verdict === 'here' || (one.goalPlan && isThere(one.goalPlan));
  if (stays) return { day, left: /^$/ };
  if (due !== undefined && due < today) return { day, left: new RegExp(`^${today - due} days? past$`) };
  if (one.latestStart === 'none') return { day, left: /^\d+ days? late$/ };
  const far = (one.latestStart ?? due ?? today) - today;
  if (one.latestStart === undefined)
    return { day, left: due === undefined ? /^$/ : new RegExp(`^in ${far} days?$`) };
  return { day, left: far === 0 ? /^today$/ : new RegExp(`^${Math.abs(far)} days? (left|late)$`) };
}

const plain = (text: string): string => text.replace(/[\\,]/g, '');

function expectOneTruth(input: PlanInput, at: string): number {
  const { catalogue, estate, today } = input;
  const result = plan({ ...input, every: 'goal' });
  const words = planWordsOf(catalogue);
  const names = new Map(catalogue.products.map((p) => [p.id, new Names(p)]));
  const file = planFileOf(result, words);
  const csv = parseCsv(formatPlanCsv({ ...input, plan: result, words, everyTarget: false }));
  const rows = new Map((csv.ok ? csv.value.rows : []).map((r) => [r[0], r[PLAN_COLUMNS.indexOf('finding')]]));
  const cases = new Map(result.cases.flatMap((c) => c.systems.map((s) => [s, c] as const)));
  const say = (one: CasePlan): SaidFinding =>
    inFiles(() =>
      sayFinding(
        findingOf(one, today),
        names.get(one.product ?? '') ?? new Names(undefined),
        catalogue.currency ?? ''
      )
    );
  const junit = formatDueJunit(dueWithin(result, { today, days: 100_000 }), {
    today,
    say: (due) => sayDueFound(due, say(cases.get(due.system)!))
  });
  const entries = inFiles(() => dueEntries(result, catalogue, estate));
  for (const [i, one] of result.cases.entries()) {
    const said = say(one);
    const where = `${at}, ${one.systems[0]}`;
    const { line: _line, ...parts } = said;
    void _line;
    const { day, left } = naive(one, today);
    expect(said.day, where).toBe(day);
    expect(plain(said.left), where).toMatch(left);
    expect(file.cases[i]?.found, where).toEqual({ ...said, reasons: [...said.reasons] });
    for (const id of one.systems) {
      const system = estate.systems.find((s) => s.id === id)!;
      expect(rows.get(system.name), where).toBe(said.line);
    }
    const escaped = said.line.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');
    if (one.verdict === 'cannot tell' || one.deadline.day !== undefined)
      expect(junit, where).toContain(`(${escaped.replace(/>/g, '&gt;')})`);
    if (one.deadline.setBy && one.deadline.setBy.day >= today)
      expect(
        entries.filter((e) => e.about.endsWith(` ${one.systems[0]}`)).map((e) => e.day),
        where
      ).toContain(one.deadline.setBy.day);
    const sheet = inFiles(() => approvalFor(one, { catalogue, estate, today }));
    if (sheet) {
      const text = plain(approvalMarkdown([sheet]));
      for (const part of [parts.verdict, parts.day, parts.left, parts.sum])
        expect(text, `${where}, to be approved`).toContain(plain(part));
    }
    // The stair of each of them is planned with every target: what is said of the goal stays.
    if (i >= 4) continue;
    for (const id of new Set([one.systems[0]!, one.systems.at(-1)!])) {
      const stair = exploreSystem(new Planning(input), id)?.plan;
      if (!stair) continue;
      // What was seen is told in words of the one system; all else is the same for all of a case.
      const { reasons: _seen, line: _whole, ...own } = say(stair);
      void [_seen, _whole];
      expect(own, `${at}, the stair of ${id}`).toEqual(
        Object.fromEntries(Object.entries(said).filter(([k]) => k !== 'reasons' && k !== 'line'))
      );
      if (id === one.systems[0]) expect(say(stair), `${at}, the stair of ${id}`).toEqual(said);
    }
  }
  return result.cases.length;
}

test('every file and the stair say of a case what is found of it, word for word', () => {
  let cases = expectOneTruth(lawInput(), 'demo');
  for (const seed of seedsOf(300)) {
    const input = estateOf(fullWorldOf(seed), new Random(seed * 29), seed % 2 ? 'whole' : 'as it is');
    cases += expectOneTruth(input, `estate ${seed}`);
    cases += expectOneTruth(bare(input, 'hops'), `estate ${seed} without hops`);
    cases += expectOneTruth(bare(input, 'days'), `estate ${seed} without days`);
  }
  expect(cases).toBeGreaterThan(20);
});
