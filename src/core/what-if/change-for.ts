import type { Product } from '../catalogue';
import type { Change, Permission } from '../estate';
import type { ClauseCode, Reason } from '../route';

const PERMISSION_OF: Partial<Record<ClauseCode, Permission>> = {
  'fresh not allowed': 'fresh',
  'unsupported not allowed': 'unsupported',
  spending: 'spending',
  resting: 'restingOutOfService',
  'pass days': 'restingOutOfService'
};

export interface Affected {
  readonly product: Pick<Product, 'id' | 'requirements'>;
  /** The situation it is decided for. */
  readonly situation: string;
  readonly team: string | undefined;
}

/**
 * The change somebody here may make that lifts a clause: what the goal does not allow, a warning, a demand of the site's own,
 * a companion no longer used. Undefined where nobody here may: a publisher's demand, a date, a table.
 */
export function findChangeFor(
  reason: Pick<Reason, 'code' | 'subject'>,
  { product, situation, team }: Affected
): Change | undefined {
  const permission = PERMISSION_OF[reason.code];
  if (permission) return { allow: permission, allowed: true, ...(team === undefined ? {} : { team }) };
  const decide = (kind: 'accept' | 'waive' | 'ignore', list: string): Change => ({
    decide: { kind, scope: { situation }, about: `${product.id}/${list}/${reason.subject}` }
  });
  const requirement = product.requirements?.find((r) => r.id === reason.subject);
  switch (reason.code) {
    case 'site demand':
      return decide('waive', 'requirements');
    case 'requirement':
      return requirement?.grade === 'warning' ? decide('accept', 'requirements') : undefined;
    case 'companion':
      return decide('ignore', 'companions');
    default:
      return undefined;
  }
}
