import type { Hop, Product } from '../catalogue/schema';
import { comparisonsOf } from '../condition/condition';
import { readSwitch } from '../condition/evaluate-condition';
import type { Evidence } from '../condition/evidence';
import { parseCondition } from '../condition/parse-condition';
import { and, collapse, not, or, truthOf, type Run, type Truth } from '../condition/truth';
import { sequenceOf } from '../version/sequence';
import { foldText } from '../version/words';
import {
  type Cure,
  type VerifyAsking,
  type VerifyState,
  curedState,
  usedState,
  arrivedState,
  readActivated,
  canTake,
  truthAt,
  truthBy,
  evidenceAt,
  within,
  figureOf,
  baseOf,
  eachNode
} from './verify-state';
import type { CountedStep, CureStep, WorkAroundStep, WorkStep } from '../route/types';
import type { Asking } from '../bind/asking';
import type { Standing } from '../version/standing';

type Requirement = NonNullable<Product['requirements']>[number];
type Companion = NonNullable<Product['companions']>[number];
type Add = (code: string) => void;

export interface AskedStep {
  readonly step: CountedStep;
  readonly cures: readonly CureStep[];
  readonly workArounds: readonly WorkAroundStep[];
  readonly work: readonly WorkStep[];
}

/**
 * Checks what one counted step asks of the system: its cures are published, needed and possible, and everything that
 * closes holds of the facts as they then are; its work-arounds are those of the cautions it meets, in their order; its work
 * is what the system has on it.
 * Returns the facts after the step, whether an activated source stands before it, and what is known as it begins.
 */
export function verifyAsked(
  of: VerifyAsking,
  asked: AskedStep,
  state: VerifyState,
  add: Add
): { readonly after: VerifyState; readonly activated: Truth; readonly left: Evidence } {
  const { step } = asked;
  const published = bindingOn(of, step).flatMap((r) => r.cures ?? []);
  const cures = asked.cures.map((c) => published.find((p) => p.id === c.id && p.kind !== 'replacement'));
  if (cures.some((c) => c === undefined)) add('a cure nobody publishes for this step');
  const known = cures.filter((c) => c !== undefined);
  asked.cures.forEach((c, i) => verifyCure(of, { told: c, published: known[i] }, step, add));
  if (known.some((c) => !isCureHere(of, c, { state, at: step.to }))) add('a cure that is none here');
  if (new Set(known.map((c) => c.fact)).size < known.length) add('two cures of one fact');
  const before = curedState(of, state, known);
  const hop = of.product.hops?.find((h) => h.id === step.id);
  if (!holds(of, { step, hop, cures: known }, before)) add('something asked of the system does not hold');
  const without = (cure: Cure): Cure[] => known.filter((k) => k !== cure);
  if (known.some((c) => holds(of, { step, hop, cures: without(c) }, curedState(of, state, without(c)))))
    add('a cure that is not needed');
  verifyPerhaps(of, { ...asked, known }, state, add);
  verifyWorkArounds(of, asked, before, add);
  verifyWork(of, asked, usedState(of, before, hop), add);
  const activated = readActivated(of, before);
  return {
    after: arrivedState(of, usedState(of, before, hop), hop),
    activated,
    left: evidenceAt(of, before, step.from)
  };
}

function verifyCure(
  of: VerifyAsking,
  { told: step, published: cure }: { readonly told: CureStep; readonly published: Cure | undefined },
  before: CountedStep,
  add: Add
): void {
  if (!cure) return;
  const each = cure.costCents ?? (cure.kind === 'purchase' ? 'unknown' : 0);
  const cost = each === 'unknown' ? each : each * of.nodeCount;
  if (
    step.costCents !== cost ||
    step.leadDays !== (cure.leadDays ?? 0) ||
    step.carefulMinutes !== cure.minutes
  )
    add('a cure at another price, lead or time than published');
  if (step.days.first !== before.days.first) add('a cure on another day than the step it serves');
  if (step.closesWayBack !== (cure.closesWayBack ?? false)) add('hides that a cure gives up the way back');
}

const bindingOn = (of: VerifyAsking, step: CountedStep): Requirement[] =>
  (of.product.requirements ?? []).filter(
    (r) =>
      within(of.product, r.at, step.to) &&
      (r.hops?.includes(step.id) ?? true) &&
      (r.editions?.includes(step.to.edition) ?? true) &&
      (step.kind === 'edition change'
        ? r.editions !== undefined
        : (r.methods?.some((m) => m === step.kind) ?? true))
  );

/** Whether a requirement wants nothing but free space, which a fresh install makes, and does not name such. */
function makesRoom(of: VerifyAsking, { methods, hops }: Requirement, needs: string): boolean {
  const parsed = parseCondition(needs);
  if (methods || hops || !('condition' in parsed) || parsed.condition.kind === 'linked') return false;
  const wanted = comparisonsOf(parsed.condition);
  return (
    wanted.length > 0 &&
    wanted.every((c) => {
      const kind = 'fact' in c ? of.kinds.find(c.fact) : undefined;
      return kind?.measure === 'disk' && kind.keptBy === 'software';
    })
  );
}

/** A cure by its own condition, or where the thing it is about is there, or absent; never where its demand concerns nobody here. */
function isCureHere(
  of: VerifyAsking,
  cure: Cure,
  { state, at }: { readonly state: VerifyState; readonly at: Standing },
  run: Run = 'sure'
): boolean {
  const takes = (t: Truth): boolean => collapse(t, run, 'demand');
  const guard = (of.product.requirements ?? []).find((r) =>
    (r.cures ?? []).some((c) => c.id === cure.id)
  )?.when;
  return eachNode(of, state, at).some((node) => {
    const truth = (text: string): Truth => truthBy(of, text, node);
    if (guard !== undefined && truth(guard) === 'no') return false;
    if (cure.when !== undefined) return takes(truth(cure.when));
    const isSwitch = cure.set !== undefined && of.kinds.find(cure.fact)?.measure === 'switch';
    if (!isSwitch || (cure.kind !== 'setting' && cure.kind !== 'purchase')) return true;
    const seen = node.fact(cure.fact);
    const said = seen.kind === 'disputed' ? seen.statements : [seen];
    const words = said.map((s) => (s.kind === 'known' ? readSwitch(s.value) : undefined));
    const absent = words.map((w) => (w === undefined ? undefined : w === 'absent'));
    if (absent.includes(undefined) || new Set(absent).size > 1) return takes('unknown');
    return absent[0] === (cure.kind === 'purchase');
  });
}

/** A cure is told as needed only perhaps just where the rest would do if all that is not read turned out well. */
function verifyPerhaps(
  of: VerifyAsking,
  { step, cures, known }: AskedStep & { readonly known: readonly Cure[] },
  state: VerifyState,
  add: Add
): void {
  const hop = of.product.hops?.find((h) => h.id === step.id);
  const unread: VerifyAsking = { ...of, asking: unreadOf(of.asking) };
  for (const cure of known) {
    const told = cures.find((c) => c.id === cure.id)?.ifNeeded === true;
    const rest = known.filter((c) => c !== cure);
    const does = subsetsOf(rest).some(
      (set) =>
        set.every((c) => isCureHere(unread, c, { state, at: step.to }, 'best')) &&
        holds(unread, { step, hop, cures: set }, curedState(unread, state, set), 'best')
    );
    if (told !== does)
      add(told ? 'a cure that is needed for certain' : 'hides that a cure is needed only perhaps');
  }
}

const subsetsOf = <T>(list: readonly T[]): T[][] =>
  list.reduce<T[][]>((all, x) => [...all, ...all.map((set) => [...set, x])], [[]]);

const unreadOf = (asking: Asking): Asking =>
  asking.hasStale
    ? {
        ...asking,
        evidence: (at) => {
          const base = asking.evidence(at);
          return {
            ...base,
            fact: (id) =>
              asking.isStale(id) ? { kind: 'unknown', why: 'past its shelf life' } : base.fact(id)
          };
        }
      }
    : asking;

/** A step with the cures done before it. */
interface Taken {
  readonly step: CountedStep;
  readonly hop: Hop | undefined;
  readonly cures: readonly Cure[];
}

/** Whether all that closes holds, decisions let pass or not; in the best run also what may hold. */
function holds(
  of: VerifyAsking,
  { step, hop, cures }: Taken,
  before: VerifyState,
  run: Run = 'sure'
): boolean {
  const { decided } = of.asking;
  const used = usedState(of, before, hop);
  const takes = (t: Truth): boolean => collapse(t, run, 'demand');
  const inTime = (day: number | undefined): boolean =>
    day !== undefined && (day === Infinity || run === 'best' || (step.days.exact && step.days.last <= day));
  const nodes = eachNode(of, used, step.to);
  const demands = bindingOn(of, step).every((r) => {
    const list = [
      { needs: r.needs, grade: r.grade, isSite: false },
      ...(r.site ? [{ needs: r.site.needs, grade: r.site.grade ?? r.grade, isSite: true }] : [])
    ];
    return list.every(({ needs, grade, isSite }) => {
      if (grade !== 'blocks' && grade !== 'warning') return true;
      if (hop?.kind === 'fresh install' && makesRoom(of, r, needs)) return true;
      const truths = nodes.map((node) => {
        const concerns = r.when === undefined ? 'yes' : truthBy(of, r.when, node);
        return or(not(concerns), truthBy(of, needs, node));
      });
      const plain = truths.reduce(and);
      if (takes(isSite ? plain : stated(of, r, plain, { nodes, used }))) return true;
      return (
        (grade === 'warning' && inTime(decided.accepted.get(r.id))) ||
        ((isSite || grade === 'warning') && inTime(decided.waived.get(r.id)))
      );
    });
  });
  const wants = new Map<string, number>();
  for (const [id, figures] of Object.entries(hop?.takes ?? {}))
    wants.set(
      id,
      [figures].flat().reduce((sum, f) => sum + (baseOf(of, id, f) ?? Infinity), 0)
    );
  for (const [id, figure] of Object.entries(hop?.uses ?? {}))
    wants.set(id, Math.max(wants.get(id) ?? 0, baseOf(of, id, figure) ?? Infinity));
  const space = [...wants].every(([id, wanted]) =>
    eachNode(of, before, step.to).every((node) => {
      const seen = node.fact(id);
      const had = figureOf(of, id, seen);
      const isThere = had !== undefined && had >= wanted;
      return isThere || (run === 'best' && (had === undefined || seen.kind !== 'known'));
    })
  );
  const placed =
    step.kind === 'edition change' ||
    of.asking.checked.unplaced.every((what) =>
      inTime(decided.ignored.get(foldText(what).replaceAll('/', '-')))
    );
  return (
    demands &&
    space &&
    placed &&
    cures.every((c) => takes(nodes.map((node) => canTake(of, c, node)).reduce(and))) &&
    (step.kind === 'edition change' ||
      (of.product.companions ?? []).every(
        (c) => inTime(decided.ignored.get(c.id)) || takes(worksOn(of, c, step, used))
      ))
  );
}

/** A requirement beside what a tool says of it, unless something on the way has changed since. */
function stated(
  of: VerifyAsking,
  r: Requirement,
  own: Truth,
  { nodes, used }: { readonly nodes: readonly Evidence[]; readonly used: VerifyState }
): Truth {
  const said = of.asking.checked.requirements.get(r.id);
  const { when } = r;
  const concerns = when === undefined || nodes.some((node) => truthBy(of, when, node) !== 'no');
  const facts = [r.needs, when ?? ''].flatMap((text) => {
    const parsed = parseCondition(text);
    return 'condition' in parsed ? comparisonsOf(parsed.condition).map((c) => c.fact) : [];
  });
  const isChanged = facts.some(
    (id) =>
      used.changed.has(id) ||
      used.nodes.some((n, i) => JSON.stringify(n.get(id)) !== JSON.stringify(of.asking.nodes[i]?.get(id)))
  );
  if (said === undefined || said === 'unknown' || isChanged || used.onlyHardware || !concerns) return own;
  return own === 'unknown' ? said : own === said ? own : 'unknown';
}

function worksOn(of: VerifyAsking, companion: Companion, step: CountedStep, used: VerifyState): Truth {
  const own = ownOf(of, companion);
  if (!(own?.essential ?? companion.essential)) return 'yes';
  if (!own && of.asking.companionsWhole) return 'yes';
  const possible: Truth[] = [];
  let settled = false;
  for (const fare of companion.fares) {
    if (settled || !within(of.product, fare.at, step.to)) continue;
    const applies = fare.when === undefined ? 'yes' : truthAt(of, fare.when, used, step.to);
    if (applies === 'no') continue;
    possible.push(truthOf(fare.verdict !== 'does not work'));
    settled = applies === 'yes';
  }
  const [first] = possible;
  const fares = settled && first !== undefined && possible.every((t) => t === first) ? first : 'unknown';
  const said = [companion.id, companion.name, ...(companion.aliases ?? [])]
    .map((n) => of.asking.checked.companions.get(foldText(n)))
    .find((t) => t !== undefined);
  const works =
    said === undefined || said === 'unknown' || said === fares
      ? fares
      : fares === 'unknown'
        ? said
        : 'unknown';
  return own ? works : or('unknown', works);
}

const ownOf = (of: VerifyAsking, companion: Companion): Asking['companions'][number] | undefined => {
  const names = [companion.id, companion.name, ...(companion.aliases ?? [])].map(foldText);
  return of.asking.companions.find((c) => names.includes(c.name));
};

/** What a hop brings for what is on the system: nothing left out, nothing made up, in the published time. */
function verifyWork(of: VerifyAsking, { step, work }: AskedStep, used: VerifyState, add: Add): void {
  const hop = of.product.hops?.find((h) => h.id === step.id && h.kind === step.kind);
  const wanted = new Map<string, number>();
  if (hop && step.from.release !== '') {
    const fresh = hop.kind === 'fresh install';
    if (fresh) wanted.set('back up', hop.doing?.backUpMinutes ?? 0);
    if (fresh && (hop.kept === 'data' || hop.kept === 'settings and data'))
      wanted.set('copy back', hop.doing?.copyBackMinutes ?? 0);
    for (const c of of.product.companions ?? []) {
      if (!ownOf(of, c) || of.asking.decided.ignored.has(c.id)) continue;
      const fares: Companion['fares'][number][] = [];
      for (const fare of c.fares) {
        if (!within(of.product, fare.at, step.to)) continue;
        const applies = fare.when === undefined ? 'yes' : truthAt(of, fare.when, used, step.to);
        if (applies !== 'no') fares.push(fare);
        if (applies === 'yes') break;
      }
      if (fares.length > 0 && fares.every((f) => f.verdict === 'does not work')) continue;
      const lost = fresh && c.kind !== 'device';
      const minutes = Math.max(0, ...fares.map((f) => f.minutes ?? 0));
      const says = (v: string): boolean => fares.some((f) => f.verdict === v);
      if (says('remove first') && !lost) wanted.set(`take off ${c.id}`, 0);
      if (lost || says('reinstall')) wanted.set(`put on again ${c.id}`, minutes);
      else if (says('after update')) wanted.set(`update ${c.id}`, minutes);
    }
  }
  const text = (list: Iterable<readonly [string, number]>): string =>
    [...list]
      .map(([id, n]) => `${id} ${n}`)
      .sort()
      .join();
  if (text(wanted) !== text(work.map((w) => [w.id, w.carefulMinutes] as const)))
    add('other work than what is on the system wants');
}

function verifyWorkArounds(
  of: VerifyAsking,
  { step, workArounds }: AskedStep,
  before: VerifyState,
  add: Add
): void {
  const hit = (of.product.cautions ?? []).filter((c) => {
    if (step.kind === 'edition change' || !within(of.product, c.to, step.to)) return false;
    if (c.from !== undefined && !within(of.product, c.from, step.from)) return false;
    if (of.asking.decided.ignored.has(c.id) || !c.workAround) return false;
    const { when } = c;
    return (
      when === undefined || eachNode(of, before, step.from).some((node) => truthBy(of, when, node) !== 'no')
    );
  });
  const wanted = hit.map((c) => c.id).sort();
  const done = workArounds.map((w) => w.id);
  if ([...done].sort().join('|') !== wanted.join('|')) add('other work-arounds than the cautions it meets');
  hit.forEach((c) => {
    const w = workArounds.find((x) => x.id === c.id);
    if (w && w.carefulMinutes !== c.workAround?.carefulMinutes)
      add('a work-around takes another time than published');
    if (w && w.times !== timesOf(of, c, step.from)) add('a work-around done another number of times');
    const isRound = hit.some((o) => (o.after ?? []).includes(c.id) && (c.after ?? []).includes(o.id));
    // What is done behind the step and what is done before it have an order each.
    const beside = hit.filter((o) => o.workAround?.behind === c.workAround?.behind).map((o) => o.id);
    const late = (c.after ?? []).some((id) => beside.includes(id) && done.indexOf(id) > done.indexOf(c.id));
    if (late && !isRound) add('work-arounds out of their order');
  });
}

function timesOf(
  of: VerifyAsking,
  { workAround }: NonNullable<Product['cautions']>[number],
  from: Standing
): number {
  const per = workAround?.per ?? 'node';
  if (per === 'node' || per === 'system') return per === 'node' ? of.nodeCount : 1;
  const linked = of.asking.evidence(from).linked(per);
  return linked === 'unknown' || linked.members.length === 0 ? 1 : linked.members.length;
}

/** A standing of a product. */
interface StandingIn {
  readonly product: Product;
  readonly at: Standing;
}

/** Whether two linked releases may be together, as a pairing of the product says. */
export function verifyFit(
  pairing: NonNullable<Product['pairings']>[number],
  { product: own, at: to }: StandingIn,
  { product: other, at: place }: StandingIn
): Truth {
  if (pairing.apart !== undefined) {
    const sequence = sequenceOf(own);
    const [a, b] = [to, place].map((p) => sequence.releases.findIndex((r) => r.id === p.release));
    if (own.id !== other.id || a === undefined || b === undefined) return 'unknown';
    if (sequence.releases[a]?.strand !== sequence.releases[b]?.strand) return 'unknown';
    return truthOf(Math.abs(a - b) <= pairing.apart);
  }
  const fits = pairing.fits ?? [];
  const rows = fits.filter((f) => within(own, f.own, to));
  if (rows.some((f) => within(other, f.other, place))) return 'yes';
  const isListed = rows.length > 0 && fits.some((f) => within(other, f.other, place));
  return and('unknown', truthOf(pairing.table !== 'complete' && !isListed));
}
