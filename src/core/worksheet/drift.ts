import type { System, Worksheet } from '../estate';
import type { CasePlan } from '../plan';
import { isCounted } from '../route';
import { isDone, progressOf } from './progress';

/** Something that is no longer as it was when a worksheet was made. */
export type Drift =
  /** The system stands elsewhere than its worksheet says it does by now. */
  | 'stands elsewhere'
  /** Its goal is another. */
  | 'other target'
  /** The way that is chosen now takes other steps. */
  | 'other way'
  /** The goal is no longer reached. */
  | 'no way'
  /** The system is gone. */
  | 'gone';

/** What has drifted since a worksheet was made; nothing where all of it is done. Cost: its items. */
export function driftOf(
  sheet: Worksheet,
  system: System | undefined,
  plan: CasePlan | undefined
): readonly Drift[] {
  if (!system) return ['gone'];
  const progress = progressOf(sheet);
  const hops = sheet.items.filter((i) => i.kind === 'hop');
  const isThrough = (about: string, step: number | undefined): boolean =>
    hops
      .filter((i) => i.about === about && i.step === step)
      .every((i) => isDone(progress.get(i.id)?.state ?? 'open'));
  const left = hops.filter((i) => !isThrough(i.about, i.step));
  if (left.length === 0) return [];
  const found: Drift[] = [];
  const through = hops.filter((i) => isThrough(i.about, i.step));
  const patched = sheet.items.filter(
    (i) => i.kind === 'patch' && isDone(progress.get(i.id)?.state ?? 'open')
  );
  const at =
    [...through, ...patched].sort((a, b) => sheet.items.indexOf(a) - sheet.items.indexOf(b)).at(-1)?.to ??
    sheet.start;
  const stands = 'is' in system.release ? system.release.is : undefined;
  if (stands !== at.release) found.push('stands elsewhere');
  const { goal, goalPlan } = plan ?? {};
  if (goal && (goal.release !== sheet.target.release || goal.edition !== sheet.target.edition))
    found.push('other target');
  else if (plan && !goalPlan?.route) found.push('no way');
  else if (goalPlan?.route) {
    const now = goalPlan.route.steps.filter(isCounted).map((s) => s.id);
    const then = [...new Map(left.map((i) => [i.step, i.about.split('/').at(-1) ?? ''])).values()];
    if (now.join(' ') !== then.join(' ')) found.push('other way');
  }
  return found;
}
