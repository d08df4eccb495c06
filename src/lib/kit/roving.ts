const STEPS: Readonly<Record<string, readonly [rows: number, columns: number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1]
};

/**
 * Arrow keys move the focus among the parts of an element that carry `data-at`: `ROW` in a list, `ROW,COLUMN` in a grid. A
 * place without a part is passed over; at an edge the focus stays. A part that takes no focus hands it to the first button in it.
 * With Ctrl, Alt or the like the keys are left alone.
 * An attachment: `{@attach roving}` on what holds the parts.
 */
export function roving(node: HTMLElement | SVGElement): () => void {
  const press = (event: Event): void => {
    // What has its own keys inside is left alone.
    if (
      !(event instanceof KeyboardEvent) ||
      event.defaultPrevented ||
      event.ctrlKey ||
      event.altKey ||
      event.metaKey
    )
      return;
    const step = STEPS[event.key];
    const from = (event.target as Element).closest('[data-at]');
    if (!step || !from || !node.contains(from) || focusOf(from) !== event.target) return;
    const [row = 0, column] = placeOf(from);
    if (column === undefined && step[0] === 0) return;
    event.preventDefault();
    const next = nextFrom(node, [row, column], step);
    if (next) focusOf(next)?.focus();
  };
  node.addEventListener('keydown', press);
  return () => node.removeEventListener('keydown', press);
}

type Focusable = HTMLElement | SVGElement;

const TAKES_FOCUS = 'button, a, input, select, [tabindex]';

/** What of a part takes the focus: itself, else the first button, link or field in it. */
const focusOf = (part: Element): Focusable | null =>
  part.matches(TAKES_FOCUS) ? (part as Focusable) : part.querySelector<HTMLElement>(TAKES_FOCUS);

const placeOf = (part: Element): number[] => (part.getAttribute('data-at') ?? '').split(',').map(Number);

type Place = readonly [row: number, column: number | undefined];

function nextFrom(
  node: Element,
  [row, column]: Place,
  [down, right]: readonly [number, number]
): HTMLElement | SVGElement | undefined {
  const parts = new Map(
    [...node.querySelectorAll<HTMLElement | SVGElement>('[data-at]')].map((p) => [placeOf(p).join(), p])
  );
  for (let n = 1; n <= parts.size; n++) {
    const to = column === undefined ? [row + n * down] : [row + n * down, column + n * right];
    const found = parts.get(to.join());
    if (found) return found;
  }
  return undefined;
}
