const STEPS: Readonly<Record<string, readonly [rows: number, columns: number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1]
};

/** How an arrow key moves through a grid, in rows and columns; undefined for every other key. Keeps the page from scrolling. */
export function arrowStep(event: KeyboardEvent): readonly [rows: number, columns: number] | undefined {
  const step = STEPS[event.key];
  if (step) event.preventDefault();
  return step;
}
