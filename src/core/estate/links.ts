import type { Link, System } from './schema';

/** The word a condition uses for a link, where none is given. */
const WORDS: Readonly<Record<Link['kind'], string>> = {
  'hosted on': 'host',
  'managed by': 'manager',
  'content of': 'content',
  'peer of': 'peer'
};

/** The word conditions use for the other end of a link: its own, else that of its kind. */
export const wordOf = (link: Pick<Link, 'kind' | 'as'>): string => link.as ?? WORDS[link.kind];

/** What is linked with a system under one word; undefined where nobody has told. */
export interface Linked {
  readonly systems: readonly System[];
  /** Ids at the other end that no system has. */
  readonly missing: readonly string[];
}

/** One end of a link: a system, `missing` where no system has that id, `absent` where there is said to be none. */
export interface LinkEnd {
  readonly kind: Link['kind'];
  readonly word: string;
  readonly system: System | 'missing' | 'absent';
}

/**
 * The links of an estate. Peers are peers both ways, and peers of peers under the same word: one chain of links makes a
 * cluster. Other kinds go one way. Built once in O(systems + links).
 */
export class LinkIndex {
  readonly #all: readonly System[];
  #byId: ReadonlyMap<string, System> | undefined;
  readonly #peers = new Map<string, Set<string>>();
  readonly #peerWords = new Map<string, Set<string>>();
  readonly #ends = new Set<string>();

  constructor(systems: readonly System[]) {
    this.#all = systems;
    for (const system of systems) {
      if (!system.links) continue;
      for (const link of system.links) {
        this.#ends.add(system.id);
        if ('to' in link) this.#ends.add(link.to);
        if (link.kind !== 'peer of' || !('to' in link)) continue;
        this.#join(wordOf(link), system.id, link.to);
        this.#join(wordOf(link), link.to, system.id);
      }
    }
  }

  /** Whether a system stands at any end of a link. */
  isLinked(id: string): boolean {
    return this.#ends.has(id);
  }

  /** Made once anybody asks across a link. */
  get #systems(): ReadonlyMap<string, System> {
    return (this.#byId ??= new Map(this.#all.map((s) => [s.id, s])));
  }

  #join(word: string, from: string, to: string): void {
    const words = this.#peerWords.get(from) ?? new Set<string>();
    this.#peerWords.set(from, words.add(word));
    const key = `${word} ${from}`;
    const set = this.#peers.get(key) ?? new Set<string>();
    set.add(to);
    this.#peers.set(key, set);
  }

  find(system: System, word: string): Linked | undefined {
    const own = (system.links ?? []).filter((l) => wordOf(l) === word);
    const ids = new Set(own.flatMap((l) => ('to' in l && l.kind !== 'peer of' ? [l.to] : [])));
    const queue = [system.id];
    const met = new Set(queue);
    for (let next = queue.pop(); next !== undefined; next = queue.pop())
      for (const peer of this.#peers.get(`${word} ${next}`) ?? [])
        if (!met.has(peer)) {
          met.add(peer);
          ids.add(peer);
          queue.push(peer);
        }
    ids.delete(system.id);
    if (ids.size === 0) return own.some((l) => 'absent' in l) ? { systems: [], missing: [] } : undefined;
    const sorted = [...ids].sort();
    return {
      systems: sorted.flatMap((id) => this.#systems.get(id) ?? []),
      missing: sorted.filter((id) => !this.#systems.has(id))
    };
  }

  /** Everything a system is linked with directly - of peers also through each other - by word, then by id. */
  around(system: System): readonly LinkEnd[] {
    if (!system.links && !this.#peerWords.has(system.id)) return NO_ENDS;
    const kinds = new Map((system.links ?? []).map((l) => [wordOf(l), l.kind]));
    for (const word of this.#peerWords.get(system.id) ?? []) kinds.set(word, 'peer of');
    return [...kinds].sort().flatMap(([word, kind]): LinkEnd[] => {
      const found = this.find(system, word);
      if (!found) return [];
      if (found.systems.length + found.missing.length === 0) return [{ kind, word, system: 'absent' }];
      return [
        ...found.systems.map((s) => ({ kind, word, system: s })),
        ...found.missing.map(() => ({ kind, word, system: 'missing' as const }))
      ];
    });
  }
}

const NO_ENDS: readonly LinkEnd[] = [];
