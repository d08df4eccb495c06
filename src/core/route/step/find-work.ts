import { type CompanionModel, NOTHING } from '../../compile';
import type { Evidence } from '../../condition';
import type { WorkItem } from '../asked';
import { faresOn } from './fares';
import { type Opening } from '../move';
import type { Terms } from '../terms';

/** Kinds that are lost where everything is set up afresh. */
const INSTALLED: ReadonlySet<string> = new Set(['application', 'extension', 'third-party source', 'driver']);

/**
 * The work a step brings for what the system is known to have: companions taken off before it, updated or
 * put on again after it; around a fresh install the back-up and what it leaves to be copied back. Minutes are of one node
 * and of the longest fare that may apply; 0 where nobody has said. A machine with nothing on it has nothing to save.
 */
export function findWork(terms: Terms, opening: Opening, evidence: Evidence): readonly WorkItem[] {
  const { hop, kind, from } = opening;
  if (!hop || from.release === NOTHING) return NO_WORK;
  const fresh = kind === 'fresh install';
  const { companions } = terms.model.needs;
  if (!fresh && companions.length === 0) return NO_WORK;
  const own = companions.flatMap((model) => ofCompanion(terms, opening, evidence, model));
  const whole = (task: WorkItem['task'], minutes = 0): WorkItem => ({ task, minutes, needsKey: false });
  const { backUpMinutes, copyBackMinutes } = hop.hop.doing ?? {};
  const isKept = hop.hop.kept === 'settings and data' || hop.hop.kept === 'data';
  return [
    ...(fresh ? [whole('back up', backUpMinutes)] : []),
    ...own.filter((w) => w.task === 'take off'),
    ...(fresh && isKept ? [whole('copy back', copyBackMinutes)] : []),
    ...own.filter((w) => w.task !== 'take off')
  ];
}

const NO_WORK: readonly WorkItem[] = [];
const TAKE_OFF: WorkItem['task'] = 'take off';

/** Tasks that come before the step; all others come after it. */
export const isBeforehand = ({ task }: Pick<WorkItem, 'task'>): boolean =>
  task === 'back up' || task === 'take off';

function ofCompanion(
  terms: Terms,
  { to, kind }: Opening,
  evidence: Evidence,
  model: CompanionModel
): WorkItem[] {
  const { companion, names } = model;
  const { asking } = terms;
  if (!asking.companions.some((c) => names.has(c.name))) return [];
  if (asking.decided.ignored.has(companion.id)) return [];
  const possible = faresOn(terms, model, to, evidence).map((f) => f.fare);
  const isLost = kind === 'fresh install' && INSTALLED.has(companion.kind);
  const has = (verdict: string): boolean => possible.some((f) => f.verdict === verdict);
  if (possible.length > 0 && possible.every((f) => f.verdict === 'does not work')) return [];
  const task: WorkItem['task'] | undefined =
    isLost || has('reinstall') ? 'put on again' : has('after update') ? 'update' : undefined;
  const item = { companion: companion.id, needsKey: possible.some((f) => f.needsKey === true) };
  const minutes = Math.max(0, ...possible.map((f) => f.minutes ?? 0));
  return [
    ...(has('remove first') && !isLost ? [{ ...item, task: TAKE_OFF, minutes: 0 }] : []),
    ...(task ? [{ ...item, task, minutes }] : [])
  ];
}
