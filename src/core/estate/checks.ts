import type { Product } from '../catalogue';
import { comparisonsOf, type FactKinds, parseCondition } from '../condition';
import { foldText } from '../version';
import { addReading } from './facts';
import { parseFactText } from './fact-text';
import { CHECK_RESULTS, type Check, type Fact, type System, type SystemCompanion } from './schema';

type CheckItem = Check['items'][number];
type CheckResult = (typeof CHECK_RESULTS)[number];

const RESULT_WORDS: Readonly<Record<CheckResult, readonly string[]>> = {
  pass: ['pass', 'passed', 'ok', 'good', 'yes', 'fine', 'ready'],
  warning: ['warning', 'warn', 'caution', 'attention'],
  failure: ['failure', 'fail', 'failed', 'error', 'blocked', 'no', 'not ok'],
  unknown: ['unknown', 'skipped', 'not checked', 'n/a', '?']
};
const WORDS = CHECK_RESULTS.flatMap((result) => RESULT_WORDS[result].map((word) => ({ word, result }))).sort(
  (a, b) => b.word.length - a.word.length
);
const MAX_ITEMS = 5000;

/**
 * The items of a checker's result as people paste them, one a line: a word for the result first or last, what was
 * checked, and behind a dash, semicolon or tab the reason (`failure: memory = 2 GB - too little`). `= value` is a fact's
 * value as the tool read it. Lines without a result are left out and counted.
 */
export function parseCheckItems(
  text: string,
  kinds: FactKinds,
  product: Product | undefined
): { items: CheckItem[]; left: number } {
  const facts = new Map(
    kinds.all().flatMap((k) => [k.id, k.name].map((n): [string, string] => [foldText(n), k.id]))
  );
  const companions = new Map(
    (product?.companions ?? []).flatMap((c) =>
      [c.name, c.id, ...(c.aliases ?? [])].map((n): [string, string] => [foldText(n), c.name])
    )
  );
  const requirements = new Map(
    (product?.requirements ?? []).flatMap((r) =>
      [r.id, r.name ?? r.id].map((n): [string, string] => [foldText(n), r.id])
    )
  );
  const items: CheckItem[] = [];
  let left = 0;
  for (const line of text.split(/\r?\n/).slice(0, MAX_ITEMS * 2)) {
    if (line.trim() === '') continue;
    const cut = cutResult(line.trim());
    if (!cut || items.length >= MAX_ITEMS) {
      left++;
      continue;
    }
    const [head = '', ...reasons] = cut.rest.split(/\t+|\s+[-–;]\s+|;\s*/);
    const [what = '', stated] = head.split(/\s*=\s*/);
    const fact = facts.get(foldText(what)) ?? (kinds.find(foldText(what)) ? foldText(what) : undefined);
    const read = fact !== undefined && stated ? parseFactText(kinds.find(fact), stated) : undefined;
    const companion = companions.get(foldText(what));
    const requirement = requirements.get(foldText(what));
    const reason = reasons.join(' ').trim().slice(0, 2000);
    items.push({
      what: (what.trim() || line.trim()).slice(0, 500),
      result: cut.result,
      ...(reason === '' ? {} : { reason }),
      ...(fact === undefined ? {} : { fact }),
      ...(read && 'value' in read ? { value: read.value } : {}),
      ...(requirement === undefined ? {} : { requirement }),
      ...(companion === undefined ? {} : { companion })
    });
  }
  return { items, left };
}

/** "No problems found on ...": nothing known against it. */
const NOTHING_AMISS =
  /^(?:no|0|none|zero)\s+(?:known\s+|further\s+)?(?:problems?|issues?|errors?|warnings?|failures?|faults?|findings?)\b(?:\s+(?:were|was|have been|has been))?(?:\s+(?:found|detected|reported|seen))?(?:\s+(?:on|in|for|with|at))?[\s:,.-]*/i;

function cutResult(line: string): { result: CheckResult; rest: string } | undefined {
  const clean = NOTHING_AMISS.exec(line)?.[0];
  if (clean) return { result: 'pass', rest: line.slice(clean.length) || line };
  const folded = line.toLowerCase();
  for (const { word, result } of WORDS) {
    if (folded.startsWith(word) && /^(?:[\s:,\t|\]-]|$)/.test(line.slice(word.length)))
      return { result, rest: line.slice(word.length).replace(/^[\s:,|\]-]+/, '') };
    if (folded.endsWith(word) && /[\s:,\t|[]$/.test(line.slice(0, -word.length)))
      return { result, rest: line.slice(0, -word.length).replace(/[\s:,|[]+$/, '') };
  }
  return undefined;
}

/** What is to be said of a checker's result as a whole. */
export interface CheckSummary {
  readonly counts: Readonly<Record<CheckResult, number>>;
  /** Items announced that are not there: a second page? */
  readonly missing: number;
  /** Every item there and none warns or fails: nothing known against it. */
  readonly clean: boolean;
}

/** Items of a result counted by what came out, and how many announced ones are not there. */
export function summariseCheck({ items, announced }: Check): CheckSummary {
  const counts = { pass: 0, warning: 0, failure: 0, unknown: 0 };
  for (const item of items) counts[item.result]++;
  const missing = Math.max(0, (announced ?? 0) - items.length);
  return { counts, missing, clean: missing === 0 && items.length > 0 && counts.pass === items.length };
}

const KINDS = ['setting', 'clean-up', 'update', 'purchase', 'replacement'];

/** Likely causes of a failure that says no reason, cheapest to test first: the cures of what asks for the fact, then what is usual. */
export function likelyCauses(item: CheckItem, product: Product | undefined): string[] {
  if (item.result !== 'failure' || item.reason !== undefined) return [];
  const cures = (product?.requirements ?? [])
    .filter((r) => {
      const parsed = r.needs === 'unknown' ? undefined : parseCondition(r.needs);
      return (
        parsed !== undefined &&
        'condition' in parsed &&
        comparisonsOf(parsed.condition).some((c) => c.kind !== 'range' && c.fact === item.fact)
      );
    })
    .flatMap((r) => r.cures ?? [])
    .sort((a, b) => KINDS.indexOf(a.kind) - KINDS.indexOf(b.kind) || a.minutes - b.minutes);
  const usual =
    item.companion === undefined
      ? ['it was not readable during the check: read it by hand']
      : ['it was switched off or not attached during the check', 'its own version is too old'];
  return [...new Set([...usual.slice(0, 1), ...cures.map((c) => c.how), ...usual.slice(1)])];
}

/** A system with a checker's result kept: what the tool read of facts and companions is taken in as its statement. */
export function keepCheck(system: System, check: Check, kinds: FactKinds): System {
  const facts: Record<string, Fact> = { ...system.facts };
  const companions = new Map(
    (system.companions ?? []).map((c): [string, SystemCompanion] => [foldText(c.name), c])
  );
  for (const item of check.items) {
    if (item.fact !== undefined && item.value !== undefined) {
      const was = Object.hasOwn(facts, item.fact) ? facts[item.fact] : undefined;
      const read = { value: item.value, day: check.day, source: check.tool };
      facts[item.fact] = addReading(kinds.find(item.fact), was, read);
    }
    const name = item.companion;
    if (name !== undefined && !companions.has(foldText(name)))
      companions.set(foldText(name), { name, day: check.day, source: check.tool });
  }
  const checks = [...(system.checks ?? []).filter((c) => c.id !== check.id), check].slice(-100);
  return {
    ...system,
    checks,
    ...(Object.keys(facts).length > 0 ? { facts } : {}),
    ...(companions.size > 0 ? { companions: [...companions.values()].slice(0, 2000) } : {})
  };
}
