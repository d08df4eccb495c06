import { type Collision, type Fact, formatFactText } from '../estate';
import type { Naming } from './ready';

/** What was changed on two tabs at once: what stands now, and what was not kept; the first three, and how many more. */
export function sayCollisions(collisions: readonly Collision[], naming: Naming): string {
  const told = collisions.slice(0, MOST_TOLD).map((c) => sayCollision(c, naming));
  const more = collisions.length - told.length;
  return [
    ...told,
    ...(more > 0 ? [`${more} more were changed on another tab as well; what stands there was left.`] : [])
  ].join(' ');
}

const MOST_TOLD = 3;
const MOST_SIGNS = 80;

function sayCollision({ key, path, mine, theirs }: Collision, naming: Naming): string {
  const [kind = '', ...rest] = key.split('/');
  const id = rest.join('/');
  const what =
    kind === 'system'
      ? [path[0] === 'facts' ? naming.fact(path[1] ?? '') : path[0], naming.system(id)]
          .filter(Boolean)
          .join(' of ')
      : kind === 'decision' || kind === 'goal'
        ? `a ${kind}`
        : kind;
  const [stands, lost] = [sayValue(theirs), sayValue(mine)];
  return stands === undefined || lost === undefined
    ? `Also changed on another tab: ${what}. What was changed there stands, what was changed here was not kept.`
    : `Also changed on another tab: ${what}. ${stands} stands, ${lost} was not kept.`;
}

/** A value as somebody would read it: a fact as it is written, text cut short; undefined where it has no words of its own. */
function sayValue(value: unknown): string | undefined {
  if (value === undefined) return 'nothing';
  if (typeof value === 'object' && value !== null)
    return 'value' in value || 'statements' in value ? `“${formatFactText(value as Fact)}”` : undefined;
  const text = String(value);
  return `“${text.length > MOST_SIGNS ? `${text.slice(0, MOST_SIGNS)}…` : text}”`;
}
