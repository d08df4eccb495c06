import { readFileSync } from 'node:fs';
import { parseCatalogue, parseWorkspace } from '../src/core/exchange';
import { Planning, planWith } from '../src/core/plan';
import { orderOf } from '../src/core/order';
import { formatDay } from '../src/core/date';
const r = parseWorkspace(readFileSync('demo/saltmarsh.json', 'utf8'));
if (!r.ok) throw new Error();
const w = r.value as any;
const today = Date.UTC(2031, 2, 10) / 864e5;
const cat = parseCatalogue(w.catalogue.text);
if (!cat.ok) throw new Error('cat');
const planning = new Planning({ catalogue: cat.value, estate: w.estate ?? w, today });
let t = performance.now();
const g = planWith(planning, 'goal');
let m = g.next();
while (!m.done) m = g.next();
const p: any = m.value;
console.log('plan', performance.now() - t);
t = performance.now();
const gen = orderOf(planning, p.cases ?? p.plan?.cases);
let n = gen.next();
while (!n.done) n = gen.next();
console.log('order', performance.now() - t);
for (const c of n.value.components) {
  console.log('==', c.id, 'proven', c.proven, 'crowded', c.crowded, 'standing', c.standing.length);
  for (const q of c.parts)
    console.log(
      '  ',
      q.id,
      q.systems.length,
      q.product,
      q.start.release,
      '->',
      q.goal?.release,
      q.fate,
      q.missed ? 'MISSED' : '',
      q.deadline && formatDay(q.deadline)
    );
  c.waves.forEach((v, i) =>
    console.log(
      '  W',
      i + 1,
      formatDay(v.first),
      formatDay(v.last),
      v.bound.length ? 'BOUND' : '',
      v.steps
        .map(
          (s) =>
            `${c.parts[s.part]!.id}:${s.from.release}>${s.to.release}${s.because.map((b) => `(w${b.wave + 1} ${b.pairing})`).join('')}`
        )
        .join(' ')
    )
  );
  for (const k of c.conflicts)
    console.log(
      '  X',
      k.goals.map((g) => c.parts[g]!.id),
      JSON.stringify(k.constraints),
      k.smallest
    );
}
import { listWays } from '../src/core/route';
for (const id of ['hub', 'host-a-01', 'mirror-east', 'host-b-01', 'keeper', 'mirror-west', 'watch']) {
  const c = p.cases.find((x: any) => x.systems.includes(id));
  console.log(
    id,
    c.systems.length,
    c.verdict,
    c.goalPlan?.sure,
    c.goalPlan?.best,
    JSON.stringify(c.goalPlan?.reasons?.slice(0, 4)).slice(0, 700),
    c.goalPlan?.route?.steps.map((s: any) => s.id ?? s.kind).join()
  );
}
console.log('CASES', p.cases.length, p.situations, p.systems);
