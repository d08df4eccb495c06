/** What a stand-in is to begin with. Texts as a machine says them of itself. */
export interface StandInMachine {
  readonly name: string;
  readonly product: string;
  readonly version: string;
  readonly edition?: string;
  readonly facts?: Readonly<Record<string, string>>;
}

/**
 * A machine that is not there: it changes its version as a hop would, or stays where it is when one fails, and prints the record that
 * the collector would print on it.
 */
export class StandIn {
  readonly name: string;
  readonly product: string;
  readonly #facts: ReadonlyMap<string, string>;
  #version: string;
  #edition: string | undefined;

  constructor({ name, product, version, edition, facts = {} }: StandInMachine) {
    this.name = name;
    this.product = product;
    this.#version = version;
    this.#edition = edition;
    this.#facts = new Map(Object.entries(facts));
  }

  get version(): string {
    return this.#version;
  }

  /** What it says it runs, in one text. */
  get runs(): string {
    return [this.product, this.#version, this.#edition].filter((t) => t !== undefined).join(' ');
  }

  /** A hop that goes well; one that fails leaves everything as it was, and is not told to the stand-in. */
  arrive(version: string, edition = this.#edition): void {
    this.#version = version;
    this.#edition = edition;
  }

  /** What the collector prints. `day`: the ISO day it is read on. */
  record(day: string): string {
    const lines: readonly (readonly [string, string | undefined])[] = [
      ['name', this.name],
      ['read on', day],
      ['product', this.product],
      ['version', this.#version],
      ['edition', this.#edition],
      ...this.#facts
    ];
    const said = lines.flatMap(([label, value]) => (value === undefined ? [] : [`${label}: ${value}`]));
    return ['orange-stair-record 1', ...said, ''].join('\n');
  }
}
