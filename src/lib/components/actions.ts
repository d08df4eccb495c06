import { foldText } from '$core/version';
import { openDemo } from '$lib/state/demo';
import { backUps } from '$lib/state/back-ups.svelte';
import { desk } from '$lib/state/desk.svelte';
import { settings } from '$lib/state/settings.svelte';
import { takeOutDated } from '$lib/state/take-out';
import { tour } from '$lib/state/tour.svelte';
import { recents } from './recent';

/** Something that can be gone to or done from anywhere, by its name. */
export interface Action {
  readonly name: string;
  /** Other words it is found by. */
  readonly words?: string;
  /** Where it goes; else it is done. */
  readonly path?: string;
  readonly run?: () => void;
  /** It opens the help, which stands beside the page. */
  readonly isHelp?: true;
}

const to = (name: string, path: string, words = ''): Action => ({ name, path, words });

/** Every place and every act that is not of one thing alone. */
const ACTIONS: readonly Action[] = [
  to('Estate', '/estate', 'situations machines'),
  to('All systems as a grid', '/estate/systems', 'edit paste rows'),
  to('Goals of the teams', '/estate/teams', 'targets'),
  to('Decisions and open questions', '/estate/decisions', 'rulings'),
  to('What changed', '/estate/changes', 'history import'),
  to('Workspaces', '/estate/workspaces', 'join open beside'),
  to('Stair', '/stair', 'route steps hops'),
  to('Compare targets', '/stair/compare', 'side by side'),
  to('Ready', '/ready', 'in the way cures'),
  to('What has to be fetched', '/ready/fetch', 'buy keys media'),
  to('What to find out', '/ready/questions', 'unknown'),
  to('What was mended since', '/ready/rechecks', 'check again'),
  to('What-ifs', '/ready/what-if', 'try scenario'),
  to('Rights', '/rights', 'licences pools units'),
  to('What to order by month', '/rights/buy', 'purchases'),
  to('What waiting costs', '/rights/waiting', 'price later'),
  to('Dates', '/dates', 'due deadline end of service'),
  to('When work may be done', '/dates/calendars', 'windows freezes calendar'),
  to('Order', '/order', 'waves sequence'),
  to('Worksheets', '/worksheet', 'night work list'),
  to('Catalogue', '/catalogue', 'publishers products'),
  to('Publishers’ tables', '/catalogue/table', 'life cycle paste html csv'),
  to('Make products from what the machines run', '/catalogue/start', 'new unknown'),
  to('Bring in', '/import', 'list csv file'),
  to('Ask machines over the wire', '/import?ask', 'ssh snmp redfish'),
  to('Form to fill in by hand', '/import/form', 'print'),
  to('Handbook on one page', '/help', 'manual print read'),
  { name: 'Undo the last change', words: 'back', run: () => void desk.keeper.undo() },
  { name: 'Do it again', words: 'redo', run: () => void desk.keeper.redo() },
  { name: 'Take out the workspace, with today’s date', words: 'back up export save json', run: takeOutDated },
  { name: 'Back up now', words: 'save folder', run: () => void backUps.now() },
  { name: 'Help for this screen', words: 'handbook manual', isHelp: true },
  { name: 'Be shown round with the demo', words: 'tour help first', run: () => void tour.start() },
  { name: 'Open the demo', words: 'saltmarsh example', run: () => void openDemo() },
  { name: 'Light', words: 'theme', run: () => settings.set({ theme: 'light' }) },
  { name: 'Dark', words: 'theme', run: () => settings.set({ theme: 'dark' }) }
];

const MOST_FOUND = 12;
const MOST_SYSTEMS = 5;

/** What some words find: acts and places whose words begin so, then systems by name; without words where this tab was last. */
export function findActions(text: string, here: string): readonly Action[] {
  const wanted = foldText(text).split(' ').filter(Boolean);
  if (wanted.length === 0) {
    const before = recents().filter((r) => r.path !== here);
    const seen = new Set(before.map((r) => r.path));
    return [
      ...before.map(({ path, name }) => to(name, path)),
      ...ACTIONS.filter((a) => a.path === undefined || (a.path !== here && !seen.has(a.path)))
    ].slice(0, MOST_FOUND);
  }
  const begins = (said: string): boolean => {
    const words = foldText(said).split(/[\s,’-]+/);
    return wanted.every((w) => words.some((word) => word.startsWith(w)));
  };
  const byName = ACTIONS.filter((a) => begins(a.name));
  const byWords = ACTIONS.filter((a) => !byName.includes(a) && begins(`${a.name} ${a.words ?? ''}`));
  const systems: Action[] = [];
  for (const { id, name } of desk.estate.systems) {
    if (systems.length >= MOST_SYSTEMS) break;
    if (foldText(name).startsWith(foldText(text)))
      systems.push(to(`${name}: its stair`, `/stair?at=${encodeURIComponent(id)}`));
  }
  return [...byName, ...byWords, ...systems].slice(0, MOST_FOUND);
}
