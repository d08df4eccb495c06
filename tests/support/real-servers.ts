import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { connect, createServer, type AddressInfo } from 'node:net';
import { tmpdir, userInfo } from 'node:os';
import { join } from 'node:path';

/** Debian's own servers on high ports of loopback, with configurations of their own; they end with the tests. */
export interface RealServer {
  readonly port: number;
  readonly user: string;
  /** What lets one in: a private key, or words. */
  readonly key: string;
  close(): void;
}

/** A port nobody listens on. */
export function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const server = createServer();
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address() as AddressInfo;
      server.close(() => resolve(port));
    });
  });
}

async function untilOpen(port: number): Promise<void> {
  for (let i = 0; i < 100; i++) {
    const isOpen = await new Promise<boolean>((resolve) => {
      const socket = connect(port, '127.0.0.1');
      socket.on('connect', () => (socket.destroy(), resolve(true)));
      socket.on('error', () => resolve(false));
    });
    if (isOpen) return;
    await new Promise((done) => setTimeout(done, 100));
  }
  throw new Error(`nothing listens on ${port}`);
}

/** Waits until somebody hears what is sent to a port without asking first. */
async function untilBound(port: number): Promise<void> {
  const at = `:${port.toString(16).toUpperCase().padStart(4, '0')} `;
  for (let i = 0; i < 200; i++) {
    if (readFileSync('/proc/net/udp', 'utf8').includes(at)) return;
    await new Promise((done) => setTimeout(done, 100));
  }
  throw new Error(`nobody hears on ${port}`);
}

const ending = (child: ChildProcess, place: string) => (): void => {
  child.kill('SIGKILL');
  rmSync(place, { recursive: true, force: true });
};

/** Debian's SSH server; its one user is whoever runs the tests. */
export async function realSsh(): Promise<RealServer> {
  const place = mkdtempSync(join(tmpdir(), 'ssh-'));
  const port = await freePort();
  for (const name of ['host', 'user'])
    execFileSync('ssh-keygen', ['-q', '-t', 'ed25519', '-N', '', '-f', join(place, name)]);
  if (process.getuid?.() === 0) mkdirSync('/run/sshd', { recursive: true });
  const config = join(place, 'config');
  writeFileSync(
    config,
    [
      `Port ${port}`,
      'ListenAddress 127.0.0.1',
      `HostKey ${join(place, 'host')}`,
      `AuthorizedKeysFile ${join(place, 'user.pub')}`,
      'StrictModes no',
      'PasswordAuthentication no',
      'PermitRootLogin yes',
      'UsePAM no',
      `PidFile ${join(place, 'pid')}`
    ].join('\n')
  );
  const child = spawn('/usr/sbin/sshd', ['-D', '-e', '-f', config], { stdio: 'ignore' });
  await untilOpen(port);
  return {
    port,
    user: userInfo().username,
    key: readFileSync(join(place, 'user'), 'utf8'),
    close: ending(child, place)
  };
}

export const SNMP_WORDS = {
  community: 'a-word-for-reading',
  authentication: 'signed-with-this',
  privacy: 'hidden-with-this'
};

/** Debian's SNMP agent, for versions 2c and 3. */
export async function realSnmp(): Promise<RealServer> {
  const place = mkdtempSync(join(tmpdir(), 'snmp-'));
  const port = await freePort();
  const config = join(place, 'config');
  writeFileSync(
    config,
    [
      `agentAddress udp:127.0.0.1:${port}`,
      'sysName rack-7',
      'sysLocation machine room',
      `rocommunity ${SNMP_WORDS.community} 127.0.0.1`,
      `createUser reader SHA "${SNMP_WORDS.authentication}" AES "${SNMP_WORDS.privacy}"`,
      'rouser reader priv'
    ].join('\n')
  );
  const child = spawn('/usr/sbin/snmpd', ['-f', '-Lo', '-C', '-c', config, '-p', join(place, 'pid')], {
    stdio: 'ignore',
    env: { ...process.env, SNMP_PERSISTENT_DIR: place, SNMPCONFPATH: place }
  });
  await untilBound(port);
  return { port, user: 'reader', key: SNMP_WORDS.community, close: ending(child, place) };
}
