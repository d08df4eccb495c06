import { formatDay } from '../date';
import type { DueSystem } from '../exchange';
import type { SaidFinding } from '../plan';

/** What is due of a system, as a sentence for a pipeline's log, with what is found of it. */
export const sayDueFound = (due: DueSystem, found: SaidFinding | undefined): string =>
  found ? `${sayDue(due)} (${found.line})` : sayDue(due);

function sayDue({ system, what, day }: DueSystem): string {
  const on = day === undefined ? '' : ` on ${formatDay(day)}`;
  switch (what) {
    case 'deadline':
      return `${system}: its deadline is${on}`;
    case 'latest start':
      return `${system}: work has to start by ${day === undefined ? 'now' : formatDay(day)}`;
    case 'late':
      return `${system}: no start ends in time any more${day === undefined ? '' : `; its deadline is${on}`}`;
    case 'unknown':
      return `${system}: nobody can tell yet`;
    case 'nothing':
      return `${system}: nothing`;
  }
}
