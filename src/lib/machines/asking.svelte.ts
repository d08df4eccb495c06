import { formatDay } from '$core/date';
import { takeHostKeys } from '$lib/state/acts';
import { desk } from '$lib/state/desk.svelte';
import { settings } from '$lib/state/settings.svelte';
import { sayAsked } from './targets';
import {
  type AskRequest,
  type Credentials,
  keyName,
  type Protocol,
  type Silence,
  type Target,
  type Told
} from './told';

/** What is said of a machine that gave no record. */
export const SILENCES: Readonly<Record<Silence, string>> = {
  'no route': 'no way there: is the address right, and the network up?',
  refused: 'refused: nothing listens at that port',
  'wrong key': 'not let in: user, password or key are not the right ones',
  'timed out': 'no answer in time',
  'says nothing': 'says nothing that could be read',
  'says too much': 'sends without end, and was let go',
  'not understood': 'speaks something else at that port',
  'new key': 'shows a key nobody has looked at yet; nothing was sent to it',
  'changed key': 'shows another key than was taken: nothing was sent to it',
  stopped: 'stopped before it could answer'
};

export interface StandInTargets {
  readonly by: Protocol;
  readonly targets: readonly Target[];
}

/** One round of asking machines over the wire: each as it is told, keys nobody has taken yet, and the records that came back. */
export class Asking {
  /** Whether this server asks at all; undefined until it has said. */
  isOn = $state<boolean | undefined>();
  standIns = $state.raw<readonly StandInTargets[]>([]);
  fault = $state('');
  isRunning = $state(false);
  targets = $state.raw<readonly Target[]>([]);
  told = $state.raw<ReadonlyMap<number, Told>>(new Map());
  #way: Credentials | undefined;
  #word = '';
  #leave: AbortController | undefined;

  readonly records = $derived(
    [...this.told.values()].flatMap((t) => ('record' in t ? [t] : [])).sort((a, b) => a.at - b.at)
  );
  readonly unseen = $derived(
    [...this.told.values()].filter((t) => 'silence' in t && t.silence === 'new key')
  );
  readonly changed = $derived(
    [...this.told.values()].filter((t) => 'silence' in t && t.silence === 'changed key')
  );

  /** Hears from the server whether it asks, and what stand-ins run. */
  async open(): Promise<void> {
    try {
      const answer = await fetch('/api/ask');
      if (!answer.ok) {
        this.isOn = false;
        this.fault = await answer.text();
        return;
      }
      const said = (await answer.json()) as { on: boolean; word?: string; standIns?: StandInTargets[] };
      this.isOn = said.on;
      this.#word = said.word ?? '';
      this.standIns = said.standIns ?? [];
    } catch (error) {
      this.isOn = false;
      this.fault = `The server gave no answer: ${error instanceof Error ? error.message : String(error)}`;
    }
  }

  /** Asks them all; those that are told already stay told where `only` names others. */
  async ask(targets: readonly Target[], way: Credentials, only?: ReadonlySet<number>): Promise<void> {
    if (this.isRunning) return;
    this.#way = way;
    this.targets = targets;
    this.fault = '';
    const places = targets.flatMap((_, i) => (only === undefined || only.has(i) ? [i] : []));
    const told = new Map(only === undefined ? [] : [...this.told].filter(([at]) => !only.has(at)));
    this.told = told;
    this.isRunning = true;
    this.#leave = new AbortController();
    try {
      const answer = await fetch('/api/ask', {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'x-start-word': this.#word },
        body: JSON.stringify({
          targets: places.map((i) => targets[i] as Target),
          credentials: way,
          known: this.#known(way.by, targets)
        } satisfies AskRequest),
        signal: this.#leave.signal
      });
      if (!answer.ok || !answer.body) {
        this.fault = await answer.text();
        return;
      }
      for await (const line of linesOf(answer.body)) {
        const one = JSON.parse(line) as Told;
        const at = places[one.at] ?? one.at;
        this.told = new Map(this.told).set(at, { ...one, at });
      }
    } catch (error) {
      if (!this.#leave.signal.aborted)
        this.fault = `The server gave no answer: ${error instanceof Error ? error.message : String(error)}`;
    } finally {
      this.isRunning = false;
    }
  }

  stop(): void {
    this.#leave?.abort();
  }

  /** Takes the keys of these machines as theirs, with the workspace, and asks them again. */
  async takeKeys(of: readonly Told[]): Promise<void> {
    const way = this.#way;
    if (!way) return;
    const since = formatDay(desk.today);
    const who = settings.who === '' ? {} : { who: settings.who };
    const keys = of.flatMap((t) => {
      const target = this.targets[t.at];
      return target && t.key ? [{ id: keyName(way.by, target), fingerprint: t.key, since, ...who }] : [];
    });
    await takeHostKeys(
      keys.length === 1 ? 'Took the key of a machine' : `Took the keys of ${keys.length} machines`,
      keys
    );
    await this.ask(this.targets, way, new Set(of.map((t) => t.at)));
  }

  /** What the machines said, as records to be looked at like any other list. */
  text(): string {
    const way = this.#way;
    return this.records
      .map(({ at, record }) => {
        const target = this.targets[at];
        if (!way || !target) return record;
        return record.replaceAll(/^(orange-stair-record 1)$/gm, `$1\nasked over: ${sayAsked(way, target)}`);
      })
      .join('\n');
  }

  #known(by: Protocol, targets: readonly Target[]): Record<string, string> {
    const taken = new Map((desk.estate.hostKeys ?? []).map((k) => [k.id, k.fingerprint]));
    return Object.fromEntries(
      targets.flatMap((t) => {
        const key = taken.get(keyName(by, t));
        return key === undefined ? [] : [[keyName(by, t), key]];
      })
    );
  }
}

/** The lines of a body as they come. */
async function* linesOf(body: ReadableStream<Uint8Array>): AsyncGenerator<string> {
  const reader = body
    .pipeThrough(new TextDecoderStream() as ReadableWritablePair<string, Uint8Array>)
    .getReader();
  let rest = '';
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    const lines = (rest + value).split('\n');
    rest = lines.pop() ?? '';
    for (const line of lines) if (line !== '') yield line;
  }
  if (rest !== '') yield rest;
}
