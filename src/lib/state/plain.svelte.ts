/** Storage and workers take plain values only. */
export const plain = <T>(value: T): T => $state.snapshot(value) as T;
