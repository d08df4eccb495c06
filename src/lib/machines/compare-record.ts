import type { Catalogue } from '$core/catalogue';
import { kindsOf, readInstalled, type Reading, type System, type WorkItem } from '$core/estate';
import { parseRecords } from '$core/exchange';
import { BASE_PATCH } from '$core/version';

/** What a machine says it runs beside what a hop was to arrive at, in words. */
export interface ReadAgain {
  readonly text: string;
  readonly isAsExpected: boolean;
}

/** Compares a record with where a step leads; what the record says nothing of is not held against it. */
export function compareRecord(
  catalogue: Catalogue,
  record: string,
  {
    system,
    to
  }: { readonly system: Pick<System, 'product' | 'name'>; readonly to: NonNullable<WorkItem['to']> }
): ReadAgain {
  const read = parseRecords(record, kindsOf(catalogue));
  const [one] = read.ok ? read.value : [];
  if (!one) return { text: 'Its record could not be read.', isAsExpected: false };
  const understood = readInstalled(catalogue, one.texts);
  const { product, release, patch, edition } = understood.readings;
  const says = `The machine says ${understood.text || 'nothing of what it runs'}`;
  const isOther = (reading: Reading, wanted: string | undefined): boolean =>
    'is' in reading && wanted !== undefined && reading.is !== wanted;
  const isStranger = 'is' in product && 'is' in system.product && product.is !== system.product.is;
  const hasPatch = understood.stated.includes('patch');
  const isOtherwise =
    isStranger ||
    isOther(release, to.release) ||
    (hasPatch && isOther(patch, to.patch ?? BASE_PATCH)) ||
    isOther(edition, to.edition);
  if (!('is' in release))
    return { text: `${says}: which release that is, the catalogue cannot say.`, isAsExpected: false };
  return isOtherwise
    ? { text: `${says}: not what was to be arrived at.`, isAsExpected: false }
    : { text: `${says}: as expected.`, isAsExpected: true };
}
