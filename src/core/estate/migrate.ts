import type { Decision, WhatIf } from './schema';

/*
 * Up to version 5 a chosen way was the ids of its counted steps. Versions 2 to 5 only added entries and fields: rulings on the
 * catalogue (2), what is recorded of systems beyond what is installed (3), what decisions are about (4), nodes on releases of
 * their own and editions of held rights (5). Version 7 added calendars, ways back, and what goals limit and keep back.
 */

/** A stored decision as the present version has it; the same one where it is so already. */
export const migrateDecision = (decision: Decision): Decision => {
  const route: unknown = decision.route;
  return Array.isArray(route) && route.some((step) => typeof step === 'string')
    ? {
        ...decision,
        route: route.map((step: unknown) => (typeof step === 'string' ? { step } : step)) as Decision['route']
      }
    : decision;
};

/** The same of what is tried. */
export const migrateWhatIf = (tried: WhatIf): WhatIf => ({
  ...tried,
  changes: tried.changes.map((c) => ('decide' in c ? { decide: migrateDecision(c.decide as Decision) } : c))
});

/** What was read of an estate, as the present version has it. What is no estate comes back as it is: the schema tells. */
export function migrateEstate(value: unknown): unknown {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return value;
  const { decisions, whatIfs } = value as { decisions?: unknown; whatIfs?: unknown };
  return {
    ...value,
    ...(Array.isArray(decisions)
      ? { decisions: decisions.map((d: unknown) => (isEntry(d) ? migrateDecision(d as Decision) : d)) }
      : {}),
    ...(Array.isArray(whatIfs)
      ? { whatIfs: whatIfs.map((w: unknown) => (hasChanges(w) ? migrateWhatIf(w) : w)) }
      : {})
  };
}

const isEntry = (value: unknown): value is object => typeof value === 'object' && value !== null;

const hasChanges = (value: unknown): value is WhatIf =>
  isEntry(value) &&
  'changes' in value &&
  Array.isArray(value.changes) &&
  value.changes.every((c: unknown) => isEntry(c) && (!('decide' in c) || isEntry(c.decide)));
