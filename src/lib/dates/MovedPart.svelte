<script lang="ts">
  import { sayCount, sayDay } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { movedDates, type MovedDate } from './moved-dates';

  /** Days that are stated otherwise than before, with what that did. */
  const SHOWN = 8;
  const moved = $derived(
    desk.plan && desk.catalogue ? movedDates(desk.catalogue, desk.plan, desk.estate.site.countsExpected) : []
  );

  function say({ product, release, phase, before, now }: MovedDate): string {
    const names = desk.namesOfProduct(product);
    const days = sayCount(Math.abs(now - before), 'day');
    const what = phase === undefined ? 'the day it is out' : `the end of ${phase}`;
    return `${names.product} ${names.release(release)}: ${what} ${now > before ? 'put off' : 'brought forward'} by ${days}, to ${sayDay(now)}`;
  }
  /** Later ends and earlier releases are gains. */
  const gains = ({ phase, before, now }: MovedDate): boolean => (phase === undefined) === now < before;
</script>

{#if moved.length > 0}
  <section data-moved>
    <h2>Days that have moved</h2>
    <ul class="ruled">
      {#each moved.slice(0, SHOWN) as m (m.product + m.release + (m.phase ?? ''))}<li>
          {say(m)}:
          <b
            >{sayCount(m.systems.length, 'system')}
            {gains(m) ? 'gain' : 'lose'}{m.systems.length === 1 ? 's' : ''}</b
          >.
          <a href="/stair?at={encodeURIComponent(m.systems[0] ?? '')}">See one</a>
        </li>{/each}
    </ul>
    {#if moved.length > SHOWN}<p class="soft">{moved.length - SHOWN} more.</p>{/if}
  </section>
{/if}
