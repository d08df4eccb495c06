import * as core from '$core/estate';
import type { Decision, Goal, Question, Site, System, Target, Workspace } from '$core/estate';
import { formatDay } from '$core/date';
import type { CasePlan } from '$core/plan';
import { sayCount, sayEntry } from '$core/wording';
import { desk } from './desk.svelte';
import { plain } from './plain.svelte';
import { settings } from './settings.svelte';

/*
 * What people do to the estate on the desk: what it changes is the core's (estate/commands), the words it is announced
 * and undone by are said here.
 */

/** A workspace in the place of what is here, as one change. */
export function openWorkspace(
  label: string,
  { catalogue, format: _format, version: _version, ...estate }: Workspace
): Promise<void> {
  void [_format, _version];
  return replaceEstate(label, estate, catalogue);
}

/** The estate and its catalogue's text in the place of what is here, as one change. */
export const replaceEstate = (
  label: string,
  estate: core.Estate,
  catalogue: core.CatalogueText
): Promise<void> =>
  desk.commit(label, core.writesOfWorkspace(plain(estate), plain(catalogue), desk.keeper.records));

export const startOver = (): Promise<void> =>
  desk.commit('Started over with nothing', core.writesOfNothing(desk.keeper.records));

/** Adds a system; where it takes another's place both keep that in their history. */
export function addSystem(system: System, replaces?: System): Promise<void> {
  const by = { day: formatDay(desk.today), ...(settings.who ? { who: settings.who } : {}) };
  const label = `Added ${system.name}${replaces ? ` in the place of ${replaces.name}` : ''}`;
  return desk.commit(label, core.addSystem(plain(system), replaces, by));
}

export const saveSystems = (label: string, systems: readonly System[]): Promise<void> =>
  desk.commit(label, core.keepSystems(plain(systems)));

export const setCatalogue = (label: string, { fileName, text }: core.CatalogueText): Promise<void> =>
  desk.commit(label, core.keepCatalogue(fileName, text));

/** Takes a catalogue with the systems of an estate that can be placed now, as one change. */
export const keepCatalogue = (
  label: string,
  text: string,
  systems: readonly System[],
  from: core.Estate
): Promise<void> =>
  desk.commit(
    label,
    [
      ...core.keepCatalogue(desk.catalogueText.fileName || 'catalogue.yaml', text),
      ...core.keepSystems(plain(systems))
    ],
    from
  );

/** A ruling: of an entry stated in several ways this statement holds; undefined takes the ruling back. */
export async function rule(entry: string, holds: string | undefined, reason: string): Promise<void> {
  const what = sayEntry(entry, desk.naming);
  if (holds === undefined)
    return desk.commit(`Took back the ruling on ${what}`, core.ruleOn(desk.estate, entry, undefined));
  const ruling = { ...(await desk.decidedBy()), holds, ...(reason === '' ? {} : { reason }) };
  return desk.commit(`Ruled on ${what}: ${holds} holds`, core.ruleOn(desk.estate, entry, ruling));
}

/** A ruling on a disputed fact, or an assumption in the place of an unknown one; undefined takes both back. */
export async function decideFact(
  { id: system, name }: System,
  fact: string,
  decided: core.DecidedFact | undefined,
  more: { reason?: string; until?: string } = {}
): Promise<void> {
  const of = { system, fact };
  const what = `${desk.naming.fact(fact)} of ${name}`;
  if (!decided)
    return desk.commit(`Took back what was decided of ${what}`, core.decideFact(desk.estate, of, undefined));
  const by = { ...(await desk.decidedBy()), ...more };
  const label =
    'holds' in decided
      ? `Ruled on ${what}: ${decided.holds} holds`
      : `Assumed ${what}: ${String(decided.value)}`;
  return desk.commit(label, core.decideFact(desk.estate, of, { ...by, ...decided }));
}

export const saveDecision = (label: string, decision: Decision): Promise<void> =>
  desk.commit(label, core.keepDecision(plain(decision)));

export const removeDecision = (decision: Decision): Promise<void> =>
  desk.commit(`Took back a decision: ${decision.kind}`, core.dropDecision(decision));

export const saveCalendars = (label: string, calendars: readonly core.WorkCalendar[]): Promise<void> =>
  desk.commit(label, core.keepCalendars(plain(calendars)));

/** Host keys somebody has looked at and taken. */
export const takeHostKeys = (label: string, keys: readonly core.HostKey[]): Promise<void> =>
  desk.commit(label, core.takeHostKeys(plain(desk.estate), keys));

export const saveQuestions = (label: string, questions: readonly Question[]): Promise<void> =>
  desk.commit(label, core.keepQuestions(plain(questions)));

/** The goal of a team, or with undefined the team follows the one of all others again. */
export function saveGoal(team: string | undefined, goal: Goal | undefined, label?: string): Promise<void> {
  const name = team === undefined ? 'all other teams' : team;
  return desk.commit(
    label ?? (goal ? `Set the goal of ${name}` : `${name} follows the goal of all others again`),
    core.keepGoal(desk.estate, team, plain(goal))
  );
}

/** Systems into another team; two teams into one where no systems are named. */
export function moveToTeam(move: core.TeamMove): Promise<void> {
  const label = move.systems
    ? `${sayCount(move.systems.length, 'system')} of ${move.from} into ${move.to}`
    : `Joined ${move.from} to ${move.to}`;
  return desk.commit(label, plain(core.writesBetween(desk.estate, core.moveToTeam(desk.estate, move))));
}

export const saveSite = (label: string, site: Site): Promise<void> =>
  desk.commit(label, core.keepSite(plain(site)));

export const setAsOf = (day: string | undefined): Promise<void> =>
  desk.commit(
    day ? `Planning as of ${day}` : 'Planning as of the day it is',
    core.planAsOf(desk.estate, day)
  );

/** Picking a tread is a decision: the last one for a situation stands. */
export async function chooseTarget(plan: CasePlan, target: Target): Promise<void> {
  const names = desk.namesOf(plan);
  const by = await desk.decidedBy();
  return desk.commit(
    `Target of ${desk.describe(plan)} is now ${names.product} ${names.target(target)}`,
    core.chooseTarget(desk.estate, plan, target, by)
  );
}

/** Takes the decisions of the situation back, so that the goal's rule chooses again. */
export const followGoal = (plan: CasePlan): Promise<void> =>
  desk.commit(`${desk.describe(plan)} follows its goal again`, core.followGoal(desk.estate, plan));
