import { compareText } from '../../kit';
import type { CompanionModel } from '../../compile';
import {
  type Comparison,
  comparisonsOf,
  type Condition,
  type Evidence,
  figureIn,
  isOrdered,
  type Measure,
  parseFigure,
  sayBase,
  type Seen
} from '../../condition';
import { foldText } from '../../version';
import type { Terms } from '../terms';
import { type ClauseCode, clauseOf } from '../reason';

/** Something nobody knows: a fact, or a clause that is unknown by itself. */
export type Atom =
  | { readonly kind: 'fact'; readonly fact: string; readonly cells: readonly Seen[] }
  | { readonly kind: 'clause'; readonly key: string };

/** The name of something unknown, equal for equal ones; facts and clauses never share one. */
export const nameOfAtom = (atom: Atom): string => (atom.kind === 'fact' ? `fact ${atom.fact}` : atom.key);

/**
 * What is unknown behind a set of clauses routes rest on. Facts are cut into the pieces between the
 * thresholds the catalogue names, cures reach and steps use up; a disputed one into what is stated. What only a hop will
 * show is asked of nobody.
 */
export function atomsBehind(terms: Terms, keys: readonly string[]): Atom[] {
  const atoms = new Map<string, Atom>();
  const base = terms.asking.evidence({ release: '', patch: '', edition: '', architecture: '' });
  const addFact = (id: string): boolean => {
    const seen = terms.along.facts.get(id) ?? base.fact(id);
    if (seen.kind !== 'unknown' && seen.kind !== 'disputed') return false;
    const cells = seen.kind === 'disputed' ? seen.statements : cellsOf(terms, id);
    if (cells.length > 0) atoms.set(`fact ${id}`, { kind: 'fact', fact: id, cells });
    return true;
  };
  for (const key of keys) {
    const { code, subject } = clauseOf(key) ?? { code: undefined, subject: key };
    const { facts, alone } = behind(terms, base, code, subject);
    const found = facts.filter(addFact);
    if (alone || (found.length === 0 && facts.length === 0)) atoms.set(key, { kind: 'clause', key });
  }
  return [...atoms.values()].sort((a, b) => compareText(nameOfAtom(a), nameOfAtom(b)));
}

interface Behind {
  /** Facts it turns on; those that are known do not matter. */
  readonly facts: readonly string[];
  /** Unknown whatever the facts are. */
  readonly alone: boolean;
}

function behind(terms: Terms, base: Evidence, code: ClauseCode | undefined, subject: string): Behind {
  const { needs } = terms.model;
  switch (code) {
    case 'requirement':
    case 'site demand': {
      const demand = needs.demands.find(
        (d) => d.requirement.id === subject && d.isSite === (code === 'site demand')
      );
      return demand ? ofConditions(base, [demand.when, demand.needs]) : { facts: [], alone: true };
    }
    case 'withheld':
      return ofConditions(base, [needs.withheld.get(subject)]);
    case 'caution':
      return ofConditions(base, [needs.cautions.find((c) => c.caution.id === subject)?.when]);
    case 'space':
      return { facts: [subject], alone: false };
    case 'cure': {
      const cure = [...needs.cures.values()].flat().find((c) => c.cure.id === subject);
      if (!cure) return { facts: [], alone: true };
      return cure.when === undefined
        ? { facts: [cure.cure.fact], alone: false }
        : ofConditions(base, [cure.when]);
    }
    case 'cure limit': {
      const facts = base.fact('model').kind === 'known' && !terms.along.facts.has('model') ? [] : ['model'];
      return { facts, alone: facts.length === 0 };
    }
    case 'companion': {
      const model = needs.companions.find((c) => c.companion.id === subject);
      return model ? ofCompanion(terms, base, model) : { facts: [], alone: true };
    }
    case 'right': {
      const right = terms.model.rights.find((r) => r.right.id === subject);
      return right?.right.kind === 'carried' && !right.until
        ? {
            facts: ['activated'],
            alone: terms.activated === 'unknown' && base.fact('activated').kind === 'known'
          }
        : { facts: right?.right.kind === 'carried' ? ['activated'] : [], alone: true };
    }
    default:
      return { facts: [], alone: true };
  }
}

/** A list that is not whole, a link nobody told of, a rule without figure: unknown whatever the facts are. */
function ofConditions(base: Evidence, conditions: readonly (Condition | 'unknown' | undefined)[]): Behind {
  const read = conditions.filter((c) => c !== undefined && c !== 'unknown');
  const comparisons = read
    .flatMap(comparisonsOf)
    .filter((c) => c.fact !== 'edition' && c.fact !== 'architecture');
  const isUnlisted = (c: Comparison): boolean => {
    const seen = base.fact(c.fact);
    return (
      c.kind === 'listed' && seen.kind === 'known' && base.listed(c.list, String(seen.value)) === 'unknown'
    );
  };
  return {
    facts: [...new Set(comparisons.filter((c) => c.kind !== 'range').map((c) => c.fact))],
    alone: conditions.includes('unknown') || comparisons.some(isUnlisted) || read.some(hasLink)
  };
}

const hasLink = (condition: Condition): boolean =>
  condition.kind === 'linked' ||
  (condition.kind === 'not' && hasLink(condition.part)) ||
  ((condition.kind === 'and' || condition.kind === 'or') && condition.parts.some(hasLink));

function ofCompanion({ asking }: Terms, base: Evidence, { names, fares }: CompanionModel): Behind {
  const told = asking.companionsWhole || asking.companions.some((c) => names.has(c.name));
  const { facts } = ofConditions(
    base,
    fares.map((f) => f.when)
  );
  const unlisted = !fares.some((f) => f.when === undefined);
  return { facts, alone: !told || unlisted };
}

/** One value out of every piece a fact is cut into. */
function cellsOf(terms: Terms, id: string): Seen[] {
  const measure = terms.model.needs.kinds.find(id)?.measure;
  if (!measure) return [];
  if (measure === 'switch') return ['on', 'off', 'absent'].map(known);
  const comparisons = comparisonsOn(terms, id);
  if (!isOrdered(measure)) {
    const values = comparisons.flatMap((c) => (c.kind === 'value' ? c.values : []));
    const names = [...values, ...(id === 'model' ? modelNames(terms) : [])];
    const distinct = names.filter((v, i) => names.findIndex((o) => foldText(o) === foldText(v)) === i);
    return [...distinct, 'something else'].map(known);
  }
  return leastOfPieces(measure, startsOf(terms, id, measure, comparisons)).map((base) =>
    known(sayBase(measure, base))
  );
}

const known = (value: string): Seen => ({ kind: 'known', value });

function comparisonsOn({ model }: Terms, id: string): Comparison[] {
  const { demands, cautions, companions, offers, withheld, cures } = model.needs;
  const conditions = [
    ...demands.flatMap((d) => [d.when, d.needs]),
    ...cautions.map((c) => c.when),
    ...[...cures.values()].flat().map((c) => c.when),
    ...companions.flatMap((c) => c.fares.map((f) => f.when)),
    ...[...offers.values()].map((o) => o.firstTo),
    ...withheld.values()
  ];
  return conditions
    .flatMap((c) => (c === undefined || c === 'unknown' ? [] : comparisonsOf(c)))
    .filter((c) => c.kind !== 'range' && c.fact === id);
}

const modelNames = ({ model }: Terms): string[] => [
  ...(model.product.models ?? []).map((m) => m.id),
  ...(model.product.requirements ?? []).flatMap((r) =>
    (r.cures ?? []).flatMap((c) => Object.keys(c.limits ?? {}))
  )
];

/**
 * Where another answer begins to be given: at thresholds, what cures raise to, what hops take while they run; all again with
 * what up to three use up. A threshold that has to be passed counts from the figure above it.
 */
function startsOf(
  { model }: Terms,
  id: string,
  measure: Measure,
  comparisons: readonly Comparison[]
): number[] {
  const read = (text: string): number => figureIn(measure, parseFigure(text) ?? { amount: '' }) ?? NaN;
  const raises = [...model.needs.cures.values()]
    .flat()
    .flatMap(({ cure }) => (cure.fact === id && cure.raise ? [read(cure.raise)] : []));
  const limits = comparisons.flatMap((c) => {
    if (c.kind !== 'figure') return [];
    const isPassed = c.relation === 'above' || c.relation === 'at most';
    return [(figureIn(measure, c.figure) ?? NaN) + (isPassed ? 1 : 0)];
  });
  const uses = (model.product.hops ?? []).flatMap((h) =>
    h.uses && Object.hasOwn(h.uses, id) ? [read(h.uses[id] ?? '')] : []
  );
  const takes = (model.product.hops ?? []).flatMap((h) =>
    h.takes && Object.hasOwn(h.takes, id)
      ? [[h.takes[id] ?? []].flat().reduce((sum, figure) => sum + read(figure), 0)]
      : []
  );
  let sums = new Set<number>([0]);
  for (let hops = 0; hops < 3 && uses.length > 0; hops++)
    sums = new Set([...sums, ...[...sums].flatMap((s) => uses.map((u) => s + u))]);
  const starts = [...limits, ...raises, ...takes, 0].flatMap((t) => [...sums].map((s) => t + s));
  return [...new Set(starts.filter((c) => Number.isFinite(c)))].sort((a, b) => a - b);
}

/** The least figure of every piece, and one below them all. */
const leastOfPieces = (measure: Measure, starts: readonly number[]): number[] =>
  [(starts[0] ?? 0) - 1, ...starts].filter((c) => c >= 0 || measure === 'day');
