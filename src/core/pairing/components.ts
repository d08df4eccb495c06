/**
 * Which of several things hang on each other both ways: strongly connected components, by the edges asked for from one on.
 * Method: R. Tarjan, Depth-first search and linear graph algorithms, 1972, with a stack of its own. Cost: nodes and edges
 * reached, each once over the life of the object.
 */
export class Components {
  readonly #edgesOf: (id: string) => readonly string[];
  readonly #componentOf = new Map<string, readonly string[]>();

  constructor(edgesOf: (id: string) => readonly string[]) {
    this.#edgesOf = edgesOf;
  }

  /** Everything in the same component, sorted; itself alone where nothing it hangs on hangs on it. */
  of(id: string): readonly string[] {
    if (!this.#componentOf.has(id)) this.#visit(id);
    return this.#componentOf.get(id) ?? [id];
  }

  isMutual(a: string, b: string): boolean {
    return a !== b && this.of(a) === this.of(b);
  }

  #visit(root: string): void {
    const index = new Map<string, number>();
    const low = new Map<string, number>();
    const open: string[] = [];
    const isOpen = new Set<string>();
    const calls: { id: string; edges: readonly string[]; next: number }[] = [];
    const enter = (id: string): void => {
      index.set(id, index.size);
      low.set(id, index.get(id) ?? 0);
      open.push(id);
      isOpen.add(id);
      calls.push({ id, edges: this.#edgesOf(id), next: 0 });
    };
    const lower = (id: string, to: number | undefined): void =>
      void low.set(id, Math.min(low.get(id) ?? 0, to ?? 0));
    enter(root);
    for (let call = calls.at(-1); call; call = calls.at(-1)) {
      const to = call.edges[call.next++];
      if (to !== undefined) {
        if (this.#componentOf.has(to)) continue;
        if (!index.has(to)) enter(to);
        else if (isOpen.has(to)) lower(call.id, index.get(to));
        continue;
      }
      calls.pop();
      const above = calls.at(-1);
      if (above) lower(above.id, low.get(call.id));
      if (low.get(call.id) === index.get(call.id)) this.#close(call.id, open, isOpen);
    }
  }

  #close(id: string, open: string[], isOpen: Set<string>): void {
    const component = open.splice(open.indexOf(id)).sort();
    for (const member of component) {
      isOpen.delete(member);
      this.#componentOf.set(member, component);
    }
  }
}
