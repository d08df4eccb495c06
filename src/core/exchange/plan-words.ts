import type { Names } from '../catalogue';
import type { Day } from '../date';
import type { CasePlan, SaidFinding } from '../plan';
import type { Demanded, Reason, Risk, SeenPart, Step } from '../route';

/** What the values of a plan read as; whoever writes a file hands them in, so that no format makes sentences of its own. */
export interface PlanWords {
  readonly reason: (reason: Reason) => string;
  readonly seen: (seen: readonly SeenPart[]) => string;
  readonly demanded: (demanded: Demanded) => string;
  readonly risks: (risks: readonly Risk[]) => string[];
  readonly step: (step: Step, names: Names) => string;
  readonly found: (plan: CasePlan, today: Day) => SaidFinding;
}
