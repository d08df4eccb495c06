import { type Day, formatDay } from '$core/date';
import { activatedOf } from '$core/bind';
import { type Decision, type FactDecisions, seenOf, situationKey, type System } from '$core/estate';
import { naming } from '$lib/ready/naming';
import { sayDecision } from './decision-words';

/** What is decided, as of a day. */
interface DecidedOn {
  readonly decisions: readonly Decision[];
  readonly decided: FactDecisions;
  readonly today: Day;
}

/** In what a system's case deviates from another of the same situation, in words. */
export function findDeviations(
  own: System,
  base: System,
  { decisions, decided, today }: DecidedOn
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
  const facts = differingFacts(own, base, decided);
  if (facts.length > 0)
    words.push(
      facts.length > MOST_TOLD ? `${facts.slice(0, MOST_TOLD).join(', ')} and more` : facts.join(', ')
    );
  if (nameCompanions(own) !== nameCompanions(base)) words.push('what it has beside');
  return words.length > 0 ? words : ['a decision the others have'];
}

const MOST_TOLD = 3;

/** Facts of which something else is known, by name. */
function differingFacts(own: System, base: System, decided: FactDecisions): string[] {
  const ids = new Set([...Object.keys(own.facts ?? {}), ...Object.keys(base.facts ?? {})]);
  return [...ids]
    .filter((id) => id !== 'activated' && sayFact(own, id, decided) !== sayFact(base, id, decided))
    .map(naming.fact)
    .sort();
}

const sayFact = (system: System, id: string, decided: FactDecisions): string => {
  const seen = seenOf(system, id, decided);
  return seen.kind === 'known' ? String(seen.value) : seen.kind;
};

const nameCompanions = ({ companions, companionsWhole }: System): string =>
  `${companionsWhole ?? false} ${(companions ?? [])
    .map((c) => c.name)
    .sort()
    .join()}`;

const sayKind = (d: Decision): string => {
  const what =
    'fact' in d.scope
      ? `${naming.fact(d.scope.fact)} `
      : 'companion' in d.scope
        ? `${d.scope.companion} `
        : '';
  return `decided: ${what}${sayDecision(d)}`;
};
