import snmp from 'net-snmp';
import type { Credentials, Target } from '$lib/machines/told';
import { oneLine, recordOf, Silent, silenceOf } from './limits';

type Way = Extract<Credentials, { by: 'snmp' }>;
interface Varbind {
  readonly oid: string;
  readonly type: number;
  readonly value: unknown;
}
type Session = ReturnType<typeof snmp.createSession>;

/** The system group (RFC 3418), the table of entities (RFC 6933) and of host resources (RFC 2790). */
const SYSTEM = { description: '1.3.6.1.2.1.1.1.0', name: '1.3.6.1.2.1.1.5.0', location: '1.3.6.1.2.1.1.6.0' };
const ENTITIES = '1.3.6.1.2.1.47.1.1.1.1';
const ENTITY = { class: '5', software: '10', model: '13', name: '7' };
const CHASSIS = '3';
const MEMORY = '1.3.6.1.2.1.25.2.2.0';
const STORAGE = '1.3.6.1.2.1.25.2.3.1';
const FIXED_DISK = '1.3.6.1.2.1.25.2.1.4';

/** No table is read further: an agent that goes on for ever is let go. */
const MOST_VALUES = 4000;
const ANSWER_MS = 4000;

const textOf = (value: unknown): string =>
  oneLine(Buffer.isBuffer(value) ? value.toString('utf8') : String(value ?? ''));

function open({ address, port }: Target, way: Way): Session {
  const options = {
    port,
    retries: 1,
    timeout: ANSWER_MS,
    transport: address.includes(':') ? 'udp6' : 'udp4'
  };
  if ('community' in way)
    return snmp.createSession(address, way.community, { ...options, version: snmp.Version2c } as never);
  const level = way.privacy
    ? snmp.SecurityLevel.authPriv
    : way.authentication
      ? snmp.SecurityLevel.authNoPriv
      : snmp.SecurityLevel.noAuthNoPriv;
  const user = {
    name: way.user,
    level,
    ...(way.authentication ? { authProtocol: snmp.AuthProtocols.sha, authKey: way.authentication } : {}),
    ...(way.privacy ? { privProtocol: snmp.PrivProtocols.aes, privKey: way.privacy } : {})
  };
  return snmp.createV3Session(address, user as never, { ...options, version: snmp.Version3 } as never);
}

/** What went wrong, by the words of the client: nobody answers wrong communities. */
function wrongOf(error: unknown): Silent {
  const { name = '', message = '' } = (error ?? {}) as { name?: string; message?: string };
  if (name === 'RequestTimedOutError') return new Silent('says nothing');
  if (/unknown user|wrong digest|decryption|authentication|not in time/i.test(message))
    return new Silent('wrong key');
  return silenceOf(error);
}

const get = (session: Session, oids: readonly string[]): Promise<readonly Varbind[]> =>
  new Promise((resolve, reject) =>
    session.get([...oids], (error: unknown, found: unknown) =>
      error ? reject(wrongOf(error)) : resolve(found as Varbind[])
    )
  );

/**
 * A table's values by what follows its own number; an empty one where the machine has none. Numbers have to go on: an agent that tells the
 * same again, or that it is at its end, is asked no further.
 */
function walk(session: Session, table: string): Promise<ReadonlyMap<string, string>> {
  const found = new Map<string, string>();
  const take = (varbinds: readonly Varbind[]): boolean => {
    for (const v of varbinds) {
      const at = v.oid.slice(table.length + 1);
      if (snmp.isVarbindError(v as never) || at === '' || found.has(at)) return true;
      found.set(at, textOf(v.value));
    }
    return varbinds.length === 0 || found.size > MOST_VALUES;
  };
  return new Promise((resolve) =>
    session.subtree(
      table,
      20,
      (varbinds: unknown) => take(varbinds as Varbind[]),
      // What a machine does not have, or stops telling, is not told.
      () => resolve(found)
    )
  );
}

/**
 * Asks a machine over SNMP, version 2c or 3 (RFC 3411): what it is called, what it says of itself, its chassis with model and software,
 * memory and disks. Throws `Silent`.
 */
export async function askSnmp(
  target: Target,
  way: Way,
  { signal, today }: { readonly signal: AbortSignal; readonly today: string }
): Promise<{ readonly record: string }> {
  if (signal.aborted) throw new Silent('stopped');
  const session = open(target, way);
  let stop = (): void => undefined;
  const stopped = new Promise<never>((_, reject) => {
    stop = (): void => reject(new Silent(signal.reason === 'time' ? 'timed out' : 'stopped'));
    signal.addEventListener('abort', stop);
    session.on('error', (error: unknown) => reject(wrongOf(error)));
  });
  try {
    return { record: await Promise.race([read(session, today), stopped]) };
  } finally {
    signal.removeEventListener('abort', stop);
    session.close();
  }
}

async function read(session: Session, today: string): Promise<string> {
  const system = await get(session, [SYSTEM.description, SYSTEM.name, SYSTEM.location]);
  const of = (oid: string): string => {
    const found = system.find((v) => v.oid === oid);
    return found && !snmp.isVarbindError(found as never) ? textOf(found.value) : '';
  };
  const entities = await walk(session, ENTITIES);
  const chassis = [...entities].find(
    ([at, value]) => at.startsWith(`${ENTITY.class}.`) && value === CHASSIS
  )?.[0];
  const part = (column: string): string =>
    chassis === undefined ? '' : (entities.get(`${column}.${chassis.slice(2)}`) ?? '');
  const memory = await get(session, [MEMORY]).catch(() => []);
  const kilobytes = Number(
    memory[0] && !snmp.isVarbindError(memory[0] as never) ? memory[0].value : Number.NaN
  );
  const storage = await walk(session, STORAGE);
  const runs = [part(ENTITY.name), part(ENTITY.software)].filter((t) => t !== '').join(' ');
  return recordOf([
    ['name', of(SYSTEM.name)],
    ['read on', today],
    ['installed', part(ENTITY.software) === '' ? of(SYSTEM.description) : runs],
    ['site', of(SYSTEM.location)],
    ['model', part(ENTITY.model)],
    ['memory', kilobytes > 0 ? `${Math.round(kilobytes / 1024)} MB` : undefined],
    ['disk.total', diskOf(storage)]
  ]);
}

/** The largest fixed disk, in gigabytes. */
function diskOf(storage: ReadonlyMap<string, string>): string | undefined {
  const sizes = [...storage].flatMap(([at, type]) => {
    if (!at.startsWith('2.') || type !== FIXED_DISK) return [];
    const index = at.slice(2);
    return Number(storage.get(`4.${index}`)) * Number(storage.get(`5.${index}`));
  });
  const most = Math.max(0, ...sizes.filter((s) => Number.isFinite(s)));
  return most > 0 ? `${Math.round(most / 1e9)} GB` : undefined;
}
