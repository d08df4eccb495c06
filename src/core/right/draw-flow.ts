import type { Demand, Supply } from './draw-problem';

/**
 * Units given from supplies to demands: a flow that grows along shortest augmenting paths (Ford and Fulkerson 1956, Edmonds and
 * Karp 1972). What a supply has given it goes on giving, and what a demand has been given it keeps; only who serves whom moves.
 */
export class DrawFlow {
  /** Units by demand and supply. */
  readonly draws: number[][];
  readonly #free: number[];
  readonly #from: readonly (readonly number[])[];
  readonly #servedBy: readonly (readonly number[])[];

  constructor(demands: readonly Pick<Demand, 'from'>[], supplies: readonly Supply[]) {
    this.draws = demands.map(() => supplies.map(() => 0));
    this.#free = supplies.map((s) => s.units);
    this.#from = demands.map((d) => d.from);
    this.#servedBy = supplies.map((_, s) => demands.flatMap((d, i) => (d.from.includes(s) ? [i] : [])));
  }

  free(supply: number): number {
    return this.#free[supply] ?? 0;
  }

  givenTo(demand: number): number {
    return (this.draws[demand] ?? []).reduce((a, b) => a + b, 0);
  }

  /** Gives a demand as many units as can be, at most `most`; others keep theirs. Returns how many. */
  give(demand: number, most: number): number {
    let given = 0;
    while (given < most) {
      const path = this.#pathTo(demand);
      if (!path) break;
      const units = Math.min(most - given, path.units);
      this.#move(path.steps, units);
      given += units;
    }
    return given;
  }

  /** Gives from one supply as much as demands still want; `wants` are their units. Other supplies go on giving theirs. */
  drain(supply: number, wants: readonly number[]): void {
    for (;;) {
      const path = this.#pathFrom(supply, wants);
      if (!path) return;
      this.#move(path.steps, path.units);
    }
  }

  /** From a supply with units left to the demand; through demands that are served by another instead. */
  #pathTo(demand: number): Path | undefined {
    const cameTo = new Map<number, { readonly supply: number }>();
    const queue = [demand];
    const seenSupply = new Map<number, number>();
    for (let at = 0; at < queue.length; at++) {
      const d = queue[at] as number;
      for (const s of this.#from[d] ?? []) {
        if (seenSupply.has(s)) continue;
        seenSupply.set(s, d);
        if (this.free(s) > 0) return this.#trace(s, demand, seenSupply, cameTo);
        for (const other of this.#servedBy[s] ?? [])
          if (other !== demand && !cameTo.has(other) && (this.draws[other]?.[s] ?? 0) > 0) {
            cameTo.set(other, { supply: s });
            queue.push(other);
          }
      }
    }
    return undefined;
  }

  #trace(
    end: number,
    demand: number,
    seenSupply: ReadonlyMap<number, number>,
    cameTo: ReadonlyMap<number, { readonly supply: number }>
  ): Path {
    const steps: Step[] = [];
    let units = this.free(end);
    for (let s = end; ;) {
      const d = seenSupply.get(s) as number;
      steps.push({ demand: d, supply: s, sign: 1 });
      if (d === demand) break;
      // The demand passed through gives up units of the supply it was reached by.
      const by = cameTo.get(d)?.supply as number;
      steps.push({ demand: d, supply: by, sign: -1 });
      units = Math.min(units, this.draws[d]?.[by] ?? 0);
      s = by;
    }
    return { steps, units };
  }

  /** From the supply to a demand that still wants units; through supplies whose units are given elsewhere instead. */
  #pathFrom(supply: number, wants: readonly number[]): Path | undefined {
    if (this.free(supply) === 0) return undefined;
    const demandBy = new Map<number, number>();
    const supplyBy = new Map<number, number>([[supply, -1]]);
    const queue = [supply];
    for (let at = 0; at < queue.length; at++) {
      const s = queue[at] as number;
      for (const d of this.#servedBy[s] ?? []) {
        if (demandBy.has(d)) continue;
        demandBy.set(d, s);
        const wanted = (wants[d] ?? 0) - this.givenTo(d);
        if (wanted > 0) return this.#traceFrom(supply, d, wanted, { demandBy, supplyBy });
        for (const other of this.#from[d] ?? [])
          if (!supplyBy.has(other) && (this.draws[d]?.[other] ?? 0) > 0) {
            supplyBy.set(other, d);
            queue.push(other);
          }
      }
    }
    return undefined;
  }

  #traceFrom(
    supply: number,
    end: number,
    wanted: number,
    { demandBy, supplyBy }: { demandBy: ReadonlyMap<number, number>; supplyBy: ReadonlyMap<number, number> }
  ): Path {
    const steps: Step[] = [];
    let units = Math.min(wanted, this.free(supply));
    for (let d = end; ;) {
      const s = demandBy.get(d) as number;
      steps.push({ demand: d, supply: s, sign: 1 });
      if (s === supply) break;
      d = supplyBy.get(s) as number;
      steps.push({ demand: d, supply: s, sign: -1 });
      units = Math.min(units, this.draws[d]?.[s] ?? 0);
    }
    return { steps, units };
  }

  #move(steps: readonly Step[], units: number): void {
    for (const { demand, supply, sign } of steps) {
      const row = this.draws[demand] as number[];
      row[supply] = (row[supply] ?? 0) + sign * units;
      this.#free[supply] = (this.#free[supply] ?? 0) - sign * units;
    }
  }
}

interface Step {
  readonly demand: number;
  readonly supply: number;
  readonly sign: 1 | -1;
}

interface Path {
  readonly steps: readonly Step[];
  readonly units: number;
}
