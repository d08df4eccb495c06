import { createHash } from 'node:crypto';
import { Socket } from 'node:net';
import { Client } from 'ssh2';
import type { Credentials, Target } from '$lib/machines/told';
import collector from '$lib/server/collector.sh?raw';
import { EACH_MS, MOST_BYTES, MOST_SENT, Silent, silenceOf } from './limits';

type Way = Extract<Credentials, { by: 'ssh' }>;

const fingerprint = (key: Buffer): string =>
  `SHA256:${createHash('sha256').update(key).digest('base64').replace(/=+$/, '')}`;

/**
 * Asks a machine over SSH (RFC 4253): the collector goes in over standard input to `sh`, its record comes back; nothing is left behind.
 * A host key nobody has taken yet, or another than was taken, ends it before anything that lets anybody in is sent. Throws `Silent`.
 */
export function askSsh(
  { address, port }: Target,
  way: Way,
  { known, signal }: { readonly known: string | undefined; readonly signal: AbortSignal }
): Promise<{ readonly record: string; readonly key: string }> {
  return new Promise((resolve, reject) => {
    const client = new Client();
    const socket = new Socket();
    let key = '';
    const end = (error: unknown): void => {
      signal.removeEventListener('abort', stop);
      client.destroy();
      socket.destroy();
      reject(silenceOf(error));
    };
    const stop = (): void => end(new Silent(signal.reason === 'time' ? 'timed out' : 'stopped'));
    if (signal.aborted) return stop();
    signal.addEventListener('abort', stop);
    let sent = 0;
    socket.on('data', (part: Buffer) => {
      sent += part.length;
      if (sent > MOST_SENT) end(new Silent('says too much'));
    });
    client.on('error', end);
    client.on('close', () => end(new Silent('says nothing')));
    client.on('ready', () => {
      client.exec('sh -s', (error, stream) => {
        if (error) return end(error);
        let text = '';
        stream.on('data', (part: Buffer) => {
          text += part.toString('utf8');
          if (text.length > MOST_BYTES) end(new Silent('says too much'));
        });
        stream.stderr.resume();
        stream.on('close', () => {
          if (!text.includes('orange-stair-record')) return end(new Silent('says nothing'));
          signal.removeEventListener('abort', stop);
          client.removeAllListeners('close');
          client.end();
          resolve({ record: text, key });
        });
        stream.end(collector);
      });
    });
    socket.on('error', end);
    // Servers that want the password in answer to a question of their own.
    client.on('keyboard-interactive', (...[, , , prompts, answer]) =>
      answer(prompts.map(() => way.password ?? ''))
    );
    try {
      client.connect({
        sock: socket,
        username: way.user,
        ...(way.password === undefined ? {} : { password: way.password }),
        ...(way.key === undefined ? {} : { privateKey: way.key }),
        ...(way.passphrase === undefined ? {} : { passphrase: way.passphrase }),
        tryKeyboard: way.password !== undefined,
        readyTimeout: EACH_MS,
        hostVerifier: (raw: Buffer): boolean => {
          key = fingerprint(raw);
          if (known === key) return true;
          end(known === undefined ? new Silent('new key', key) : new Silent('changed key', key, known));
          return false;
        }
      });
    } catch {
      // What was given as a private key is none, or its passphrase is another.
      return end(new Silent('wrong key'));
    }
    socket.connect(port, address);
  });
}
