import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import { Parser } from 'htmlparser2';
import { parseDay } from '../../src/core/date';
import { dueWithin, formatDueJunit } from '../../src/core/exchange';
import { sayDueFound } from '../../src/core/wording/due';
import type { Plan } from '../../src/core/plan';

const place = mkdtempSync(join(tmpdir(), 'pipeline-'));
afterAll(() => rmSync(place, { recursive: true, force: true }));
const list = join(place, 'machines.csv');
writeFileSync(list, 'name,os\na,Brindle Server 7\nb,Brindle Server 9\nc,Something else 3\n');
const ARGS = ['scripts/run-bundled.mjs', 'plan', '--catalogue', 'demo/catalogue.yaml', '--estate', list];
const plan = (...more: string[]) => spawnSync(process.execPath, [...ARGS, ...more], { encoding: 'utf8' });

test('a pipeline hears by the exit code whether something is due within so many days, and which', () => {
  // Service of 7 ends on 4 April 2031: 25 days after the day asked about.
  const soon = plan('--today', '2031-03-10', '--due', '30', '--format', 'junit');
  expect(soon.status).toBe(3);
  expect(soon.stderr).toContain('a: its deadline is on 2031-04-04');
  expect(soon.stdout).toContain('tests="3" failures="1" skipped="1"');
  const later = plan('--today', '2031-03-10', '--due', '5', '--format', 'csv');
  expect([later.status, later.stdout.split('\r\n')[0]?.startsWith('system,')]).toEqual([0, true]);
  expect(plan('--today', '2031-03-10', '--due', 'soon').status).toBe(2);
  expect(plan('--format', 'pdf').status).toBe(2);
});

test('watching, it plans anew when a file changes, and waits out what is amiss', async () => {
  const child = spawn(process.execPath, [...ARGS, '--today', '2031-03-10', '--format', 'csv', '--watch'], {
    stdio: 'pipe'
  });
  let said = '';
  child.stdout.on('data', (part) => (said += String(part)));
  child.stderr.on('data', (part) => (said += String(part)));
  const until = async (text: string): Promise<void> => {
    while (!said.includes(text)) await Promise.race([once(child.stdout, 'data'), once(child.stderr, 'data')]);
  };
  await until('b,');
  writeFileSync(list, '');
  await until(`${list}: `);
  writeFileSync(list, 'name,os\nz,Brindle Server 8\n');
  await until('\nz,');
  child.kill('SIGKILL');
});

test('what XML has no place for, and what it uses itself, are kept out of names', () => {
  const today = parseDay('2031-03-10') ?? 0;
  const systems = ['<a & "b">', 'c\u0000\u001fd', 'e\ud800'];
  const cases = [{ systems, verdict: 'straight', deadline: { day: today + 1, contributors: [] } }];
  const due = dueWithin({ cases } as unknown as Plan, { today, days: 2 });
  const text = formatDueJunit(due, { today, say: (d) => sayDueFound(d, undefined) });
  const names: string[] = [];
  const parser = new Parser(
    { onopentag: (tag, { name }) => tag === 'testcase' && names.push(name ?? '') },
    { xmlMode: true }
  );
  parser.end(text);
  expect(names).toEqual(['<a & "b">', 'c??d', 'e?']);
  expect(readFileSync('docs/api.md', 'utf8')).toContain('--due DAYS');
});
