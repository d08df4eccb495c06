import { formatDay, type Day } from '$core/date/day';
import { activatedOf } from '$core/estate/gather';
import type { FactDecisions } from '$core/estate/facts';
import { situationKey } from '$core/estate/standing';
import type { Decision, System } from '$core/estate/schema';

/** In what a system's case deviates from another of the same situation, in words. */
export function findDeviations(
  own: System,
  base: System,
  decisions: readonly Decision[],
  decided: FactDecisions,
  today: Day
): string[] {
  const words: string[] = [];
  const [a, b] = [activatedOf(own, decided), activatedOf(base, decided)];
  if (a !== b)
    words.push(a === 'unknown' ? 'activation unknown' : a === 'yes' ? 'activated' : 'not activated');
  if ((own.nodes ?? 1) !== (base.nodes ?? 1)) words.push(`${own.nodes ?? 1} nodes`);
  const day = formatDay(today);
  const touching = (s: System): Decision[] =>
    decisions.filter(
      (d) =>
        (d.until === undefined || d.until >= day) &&
        (('system' in d.scope && d.scope.system === s.id) ||
          ('situation' in d.scope && d.scope.situation === situationKey(s)))
    );
  const others = new Set(touching(base).map((d) => d.id));
  for (const d of touching(own)) if (!others.has(d.id)) words.push(sayKind(d));
  return words.length > 0 ? words : ['a decision the others have'];
}

const sayKind = ({ kind, scope }: Decision): string =>
  'fact' in scope
    ? `decided: ${kind} ${scope.fact}`
    : 'companion' in scope
      ? `decided: ${kind} ${scope.companion}`
      : `decided: ${kind}`;
