import type { Risk } from '../route';

/** Risks in words, without full stops; what reads the same is said once. */
export const sayRisks = (risks: readonly Risk[]): string[] => [...new Set(risks.map(sayRisk))];

function sayRisk({ kind, name, because }: Risk): string {
  const what = name ?? 'a figure nobody has stated';
  const why = because ? `: ${because}` : '';
  switch (kind) {
    case 'unsupported':
      return `unsupported: ${because ?? `the hop to ${what}`}`;
    case 'withheld':
      return `the hop to ${what} is withheld from this machine${why}`;
    case 'no way back':
      return 'gives up the way back';
    case 'degrades':
      return `works badly without: ${what}`;
    case 'loses':
      return `a feature is lost: ${what}`;
    case 'advises':
      return `advised: ${what}`;
    default:
      return `${kind}: ${what}`;
  }
}
