import { compareText } from '../kit';
import type { Product } from '../catalogue';
import type { Day } from '../date';
import type { System } from '../estate';
import { isCounted, type Route } from '../route';
import { foldText } from '../version';
import type { LookedCase } from './look-case';
import type { FetchItem } from './ready-types';
import { addSums } from '../right';

interface Fetching {
  readonly looked: LookedCase;
  readonly product: Product;
  readonly route: Route;
  readonly systems: readonly System[];
  readonly by: Day;
}

/**
 * What has to be at hand before work begins, beside rights: parts to be bought, media, keys of what is reinstalled, accounts,
 * drivers on a medium. Counted over the systems whose chosen route asks for it; `by` is the earliest latest start among them,
 * or where nothing binds the day of the first step. Sorted by that day, then by kind and words.
 */
export function gatherFetches(
  looked: readonly LookedCase[],
  systemOf: (id: string) => System | undefined
): FetchItem[] {
  const items = new Map<string, FetchItem & { cases: string[]; count: number }>();
  for (const one of looked) {
    const route = one.plan.goalPlan?.route;
    const [first] = route?.steps ?? [];
    if (!one.product || !route || !first) continue;
    const { latestStart } = one.plan;
    const by = typeof latestStart === 'number' ? latestStart : first.days.first;
    const systems = one.plan.systems.flatMap((id) => systemOf(id) ?? []);
    const fetching = { looked: one, product: one.product, route, systems, by };
    for (const item of [
      ...ofParts(fetching),
      ...ofHops(fetching),
      ...ofCompanions(fetching),
      ...ofFresh(fetching)
    ]) {
      const key = `${item.kind}/${item.ifNeeded}/${item.product}/${item.what}`;
      const known = items.get(key);
      const sum = addSums(known?.costCents ?? 0, item.costCents);
      items.set(key, {
        ...item,
        cases: [...(known?.cases ?? []), one.plan.id],
        // An account serves them all.
        count: item.kind === 'account' ? 1 : (known?.count ?? 0) + item.count,
        costCents: item.costCents === 'unknown' ? 'unknown' : sum,
        by: Math.min(item.by, known?.by ?? item.by)
      });
    }
  }
  return [...items.values()].sort(
    (a, b) => a.by - b.by || compareText(`${a.kind}/${a.what}`, `${b.kind}/${b.what}`)
  );
}

type Item = Omit<FetchItem, 'cases'>;

const itemOf = (
  { looked, systems, by }: Fetching,
  kind: FetchItem['kind'],
  what: string,
  more: Partial<Item> = {}
): Item => ({
  kind,
  product: looked.plan.product ?? '',
  what,
  count: systems.length,
  costCents: 0,
  leadDays: 0,
  ifNeeded: false,
  by,
  ...more
});

function ofParts(fetching: Fetching): Item[] {
  const cures = fetching.product.requirements?.flatMap((r) => r.cures ?? []) ?? [];
  return fetching.route.steps.flatMap((step) => {
    const cure = step.kind === 'cure' ? cures.find((c) => c.id === step.id) : undefined;
    if (step.kind !== 'cure' || cure?.kind !== 'purchase') return [];
    const costCents = step.costCents === 'unknown' ? 'unknown' : step.costCents * fetching.systems.length;
    return [
      itemOf(fetching, 'part', cure.how.replace(/\.$/, ''), {
        costCents,
        leadDays: step.leadDays,
        ifNeeded: step.ifNeeded
      })
    ];
  });
}

function ofHops(fetching: Fetching): Item[] {
  return fetching.route.steps.filter(isCounted).flatMap((step) => {
    const doing = fetching.product.hops?.find((h) => h.id === step.id)?.doing;
    return [
      ...(doing?.media ?? []).map((m) =>
        itemOf(fetching, 'medium', m.boundTo ? `${m.name}, for ${m.boundTo}` : m.name, { count: 1 })
      ),
      ...(doing?.access ?? []).map((a) =>
        itemOf(fetching, 'account', [a.layer, a.account, a.rights, a.connection].filter(Boolean).join(', '))
      )
    ];
  });
}

/** Keys of what is put on again that are not in hand, and drivers the target does not bring. */
function ofCompanions(fetching: Fetching): Item[] {
  const keyed = new Set(
    fetching.route.steps.flatMap((s) => (s.kind === 'work' && s.needsKey ? [s.companion] : []))
  );
  return (fetching.looked.asked?.companions ?? []).flatMap(({ companion, driver, verdict }) => {
    const names = [companion.id, companion.name, ...(companion.aliases ?? [])].map(foldText);
    const owners = fetching.systems.flatMap((s) =>
      (s.companions ?? []).filter((c) => names.includes(foldText(c.name)))
    );
    const without = owners.filter((c) => c.keyInHand !== true).length;
    return [
      ...(keyed.has(companion.id) && without > 0
        ? [itemOf(fetching, 'key', companion.name, { count: without })]
        : []),
      ...(driver && verdict !== 'works' && owners.length > 0
        ? [itemOf(fetching, 'driver', `${companion.name}: ${driver}`, { count: owners.length })]
        : [])
    ];
  });
}

/** What a fresh install wants beforehand: a back-up that is proved, and proof of the old right where its right asks for it. */
function ofFresh(fetching: Fetching): Item[] {
  const fresh = fetching.route.steps.filter(isCounted).filter((s) => s.kind === 'fresh install');
  const proofs = fresh.flatMap((step) => {
    const right = fetching.product.rights?.find((r) => r.id === step.right.right);
    return right?.proofOfOld ? [`Proof of the old right, for ${right.name ?? right.id}`] : [];
  });
  const isSaved = fetching.route.steps.some((s) => s.kind === 'work' && s.task === 'back up');
  return [
    ...(isSaved ? [itemOf(fetching, 'back-up', 'A back-up of each, finished and proved')] : []),
    ...[...new Set(proofs)].map((what) => itemOf(fetching, 'proof', what))
  ];
}
