import { KEPT, type EditionChange, type Hop, type Product } from '../catalogue/schema';
import type { Day } from '../date/day';
import type { Truth } from '../condition/truth';
import type { MaybeDay } from '../date/interval';
import { matchesRange, matchesRelease, parseRange } from '../version/range';
import { BASE_PATCH, compareReleases, patchIndex, sequenceOf, type Position } from '../version/sequence';
import type { CountedStep, PatchStep } from '../route/types';
import type { StepDays } from '../date/step-days';
import type { Standing } from '../version/standing';
import { findHeldDay, verifyRight } from './verify-right';
import {
  hasRoom,
  isFree,
  ROOM_WITHIN,
  type VerifyBlock,
  verifyBlock,
  type VerifyCalendar,
  type VerifySlot
} from './verify-windows';
import { dayOfMinute } from '../date/zone';
import { endOfService, publicationOf, readText, waitsOf, type VerifyTerms } from './verify-terms';

type Add = (code: string) => void;

interface Around {
  readonly before: CountedStep | undefined;
  readonly slot: VerifySlot | undefined;
  readonly pending: PatchStep | undefined;
  readonly isTarget: boolean;
  readonly mayBePutOff: boolean;
  /** Of cures, work and work-arounds that share its days, all nodes. */
  readonly minutes: number;
  readonly leadDays: number;
  /** The days of offers and of what linked systems need first. */
  readonly bounds: readonly MaybeDay[];
  readonly activated: Truth;
}

/** A patch step: to a later published level of the same release, obtainable on its day. */
export function verifyPatch(
  terms: VerifyTerms,
  step: PatchStep,
  { before, slot }: { readonly before: CountedStep | undefined; readonly slot: VerifySlot | undefined },
  add: Add
): VerifySlot | undefined {
  const { from, to, days } = step;
  const patch = terms.product.releases
    .find((r) => r.id === from.release)
    ?.patches?.find((p) => p.id === to.patch);
  const sequence = sequenceOf(terms.product);
  if (!patch) {
    add('no such patch level');
    return slot;
  }
  if (to.release !== from.release || to.edition !== from.edition || to.architecture !== from.architecture)
    add('a patch changes nothing but the level');
  if (patchIndex(sequence, to) <= patchIndex(sequence, from)) add('a patch goes up');
  if (
    step.carefulMinutes !== (patch.carefulMinutes ?? patch.typicalMinutes ?? 0) ||
    step.typicalMinutes !== (patch.typicalMinutes ?? 0)
  )
    add('minutes differ from the catalogue');
  const { calendar } = terms;
  const hasWindows = calendar?.windows !== undefined;
  if (!hasWindows && days.first < afterStep(terms, before)) add('starts before the step before it ends');
  if (calendar && !hasWindows && !isFree(calendar, days.first, days.last)) add('falls into a freeze');
  if (!isReached(days, readText(terms.countsExpected, patch.published))) add('patch not yet published');
  if (!isInTime(days, readText(terms.countsExpected, patch.until))) add('patch withdrawn');
  // One that shares the block of its hop is laid with it.
  if (!calendar || !hasWindows || !step.at) return slot;
  const minutes = step.carefulMinutes * terms.nodes;
  const published = readText(terms.countsExpected, patch.published);
  const earliest = Math.max(
    slotDay(terms, slot, before) ?? terms.today,
    typeof published === 'number' ? published : terms.today
  );
  const block = { minutes, back: terms.wayBackMinutes ?? minutes, earliest, mayBePutOff: false };
  return verifyBlock(calendar, block, { at: step.at, days, slot }, add);
}

/** The first day on which the occurrence of what comes next may start. */
const slotDay = (
  terms: VerifyTerms,
  slot: VerifySlot | undefined,
  before: CountedStep | undefined
): Day | undefined => (slot && before ? (watchedTo(terms, before) ?? before.days.first) : undefined);

/** The first day behind the watch days of an arrival; undefined where it is not watched. */
function watchedTo(terms: VerifyTerms, { kind, to, days }: CountedStep): Day | undefined {
  const watch = terms.goal.watchDays ?? 0;
  const end = endOfService(terms, to.release);
  const ends = typeof end === 'number' ? end : Infinity;
  if (watch < 1 || kind === 'edition change' || ends < days.last) return undefined;
  return Math.min(days.last + watch, ends) + 1;
}

/** A counted step: published, all clauses true on its days, on the earliest days it can fall on. */
export function verifyCounted(
  terms: VerifyTerms,
  step: CountedStep,
  around: Around,
  add: Add
): VerifySlot | undefined {
  const hop = terms.product.hops?.find((h) => h.id === step.id && h.kind === step.kind);
  const change =
    step.kind === 'edition change' ? terms.product.editionChanges?.find((c) => c.id === step.id) : undefined;
  if (hop) verifyHop(terms, hop, step, add);
  else if (change) verifyChange(terms.product, change, step, add);
  else {
    add('no such hop');
    return around.slot;
  }
  const entry = (hop ?? change) as Hop | EditionChange;
  if (step.carefulMinutes !== entry.carefulMinutes || step.typicalMinutes !== entry.typicalMinutes)
    add('minutes differ from the catalogue');
  const nothing = step.from.release === '';
  if (step.kept !== (nothing ? 'everything' : (hop?.kept ?? 'everything')))
    add('kept differs from the catalogue');
  if (!offers(terms.product, step.to)) add('the release does not come so');
  verifyDays(terms, { step, closes: entry.closes }, around, add);
  verifyRight({ ...terms, activated: around.activated }, step, add);
  return terms.calendar?.windows ? verifyInWindow(terms, { step, hop }, around, add) : around.slot;
}

/** A step's block in its occurrence, with the patch that shares it. */
function verifyInWindow(
  terms: VerifyTerms,
  { step, hop }: { readonly step: CountedStep; readonly hop: Hop | undefined },
  around: Around,
  add: Add
): VerifySlot | undefined {
  const { pending, slot, before } = around;
  const shared = pending && !pending.at ? pending : undefined;
  const own = step.carefulMinutes * terms.nodes + around.minutes;
  const patching = (shared?.carefulMinutes ?? 0) * terms.nodes;
  const published = hop?.doing?.wayBack;
  const figure = published?.minutes === undefined ? undefined : published.minutes * terms.nodes;
  const back = published?.until === 'never' ? 0 : (figure ?? terms.wayBackMinutes ?? own);
  const backOfPatch = shared ? (terms.wayBackMinutes ?? patching) : 0;
  const bounds = [...waitsOf(terms, step, around.isTarget), ...around.bounds].filter(
    (b) => typeof b === 'number'
  );
  const led = terms.today + Math.max(around.leadDays, step.right.leadDays ?? 0);
  const block = {
    minutes: own + patching,
    back: back + backOfPatch,
    earliest: Math.max(
      terms.today,
      led,
      pending ? pending.days.first : (slotDay(terms, slot, before) ?? 0),
      shared?.days.first ?? 0,
      ...bounds
    ),
    // The right of an earlier day may take longer, and a patch beside it may stand alone.
    mayBePutOff: around.mayBePutOff || pending !== undefined || hasLeads(terms)
  };
  const calendar = terms.calendar as VerifyCalendar;
  if (!step.nodesAt) return verifyBlock(calendar, block, { at: step.at, days: step.days, slot }, add);
  const alone = { ...block, minutes: own, back };
  if (!hop?.nodeByNode || step.nodesAt.length !== terms.nodes) add('its nodes may not go one by one');
  if (hasRoom(calendar, alone, terms.today + ROOM_WITHIN)) add('has room as a whole');
  if (shared) add('a patch that shares the blocks of nodes');
  return verifyNodes(calendar, alone, { step, slot }, add);
}

/** Each node a block of its own share, in turn; together all minutes, from the first day to the last. */
function verifyNodes(
  calendar: VerifyCalendar,
  block: VerifyBlock,
  { step, slot }: { readonly step: CountedStep; readonly slot: VerifySlot | undefined },
  add: Add
): VerifySlot | undefined {
  const nodes = step.nodesAt ?? [];
  let behind = slot;
  nodes.forEach((at, i) => {
    const minutes = calendar.windows?.find((w) => w.id === at.window)?.minutes ?? 0;
    const days = {
      first: dayOfMinute(at.closes - minutes, at.zone),
      last: dayOfMinute(Math.max(at.closes - minutes, at.ends - 1), at.zone),
      exact: step.days.exact
    };
    if (i === 0 && days.first !== step.days.first) add('claims other days than its window');
    if (i === nodes.length - 1 && days.last !== step.days.last) add('claims other days than its window');
    const upTo = (all: number, n: number): number => Math.ceil((all * n) / nodes.length);
    const share = {
      ...block,
      minutes: upTo(block.minutes, i + 1) - upTo(block.minutes, i),
      back: upTo(block.back, i + 1) - upTo(block.back, i)
    };
    behind = verifyBlock(calendar, share, { at, days, slot: behind }, add);
  });
  return behind;
}

const hasLeads = ({ product }: VerifyTerms): boolean => product.rights?.some((r) => r.leadDays) ?? false;

function verifyHop(terms: VerifyTerms, hop: Hop, step: CountedStep, add: Add): void {
  const { from, to } = step;
  const sequence = sequenceOf(terms.product);
  const { allow } = terms.goal;
  const nothing = from.release === '';
  if (nothing) return verifyFromNothing(terms.product, hop, step, add);
  if (!inRange(terms.product, hop.from, from, true)) add('does not lead from here');
  if (hop.to !== to.release || (hop.arrives ?? BASE_PATCH) !== to.patch) add('does not lead there');
  if (!leads(hop.editions, from.edition, to.edition, from.edition === to.edition))
    add('edition not in the table');
  const freely = hop.kind === 'fresh install' || from.architecture === to.architecture;
  if (!leads(hop.architectures, from.architecture, to.architecture, freely))
    add('architecture not in the table');
  if (hop.kind === 'in place' && from.architecture !== to.architecture) add('crosses architecture in place');
  if (hop.kind === 'fresh install' && !allow.fresh) add('fresh installs are not allowed');
  if (hop.unsupported && !allow.unsupported) add('unsupported hops are not allowed');
  const { mustKeep } = terms.goal;
  if (mustKeep !== undefined && KEPT.indexOf(hop.kept) > KEPT.indexOf(mustKeep)) add('keeps too little');
  if (hop.levels === 'unknown') add('starting level not known');
  else if (hop.levels !== undefined && !inRange(terms.product, hop.levels, from, false))
    add('starting level not met');
  const later =
    terms.product.releases.find((r) => r.id === from.release)?.patches?.slice(patchIndex(sequence, from)) ??
    [];
  if (
    hop.everyPatch &&
    later.some((p) => !isStillAhead(terms, step.days, readText(terms.countsExpected, p.published)))
  )
    add('a newer patch is out');
  if (
    hop.containedBy !== undefined &&
    from.patch !== BASE_PATCH &&
    !isContained(terms, hop.containedBy, step)
  )
    add('newer than the target');
}

/** From nothing leads a fresh install that every earlier release may take, to whatever it arrives in. */
function verifyFromNothing(product: Product, hop: Hop, { to }: CountedStep, add: Add): void {
  const reached = (table: Hop['editions'], id: string): boolean =>
    !table || Object.values(table).some((row) => (typeof row === 'string' ? row === id : row.includes(id)));
  const sequence = sequenceOf(product);
  const earlier = product.releases.filter((r) => compareReleases(sequence, r.id, hop.to) === -1);
  if (
    hop.kind !== 'fresh install' ||
    !earlier.every((r) => inRange(product, hop.from, { release: r.id, patch: BASE_PATCH }, true))
  )
    add('does not lead from nothing');
  if (hop.to !== to.release || (hop.arrives ?? BASE_PATCH) !== to.patch) add('does not lead there');
  if (!reached(hop.editions, to.edition)) add('edition not in the table');
  if (!reached(hop.architectures, to.architecture)) add('architecture not in the table');
}

/** Not published by that day, for certain. */
function isStillAhead(terms: VerifyTerms, days: StepDays, published: MaybeDay | undefined): boolean {
  if (published === undefined || !days.exact) return false;
  return published === 'unknown' ? days.first <= terms.today : days.first < published;
}

function isContained(
  terms: VerifyTerms,
  rule: NonNullable<Hop['containedBy']>,
  { from, to }: CountedStep
): boolean {
  const named =
    rule === 'day'
      ? undefined
      : Object.entries(rule).find(([k]) => k === `${from.release}/${from.patch}`)?.[1];
  if (named !== undefined)
    return inRange(terms.product, `from ${named}`, { ...to, patch: BASE_PATCH }, false);
  const patch = terms.product.releases
    .find((r) => r.id === from.release)
    ?.patches?.find((p) => p.id === from.patch);
  const day = readText(terms.countsExpected, patch?.published);
  const base = publicationOf(terms, to.release);
  return typeof day === 'number' && typeof base === 'number' && day <= base;
}

function verifyChange(product: Product, change: EditionChange, { from, to }: CountedStep, add: Add): void {
  if (to.release !== from.release || to.patch !== from.patch || to.architecture !== from.architecture)
    add('an edition change changes the edition only');
  if (change.from !== from.edition || change.to !== to.edition) add('no such edition change');
  if (!inRange(product, change.at, from, false)) add('starting level not met');
  const [less, more] = [change.from, change.to].map((id) => product.editions?.find((e) => e.id === id));
  const [poorer, richer] = [new Set(less?.features), new Set(more?.features)];
  const isStated = less?.features !== undefined && more?.features !== undefined;
  if (isStated && (richer.size <= poorer.size || [...poorer].some((f) => !richer.has(f))))
    add('the edition is not richer');
}

function verifyDays(
  terms: VerifyTerms,
  { step, closes }: { readonly step: CountedStep; readonly closes: string | undefined },
  around: Around,
  add: Add
): void {
  const { days } = step;
  const { pending, isTarget } = around;
  if (publicationOf(terms, step.to.release) === undefined) return add('not published in an allowed maturity');
  const bounds = [...waitsOf(terms, step, isTarget), ...around.bounds];
  const lead = around.leadDays > 0 ? terms.today + around.leadDays : terms.today;
  if (days.first < lead) add('starts before what it needs has come');
  if (bounds.some((b) => !isReached(days, b))) add('falls before it is published, settled or open');
  if (!isInTime(days, readText(terms.countsExpected, closes))) add('falls after it closes');
  const { calendar } = terms;
  if (days.exact && bounds.includes('unknown')) add('claims a day nobody knows');
  if (calendar?.windows) return;
  if (calendar && !isFree(calendar, days.first, days.last)) add('falls into a freeze');
  const free = afterStep(terms, around.before);
  if (days.first < free || (pending && days.first < pending.days.first))
    add('starts before the step before it ends');
  const isAlone = pending !== undefined && pending.days.last < days.first;
  const daysFrom = (day: Day): number => {
    const shares = pending !== undefined && !(isAlone && day > pending.days.last);
    const patching = shares ? pending.carefulMinutes : 0;
    return daysOf((step.carefulMinutes + patching) * terms.nodes + around.minutes);
  };
  if (days.last - days.first + 1 !== daysFrom(days.first)) add('takes another number of days');
  const known = bounds.filter((b) => typeof b === 'number');
  if (
    days.exact &&
    !around.mayBePutOff &&
    days.first >
      findHeldDay(terms, step, Math.max(free, lead, pending?.days.first ?? free, ...known), daysFrom)
  )
    add('could be earlier');
}

const daysOf = (minutes: number): number => Math.max(1, Math.ceil(minutes / 1440));

const afterStep = (terms: VerifyTerms, before: CountedStep | undefined): Day =>
  before ? (watchedTo(terms, before) ?? before.days.last + 1) : terms.today;
const isReached = (days: StepDays, bound: MaybeDay | undefined): boolean =>
  bound === undefined || (bound === 'unknown' ? !days.exact : days.first >= bound);
const isInTime = (days: StepDays, end: MaybeDay | undefined): boolean =>
  end === undefined || (typeof end === 'number' && days.exact && days.last <= end);

function inRange(product: Product, text: string, place: Position, wholeRelease: boolean): boolean {
  const parsed = parseRange(text);
  const sequence = sequenceOf(product);
  if (!('range' in parsed)) return false;
  return wholeRelease
    ? matchesRelease(sequence, parsed.range, place.release)
    : matchesRange(sequence, parsed.range, place);
}

function leads(table: Hop['editions'], from: string, to: string, without: boolean): boolean {
  if (!table) return without;
  const row = Object.entries(table).find(([k]) => k === from)?.[1];
  return typeof row === 'string' ? row === to : (row ?? []).includes(to);
}

function offers(product: Product, { release, edition, architecture }: Standing): boolean {
  const entry = product.releases.find((r) => r.id === release);
  return (
    entry !== undefined &&
    (entry.editions?.includes(edition) ?? true) &&
    (entry.architectures?.includes(architecture) ?? true)
  );
}
