<script lang="ts">
  import { type Change, ORDER_BY, type OrderBy } from '$core/estate';
  import { formatDay } from '$core/date';
  import { sayIsoDay, sayLock, sayMinutes } from '$core/wording';
  import { Button, Choice } from '$lib/kit';
  import { desk } from '$lib/state/desk.svelte';
  import type { OrderState } from './order-state.svelte';

  /** What orders are chosen by, what people have laid down, and what could be otherwise in the calendars. */
  let { state: order }: { state: OrderState } = $props();

  let picked = $state('');
  const by = $derived(desk.estate.site.orderBy ?? ORDER_BY[0]);
  const options = $derived(
    (desk.estate.calendars ?? []).flatMap(
      (c): readonly { readonly words: string; readonly change: Change }[] => [
        ...c.windows.flatMap((w) => {
          const one = { calendar: c.id, window: w.id };
          const name = w.name ?? w.id;
          return [
            {
              words: `${name} lasts ${sayMinutes(w.minutes + 60)} instead of ${sayMinutes(w.minutes)}`,
              change: { ...one, minutes: w.minutes + 60 }
            },
            ...(w.crew
              ? [
                  {
                    words: `${w.crew.name ?? name}: one more at once, ${w.crew.systems + 1}`,
                    change: { ...one, crew: w.crew.systems + 1 }
                  }
                ]
              : [])
          ];
        }),
        ...(c.freezes ?? [])
          .filter((f) => f.last >= formatDay(desk.today))
          .map(({ first, last, reason }) => ({
            words: `no freeze from ${sayIsoDay(first)} to ${sayIsoDay(last)}${reason ? ` (${reason})` : ''}`,
            change: { calendar: c.id, freeze: { first, last } }
          }))
      ]
    )
  );
  const locks = $derived(desk.estate.locks ?? []);

  function tryOption(event: SubmitEvent): void {
    event.preventDefault();
    const change = options[Number(picked)]?.change;
    if (picked !== '' && change) order.try([change]);
    picked = '';
  }
</script>

<div class="laid" data-laid-down>
  <div class="tools no-print">
    <label
      >Chosen by <Choice
        bind:value={
          () => by,
          (v: OrderBy) => {
            if (v !== by) order.try([{ orderBy: v }]);
          }
        }
        >{#each ORDER_BY as b (b)}<option>{b}</option>{/each}</Choice
      ></label
    >
    {#if options.length > 0}
      <form onsubmit={tryOption} aria-label="What if">
        <label
          >What if <Choice bind:value={picked}
            ><option value="">which</option>{#each options as o, i (o.words)}<option value={String(i)}
                >{o.words}</option
              >{/each}</Choice
          ></label
        >
        <Button kind="small" type="submit" disabled={picked === ''}>Try it</Button>
      </form>
    {/if}
  </div>
  {#if locks.length > 0}
    <h2>Laid down</h2>
    <ul>
      {#each locks as lock (lock.id)}<li>
          {sayLock(lock, desk.naming)}{lock.who ? `, says ${lock.who}` : ''}
          <Button
            kind="link"
            class="no-print"
            aria-label={`Try without: ${sayLock(lock, desk.naming)}`}
            onclick={() => order.try([{ unlock: lock.id }])}>try without</Button
          >
        </li>{/each}
    </ul>
  {/if}
</div>

<style>
  .tools,
  form,
  label {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 14px;
    align-items: center;
  }
  label {
    gap: 6px;
  }
  .laid :global(select) {
    max-width: 330px;
  }
  ul {
    list-style: disc;
    padding-left: 18px;
    margin: 4px 0;
  }
</style>
