import { countedPhaseOf } from '../catalogue/model';
import { KEPT } from '../catalogue/schema';
import type { Day } from '../date/day';
import { formatDay } from '../date/day';
import { formatDateText, readDay, type DateInterval } from '../date/interval';
import { positionOf, type Finding, type Judgement } from './judge';
import type { Label } from './label';
import { carefulMinutesOf, typicalMinutesOf } from './lay-days';
import type { Move, Place } from './move';
import type { Terms } from './terms';
import type { CountedStep, PatchStep, Reason, Route, Standing, Step } from './types';

/** A place as the catalogue's ids. */
export function standingOf(terms: Terms, place: Place): Standing {
  const { release, patch } = positionOf(terms, place);
  return {
    release,
    patch,
    edition: terms.model.editions[place.edition] ?? '',
    architecture: terms.model.architectures[place.architecture] ?? ''
  };
}

/** A label as the route that is shown, verified and exported. */
export function routeOf(terms: Terms, label: Label): Route {
  const { criteria, judgement, moves } = label;
  const steps = moves.flatMap((move, i) => stepsOf(terms, move, judgement, i));
  const finish = judgement.schedule.days[moves.length - 1]?.hop ?? {
    first: terms.from,
    last: terms.from,
    exact: true
  };
  return {
    steps,
    kept: KEPT[criteria.keptRank] ?? 'nothing',
    costCents: criteria.costCents,
    unknownSums: criteria.unknownSums,
    typicalMinutes: steps.reduce((sum, s) => sum + s.typicalMinutes, 0) * terms.nodes,
    carefulMinutes: criteria.carefulMinutes,
    hops: criteria.hops,
    risks: moves.flatMap((m) => risksOf(terms, m)).filter((r, i, all) => all.indexOf(r) === i),
    finish,
    waitsUntil: judgement.schedule.waitsUntil,
    restsOn: judgement.findings.map((f) => reasonOf(terms, moves, judgement, f))
  };
}

function risksOf(terms: Terms, move: Move): string[] {
  const risks = move.hop?.hop.unsupported ? [`unsupported: ${move.hop.hop.consequence ?? move.id}`] : [];
  const release = terms.model.releases[move.to.release]?.release;
  return terms.isPreview[move.to.release]
    ? [...risks, `preview: ${release?.name ?? release?.id ?? ''}`]
    : risks;
}

function stepsOf(terms: Terms, move: Move, judgement: Judgement, at: number): Step[] {
  const days = judgement.schedule.days[at];
  const use = judgement.rights[at]?.use;
  if (!days || !use) return [];
  const steps: Step[] = [];
  const between = standingOf(terms, { ...move.from, patch: move.level });
  const patch = terms.model.releases[move.from.release]?.patches[move.level];
  if (days.patch && patch) {
    const step: PatchStep = {
      kind: 'patch',
      from: standingOf(terms, move.from),
      to: between,
      days: days.patch,
      typicalMinutes: patch.typicalMinutes,
      carefulMinutes: patch.carefulMinutes
    };
    steps.push(step);
  }
  const counted: CountedStep = {
    kind: move.kind,
    id: move.id,
    from: between,
    to: standingOf(terms, move.to),
    days: days.hop,
    typicalMinutes: typicalMinutesOf(move),
    carefulMinutes: carefulMinutesOf(move),
    kept: move.hop?.hop.kept ?? 'everything',
    right: use
  };
  return [...steps, counted];
}

/** A finding with what was seen, what was demanded and on whose word. */
export function reasonOf(
  terms: Terms,
  moves: readonly Move[],
  judgement: Judgement,
  finding: Finding
): Reason {
  const move = moves[finding.move] as Move;
  const days = judgement.schedule.days[finding.move];
  const source = move.hop?.hop.source ?? move.change?.change.source ?? terms.model.product.source;
  const base = { code: finding.code, subject: move.id, ...(source === undefined ? {} : { source }) };
  const level = positionOf(terms, { ...move.from, patch: move.level });
  const at = `${level.release}/${level.patch}`;
  const end = (date: DateInterval | undefined): { demanded?: string; day?: Day } =>
    date ? { demanded: formatDateText(date), ...dayOfDate(date, terms.countsExpected) } : {};
  const seenDay = days ? formatDay(days.hop.last) : '';
  switch (finding.code) {
    case 'level':
      return { ...base, seen: at, demanded: move.hop?.hop.levels ?? move.change?.change.at ?? '' };
    case 'every patch':
    case 'newer than target':
      return { ...base, seen: at };
    case 'closed':
      return { ...base, seen: seenDay, ...end((move.hop ?? move.change)?.closes) };
    case 'patch withdrawn':
      return {
        ...base,
        seen: days?.patch ? formatDay(days.patch.last) : '',
        ...end(terms.model.releases[move.from.release]?.patches[move.level]?.until)
      };
    case 'resting':
    case 'pass days':
    case 'months left':
      return {
        ...base,
        subject: terms.model.releases[move.to.release]?.release.id ?? '',
        seen: seenDay,
        ...end(endOf(terms, move.to.release))
      };
    case 'cell':
      return { ...base, subject: move.cell ?? move.id };
    default:
      return base;
  }
}

const endOf = (terms: Terms, release: number): DateInterval | undefined => {
  const model = terms.model.releases[release];
  return model && countedPhaseOf(model, terms.goal.phase)?.until;
};

function dayOfDate(date: DateInterval, countsExpected: boolean): { day?: Day } {
  const day = readDay(date, countsExpected);
  return day === 'unknown' ? {} : { day };
}
