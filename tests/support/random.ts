/** A small seeded generator (mulberry32) for tests: the same seed gives the same world for ever. */
export class Random {
  #state: number;

  constructor(seed: number) {
    this.#state = seed >>> 0;
  }

  next(): number {
    this.#state = (this.#state + 0x6d2b79f5) >>> 0;
    let t = this.#state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  }

  /** A generator beside this one, drawn from where it stands; this one goes on as if nothing had been drawn. */
  aside(): Random {
    return new Random(Math.imul(this.#state ^ 0x5bd1e995, 0x2545f491));
  }

  /** A whole number from low to high, both included. */
  int(low: number, high: number): number {
    return low + Math.floor(this.next() * (high - low + 1));
  }

  chance(share: number): boolean {
    return this.next() < share;
  }

  pick<T>(list: readonly T[]): T {
    return list[this.int(0, list.length - 1)] as T;
  }

  some<T>(list: readonly T[], share: number): T[] {
    return list.filter(() => this.chance(share));
  }

  shuffle<T>(list: readonly T[]): T[] {
    const copy = [...list];
    for (let i = copy.length - 1; i > 0; i--) {
      const j = this.int(0, i);
      [copy[i], copy[j]] = [copy[j] as T, copy[i] as T];
    }
    return copy;
  }
}
