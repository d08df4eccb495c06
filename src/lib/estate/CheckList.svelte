<script lang="ts">
  import { Area, Button, Choice, Day, Dialog, Field, Fold, Text } from '$lib/kit';
  import { formatDay, parseDay } from '$core/date';
  import {
    type Check,
    checkedOf,
    checkKey,
    keepCheck,
    kindsOf,
    likelyCauses,
    parseCheckItems,
    summariseCheck,
    type System
  } from '$core/estate';
  import { sayConditionText, sayCount, sayDay } from '$core/wording';
  import { naming } from '$lib/ready/naming';
  import { desk } from '$lib/state/desk.svelte';
  import { newId } from '$lib/state/ids';
  import { saveDecision, saveSystems } from '$lib/state/acts';
  import { settings } from '$lib/state/settings.svelte';

  let { system }: { system: System } = $props();

  const product = $derived(desk.products.get('is' in system.product ? system.product.is : ''));
  const kinds = $derived(kindsOf(desk.catalogue));
  const checks = $derived([...(system.checks ?? [])].sort((a, b) => (a.day < b.day ? 1 : -1)));
  let adding = $state(false);
  let tool = $state('');
  let version = $state('');
  let day = $state('');
  let attached = $state('');
  let announced = $state('');
  let pasted = $state('');
  const read = $derived(parseCheckItems(pasted, kinds, product));

  function open(): void {
    [tool, version, attached, announced, pasted] = ['', '', '', '', ''];
    day = formatDay(desk.today);
    adding = true;
  }

  async function keep(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const count = Number(announced);
    const check: Check = {
      id: newId('c'),
      tool: tool.trim(),
      day: parseDay(day) === undefined ? formatDay(desk.today) : day,
      ...(version.trim() ? { toolVersion: version.trim() } : {}),
      ...(attached.trim()
        ? {
            attached: attached
              .split(/[,;\n]+/)
              .map((t) => t.trim())
              .filter(Boolean)
              .slice(0, 200)
          }
        : {}),
      ...(announced.trim() !== '' && Number.isInteger(count) && count >= 0 ? { announced: count } : {}),
      items: read.items
    };
    adding = false;
    await saveSystems(`Kept a result of ${check.tool} for ${system.name}`, [keepCheck(system, check, kinds)]);
  }

  const remove = (check: Check): Promise<void> =>
    saveSystems(`Removed a result of ${check.tool}`, [
      { ...system, checks: (system.checks ?? []).filter((c) => c.id !== check.id) }
    ]);

  /** Failures nobody can place: each closes every hop until it is placed or ruled wrong. */
  const unplaced = $derived(new Set(product ? checkedOf(product, system, kinds).unplaced : []));
  const entryOf = (what: string): string => `${product?.id ?? ''}/checks/${checkKey(what)}`;
  const ruled = $derived(
    new Set(
      desk.estate.decisions
        .filter((d) => d.kind === 'ignore' && 'system' in d.scope && d.scope.system === system.id)
        .map((d) => d.about)
    )
  );
  let ruling = $state<string | undefined>();
  let reason = $state('');

  const place = (check: Check, what: string, requirement: string): Promise<void> =>
    saveSystems(`Placed “${what}” for ${system.name}`, [
      {
        ...system,
        checks: (system.checks ?? []).map((c) =>
          c.id === check.id
            ? { ...c, items: c.items.map((i) => (i.what === what ? { ...i, requirement } : i)) }
            : c
        )
      }
    ]);

  async function rule(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const what = ruling ?? '';
    ruling = undefined;
    await saveDecision(`Ruled “${what}” wrong for ${system.name}`, {
      id: newId('wrong'),
      kind: 'ignore',
      scope: { system: system.id },
      about: entryOf(what),
      reason: reason.trim(),
      ...(settings.who ? { who: settings.who } : {}),
      day: formatDay(desk.today)
    });
    reason = '';
  }

  const sayDayText = (text: string): string => {
    const read = parseDay(text);
    return read === undefined ? text : sayDay(read);
  };
</script>

<h2>Results of checking tools</h2>
{#if checks.length === 0}<p class="soft">
    None kept. A tool’s result is a record: what it read becomes its statement.
  </p>{/if}
{#each checks as check (check.id)}
  {@const sum = summariseCheck(check)}
  <Fold data-check={check.tool} open={sum.counts.failure > 0 || sum.missing > 0}
    >{#snippet head()}<span>
        <b>{check.tool}{check.toolVersion ? ` ${check.toolVersion}` : ''}</b>, {sayDayText(check.day)}:
        {#if sum.clean}nothing known against it{:else}{sum.counts.failure} failed, {sum.counts.warning} warned,
          {sum.counts.pass} passed{sum.counts.unknown > 0
            ? `, ${sum.counts.unknown} not checked`
            : ''}{/if}{#if sum.missing > 0}. <b
            >{sayCount(sum.missing, 'item')} announced {sum.missing === 1 ? 'is' : 'are'} not there: is there a
            second page?</b
          >{/if}
      </span>{/snippet}
    {#if check.attached}<p class="soft">Attached and switched on: {check.attached.join(', ')}</p>{/if}
    <ul>
      {#each check.items.filter((i) => i.result !== 'pass').slice(0, 200) as item, i (i)}
        {@const causes = likelyCauses(item, product)}
        <li>
          <b>{item.result}</b>: {item.what}{item.value === undefined
            ? ''
            : ` = ${String(item.value)}`}{item.reason ? ` - ${item.reason}` : ''}
          {#if causes.length > 0}<div class="soft">
              It says no reason. Likely, cheapest to test first: {causes.join('; ')}
            </div>{/if}
          {#if item.result === 'failure' && unplaced.has(item.what)}
            {#if ruled.has(entryOf(item.what))}<div class="soft">Ruled wrong; it closes nothing.</div>
            {:else}<div>
                It is about nothing the catalogue knows, so it closes every hop.
                <label
                  >It is about <Choice onchange={(e) => void place(check, item.what, e.currentTarget.value)}>
                    <option value="" selected disabled>…</option>
                    {#each product?.requirements ?? [] as r (r.id)}<option value={r.id}
                        >{r.name ??
                          sayConditionText(r.needs, naming, desk.namesOfProduct(product?.id ?? ''))}</option
                      >{/each}
                  </Choice></label
                >
                <Button kind="small" onclick={() => (ruling = item.what)}>It is wrong…</Button>
              </div>{/if}
          {/if}
        </li>
      {/each}
    </ul>
    <Button onclick={() => void remove(check)}>Remove this result</Button>
  </Fold>
{/each}
<p><Button onclick={open}>Keep a tool’s result…</Button></p>

<Dialog
  bind:open={() => ruling !== undefined, (open) => open || (ruling = undefined)}
  title="“{ruling ?? ''}” is wrong"
>
  <form class="form" onsubmit={rule}>
    <Field label="Why" class="wide"
      ><Area rows={3} bind:value={reason} required maxlength={2000}></Area></Field
    >
    <Button type="submit" disabled={reason.trim() === ''}>Rule it wrong</Button>
  </form>
</Dialog>

<Dialog bind:open={adding} title="Keep a tool’s result for {system.name}">
  <form class="form" onsubmit={keep}>
    <Field label="Tool"><Text bind:value={tool} required maxlength={300} /></Field>
    <Field label="Its version"><Text bind:value={version} maxlength={300} /></Field>
    <div class="labelled"><span>Day</span><Day bind:value={day} label="Day" /></div>
    <Field label="Attached and switched on"
      ><Text bind:value={attached} placeholder="plotter, network part" /></Field
    >
    <Field label="Items it announced"><Text class="mono" inputmode="numeric" bind:value={announced} /></Field>
    <label class="wide"
      >Its items, one a line
      <Area
        class="mono"
        rows={6}
        bind:value={pasted}
        placeholder="failure: memory = 2 GB - too little&#10;pass: Route stamp"
      ></Area></label
    >
    <p class="soft" role="status">
      {sayCount(read.items.length, 'item')} understood{read.left > 0
        ? `, ${sayCount(read.left, 'line')} without a result left out`
        : ''}
    </p>
    <Button type="submit" disabled={tool.trim() === '' || read.items.length === 0}>Keep it</Button>
  </form>
</Dialog>

<style>
  h2 {
    margin: 14px 0 4px;
  }
  :global(.fold[data-check]) {
    padding: 4px 0;
    border-bottom: 1px solid var(--hair);
  }
  ul {
    margin: 4px 0 6px 16px;
  }
  .form {
    display: flex;
    flex-direction: column;
    gap: 8px;
    align-items: flex-start;
  }
  label {
    display: flex;
    gap: 8px;
    align-items: center;
  }
  .wide {
    flex-direction: column;
    align-items: stretch;
    width: 100%;
  }
</style>
