/** A binary heap: the least item comes first. Equal items come in no particular order. */
export class Heap<T> {
  readonly #items: T[] = [];
  readonly #compare: (a: T, b: T) => number;

  constructor(compare: (a: T, b: T) => number) {
    this.#compare = compare;
  }

  push(item: T): void {
    const items = this.#items;
    let at = items.length;
    items.push(item);
    while (at > 0) {
      const up = (at - 1) >> 1;
      const parent = items[up] as T;
      if (this.#compare(item, parent) >= 0) break;
      items[at] = parent;
      at = up;
    }
    items[at] = item;
  }

  pop(): T | undefined {
    const items = this.#items;
    const least = items[0];
    const last = items.pop();
    if (items.length === 0 || last === undefined) return least;
    let at = 0;
    for (let down = 1; down < items.length; down = 2 * at + 1) {
      const right = down + 1;
      if (right < items.length && this.#compare(items[right] as T, items[down] as T) < 0) down = right;
      const child = items[down] as T;
      if (this.#compare(last, child) <= 0) break;
      items[at] = child;
      at = down;
    }
    items[at] = last;
    return least;
  }
}
