import {
  type Checked,
  checkedOf,
  type Decision,
  isStale,
  kindsOf,
  seenOf,
  seenOfFact,
  type System
} from '../estate';
import { foldText, type Standing } from '../version';
import { type Day, parseDay } from '../date';
import type { Evidence, Seen } from '../condition';
import type { Catalogue, Product } from '../catalogue';
import { evidenceOf, type Known, type Surroundings } from './evidence';

const FOR_EVER: Day = Infinity;

/** What is known and decided of a system, as its steps ask it. */
export function askingOf(
  { catalogue, product }: Known,
  system: System,
  around: Surroundings,
  { decisions, today }: { readonly decisions: readonly Decision[]; readonly today: Day }
): Asking {
  return {
    evidence: (standing) => evidenceOf({ catalogue, product }, system, standing, around),
    companions: (system.companions ?? []).map((c) => ({
      name: foldText(c.name),
      ...(c.essential === undefined ? {} : { essential: c.essential })
    })),
    companionsWhole: system.companionsWhole ?? false,
    nodes: nodesOf(system),
    ...stalenessOf(catalogue, system, around, today),
    checked: system.checks ? checkedOf(product, system, kindsOf(catalogue)) : NOTHING_CHECKED,
    decided:
      decisions.length === 0
        ? NOTHING_DECIDED
        : {
            accepted: decidedOf(product, decisions, 'accept'),
            waived: decidedOf(product, decisions, 'waive'),
            ignored: new Map([
              ...decidedOf(product, decisions, 'ignore'),
              ...ignoredByName(product, decisions)
            ])
          }
  };
}

const NOTHING_CHECKED: Checked = { requirements: new Map(), companions: new Map(), unplaced: [] };
const NOTHING_DECIDED: Asking['decided'] = { accepted: new Map(), waived: new Map(), ignored: new Map() };

/** What nodes told by name state of themselves. */
const nodesOf = ({ members }: System): Asking['nodes'] =>
  (members ?? []).map(
    (m) => new Map(Object.entries(m.facts ?? {}).map(([id, fact]) => [id, seenOfFact(fact)] as const))
  );

function stalenessOf(
  catalogue: Catalogue,
  system: System,
  { decided }: Surroundings,
  today: Day
): Pick<Asking, 'isStale' | 'hasStale'> {
  const kinds = kindsOf(catalogue);
  const stale = new Set(
    Object.keys(system.facts ?? {}).filter((id) => {
      const seen = seenOf(system, id, decided);
      return seen.kind === 'known' && isStale(kinds.find(id), seen, today);
    })
  );
  return { isStale: (id) => stale.has(id), hasStale: stale.size > 0 };
}

const lastDay = ({ until }: Decision): Day =>
  until === undefined ? FOR_EVER : (parseDay(until) ?? FOR_EVER);

/** By the id of the entry they are about, with their last day; of two on one the later end counts. */
function decidedOf(
  product: Product,
  decisions: readonly Decision[],
  kind: Decision['kind']
): Map<string, Day> {
  const found = new Map<string, Day>();
  for (const d of decisions) {
    const parts = d.kind === kind ? (d.about ?? '').split('/') : [];
    const id = parts[2];
    if (parts[0] === product.id && id !== undefined) found.set(id, Math.max(lastDay(d), found.get(id) ?? 0));
  }
  return found;
}

/** Companions of one system that are no longer used, by id, or by the name they were read under where no list has them. */
function ignoredByName(product: Product, decisions: readonly Decision[]): [string, Day][] {
  return decisions.flatMap((d) => {
    if (d.kind !== 'ignore' || !('companion' in d.scope)) return [];
    const name = foldText(d.scope.companion);
    const found = product.companions?.find((c) =>
      [c.id, c.name, ...(c.aliases ?? [])].some((n) => foldText(n) === name)
    );
    return [[found?.id ?? name, lastDay(d)] as [string, Day]];
  });
}

/** Why a hop is not to be gone any more, and since when. */
export interface Bar {
  readonly day?: Day;
  readonly reason?: string;
}

/** Hops of a product that are decided not to be gone any more, by id; of several decisions on one the first. */
export function barredOf(product: Product, decisions: readonly Decision[]): ReadonlyMap<string, Bar> {
  const barred = new Map<string, Bar>();
  for (const { kind, about, day, reason } of decisions) {
    const [of, , id] = kind === 'bar' ? (about ?? '').split('/') : [];
    if (of !== product.id || id === undefined || barred.has(id)) continue;
    const since = parseDay(day);
    barred.set(id, {
      ...(since === undefined ? {} : { day: since }),
      ...(reason === undefined ? {} : { reason })
    });
  }
  return barred;
}

/** Releases of a product that are decided to be passed over. */
export const passedOverOf = (product: Product, decisions: readonly Decision[]): ReadonlySet<string> =>
  new Set(decidedOf(product, decisions, 'bypass').keys());

/** What is known and decided of the system that steps are asked about. */
export interface Asking {
  evidence(standing: Standing): Evidence;
  /** What it is known to have, by folded name. */
  readonly companions: readonly { readonly name: string; readonly essential?: boolean }[];
  /** What is not among them is not there. */
  readonly companionsWhole: boolean;
  /** What nodes state of themselves, one a node; empty where none is told by name. */
  readonly nodes: readonly ReadonlyMap<string, Seen>[];
  /** Whether a fact was observed longer ago than its kind's shelf life; `hasStale`: any was. */
  isStale(fact: string): boolean;
  readonly hasStale: boolean;
  /** What checking tools found, of each tool its latest run. */
  readonly checked: Checked;
  /** Decisions in force, by the id of what they are about, with their last day. */
  readonly decided: Readonly<Record<'accepted' | 'waived' | 'ignored', ReadonlyMap<string, Day>>>;
}
