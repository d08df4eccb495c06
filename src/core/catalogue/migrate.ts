import { CATALOGUE_VERSION } from './schema';

/**
 * An earlier version's value as the present one has it. Each version only added entries and fields to the one before, so
 * the number is all that changes. What is no object, or of another version, comes back as it is.
 */
export function migrateCatalogue(value: unknown): unknown {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return value;
  const { version } = value as { version?: unknown };
  return version === 1 || version === 2 ? { ...value, version: CATALOGUE_VERSION } : value;
}
