import { createServer as createHttps } from 'node:https';
import type { AddressInfo } from 'node:net';
import snmp from 'net-snmp';
import { generate } from 'selfsigned';
import ssh2 from 'ssh2';
import type { StandIn } from './machine';

/** What lets anybody in to a stand-in; nothing else is there to be let in to. */
export const STAND_IN = {
  user: 'stair',
  password: 'only-a-stand-in',
  community: 'only-stand-ins',
  authentication: 'only-stand-ins-sign',
  privacy: 'only-stand-ins-hide'
} as const;

/** Something that listens on a port of this machine's loopback. */
export interface Running {
  readonly port: number;
  close(): void;
}

const HERE = '127.0.0.1';

/** A host key; of those that the package makes, one in some hundred cannot be read again. */
function makeHostKey(): string {
  for (;;) {
    const { private: key } = ssh2.utils.generateKeyPairSync('ed25519');
    if (!(ssh2.utils.parseKey(key) instanceof Error)) return key;
  }
}

/** A machine that is asked over SSH: whatever it is told to run, it prints its record. */
export function standInSsh(
  machine: StandIn,
  day: () => string,
  { port = 0, isAsking = false }: { readonly port?: number; readonly isAsking?: boolean } = {}
): Promise<Running> {
  const key = makeHostKey();
  const server = new ssh2.Server({ hostKeys: [key] }, (client) => {
    client.on('error', () => undefined);
    client.on('authentication', (asked) => {
      const isRight =
        asked.method === 'password' &&
        asked.username === STAND_IN.user &&
        asked.password === STAND_IN.password;
      // One of two asks as many real ones do: by a question of its own.
      if (isRight && !isAsking) asked.accept();
      else if (asked.method === 'keyboard-interactive' && isAsking && asked.username === STAND_IN.user)
        asked.prompt([{ prompt: 'Password: ', echo: false }], ([said]) =>
          said === STAND_IN.password ? asked.accept() : asked.reject()
        );
      else asked.reject([isAsking ? 'keyboard-interactive' : 'password']);
    });
    client.on('session', (accept) =>
      accept().on('exec', (take) => {
        const stream = take();
        stream.resume();
        stream.write(machine.record(day()));
        stream.exit(0);
        stream.end();
      })
    );
  });
  return new Promise((resolve) =>
    server.listen(port, HERE, () =>
      resolve({ port: (server.address() as AddressInfo).port, close: () => void server.close() })
    )
  );
}

const SCALARS: readonly (readonly [name: string, oid: string, value: (m: StandIn) => string])[] = [
  ['sysDescr', '1.3.6.1.2.1.1.1', (m) => m.runs],
  ['sysName', '1.3.6.1.2.1.1.5', (m) => m.name],
  ['sysLocation', '1.3.6.1.2.1.1.6', () => 'the stand-ins’ room']
];

/** A machine that is asked over SNMP, version 2c or 3. */
export function standInSnmp(machine: StandIn, port: number): Promise<Running> {
  return new Promise((resolve, reject) => {
    const agent = snmp.createAgent(
      { port, address: HERE, disableAuthorization: false } as never,
      (error: unknown) => {
        if (error) reject(error instanceof Error ? error : new Error(String(error)));
      }
    );
    const authorizer = agent.getAuthorizer();
    authorizer.addCommunity(STAND_IN.community);
    authorizer.addUser({
      name: STAND_IN.user,
      level: snmp.SecurityLevel.authPriv,
      authProtocol: snmp.AuthProtocols.sha,
      authKey: STAND_IN.authentication,
      privProtocol: snmp.PrivProtocols.aes,
      privKey: STAND_IN.privacy
    } as never);
    const mib = agent.getMib();
    for (const [name, oid, value] of SCALARS) {
      mib.registerProvider({
        name,
        type: snmp.MibProviderType.Scalar,
        oid,
        scalarType: snmp.ObjectType.OctetString,
        maxAccess: snmp.MaxAccess['read-only'],
        // It may have changed since it was asked last.
        handler: (request: { done(): void }) => {
          mib.setScalarValue(name, value(machine));
          request.done();
        }
      } as never);
      mib.setScalarValue(name, value(machine));
    }
    resolve({ port, close: () => agent.close() });
  });
}

/** A machine whose manager is asked over Redfish. */
export async function standInRedfish(machine: StandIn, port = 0): Promise<Running> {
  const made = await generate([{ name: 'commonName', value: machine.name }], { keySize: 2048 });
  const wanted = `Basic ${Buffer.from(`${STAND_IN.user}:${STAND_IN.password}`).toString('base64')}`;
  const pages = (): Readonly<Record<string, unknown>> => ({
    '/redfish/v1/': { Systems: at('Systems'), Managers: at('Managers'), UpdateService: at('UpdateService') },
    '/redfish/v1/Systems': { Members: [at('Systems/1')] },
    '/redfish/v1/Systems/1': {
      Name: machine.name,
      HostName: machine.name,
      Manufacturer: 'made up',
      Model: machine.product,
      MemorySummary: { TotalSystemMemoryGiB: 8 }
    },
    '/redfish/v1/Managers': { Members: [at('Managers/1')] },
    '/redfish/v1/Managers/1': { Name: 'Manager', Model: 'Rack minder', FirmwareVersion: '2.4' },
    '/redfish/v1/UpdateService': { FirmwareInventory: at('UpdateService/FirmwareInventory') },
    '/redfish/v1/UpdateService/FirmwareInventory': { Members: [at('UpdateService/FirmwareInventory/1')] },
    '/redfish/v1/UpdateService/FirmwareInventory/1': { Name: machine.product, Version: machine.version }
  });
  const server = createHttps({ key: made.private, cert: made.cert }, (asked, answer) => {
    const isIn = asked.headers.authorization === wanted;
    const page = pages()[(asked.url ?? '').replace(/\/$/, asked.url === '/redfish/v1/' ? '/' : '')];
    answer.writeHead(isIn ? (page === undefined ? 404 : 200) : 401, { 'content-type': 'application/json' });
    answer.end(isIn && page !== undefined ? JSON.stringify(page) : '{}');
  });
  return new Promise((resolve) =>
    server.listen(port, HERE, () =>
      resolve({
        port: (server.address() as AddressInfo).port,
        close: () => {
          server.closeAllConnections();
          server.close();
        }
      })
    )
  );
}

const at = (path: string): object => ({ '@odata.id': `/redfish/v1/${path}` });
