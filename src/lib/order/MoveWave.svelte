<script lang="ts">
  import { formatDay, parseDay } from '$core/date';
  import type { OrderLock } from '$core/estate';
  import { sayDay, sayPart } from '$core/wording';
  import { Button, Choice, Day } from '$lib/kit';
  import { type OrderState, type WaveAt } from './order-state.svelte';
  import { orderNames } from '$lib/state/order-names';

  /** Another night for a wave, or a day or company laid down for it: tried first. */
  let { state: order, at }: { state: OrderState; at: WaveAt } = $props();

  const MUSTS = ['begin on', 'not begin before', 'be done by', 'never go together with'] as const;
  let must = $state<(typeof MUSTS)[number]>(MUSTS[0]);
  let day = $state('');
  let other = $state('');

  const wave = $derived(at.order.waves[at.index]);
  const beside = $derived({
    earlier: order.nightBeside(at, false),
    later: order.nightBeside(at, true)
  });
  const others = $derived(
    order.orders
      .flatMap((o) => o.parts)
      .filter((p) => !wave?.steps.some((s) => at.order.parts[s.part]?.id === p.id))
  );

  function lay(event: SubmitEvent): void {
    event.preventDefault();
    const on = parseDay(day);
    if (!wave) return;
    if (must === MUSTS[3]) {
      const apart = others.find((p) => p.id === other);
      if (!apart) return;
      const systems = wave.steps.flatMap((s) => at.order.parts[s.part]?.systems ?? []);
      order.try([{ lock: { systems, must: { apartFrom: [...apart.systems] } } }]);
    } else if (on !== undefined && must === MUSTS[0]) order.tryWave(at, on);
    else if (on !== undefined) {
      const iso = formatDay(on);
      const laid: OrderLock['must'] = must === MUSTS[1] ? { notBefore: iso } : { notAfter: iso };
      order.try(
        wave.steps.map(({ part, to }) => ({
          lock: { systems: [...(at.order.parts[part]?.systems ?? [])], release: to.release, must: laid }
        }))
      );
    }
    day = '';
    other = '';
  }
</script>

{#if wave}
  <p class="acts no-print">
    <Button
      kind="small"
      disabled={beside.earlier === undefined}
      onclick={() => beside.earlier !== undefined && order.tryWave(at, beside.earlier)}
      >{beside.earlier === undefined ? 'No earlier night' : `Try ${sayDay(beside.earlier)}`}</Button
    >
    <Button
      kind="small"
      disabled={beside.later === undefined}
      onclick={() => beside.later !== undefined && order.tryWave(at, beside.later)}
      >{beside.later === undefined ? 'No later night' : `Try ${sayDay(beside.later)}`}</Button
    >
    <Button
      kind="small"
      onclick={() =>
        order.try(
          wave.steps.map(({ part, to, first }) => ({
            lock: {
              systems: [...(at.order.parts[part]?.systems ?? [])],
              release: to.release,
              must: { on: formatDay(first) }
            }
          }))
        )}>Hold it where it is</Button
    >
  </p>
  <form class="no-print" onsubmit={lay} aria-label="Lay down for this wave">
    <label
      >It must <Choice bind:value={must}
        >{#each MUSTS as m (m)}<option>{m}</option>{/each}</Choice
      ></label
    >
    {#if must === MUSTS[3]}
      <Choice bind:value={other} aria-label="With which"
        ><option value="">which</option>{#each others as p (p.id)}<option value={p.id}
            >{orderNames.product(p.product).product}: {sayPart(p, orderNames)}</option
          >{/each}</Choice
      >
    {:else}<Day bind:value={day} label="Day of the wave" />{/if}
    <Button kind="small" type="submit" disabled={must === MUSTS[3] ? other === '' : day === ''}>Try it</Button
    >
  </form>
{/if}

<style>
  .acts,
  form,
  label {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    align-items: center;
  }
  .acts {
    margin: 5px 0;
  }
  form :global(select) {
    max-width: 250px;
  }
</style>
