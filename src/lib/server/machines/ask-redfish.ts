import { Agent, request } from 'node:https';
import { connect, type TLSSocket } from 'node:tls';
import { z } from 'zod';
import type { Credentials, Target } from '$lib/machines/told';
import { MOST_BYTES, MOST_SENT, recordOf, Silent, silenceOf } from './limits';

type Way = Extract<Credentials, { by: 'redfish' }>;

/** So many pages of one machine are read, and no more. */
const MOST_PAGES = 60;
const MOST_MEMBERS = 16;

/** A path of the machine's own tree; nothing else is ever fetched. */
const path = z
  .string()
  .regex(/^\/redfish\/v1(\/(?!\.\.?(?:\/|$))[\w.~!$&'()*+,;=:@-]*)*$/)
  .max(500);
const link = z.looseObject({ '@odata.id': path });
const members = z.looseObject({ Members: z.array(link).max(1000).catch([]) }).catch({ Members: [] });
const word = z.string().max(2000).optional().catch(undefined);
const amount = z.number().optional().catch(undefined);
const root = z.looseObject({
  Systems: link,
  Managers: link.optional().catch(undefined),
  UpdateService: link.optional().catch(undefined)
});
const system = z.looseObject({
  Name: word,
  HostName: word,
  Model: word,
  Manufacturer: word,
  BiosVersion: word,
  ProcessorSummary: z.looseObject({ Model: word, CoreCount: amount }).optional().catch(undefined),
  MemorySummary: z.looseObject({ TotalSystemMemoryGiB: amount }).optional().catch(undefined)
});
const inventory = z.looseObject({ FirmwareInventory: link.optional().catch(undefined) });
const firmware = z.looseObject({ Name: word, Version: word });
const manager = z.looseObject({ Name: word, Model: word, FirmwareVersion: word });

/** Connections to a machine whose certificate is the one that was taken; nothing is sent over any other. */
function agentFor(
  { address, port }: Target,
  {
    known,
    signal,
    told
  }: { readonly known: string | undefined; readonly signal: AbortSignal; told(key: string): void }
): Agent {
  const agent = new Agent({ keepAlive: true, maxSockets: 2 });
  agent.createConnection = (_options, done) => {
    const socket: TLSSocket = connect(
      { host: address, port, rejectUnauthorized: false, servername: '' },
      () => {
        const key = `SHA256:${socket.getPeerCertificate().fingerprint256 ?? ''}`;
        told(key);
        if (known === key) return done?.(null, socket);
        socket.destroy();
        done?.(
          known === undefined ? new Silent('new key', key) : new Silent('changed key', key, known),
          socket
        );
      }
    );
    let sent = 0;
    socket.on('data', (part: Buffer) => {
      sent += part.length;
      if (sent > MOST_SENT) socket.destroy(new Silent('says too much'));
    });
    socket.once('error', (error) => done?.(error, socket));
    // Before it is agreed on, no request has it yet: whoever never answers is let go here.
    const leave = (): void => void socket.destroy(new Silent('stopped'));
    signal.addEventListener('abort', leave);
    socket.once('close', () => signal.removeEventListener('abort', leave));
    return undefined;
  };
  return agent;
}

/**
 * Asks a machine's manager over Redfish (DSP0266): systems, managers, firmware inventory. Only its own tree is read; the certificate that
 * was taken is asked for before the password is sent. Throws `Silent`.
 */
export async function askRedfish(
  target: Target,
  way: Way,
  {
    known,
    signal,
    today
  }: { readonly known: string | undefined; readonly signal: AbortSignal; readonly today: string }
): Promise<{ readonly record: string; readonly key: string }> {
  let key = '';
  let pages = 0;
  const agent = agentFor(target, { known, signal, told: (k) => (key = k) });
  const authorization = `Basic ${Buffer.from(`${way.user}:${way.password}`).toString('base64')}`;
  const get = <T>(at: string, shape: z.ZodType<T>): Promise<T> => {
    if (++pages > MOST_PAGES) throw new Silent('says too much');
    return new Promise((resolve, reject) => {
      const asked = request(
        {
          agent,
          host: target.address,
          port: target.port,
          path: at,
          signal,
          headers: { authorization, accept: 'application/json' }
        },
        (answer) => {
          let text = '';
          answer.setEncoding('utf8');
          answer.on('data', (part: string) => {
            text += part;
            if (text.length > MOST_BYTES) asked.destroy(new Silent('says too much'));
          });
          answer.on('error', reject);
          answer.on('end', () => {
            if (answer.statusCode === 401 || answer.statusCode === 403)
              return reject(new Silent('wrong key'));
            if (answer.statusCode !== 200) return reject(new Silent('not understood'));
            try {
              resolve(shape.parse(JSON.parse(text)));
            } catch {
              reject(new Silent('not understood'));
            }
          });
        }
      );
      asked.on('error', reject);
      asked.end();
    });
  };
  try {
    const { Systems, Managers, UpdateService } = await get('/redfish/v1/', root);
    const found = (await get(Systems['@odata.id'], members)).Members.slice(0, MOST_MEMBERS);
    if (found.length === 0) throw new Silent('says nothing');
    const listed = UpdateService && (await get(UpdateService['@odata.id'], inventory)).FirmwareInventory;
    const parts: z.infer<typeof firmware>[] = [];
    if (listed)
      for (const part of (await get(listed['@odata.id'], members)).Members.slice(0, MOST_MEMBERS))
        parts.push(await get(part['@odata.id'], firmware));
    if (Managers)
      for (const one of (await get(Managers['@odata.id'], members)).Members.slice(0, MOST_MEMBERS)) {
        const { Name, Model, FirmwareVersion } = await get(one['@odata.id'], manager);
        parts.push({ Name: Model ?? Name, Version: FirmwareVersion });
      }
    const records: string[] = [];
    for (const one of found) records.push(tell(await get(one['@odata.id'], system), parts, today));
    return { record: records.join(''), key };
  } catch (error) {
    if (signal.aborted) throw new Silent(signal.reason === 'time' ? 'timed out' : 'stopped');
    throw silenceOf(error);
  } finally {
    agent.destroy();
  }
}

/** What runs is the part of the inventory that is called as the machine is; else the machine with its own firmware. */
function tell(
  {
    Name,
    HostName,
    Model,
    Manufacturer,
    BiosVersion,
    ProcessorSummary,
    MemorySummary
  }: z.infer<typeof system>,
  parts: readonly z.infer<typeof firmware>[],
  today: string
): string {
  const called = `${Manufacturer ?? ''} ${Model ?? ''} ${Name ?? ''}`.toLowerCase();
  const own = parts.find(
    (p) => p.Name !== undefined && p.Version !== undefined && called.includes(p.Name.toLowerCase())
  );
  const memory = MemorySummary?.TotalSystemMemoryGiB;
  return recordOf([
    ['name', HostName ?? Name],
    ['read on', today],
    ['installed', own ? `${own.Name} ${own.Version}` : [Model, BiosVersion].filter(Boolean).join(' ')],
    ['model', Model],
    ['processor.model', ProcessorSummary?.Model],
    [
      'processor.cores',
      ProcessorSummary?.CoreCount === undefined ? undefined : String(ProcessorSummary.CoreCount)
    ],
    ['memory', memory === undefined ? undefined : `${memory} GiB`],
    ...parts
      .filter((p) => p !== own && p.Name !== undefined)
      .map((p) => ['companion', `${p.Name}${p.Version ? `, version ${p.Version}` : ''}`] as const)
  ]);
}
