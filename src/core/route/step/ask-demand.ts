import { type DemandModel } from '../../compile';
import {
  and,
  besideStated,
  evaluateCondition,
  type Evaluation,
  type Evidence,
  factsIn,
  not,
  or,
  type Truth
} from '../../condition';
import type { Day } from '../../date';
import { type Along, membersAlong } from '../along';
import type { Terms } from '../terms';

/** How a demand stands with a system at a point of its way. */
export interface Demanded {
  readonly truth: Truth;
  readonly needs?: Evaluation;
  readonly when?: Evaluation;
  /** What a tool says of it, where that still counts. */
  readonly stated?: Truth;
  /** The last day of a decision that lets it pass. */
  readonly passesUntil?: Day;
}

/** A demand holds where it does not concern the system, or what it needs is there; of nodes the worst counts. */
export function judgeDemand(
  terms: Terms,
  demand: DemandModel,
  used: Along,
  nodes: readonly Evidence[]
): Demanded {
  const { requirement, isSite, grade } = demand;
  const { decided } = terms.asking;
  const worst = nodes
    .map((node) => demandAt(terms, demand, node))
    .reduce((a, b) => (and(a.truth, b.truth) === a.truth ? a : b));
  // Whom it does not concern no tool can fail.
  const stated = isSite || worst.when?.truth === 'no' ? undefined : checkedAt(terms, used, demand);
  const accepted = grade === 'warning' ? decided.accepted.get(requirement.id) : undefined;
  const waived = isSite || grade !== 'blocks' ? decided.waived.get(requirement.id) : undefined;
  const passesUntil = later(accepted, waived);
  return {
    ...worst,
    truth: besideStated(worst.truth, stated),
    ...(stated === undefined ? {} : { stated }),
    ...(passesUntil === undefined ? {} : { passesUntil })
  };
}

/** How a demand stands where a way begins; undefined where a decision lets it pass. Of demands that do not turn on the step. */
export function truthAtStart(terms: Terms, demand: DemandModel): Truth | undefined {
  const { along, asking, model } = terms;
  const nodes = membersAlong(along, asking.evidence(NOWHERE), model.needs.kinds);
  const { truth, passesUntil } = judgeDemand(terms, demand, along, nodes);
  return passesUntil === undefined ? truth : undefined;
}

const NOWHERE = { release: '', patch: '', edition: '', architecture: '' };

/** What a tool says of a requirement, as long as none of the facts it turns on has changed on the way since. */
function checkedAt(terms: Terms, used: Along, { requirement, needs, when }: DemandModel): Truth | undefined {
  const said = terms.asking.checked.requirements.get(requirement.id);
  if (said === undefined || used.onlyHardware) return undefined;
  const start = terms.along;
  const isChanged = (id: string): boolean =>
    used.facts.get(id) !== start.facts.get(id) ||
    used.nodes.some((n, i) => n.get(id) !== start.nodes[i]?.get(id));
  return factsIn([needs, when]).some(isChanged) ? undefined : said;
}

function demandAt(terms: Terms, { when, needs }: DemandModel, node: Evidence): Demanded {
  const { kinds } = terms.model.needs;
  const whenSeen = when && when !== 'unknown' ? evaluateCondition(when, node, kinds) : undefined;
  const concerns = when === undefined ? 'yes' : (whenSeen?.truth ?? 'unknown');
  const told = whenSeen ? { when: whenSeen } : {};
  const needed = needs === 'unknown' ? undefined : evaluateCondition(needs, node, kinds);
  const truth = concerns === 'no' ? 'yes' : or(not(concerns), needed?.truth ?? 'unknown');
  return { truth, ...(needed ? { needs: needed } : {}), ...told };
}

const later = (a: Day | undefined, b: Day | undefined): Day | undefined =>
  a === undefined ? b : b === undefined ? a : Math.max(a, b);

/** Whether a demand of a grade closes where it does not hold. */
export const isClosing = (grade: DemandModel['grade']): boolean => grade === 'blocks' || grade === 'warning';

/** The name of the risk of a demand that does not close. */
export const riskKeyOf = ({ requirement, isSite, grade }: DemandModel): string =>
  `${grade} ${requirement.id}${isSite ? ' site' : ''}`;

/** The name of the risk of a caution. */
export const cautionKeyOf = (id: string): string => `caution ${id}`;
