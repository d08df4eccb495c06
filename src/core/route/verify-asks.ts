import type { Hop, Product } from '../catalogue/schema';
import { evaluateCondition, readSwitch } from '../condition/evaluate-condition';
import type { Evidence, Seen } from '../condition/evidence';
import type { FactKinds } from '../condition/fact-kind';
import { figureIn, parseFigure } from '../condition/measure';
import { parseCondition } from '../condition/parse-condition';
import { and, not, or, truthOf, type Truth } from '../condition/truth';
import { matchesRange, parseRange } from '../version/range';
import { sequenceOf, type Position } from '../version/sequence';
import { foldText } from '../version/words';
import type { Asking, CountedStep, CureStep, Standing, WorkAroundStep } from './types';

type Requirement = NonNullable<Product['requirements']>[number];
type Cure = NonNullable<Requirement['cures']>[number];
type Add = (code: string) => void;

/** Facts at a point of the way, as the verifier keeps them. */
export interface VerifyState {
  readonly changed: ReadonlyMap<string, Seen>;
  readonly onlyHardware: boolean;
  readonly cured: readonly Cure[];
}

export const STATE_AT_START: VerifyState = { changed: new Map(), onlyHardware: false, cured: [] };

export interface AskedStep {
  readonly step: CountedStep;
  readonly cures: readonly CureStep[];
  readonly workArounds: readonly WorkAroundStep[];
}

export interface VerifyAsking {
  readonly product: Product;
  readonly asking: Asking;
  readonly kinds: FactKinds;
  readonly activated: Truth;
}

/**
 * Checks what one counted step asks of the system: its cures are published, needed and possible, and everything that
 * closes holds of the facts as they then are; its work-arounds are those of the cautions it meets, in their order.
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
  asked.cures.forEach((c, i) => verifyCure(c, known[i], step, add));
  if (new Set(known.map((c) => c.fact)).size < known.length) add('two cures of one fact');
  const before = curedState(of, state, known);
  const hop = of.product.hops?.find((h) => h.id === step.id);
  if (!holds(of, step, hop, before, known)) add('something asked of the system does not hold');
  if (
    known.some((c) =>
      holds(
        of,
        step,
        hop,
        curedState(
          of,
          state,
          known.filter((k) => k !== c)
        ),
        known.filter((k) => k !== c)
      )
    )
  )
    add('a cure that is not needed');
  verifyWorkArounds(of, asked, before, add);
  const activated = readActivated(of, before);
  return {
    after: arrivedState(of, usedState(of, before, hop), hop),
    activated,
    left: evidenceAt(of, before, step.from)
  };
}

function verifyCure(step: CureStep, cure: Cure | undefined, before: CountedStep, add: Add): void {
  if (!cure) return;
  const cost = cure.costCents ?? (cure.kind === 'purchase' ? 'unknown' : 0);
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
      (r.editions?.includes(step.to.edition) ?? true) &&
      (step.kind === 'edition change'
        ? r.editions !== undefined
        : (r.methods?.some((m) => m === step.kind) ?? true))
  );

/** Whether all that closes holds, decisions let pass or not. */
function holds(
  of: VerifyAsking,
  step: CountedStep,
  hop: Hop | undefined,
  before: VerifyState,
  cures: readonly Cure[]
): boolean {
  const { decided } = of.asking;
  const used = usedState(of, before, hop);
  const inTime = (day: number | undefined): boolean =>
    day !== undefined && (day === Infinity || (step.days.exact && step.days.last <= day));
  const demands = bindingOn(of, step).every((r) => {
    const concerns = r.when === undefined ? 'yes' : truthAt(of, r.when, used, step.to);
    const list = [
      { needs: r.needs, grade: r.grade, isSite: false },
      ...(r.site ? [{ needs: r.site.needs, grade: r.site.grade ?? r.grade, isSite: true }] : [])
    ];
    return list.every(({ needs, grade, isSite }) => {
      if (grade !== 'blocks' && grade !== 'warning') return true;
      if (or(not(concerns), truthAt(of, needs, used, step.to)) === 'yes') return true;
      return (
        (grade === 'warning' && inTime(decided.accepted.get(r.id))) ||
        ((isSite || grade === 'warning') && inTime(decided.waived.get(r.id)))
      );
    });
  });
  const space = Object.entries(hop?.uses ?? {}).every(([id, figure]) => {
    const had = figureOf(of, id, seenAt(of, before, id));
    return had !== undefined && had >= (baseOf(of, id, figure) ?? Infinity);
  });
  return (
    demands &&
    space &&
    cures.every((c) => canTake(of, c, used)) &&
    (step.kind === 'edition change' ||
      (of.product.companions ?? []).every((c) => worksOn(of, c, step, used, inTime)))
  );
}

function worksOn(
  of: VerifyAsking,
  companion: NonNullable<Product['companions']>[number],
  step: CountedStep,
  used: VerifyState,
  inTime: (day: number | undefined) => boolean
): boolean {
  const names = [companion.id, companion.name, ...(companion.aliases ?? [])].map(foldText);
  const own = of.asking.companions.find((c) => names.includes(c.name));
  if (!(own?.essential ?? companion.essential)) return true;
  if (!own && of.asking.companionsWhole) return true;
  if (inTime(of.asking.decided.ignored.get(companion.id))) return true;
  for (const fare of companion.fares) {
    if (!within(of.product, fare.at, step.to)) continue;
    const applies = fare.when === undefined ? 'yes' : truthAt(of, fare.when, used, step.to);
    if (applies === 'no') continue;
    if (fare.verdict === 'does not work') return false;
    if (applies === 'yes') return true;
  }
  return false;
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
    return c.when === undefined || truthAt(of, c.when, before, step.from) !== 'no';
  });
  const wanted = hit.map((c) => c.id).sort();
  const done = workArounds.map((w) => w.id);
  if ([...done].sort().join('|') !== wanted.join('|')) add('other work-arounds than the cautions it meets');
  hit.forEach((c) => {
    const w = workArounds.find((x) => x.id === c.id);
    if (w && w.carefulMinutes !== c.workAround?.carefulMinutes)
      add('a work-around takes another time than published');
    const isRound = hit.some((o) => (o.after ?? []).includes(c.id) && (c.after ?? []).includes(o.id));
    const late = (c.after ?? []).some((id) => done.indexOf(id) > done.indexOf(c.id));
    if (late && !isRound) add('work-arounds out of their order');
  });
}

function curedState(of: VerifyAsking, state: VerifyState, cures: readonly Cure[]): VerifyState {
  const changed = new Map(state.changed);
  for (const cure of cures) changed.set(cure.fact, curedFact(of, cure, seenAt(of, state, cure.fact)));
  return { ...state, changed, cured: [...state.cured, ...cures] };
}

function curedFact(of: VerifyAsking, cure: Cure, seen: Seen): Seen {
  if (cure.set !== undefined) return { kind: 'known', value: cure.set };
  const raise = cure.raise ?? '';
  const had = figureOf(of, cure.fact, seen);
  if (had !== undefined && had >= (baseOf(of, cure.fact, raise) ?? Infinity)) return seen;
  return { kind: seen.kind === 'known' && had !== undefined ? 'known' : 'at least', value: raise };
}

function usedState(of: VerifyAsking, state: VerifyState, hop: Hop | undefined): VerifyState {
  const changed = new Map(state.changed);
  for (const [id, figure] of Object.entries(hop?.uses ?? {})) {
    const seen = seenAt(of, state, id);
    const had = figureOf(of, id, seen);
    const left = had === undefined ? undefined : Math.max(0, had - (baseOf(of, id, figure) ?? 0));
    if (left !== undefined && (seen.kind === 'known' || seen.kind === 'at least'))
      changed.set(id, { kind: seen.kind, value: textOf(of, id, left) });
  }
  return { ...state, changed };
}

const textOf = (of: VerifyAsking, id: string, base: number): string => {
  const measure = of.kinds.find(id)?.measure;
  if (measure === 'memory' || measure === 'disk') return `${base} B`;
  return measure === 'frequency' ? `${base} Hz` : String(base);
};

function arrivedState(of: VerifyAsking, state: VerifyState, hop: Hop | undefined): VerifyState {
  const fresh = hop?.kind === 'fresh install';
  const changed = new Map([...state.changed].filter(([id]) => !fresh || outlives(of, id)));
  for (const [id, value] of Object.entries(hop?.sets ?? {})) changed.set(id, { kind: 'known', value });
  return { ...state, changed, onlyHardware: state.onlyHardware || fresh };
}

const outlives = ({ kinds }: VerifyAsking, id: string): boolean => {
  const keeper = kinds.find(id)?.keptBy;
  return keeper === 'hardware' || keeper === 'firmware';
};

function seenAt(of: VerifyAsking, state: VerifyState, id: string): Seen {
  const changed = state.changed.get(id);
  if (changed) return changed;
  if (state.onlyHardware && !outlives(of, id)) return { kind: 'unknown', why: 'known only after that hop' };
  return of.asking.evidence({ release: '', patch: '', edition: '', architecture: '' }).fact(id);
}

function readActivated(of: VerifyAsking, state: VerifyState): Truth {
  const seen = seenAt(of, state, 'activated');
  if (seen.kind !== 'known') return state.onlyHardware ? 'unknown' : of.activated;
  const word = readSwitch(seen.value);
  return word === undefined ? 'unknown' : truthOf(word === 'on');
}

const figureOf = (of: VerifyAsking, id: string, seen: Seen): number | undefined =>
  seen.kind === 'known' || seen.kind === 'at least' ? baseOf(of, id, String(seen.value)) : undefined;

function baseOf(of: VerifyAsking, id: string, text: string): number | undefined {
  const measure = of.kinds.find(id)?.measure;
  const figure = parseFigure(text);
  return measure && figure ? figureIn(measure, figure) : undefined;
}

/** The model is known, listed where a list is given, and takes as much. */
function canTake(of: VerifyAsking, cure: Cure, state: VerifyState): boolean {
  if (cure.raise === undefined) return true;
  const seen = seenAt(of, state, 'model');
  const name = seen.kind === 'known' ? foldText(String(seen.value)) : undefined;
  const models = of.product.models ?? [];
  const entry = models.find((m) => name !== undefined && namesOf(m).includes(name));
  const wanted = baseOf(of, cure.fact, cure.raise) ?? Infinity;
  const fits = (limit: string): boolean => wanted <= (baseOf(of, cure.fact, limit) ?? -1);
  const own = entry?.limits?.[cure.fact];
  if (own !== undefined && !fits(own)) return false;
  if (!cure.limits) return own !== undefined || !models.some((m) => m.limits?.[cure.fact] !== undefined);
  const listed = Object.entries(cure.limits).find(
    ([id]) => foldText(id) === name || (entry !== undefined && namesOf(entry).includes(foldText(id)))
  );
  return listed !== undefined && fits(listed[1]);
}

const namesOf = (m: NonNullable<Product['models']>[number]): string[] =>
  [m.id, m.name ?? m.id, ...(m.aliases ?? [])].map(foldText);

function truthAt(of: VerifyAsking, text: string, state: VerifyState, at: Standing): Truth {
  const parsed = parseCondition(text);
  if (!('condition' in parsed)) return 'unknown';
  return evaluateCondition(parsed.condition, evidenceAt(of, state, at), of.kinds).truth;
}

function evidenceAt(of: VerifyAsking, state: VerifyState, at: Standing): Evidence {
  const base = of.asking.evidence(at);
  return {
    ...base,
    fact: (id) => (id === 'edition' || id === 'architecture' ? base.fact(id) : seenAt(of, state, id)),
    linked: (word) => linkedAt(of, base, state, word)
  };
}

/** Cures done so far are done at nodes and linked systems too. */
function linkedAt(
  of: VerifyAsking,
  base: Evidence,
  state: VerifyState,
  word: string
): ReturnType<Evidence['linked']> {
  const linked = base.linked(word);
  if (linked === 'unknown') return linked;
  const fact = (member: Evidence, id: string): Seen => {
    const own = word === 'node' ? state.changed.get(id) : undefined;
    return (
      own ??
      state.cured.filter((c) => c.fact === id).reduce((seen, c) => curedFact(of, c, seen), member.fact(id))
    );
  };
  return { ...linked, members: linked.members.map((m) => ({ ...m, fact: (id) => fact(m, id) })) };
}

function within(product: Product, text: string, place: Position): boolean {
  const parsed = parseRange(text);
  return 'range' in parsed && place.release !== '' && matchesRange(sequenceOf(product), parsed.range, place);
}

/** Whether two linked releases may be together, as a pairing of the product says. */
export function verifyFit(
  own: Product,
  pairing: NonNullable<Product['pairings']>[number],
  to: Standing,
  other: Product,
  place: Standing
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
