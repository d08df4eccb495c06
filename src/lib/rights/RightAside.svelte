<script lang="ts">
  import {
    sayCount,
    sayDay,
    sayDays,
    sayForecast,
    sayMoney,
    sayNeed,
    sayNumber,
    sayPool
  } from '$core/wording';
  import type { Purchase } from '$core/right';
  import { desk } from '$lib/state/desk.svelte';
  import { stairOf } from '$lib/ready/naming';
  import type { Forecast } from '$core/plan';
  import TryRight from './TryRight.svelte';
  import type { RightsState } from './rights-state.svelte';
  import type { RightTread } from './tread-layout';

  /** One tread in sentences: what it comes to, who draws on it by when, what must not be used for it. */
  let { state: rights, tread }: { state: RightsState; tread: RightTread } = $props();

  interface User {
    readonly at: string;
    readonly words: string;
    readonly needed: number;
    readonly drawn: number;
    readonly toBuy: number;
    readonly isKnown: boolean;
    readonly first: number;
    readonly last: number;
    readonly certain: boolean;
  }
  /** By case: a line for each way that calls for it. */
  const users = $derived.by((): User[] => {
    const found = new Map<string, User>();
    for (const share of tread.needs.flatMap((n) => n.shares)) {
      const plan = rights.caseOfSystem(share.system);
      const key = `${plan?.id ?? share.system} ${share.certain}`;
      const known = found.get(key);
      const units = share.needed === 'unknown' ? 0 : share.needed;
      found.set(key, {
        at: plan?.systems[0] ?? share.system,
        words: plan ? desk.describe(plan) : share.system,
        needed: (known?.needed ?? 0) + units,
        drawn: (known?.drawn ?? 0) + share.held,
        toBuy: (known?.toBuy ?? 0) + (share.toBuy === 'unknown' ? 0 : share.toBuy),
        isKnown: (known?.isKnown ?? true) && share.needed !== 'unknown',
        first: Math.min(known?.first ?? Infinity, share.by),
        last: Math.max(known?.last ?? -Infinity, share.by),
        certain: share.certain
      });
    }
    return [...found.values()].sort((a, b) => a.first - b.first);
  });
  const forecasts = $derived(rights.forecastsOf(tread) satisfies readonly Forecast[]);
  const others = $derived(rights.othersOf(tread));
  const teamsOf = (at: string): string => desk.systems.get(at)?.team ?? 'no team';
  /** What is bought on one day at one price, together. */
  const purchases = $derived.by((): Purchase[] => {
    const found = new Map<string, Purchase>();
    for (const p of tread.needs.flatMap((n) => n.purchases)) {
      const key = `${p.day} ${p.priceCents} ${p.units / p.packs}`;
      const known = found.get(key);
      found.set(key, { ...p, packs: (known?.packs ?? 0) + p.packs, units: (known?.units ?? 0) + p.units });
    }
    return [...found.values()].sort((a, b) => a.day - b.day);
  });
</script>

<section data-right={tread.group}>
  <h1>{rights.nameOf(tread)}</h1>
  <p class="soft">{rights.productsOf(tread)}</p>
  {#each tread.needs as need (need.product + need.right + need.edition)}
    {@const names = desk.namesOfProduct(need.product)}
    <p class="says" data-need={need.right}>
      {#if tread.needs.length > 1}<b
          >{[names.right(need.right), names.edition(need.edition)].filter(Boolean).join(', ')}:</b
        >{/if}
      {sayNeed(need, rights.currency)}.
      {#if !need.exact}<span class="soft"
          >The best that was found; nothing costs less than {sayMoney(
            need.boundCents,
            rights.currency
          )}.</span
        >{/if}
    </p>
  {:else}<p class="says">No way that is chosen draws on it.</p>{/each}
  {#each tread.pools as pool, i (i)}<p class="says" data-pool={pool.name}>{sayPool(pool)}.</p>{:else}<p
      class="says soft"
    >
      None are held. <a href="/estate/systems?sheet=rights">Write down what is</a>
    </p>{/each}
  {#each purchases.filter((p) => p.units > p.packs || purchases.length > 1) as p (p)}
    <p class="says soft">
      On {sayDay(p.day)}: {sayCount(p.packs, p.units > p.packs ? 'pack' : 'unit')} at {sayMoney(
        p.priceCents,
        rights.currency
      )}{p.units > p.packs ? `, ${sayNumber(p.units)} units` : ''}.
    </p>
  {/each}
  {#each others as other, i (i)}
    <p class="says" data-must-not>
      <b
        >{other.held === 'unknown' ? 'Some' : sayNumber(other.held)} of {other.name} are held and must not be used
        here.</b
      >
    </p>
  {/each}
  {#each forecasts as f (f.right + (f.release ?? ''))}
    <p class="says soft" data-forecast>{sayForecast(f, desk.namesOfProduct(f.product))}.</p>
  {/each}
  {#if tread.needs.length > 0}{#key tread.group}<TryRight {tread} />{/key}{/if}
  {#if users.length > 0}
    <h2>Who draws on it, by when</h2>
    <ul>
      {#each users as u (u.at + u.certain)}
        <li data-user={u.at}>
          <a href={stairOf([u.at])}>{u.words}</a> <span class="soft">{teamsOf(u.at)}</span>
          <div>
            {u.isKnown ? sayNumber(u.needed) : 'nobody knows how many'}{u.certain
              ? ''
              : ', perhaps'}{u.drawn > 0 ? `, ${sayNumber(u.drawn)} drawn` : ''}{u.toBuy > 0
              ? `, ${sayNumber(u.toBuy)} to buy`
              : ''};
            <span class:late={u.first < desk.today}
              >{u.toBuy > 0 ? 'order' : 'needed'} by {sayDays(u.first, u.last).replace(/^on /, '')}</span
            >
          </div>
        </li>
      {/each}
    </ul>
  {/if}
</section>

<style>
  h1 {
    overflow-wrap: anywhere;
  }
  .says {
    margin: 6px 0;
  }
  h2 {
    margin-top: 14px;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 4px 0;
  }
  li {
    padding: 4px 0;
    border-bottom: 1px solid var(--hair);
    overflow-wrap: anywhere;
  }
  .late {
    font-weight: 700;
  }
</style>
