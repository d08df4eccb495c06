/** Heading of the part of docs/benchmarks.md that `bench:hostile` writes; the rest is `bench`'s. */
export const HOSTILE = '## Spoilt inputs\n';
