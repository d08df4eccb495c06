import { generateWorld } from './generate';
import { plan } from '../src/core/plan/plan';
const which = process.argv[2];
const world = generateWorld(7, 1000, 40);
const { catalogue, estate, ...rest } = world;
const cal =
  which === 'none'
    ? []
    : [
        {
          id: 'all',
          zone: 'UTC',
          windows: [
            { id: 'nights', start: '2030-01-07T22:00', rule: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH', minutes: 480 }
          ],
          freezes: which === 'wf' ? [{ first: '2031-12-13', last: '2032-01-02' }] : []
        }
      ];
const s = performance.now();
plan({ ...rest, catalogue, estate: { ...estate, calendars: cal }, every: 'goal' } as never);
console.log(which, performance.now() - s);
