import * as Comlink from 'comlink';
import type { Case } from '$core/bind';
import type { Catalogue } from '$core/catalogue';
import {
  type Around,
  type CasePlan,
  estateAround,
  mayBeShared,
  PlanCache,
  planOne,
  type Planning,
  planningAround,
  withoutSystems
} from '$core/plan';

/** Fewer cases than these are planned sooner than they are sent. */
const WORTH_SHARING = 100;
/** Cases sent at once: when these are done a newer order is heard. */
const AT_ONCE = 40;
const MOST_HELPERS = 7;

/** Cases to plan for another worker; `around` where it is another than the last time, the catalogue where that is. */
export interface Share {
  readonly around?: Omit<Around, 'catalogue'> & { readonly catalogue?: Catalogue };
  readonly cases: readonly Case[];
}

/** Plans cases for another worker: what that has gathered, by what is around them. */
export class Helper {
  readonly #cache = new PlanCache();
  #catalogue: Catalogue | undefined;
  #planning: Planning | undefined;

  plan({ around, cases }: Share): CasePlan[] {
    this.#catalogue = around?.catalogue ?? this.#catalogue;
    if (around && this.#catalogue) this.#planning = planningAround({ ...around, catalogue: this.#catalogue });
    const planning = this.#planning;
    if (!planning) throw new Error('nothing is known of what is around');
    return cases.map((one) => withoutSystems(planOne(planning, one, 'goal', this.#cache)));
  }
}

/** What a worker of the same script does for another. */
interface Remote {
  planShare(share: Share): Promise<CasePlan[]>;
}

interface Hand {
  readonly remote: Remote;
  catalogue?: Catalogue;
}

/** Workers of the same script that plan along, one for each core but the one that asks. Without any all is planned here. */
export class Helpers {
  #hands: Hand[] | undefined;

  /**
   * Has the cases that hang on nothing else planned along, where there are many that nobody has planned; `own` plans those left here.
   * What is not planned when this ends - a helper that failed, a newer order - is planned by whoever asks.
   */
  async plan(
    planning: Planning,
    catalogue: Catalogue,
    own: (cases: readonly Case[], done: () => number) => Promise<void>,
    isCurrent: () => boolean
  ): Promise<void> {
    const cases = planning
      .gather()
      .cases.filter((one) => !planning.planOf(one) && mayBeShared(planning, one));
    if (cases.length < WORTH_SHARING) return;
    const hands = (this.#hands ??= startHands());
    if (hands.length === 0) return;
    const shares: Case[][] = Array.from({ length: hands.length + 1 }, () => []);
    // The same case goes to the same worker again, which may have planned it before.
    for (const one of cases) shares[placeOf(one.id, shares.length)]?.push(one);
    let done = 0;
    const theirs = hands.map(async (hand, i) => {
      const share = shares[i + 1] ?? [];
      for (let at = 0; at < share.length && isCurrent(); at += AT_ONCE) {
        const some = share.slice(at, at + AT_ONCE);
        const plans = await hand.remote.planShare({
          ...(at === 0 ? { around: this.#aroundFor(hand, planning, catalogue) } : {}),
          cases: some.map(withoutSystems)
        });
        some.forEach((one, k) => {
          const plan = plans[k];
          if (plan) planning.keepPlan(one, { ...plan, systems: one.systems });
        });
        done += some.length;
      }
    });
    await Promise.allSettled([own(shares[0] ?? [], () => done), ...theirs]);
  }

  #aroundFor(hand: Hand, { estate, today }: Planning, catalogue: Catalogue): NonNullable<Share['around']> {
    const isKnown = hand.catalogue === catalogue;
    hand.catalogue = catalogue;
    return { estate: estateAround(estate), today, ...(isKnown ? {} : { catalogue }) };
  }
}

function startHands(): Hand[] {
  if (typeof Worker === 'undefined') return [];
  const count = Math.min(MOST_HELPERS, (navigator.hardwareConcurrency || 1) - 1);
  return Array.from({ length: count }, () => {
    const worker = new Worker(self.location.href, { type: 'module' });
    return { remote: Comlink.wrap<Remote>(worker) };
  });
}

/** Which of so many a text falls to; the same every time. Method: FNV-1a (G. Fowler, L. Noll, K. Vo). */
function placeOf(text: string, of: number): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return (hash >>> 0) % of;
}
