import { factOfOption } from '../catalogue';
import type { Case } from '../bind';
import type { Place, ProductModel } from '../compile';
import type { Evidence } from '../condition';
import { ONLY } from '../version';
import { addSums, countUnits, findUse, type MaybeSum, type RightStep, type RightUnits } from '../right';
import { type CountedStep, isCounted, type Terms } from '../route';
import type { CasePlan, Plan } from './plan-types';
import type { Planning } from './planning';

/** What the systems of a right would draw for what comes after their targets, and what one more option on would add. */
export interface Forecast {
  readonly product: string;
  readonly right: string;
  readonly pool: string;
  /** Of the units; empty where they belong to none. */
  readonly edition: string;
  /** The release behind the targets; absent: the catalogue has none yet, so what the last hop takes stands for it. */
  readonly release?: string;
  readonly systems: readonly string[];
  readonly units: MaybeSum;
  /** What is known of it. */
  readonly least: number;
  /** With one more option on at each system that has it off, or of which nobody knows; the options in the catalogue's order. */
  readonly more: readonly { readonly option: string; readonly units: MaybeSum }[];
}

/** Later than every last day: what is free for a while no longer is. */
const WHEN_NOTHING_IS_FREE = { first: 1e8, last: 1e8, exact: true } as const;

/**
 * What the same systems would draw for the next release with today's options, and with one more on (docs/reckoning.md 6): each
 * system that reaches its target goes on from there, under the cheapest right whose last day is not past by then. Rights that are
 * not counted in units forecast nothing. Sorted by product, right, edition, release.
 */
export function forecastUnits(planning: Planning, plan: Plan): Forecast[] {
  const cases = new Map(planning.gather().cases.map((c) => [c.id, c]));
  const found = new Map<string, Forecast>();
  for (const one of plan.cases) {
    const next = nextOf(planning, one, cases.get(one.id));
    if (!next) continue;
    const key = JSON.stringify([next.product, next.right, next.pool, next.edition, next.release]);
    found.set(key, addTo(found.get(key), next, one.systems));
  }
  return [...found].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, forecast]) => forecast);
}

function addTo(known: Forecast | undefined, next: Next, systems: readonly string[]): Forecast {
  const times = (units: MaybeSum): MaybeSum => (units === 'unknown' ? units : units * systems.length);
  const { more, units, ...about } = next;
  return {
    ...about,
    systems: [...(known?.systems ?? []), ...systems],
    units: addSums(known?.units ?? 0, times(units)),
    least: (known?.least ?? 0) + (units === 'unknown' ? 0 : units * systems.length),
    more: more.map(({ option, units: with1 }, i) => ({
      option,
      units: addSums(known?.more[i]?.units ?? 0, times(with1))
    }))
  };
}

/** What one system of a case would draw. */
type Next = Omit<Forecast, 'systems' | 'least'>;

function nextOf(planning: Planning, plan: CasePlan, one: Case | undefined): Next | undefined {
  const model = one && planning.modelFor(one.system);
  const last = plan.goalPlan?.route?.steps.findLast(isCounted);
  if (!model?.rights.some((r) => r.right.units) || !one || !last) return undefined;
  const terms = planning.termsFor(model, one);
  const step = stepBehind(model, last);
  const release = model.releases[step.to.release]?.release.id;
  const { use, units } = findUse(terms, step, WHEN_NOTHING_IS_FREE, 'best');
  if (!units || use.right === undefined) return undefined;
  const counted = unitsOf(terms, units, step.to);
  return {
    product: model.product.id,
    right: use.right,
    pool: counted.pool,
    edition: counted.edition ?? '',
    ...(release === undefined || release === last.to.release ? {} : { release }),
    units: counted.number,
    more: (units.options ?? []).map((option) => ({
      option,
      units: unitsOf(terms, units, step.to, option).number
    }))
  };
}

/** The step from the target to the release behind it, by the first hop that leads there; where there is none, the last step once more. */
function stepBehind(model: ProductModel, last: CountedStep): RightStep {
  const place = ({ release, edition, architecture }: CountedStep['to']): Place => ({
    release: model.sequence.indexById.get(release) ?? -1,
    patch: 0,
    edition: model.editions.indexOf(edition),
    architecture: model.architectures.indexOf(architecture)
  });
  const [from, to] = [place(last.from), place(last.to)];
  const strand = model.releases[to.release]?.strand;
  const next = model.releases.findIndex(
    (r, i) => i > to.release && r.strand === strand && r.editions.includes(to.edition)
  );
  const asked = { activated: 'yes' } as const;
  if (next < 0) return { kind: last.kind, id: last.id, from, level: 0, to, hop: last, asked };
  const hop = model.hopsFrom[to.release]?.find((h) => h.to === next);
  return {
    kind: hop?.hop.kind ?? 'in place',
    id: hop?.hop.id ?? '',
    from: to,
    level: 0,
    to: { ...to, release: next },
    hop: hop ?? last,
    asked
  };
}

/** Units of a step to a place, with the options that are on, and one more where it is named. */
function unitsOf(terms: Terms, units: RightUnits, to: Place, option?: string): ReturnType<typeof countUnits> {
  const read = terms.asking.evidence({ release: '', patch: '', edition: '', architecture: '' });
  const evidence: Evidence =
    option === undefined
      ? read
      : {
          ...read,
          fact: (id) => (id === factOfOption(option) ? { kind: 'known', value: 'on' } : read.fact(id))
        };
  const edition = terms.model.editions[to.edition];
  return countUnits(units, {
    evidence,
    kinds: terms.model.needs.kinds,
    nodes: terms.nodes,
    edition: edition === ONLY ? undefined : edition
  });
}
