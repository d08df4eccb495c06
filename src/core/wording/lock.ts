import { parseDay } from '../date';
import type { OrderLock } from '../estate';
import { sayDay } from './dates';

/** Names that locks are told with. */
export interface LockNames {
  system(id: string): string;
  /** A release of the product a system runs. */
  releaseOf(system: string, release: string): string;
}

/** `12 Mar 2031`: a day of a file. */
export const sayIsoDay = (day: string): string => {
  const parsed = parseDay(day);
  return parsed === undefined ? day : sayDay(parsed);
};

/** `host-b-01 to 9: begins on 12 Mar 2031`: what is laid down for the order of work. */
export function sayLock(
  { systems, release, must }: { readonly release?: string | undefined } & Pick<OrderLock, 'systems' | 'must'>,
  names: LockNames
): string {
  const name = (ids: readonly string[]): string =>
    ids.length === 1
      ? names.system(ids[0] ?? '')
      : `${names.system(ids[0] ?? '')} and ${ids.length - 1} more`;
  const onto = release === undefined ? '' : ` to ${names.releaseOf(systems[0] ?? '', release)}`;
  const who = `${name(systems)}${onto}`;
  if ('on' in must) return `${who}: begins on ${sayIsoDay(must.on)}`;
  if ('notBefore' in must) return `${who}: not before ${sayIsoDay(must.notBefore)}`;
  if ('notAfter' in must) return `${who}: done by ${sayIsoDay(must.notAfter)}`;
  return `${who}: never together with ${name(must.apartFrom)}`;
}
