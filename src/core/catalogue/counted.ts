export const COUNTED_KINDS = ['in place', 'fresh install', 'edition change'] as const;

export type CountedKind = (typeof COUNTED_KINDS)[number];
