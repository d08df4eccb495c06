import { setMaxListeners } from 'node:events';
import { type AskRequest, keyName, type Told } from '$lib/machines/told';
import { askRedfish } from './ask-redfish';
import { askSnmp } from './ask-snmp';
import { askSsh } from './ask-ssh';
import { AT_ONCE, EACH_MS, silenceOf } from './limits';

/**
 * Asks machines, at most so many at once and each for so long; `tell` hears of each as soon as it is known. Whoever asked may leave
 * (`signal`): those under way are let go and nobody further is asked. Nothing of it is kept.
 */
export async function askAll(
  { targets, credentials, known }: AskRequest,
  { tell, signal, today }: { tell(told: Told): void; readonly signal: AbortSignal; readonly today: string }
): Promise<void> {
  let next = 0;
  setMaxListeners(2 * AT_ONCE, signal);
  const work = async (): Promise<void> => {
    while (next < targets.length && !signal.aborted) {
      const at = next++;
      const target = targets[at];
      if (target) tell(await askOne(at));
    }
  };
  const askOne = async (at: number): Promise<Told> => {
    const target = targets[at];
    if (!target) return { at, silence: 'no route' };
    const own = new AbortController();
    const leave = (): void => own.abort('left');
    signal.addEventListener('abort', leave);
    const timer = setTimeout(() => own.abort('time'), EACH_MS);
    const key = known[keyName(credentials.by, target)];
    try {
      const ways = { known: key, signal: own.signal, today };
      const told =
        credentials.by === 'ssh'
          ? await askSsh(target, credentials, ways)
          : credentials.by === 'snmp'
            ? await askSnmp(target, credentials, ways)
            : await askRedfish(target, credentials, ways);
      return { at, ...told };
    } catch (error) {
      const { silence, key: seen, before } = silenceOf(error);
      return {
        at,
        silence,
        ...(seen === undefined ? {} : { key: seen }),
        ...(before === undefined ? {} : { before })
      };
    } finally {
      clearTimeout(timer);
      signal.removeEventListener('abort', leave);
    }
  };
  await Promise.all(Array.from({ length: Math.min(AT_ONCE, targets.length) }, work));
}
