import {
  checkCalendars,
  DEFAULT_GOAL,
  type Estate,
  LONG_LISTS,
  migrateEstate,
  type Workspace,
  WORKSPACE_FORMAT,
  WORKSPACE_VERSION,
  workspaceSchema
} from '../estate';
import { fail, type Result, succeed } from '../kit';
import { parseCatalogue } from './catalogue-file';
import { findTextFault, findValueFault } from './guard';
import { readLarge } from './zod-issues';

/** Parses JSON text with the guards every file passes: size, zero bytes, nesting, forbidden keys. */
export function parseJson(text: string): Result<unknown> {
  const fault = findTextFault(text);
  if (fault) return fail(fault);
  let value: unknown;
  try {
    value = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch (error) {
    const detail = error instanceof Error ? error.message : String(error);
    return fail({ code: 'syntax', detail, ...placeOf(text, detail) });
  }
  const valueFault = findValueFault(value, text);
  return valueFault ? fail(valueFault) : succeed(value);
}

/** The engine tells the place as an offset or as line and column, in words. */
function placeOf(text: string, message: string): { line?: number; column?: number } {
  const offset = /position (\d+)/.exec(message)?.[1];
  if (offset === undefined) return {};
  const before = text.slice(0, Number(offset)).split('\n');
  return { line: before.length, column: (before[before.length - 1]?.length ?? 0) + 1 };
}

/** Reads a workspace file. Its catalogue text is read too, so that nothing is taken in half. */
export function parseWorkspace(text: string): Result<Workspace> {
  const json = parseJson(text);
  return json.ok ? readWorkspace(json.value) : json;
}

/** Reads a workspace already parsed from JSON. */
export function readWorkspace(value: unknown): Result<Workspace> {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    return fail({ code: 'not-an-object' });
  const { format, version } = value as Record<string, unknown>;
  if (format !== WORKSPACE_FORMAT) return fail({ code: 'wrong-format', detail: WORKSPACE_FORMAT });
  if (typeof version === 'number' && version > WORKSPACE_VERSION)
    return fail({ code: 'newer-version', detail: String(version) });
  const older = typeof version === 'number' && version >= 1 && version < WORKSPACE_VERSION;
  const migrated = older ? { ...(migrateEstate(value) as object), version: WORKSPACE_VERSION } : value;
  const parsed = readLarge(workspaceSchema, migrated, LONG_LISTS);
  if (!parsed.ok) return parsed;
  const twice = findTwice(parsed.value.systems.map((s) => s.id));
  if (twice !== undefined) return fail({ code: 'duplicate-id', detail: twice, path: ['systems'] });
  const amiss = checkCalendars(parsed.value.calendars ?? []);
  if (amiss.length > 0) return fail(...amiss);
  const catalogue =
    parsed.value.catalogue.text.trim() === '' ? undefined : parseCatalogue(parsed.value.catalogue.text);
  if (catalogue && !catalogue.ok)
    return fail(...catalogue.issues.map((i) => ({ code: 'catalogue', within: i, path: ['catalogue'] })));
  return succeed(withDefaultGoal(parsed.value));
}

function withDefaultGoal(workspace: Workspace): Workspace {
  return workspace.goals.some((g) => g.team === undefined)
    ? workspace
    : { ...workspace, goals: [...workspace.goals, DEFAULT_GOAL] };
}

/** The first id that is there a second time. */
export function findTwice(ids: readonly string[]): string | undefined {
  const seen = new Set<string>();
  return ids.find((id) => seen.has(id) || (seen.add(id), false));
}

/** The workspace file of an estate; `parseWorkspace` reads it back to an equal value. */
export function formatWorkspace(estate: Estate, catalogue: Workspace['catalogue']): string {
  const workspace: Workspace = { format: WORKSPACE_FORMAT, version: WORKSPACE_VERSION, ...estate, catalogue };
  return JSON.stringify(workspace, null, 1) + '\n';
}
