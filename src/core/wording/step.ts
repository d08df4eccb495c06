import type { Step, WorkStep } from '../route';
import type { Names } from '../catalogue';

/** A step in a few words, as it stands in a list. */
export function sayStep(step: Step, names: Names): string {
  const to = [names.level(step.to), names.edition(step.to.edition)].filter(Boolean).join(' ');
  switch (step.kind) {
    case 'patch':
      return `Patch to ${names.patch(step.to.release, step.to.patch)}`;
    case 'cure':
      return names.cure(step.id);
    case 'work-around':
      return `${names.workAround(step.id)}: ${names.caution(step.id)}`;
    case 'work':
      return sayWork(step, names);
    case 'edition change':
      return `Change edition to ${names.edition(step.to.edition)}`;
    case 'fresh install':
      return `Fresh install of ${to}`;
    case 'in place':
      return `In place to ${to}`;
  }
}

function sayWork({ task, companion, needsKey }: WorkStep, names: Names): string {
  const what = companion === undefined ? '' : names.companion(companion);
  const key = needsKey ? ', with its key' : '';
  switch (task) {
    case 'back up':
      return 'Back up, and prove the back-up';
    case 'take off':
      return `Take off ${what}`;
    case 'copy back':
      return 'Copy back settings and data';
    case 'put on again':
      return `Put on ${what} again${key}`;
    case 'update':
      return `Update ${what}${key}`;
  }
}
