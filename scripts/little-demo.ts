import { readFileSync } from 'node:fs';
import type { Estate, System } from '../src/core/estate/schema';

/** One system of every kind of thing in the demo: each product, verdict, link, decision and trap once. */
const KEPT: ReadonlySet<string> = new Set([
  ...['draw-01', 'tick-06', 'tick-23', 'west-04', 'ctrl-01', 'board-01', 'hall-01', 'rack-01', 'trial-01'],
  ...[
    'shelf-north',
    'recorder-01',
    'cad-01',
    'cad-06',
    'survey-02',
    'pool-01',
    'early',
    'stop-07',
    'stop-24'
  ],
  ...['keeper', 'host-b-01', 'host-b-02', 'mirror-east', 'mirror-west'],
  ...['depot-hub', 'depot-content', 'depot-watch', 'depot-ledger'],
  ...['door-market', 'door-harbour', 'door-west', 'door-old', 'spare-01', 'stop-new']
]);

/** The demo's little sister, for tests that need every kind of thing and not so many of them. Links to what is left out go with it. */
export function littleOf(demo: Estate): Estate {
  const systems = demo.systems
    .filter((s) => KEPT.has(s.id))
    .map((s): System =>
      s.links ? { ...s, links: s.links.filter((l) => !('to' in l) || KEPT.has(l.to)) } : s
    );
  const isThere = (scope: object): boolean =>
    !('system' in scope) || scope.system === undefined || KEPT.has(String(scope.system));
  return {
    ...demo,
    systems,
    decisions: demo.decisions.filter((d) => isThere(d.scope)),
    questions: (demo.questions ?? []).filter(isThere)
  };
}

/** The same as a workspace file, as `demo/saltmarsh.json` is one. */
export function littleText(): string {
  const demo = JSON.parse(readFileSync('demo/saltmarsh.json', 'utf8')) as Estate;
  return JSON.stringify({ ...demo, ...littleOf(demo) });
}
