import { createServer as createHttps } from 'node:https';
import { createServer, type Socket } from 'node:net';
import { generate } from 'selfsigned';
import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import { parseRecords } from '$core/exchange';
import { FactKinds } from '../../src/core/condition';
import { askAll } from '../../src/lib/server/machines/ask-all';
import { readAsked } from '../../src/lib/server/machines/request';
import { isAskingOn } from '../../src/lib/server/machines/start';
import type { AskRequest, Credentials, Told } from '../../src/lib/machines/told';
import { StandIn } from '../../src/standins/machine';
import { type Running, STAND_IN, standInRedfish, standInSnmp, standInSsh } from '../../src/standins/servers';
import { isQuick } from '../support/laws';
import { freePort, realSnmp, realSsh, type RealServer, SNMP_WORDS } from '../support/real-servers';

const DAY = '2031-03-10';
const here = (port: number) => ({ address: '127.0.0.1', port });

async function ask(
  ports: readonly number[],
  credentials: Credentials,
  known: AskRequest['known'] = {},
  signal = new AbortController().signal
): Promise<Told[]> {
  const told: Told[] = [];
  await askAll(
    { targets: ports.map(here), credentials, known },
    { tell: (t) => void told.push(t), signal, today: DAY }
  );
  return told.sort((a, b) => a.at - b.at);
}
const recordIn = (told: Told | undefined): string =>
  told && 'record' in told ? told.record : JSON.stringify(told);
const said = (text: string) => {
  const read = parseRecords(text, new FactKinds());
  return read.ok ? read.value[0] : undefined;
};

describe('Debian’s own servers', () => {
  let ssh: RealServer;
  let agent: RealServer;
  beforeAll(async () => {
    ssh = await realSsh();
    agent = await realSnmp();
  });
  afterAll(() => {
    ssh.close();
    agent.close();
  });

  test('over SSH: the key is shown before anything is sent, then the collector’s record comes back', async () => {
    const way = { by: 'ssh', user: ssh.user, key: ssh.key } as const;
    const [first] = await ask([ssh.port], way);
    expect(first).toMatchObject({ silence: 'new key', key: expect.stringMatching(/^SHA256:/) });
    const known = { [`ssh 127.0.0.1:${ssh.port}`]: first?.key ?? '' };
    const [told] = await ask([ssh.port], way, known);
    const record = said(recordIn(told));
    expect(record?.name).not.toBe('');
    expect(record?.facts?.['memory']).toBeDefined();
    const [wrong] = await ask([ssh.port], { by: 'ssh', user: ssh.user, password: 'guessed' }, known);
    expect(wrong).toEqual({ at: 0, silence: 'wrong key' });
    const [broken] = await ask([ssh.port], { by: 'ssh', user: ssh.user, key: 'no key at all' }, known);
    expect(broken).toEqual({ at: 0, silence: 'wrong key' });
    const [changed] = await ask([ssh.port], way, { [`ssh 127.0.0.1:${ssh.port}`]: 'SHA256:another' });
    expect(changed).toEqual({ at: 0, silence: 'changed key', key: first?.key, before: 'SHA256:another' });
  });

  test('over SNMP, version 2c and 3: called, described, in its place; a wrong word is not let in', async () => {
    const v2 = said(recordIn((await ask([agent.port], { by: 'snmp', community: agent.key }))[0]));
    expect([v2?.name, v2?.site, v2?.texts.installed?.slice(0, 5)]).toEqual([
      'rack-7',
      'machine room',
      'Linux'
    ]);
    const { authentication, privacy } = SNMP_WORDS;
    const v3 = said(
      recordIn((await ask([agent.port], { by: 'snmp', user: 'reader', authentication, privacy }))[0])
    );
    expect(v3?.name).toBe('rack-7');
    const [wrong] = await ask([agent.port], {
      by: 'snmp',
      user: 'reader',
      authentication: 'not this one',
      privacy
    });
    expect(wrong).toMatchObject({ silence: 'wrong key' });
    const [silent] = await ask([agent.port], { by: 'snmp', community: 'not-this' });
    expect(silent).toMatchObject({ silence: 'says nothing' });
  });
});

/** Machines that mean no good, by what they do with whoever connects. */
const HOSTILE: readonly ((socket: Socket) => void)[] = [
  () => undefined,
  (s) => void s.write('HTTP/1.1 400 not here\r\n\r\n'),
  (s) => void s.end(),
  (s) => void s.write('SSH-2.0-x\r\n', () => s.destroy()),
  (s) => {
    const flood = (): void => {
      while (!s.destroyed && s.write(Buffer.alloc(65_536, 120)));
      s.once('drain', flood);
    };
    flood();
  }
];

async function hostile(what: (socket: Socket) => void): Promise<Running> {
  const sockets = new Set<Socket>();
  const server = createServer((s) => {
    sockets.add(s);
    s.on('error', () => undefined);
    what(s);
  });
  const port = await freePort();
  await new Promise<void>((done) => server.listen(port, '127.0.0.1', done));
  return { port, close: () => (server.close(), sockets.forEach((s) => s.destroy())) };
}

describe('stand-ins', () => {
  const running: Running[] = [];
  afterAll(() => running.forEach((r) => r.close()));
  const keep = async (one: Promise<Running>): Promise<number> => {
    const started = await one;
    running.push(started);
    return started.port;
  };
  const machine = (i: number) =>
    new StandIn({ name: `m-${i}`, product: 'Brindle Server', version: `${6 + (i % 4)}` });

  test('200 machines over three protocols, 20 of them hostile, or a quarter of them: all told, memory bounded, no secret told', async () => {
    const [well, ill] = isQuick ? [15, 5] : [60, 10];
    // A few servers stand for many machines: each is asked anew.
    const ssh = await Promise.all(
      [0, 1, 2].map((i) => keep(standInSsh(machine(i), () => DAY, { isAsking: i === 1 })))
    );
    const snmp = await Promise.all([3, 4].map(async (i) => keep(standInSnmp(machine(i), await freePort()))));
    const redfish = await Promise.all([5, 6].map((i) => keep(standInRedfish(machine(i)))));
    const bad = await Promise.all(HOSTILE.map((h) => keep(hostile(h))));
    const times = (ports: readonly number[], n: number) =>
      Array.from({ length: n }, (_, i) => ports[i % ports.length] as number);
    const { user, password, community } = STAND_IN;
    const ways = { ssh: { by: 'ssh', user, password }, redfish: { by: 'redfish', user, password } } as const;
    const known: Record<string, string> = {};
    for (const [by, ports] of [
      ['ssh', ssh],
      ['redfish', redfish]
    ] as const)
      for (const told of await ask(ports, ways[by])) {
        expect(told).toMatchObject({ silence: 'new key' });
        known[`${by} 127.0.0.1:${ports[told.at]}`] = told.key ?? '';
      }
    const logged: string[] = [];
    for (const stream of [process.stdout, process.stderr])
      vi.spyOn(stream, 'write').mockImplementation((text) => logged.push(String(text)) > 0);
    const before = process.memoryUsage().rss;
    const told = (
      await Promise.all([
        ask([...times(ssh, well), ...times(bad, ill)], ways.ssh, known),
        ask(times(snmp, well), { by: 'snmp', community }),
        ask([...times(redfish, well), ...times(bad, ill)], ways.redfish, known)
      ])
    ).flat();
    expect(told.length).toBe(3 * well + 2 * ill);
    const records = told.filter((t) => 'record' in t);
    expect(records.length).toBe(3 * well);
    for (const t of records) expect(said(recordIn(t))?.name).toMatch(/^m-\d$/);
    const [managed] = await ask(redfish, ways.redfish, known);
    expect(said(recordIn(managed))?.companions).toEqual([{ name: 'Rack minder', version: '2.4' }]);
    const silences = new Set(told.flatMap((t) => ('silence' in t ? [t.silence] : [])));
    expect([...silences].sort()).toEqual(['not understood', 'says nothing', 'timed out']);
    expect(told.filter((t) => 'silence' in t).length).toBe(2 * ill);
    expect(process.memoryUsage().rss - before).toBeLessThan(400 * 2 ** 20);
    vi.restoreAllMocks();
    const text = JSON.stringify(told) + logged.join('');
    for (const secret of Object.values(STAND_IN))
      if (secret !== STAND_IN.user) expect(text).not.toContain(secret);
  });

  test('a manager that answers without end is let go, one whose tree leads elsewhere is not followed', async () => {
    const { private: key, cert } = await generate([{ name: 'commonName', value: 'x' }], { keySize: 2048 });
    for (const [page, silence] of [
      ['{"Systems": "', 'says too much'],
      [
        JSON.stringify({ Systems: { '@odata.id': 'https://elsewhere.example/redfish/v1/Systems' } }),
        'not understood'
      ],
      [JSON.stringify({ Systems: { '@odata.id': '/redfish/v1/../../admin' } }), 'not understood']
    ] as const) {
      const server = createHttps({ key, cert }, (_, answer) => {
        answer.write(page);
        if (page.endsWith('}')) return void answer.end();
        const flood = (): void => {
          while (!answer.destroyed && answer.write('x'.repeat(65_536)));
          answer.once('drain', flood);
        };
        flood();
      });
      const port = await freePort();
      await new Promise<void>((done) => server.listen(port, '127.0.0.1', done));
      running.push({ port, close: () => (server.closeAllConnections(), server.close()) });
      const way = { by: 'redfish', user: 'x', password: 'y' } as const;
      const [first] = await ask([port], way);
      const [told] = await ask([port], way, { [`redfish 127.0.0.1:${port}`]: first?.key ?? '' });
      expect(told).toEqual({ at: 0, silence });
    }
  });

  test('version 3 of a stand-in; nobody there, and leaving in the middle', async () => {
    const port = await keep(standInSnmp(machine(1), await freePort()));
    const { user, authentication, privacy, password } = STAND_IN;
    const [told] = await ask([port], { by: 'snmp', user, authentication, privacy });
    expect(said(recordIn(told))?.texts.installed).toBe('Brindle Server 7');
    const [none] = await ask([await freePort()], { by: 'ssh', user, password });
    expect(none).toEqual({ at: 0, silence: 'refused' });
    const hang = await keep(hostile(HOSTILE[0] as (socket: Socket) => void));
    const leave = new AbortController();
    setTimeout(() => leave.abort(), 300);
    const left = await ask(
      Array.from({ length: 40 }, () => hang),
      { by: 'ssh', user, password },
      {},
      leave.signal
    );
    expect(left.every((t) => 'silence' in t && t.silence === 'stopped')).toBe(true);
    expect(left.length).toBeLessThan(40);
  });
});

test.each([
  ['{', false],
  ['{"targets": [], "credentials": {"by": "snmp", "community": "x"}, "known": {}}', false],
  [
    '{"targets": [{"address": "10.0.0.0/8", "port": 22}], "credentials": {"by": "snmp", "community": "x"}, "known": {}}',
    false
  ],
  [
    '{"targets": [{"address": "a b", "port": 22}], "credentials": {"by": "snmp", "community": "x"}, "known": {}}',
    false
  ],
  [
    '{"targets": [{"address": "rack-7.example", "port": 70000}], "credentials": {"by": "snmp", "community": "x"}, "known": {}}',
    false
  ],
  [
    '{"targets": [{"address": "::1", "port": 161}], "credentials": {"by": "snmp", "community": "x"}, "known": {}}',
    true
  ]
])('%s is a request: %s', (text, isOne) => expect(readAsked(text) !== undefined).toBe(isOne));

test('asking is off where the server listens beyond its own machine, unless it is asked for', () => {
  expect(
    [{}, { HOST: '127.0.0.1' }, { HOST: '0.0.0.0' }, { HOST: '0.0.0.0', ASK_MACHINES: 'on' }].map((e) =>
      isAskingOn(e as NodeJS.ProcessEnv)
    )
  ).toEqual([true, true, false, true]);
});
