<script lang="ts">
  import { Button, Radio, Table } from '$lib/kit';
  import { type Conflict, isAgreed, keysOfHeld, kindsOf, readingKey, type System } from '$core/estate';
  import { describeInstalled, sayCount } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { joining } from '$lib/state/joining.svelte';

  const merged = $derived(joining.merged);
  const kinds = $derived(kindsOf(desk.catalogue));
  const added = $derived((merged?.estate.systems.length ?? 0) - desk.estate.systems.length);
  const disputed = $derived(countDisputed(merged?.estate.systems ?? []) - countDisputed(desk.estate.systems));

  function countDisputed(systems: readonly System[]): number {
    return systems.reduce(
      (n, s) =>
        n +
        Object.entries(s.facts ?? {}).filter(([id, f]) => 'statements' in f && !isAgreed(f, kinds.find(id)))
          .length,
      0
    );
  }

  /** `settlingDays` reads settling days. */
  const sayField = (field: string): string => field.replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`);

  /** Conflicts come in a fixed order; which of the two values is the one here is looked up. */
  const isMine = (c: Conflict, which: 0 | 1): boolean => {
    const [kind, ...rest] = c.key.split('/');
    const id = rest.join('/');
    const record =
      kind === 'site'
        ? desk.estate.site
        : kind === 'system'
          ? desk.systems.get(id)
          : kind === 'goal'
            ? desk.estate.goals.find((g) => g.id === id)
            : kind === 'decision'
              ? desk.estate.decisions.find((d) => d.id === id)
              : kind === 'question'
                ? desk.estate.questions?.find((q) => q.id === id)
                : desk.estate.rightsHeld.find((r) => keysOfHeld(desk.estate.rightsHeld)(r) === id);
    const value = c.values[which];
    if (c.field === 'installed' && record)
      return Object.entries(value as object).every(
        ([k, v]) => JSON.stringify((record as Record<string, unknown>)[k]) === JSON.stringify(v)
      );
    return (
      JSON.stringify((record as Record<string, unknown> | undefined)?.[c.field]) === JSON.stringify(value)
    );
  };

  function say(c: Conflict, value: unknown): string {
    if (c.field === 'installed') {
      const system = { name: '', id: '', ...(value as object) } as System;
      const known = 'is' in system.product ? desk.products.get(readingKey(system.product)) : undefined;
      return describeInstalled(system, known);
    }
    return typeof value === 'object' ? JSON.stringify(value) : String(value);
  }

  function nameOf(c: Conflict): string {
    const [kind = '', ...rest] = c.key.split('/');
    const id = rest.join('/');
    return kind === 'system' ? (desk.systems.get(id)?.name ?? id) : id === '' ? kind : `${kind} ${id}`;
  }
</script>

{#if merged}
  <section class="join" data-join>
    <h1>Joining with {joining.fileName}</h1>
    <p>
      {sayCount(added, 'system')} only the other has; {sayCount(disputed, 'fact')} would become disputed; {sayCount(
        merged.conflicts.length,
        'difference'
      )} to choose. Nothing is changed yet.
    </p>
    {#if joining.catalogueDiffers}
      <p class="row">
        The catalogues differ:
        <Radio bind:group={joining.catalogue} value="mine">keep the one here</Radio>
        <Radio bind:group={joining.catalogue} value="theirs">take the other’s</Radio>
        <Radio bind:group={joining.catalogue} value="joined">join them, both statements kept</Radio>
      </p>
    {/if}
    {#if merged.conflicts.length > 0}
      <Table>
        <thead><tr><th>Of</th><th>What</th><th>One of you says</th><th>The other says</th></tr></thead>
        <tbody>
          {#each merged.conflicts.slice(0, 1000) as c (c.key + c.field)}
            <tr data-conflict="{c.key} {c.field}">
              <td>{nameOf(c)}</td><td>{sayField(c.field)}</td>
              {#each [0, 1] as const as which (which)}
                <td
                  ><Radio
                    name="{c.key} {c.field}"
                    group={String(joining.chosenOf(c))}
                    value={String(which)}
                    onchange={() => joining.choose(c, which)}
                    >{say(c, c.values[which])}
                    <span class="soft">{isMine(c, which) ? '(here)' : '(the other)'}</span></Radio
                  ></td
                >
              {/each}
            </tr>
          {/each}
        </tbody>
      </Table>
    {/if}
    {#if joining.fault}<p role="alert">{joining.fault}</p>{/if}
    <p class="row">
      <Button kind="onward" onclick={() => void joining.finish()}>Join them</Button>
      <Button onclick={() => joining.stop()}>Leave it, changing nothing</Button>
    </p>
  </section>
{/if}

<style>
  .join {
    border-left: 4px solid var(--ink);
    padding: 2px 0 6px 14px;
  }
  h1 {
    font-size: 16px;
  }
  .row {
    display: flex;
    gap: 12px;
    flex-wrap: wrap;
    margin: 8px 0;
  }
  td {
    overflow-wrap: anywhere;
  }
</style>
