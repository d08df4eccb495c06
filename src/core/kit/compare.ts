/** By code units: the same order on every machine. */
export const compareText = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
