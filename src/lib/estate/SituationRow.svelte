<script lang="ts">
  import { Badge } from '$lib/kit';
  import { urgencyOf } from '$core/plan';
  import { sayInTime, sayOrderSlack } from '$core/wording';
  import Sign from '$lib/components/Sign.svelte';
  import Way from '$lib/components/Way.svelte';
  import { drawWay } from '$lib/stair/way';
  import { desk } from '$lib/state/desk.svelte';
  import { orderNames } from '$lib/state/order-names';
  import { ordering } from '$lib/state/ordering.svelte';
  import { needsOf } from '$lib/state/needs';
  import type { Line } from '$lib/state/rows';
  import type { EstateList } from './estate-list.svelte';

  /** One row of the estate: slack, number, what is installed, the way, what it needs first, the deadline. */
  let { list, line, onopen }: { list: EstateList; line: Extract<Line, { kind: 'row' }>; onopen: () => void } =
    $props();

  const plan = $derived(line.plan);
  const urgency = $derived(urgencyOf(plan, desk.today));
  const said = $derived(desk.found(plan));
  /** Where the days count to the deadline, they stand with it. */
  const counted = $derived(urgency.counts === 'deadline' && (urgency.days ?? -1) >= 0 ? said.left : '');
  const names = $derived(desk.namesOf(plan));
  const inOrder = $derived.by(() => {
    const found = ordering.of(plan.systems[0]);
    return found ? sayOrderSlack(found.order, found.part, { alone: plan.slack, names: orderNames }) : '';
  });
  const isSelected = $derived(line.index === list.selected);
  const what = $derived(desk.describe(plan));
  /** Why no day stands there. */
  const noDate = $derived.by(() => {
    const product = desk.products.get(plan.product ?? '');
    if (!product) return 'no product yet';
    if (!product.releases.some((r) => r.service) && !product.lines?.some((l) => l.service))
      return 'the catalogue has no dates of it';
    return plan.start
      ? `nobody has said how long ${names.release(plan.start.release)} is served`
      : 'not known which release it is';
  });
</script>

<!-- svelte-ignore a11y_click_events_have_key_events, a11y_interactive_supports_focus -->
<div
  id="row-{line.index}"
  class="row situation"
  class:one={list.oneLine}
  class:selected={isSelected}
  role="row"
  aria-selected={isSelected}
  aria-rowindex={line.index + 1}
  data-case={plan.systems[0]}
  style:top="{line.top}px"
  style:height="{line.height}px"
  onclick={onopen}
>
  <span role="gridcell" class="num mono strong" data-cell="slack"
    >{#if urgency.days !== undefined && urgency.days < 0}<Badge loud>{said.left}</Badge
      >{:else}{urgency.days ?? ''}{/if}</span
  >
  <span role="gridcell" class="num mono strong count">{plan.systems.length}</span>
  <span role="gridcell" class="what"
    ><a class="title" href="/stair?at={encodeURIComponent(plan.systems[0] ?? '')}" tabindex="-1" title={what}
      >{what}</a
    ><span class="team soft">{list.teamOf(plan)}</span></span
  >
  <span role="gridcell" class="way" data-cell="way"
    ><Way way={drawWay(plan, names, list.oneLine, said.verdict)} oneLine={list.oneLine} /></span
  >
  <span role="gridcell" class="needs"
    >{#if sayInTime(plan)}<span class="need"><b>{sayInTime(plan)}</b></span
      >{/if}{#each needsOf(plan, desk.systems.get(plan.systems[0] ?? ''), desk.products.get(plan.product ?? '')) as need (need.kind + need.words)}<span
        class="need"><Sign kind={need.kind} /> {need.words}</span
      >{/each}</span
  >
  <span role="gridcell" class="deadline" data-cell="deadline"
    >{#if said.day}<b data-said="day">{said.day}</b>
      <span class="soft">{counted ? `${counted}: ` : ''}{said.sets}{inOrder ? `; ${inOrder}` : ''}</span
      >{:else}<span class="soft">{noDate}</span>{/if}</span
  >
</div>

<style>
  .row {
    position: absolute;
    left: 0;
    right: 0;
    border-bottom: 1px solid var(--hair);
    cursor: pointer;
  }
  :global(.rows:focus-within) .row.selected,
  .row:hover {
    background: var(--tint);
  }
  .num {
    text-align: right;
  }
  .what,
  .deadline,
  .needs {
    min-width: 0;
    overflow: hidden;
    white-space: nowrap;
    text-overflow: ellipsis;
  }
  .what {
    display: flex;
    flex-direction: column;
    line-height: 1.35;
  }
  .one .what {
    flex-direction: row;
    gap: 8px;
    align-items: baseline;
  }
  .title {
    text-decoration: none;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .one .title {
    flex: none;
    max-width: 75%;
  }
  .team {
    font-size: 12.5px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .way {
    min-width: 0;
    overflow: hidden;
    align-self: end;
  }
  .need {
    margin-right: 10px;
  }
  @media (max-width: 700px) {
    .row {
      padding: 6px 0;
      align-content: start;
    }
    [data-cell='slack'] {
      grid-area: left;
      text-align: left;
    }
    .count {
      grid-area: number;
    }
    .what {
      grid-area: what;
    }
    .way {
      grid-area: way;
      align-self: start;
    }
    .needs {
      grid-area: needs;
    }
    .deadline {
      grid-area: deadline;
    }
  }
</style>
