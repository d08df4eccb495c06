import type { Case, CaseKeys } from '../bind';
import type { Product } from '../catalogue';
import type { ProductModel } from '../compile';
import type { Day } from '../date';
import type { CaseGoal, Estate, LinkIndex, System } from '../estate';
import type { Terms } from '../route';

/** What is planned by, as far as cases are told apart by it. */
interface PlannedBy {
  readonly estate: Estate;
  readonly today: Day;
  readonly links: LinkIndex;
  /** Rights that are held. */
  readonly heldKey: string;
  calendarKeyOf(system: System): string;
}

/** What cases turn on, in words, and what is remembered of those between which no way can tell. */
export class Alike {
  readonly #by: PlannedBy;
  readonly #keys: CaseKeys;

  constructor(by: PlannedBy, keys: CaseKeys) {
    this.#by = by;
    this.#keys = keys;
  }

  /**
   * Equal for cases between which no way can tell, wherever they stand: everything their terms hold but what was seen word for word.
   * Where what linked systems do matters too, that is not in it.
   */
  turnsOnOf(one: Case): string {
    let key = this.#turnsOn.get(one);
    if (key === undefined) this.#turnsOn.set(one, (key = this.#findTurnsOn(one)));
    return key;
  }
  readonly #turnsOn = new WeakMap<Case, string>();

  #findTurnsOn({ system, goal, decisions, nodes, activated }: Case): string {
    const decided = decisions.map(
      ({ id: _id, reason: _reason, who: _who, ...d }) => (void [_id, _reason, _who], d)
    );
    const told = `${system.stage ?? ''} ${nodes} ${activated} ${decided.length === 0 ? '' : JSON.stringify(decided)}`;
    return `${this.#around} ${told} ${goalKeyOf(goal)} ${this.#by.calendarKeyOf(system)} ${this.#keys.truthsOf(system)}`;
  }

  /** What all cases turn on. */
  get #around(): string {
    const { estate, today, heldKey } = this.#by;
    const { countsExpected, newMachineCents, replaceShare, wayBackMinutes } = estate.site;
    return (this.#aroundText ??= JSON.stringify([
      today,
      countsExpected,
      newMachineCents,
      replaceShare,
      wayBackMinutes,
      heldKey
    ]));
  }
  #aroundText: string | undefined;

  /** What was seen of a system, word for word, as far as its product asks; with what it is linked with. */
  seenKeyOf(system: System): string {
    const ends = this.#by.links
      .around(system)
      .map((e) => (typeof e.system === 'string' ? e.system : e.system.id));
    return `${system.id} ${this.#keys.seenOf(system)} ${ends.join(' ')}`;
  }

  /** What is remembered of cases between which no way can tell: of one product, since cases come product by product, and it is much. */
  memoOf({ product }: ProductModel, one: Case): Terms['memo'] {
    if (this.#remembered.product !== product) this.#remembered = { product, memos: new Map() };
    const { memos } = this.#remembered;
    const key = this.turnsOnOf(one);
    const memo = memos.get(key) ?? new Map();
    memos.set(key, memo);
    return memo;
  }
  #remembered: { readonly product?: Product; readonly memos: Map<string, Terms['memo']> } = {
    memos: new Map()
  };

  /** Lets go of what was remembered while everything was planned: much, and of little use behind it. */
  forget(): void {
    this.#remembered = { memos: new Map() };
  }
}

const GOAL_KEYS = new WeakMap<CaseGoal, string>();

/** All of a goal but whose it is. */
function goalKeyOf(goal: CaseGoal): string {
  let key = GOAL_KEYS.get(goal);
  if (key === undefined) GOAL_KEYS.set(goal, (key = JSON.stringify({ ...goal, id: '', team: '' })));
  return key;
}
