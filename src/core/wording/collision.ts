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
      ? [path[0] === 'facts' ? naming.fact(path[1] ?? '') : path.join(' '), naming.system(id)]
          .filter(Boolean)
          .join(' of ')
      : [kind === 'decision' || kind === 'goal' ? `a ${kind}` : kind, ...path].join(' ');
  return `Also changed on another tab: ${what}. ${sayValue(theirs)} stands, ${sayValue(mine)} was not kept.`;
}

/** A value as somebody would read it: a fact as it is written, text as it is, anything else cut short. */
function sayValue(value: unknown): string {
  if (value === undefined) return 'nothing';
  if (typeof value === 'object' && value !== null) {
    if ('is' in value) return `“${String(value.is)}”`;
    if ('value' in value || 'statements' in value || 'unknown' in value)
      return `“${formatFactText(value as Fact)}”`;
  }
  const text = typeof value === 'string' ? value : JSON.stringify(value);
  return `“${text.length > MOST_SIGNS ? `${text.slice(0, MOST_SIGNS)}…` : text}”`;
}
