import { test } from 'vitest';
import { findOrder } from '../../src/core/order/search';
import { orderWorldOf } from '../support/order-worlds';
test('x', () => {
  const { problem } = orderWorldOf(131);
  const f = findOrder(problem);
  console.log(JSON.stringify(f.cost), f.finish, f.proven, problem.by);
  for (const w of f.waves) console.log(JSON.stringify(w.steps), JSON.stringify(w.bound), JSON.stringify(w.days));
  console.log(JSON.stringify(problem.apart), JSON.stringify(problem.pilots), JSON.stringify(problem.parts.map((p) => [p.deadline, p.watches, p.nodes.length])));
}, 600000);
