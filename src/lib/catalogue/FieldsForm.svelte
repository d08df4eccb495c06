<script lang="ts">
  import {
    entryAt,
    fieldsOf,
    isFieldMap,
    isFieldMapList,
    sayBrief,
    sayField,
    type EntryPath
  } from './entries';
  import { draft } from '$lib/state/draft.svelte';
  import FieldInput from './FieldInput.svelte';
  import FieldsForm from './FieldsForm.svelte';

  let {
    path,
    onset,
    depth = 0
  }: { path: EntryPath; onset: (path: EntryPath, value: unknown) => void; depth?: number } = $props();

  let adding = $state.raw<readonly string[]>([]);
  const entry = $derived((entryAt(draft.current, path) ?? {}) as Readonly<Record<string, unknown>>);
  const fields = $derived(fieldsOf(path, entry, depth > 0));
  const shown = $derived([...fields.shown, ...fields.further.filter((f) => adding.includes(f.key))]);
  const further = $derived(fields.further.filter((f) => !adding.includes(f.key) && f.key !== 'also'));

  /** Another element like the last: the same fields, so that only what differs has to be typed. */
  function another(key: string, list: readonly unknown[]): void {
    const last = list[list.length - 1] as Record<string, unknown> | undefined;
    const id = typeof last?.['id'] === 'string' ? { id: `${last['id']}-${list.length + 1}` } : {};
    onset([...path, key, list.length], { ...last, ...id });
  }
</script>

<dl>
  {#each shown as field (field.key)}
    {@const value = entry[field.key]}
    <dt title={field.about}>{sayField(field.key)}</dt>
    <dd>
      {#if isFieldMapList(path, field.key, value)}
        {#each value as item, i (i)}
          <details>
            <summary>{sayBrief(item)}</summary>
            <FieldsForm path={[...path, field.key, i]} {onset} depth={depth + 1} />
            <button
              class="act small"
              onclick={() =>
                onset([...path, field.key], value.length === 1 ? undefined : value.filter((_, j) => j !== i))}
              >Take away</button
            >
          </details>
        {/each}
        <button class="act small" onclick={() => another(field.key, value)}>Another</button>
      {:else if isFieldMap(path, field.key, value)}
        <details>
          <summary>{sayBrief(value)}</summary>
          <FieldsForm path={[...path, field.key]} {onset} depth={depth + 1} />
          <button class="act small" onclick={() => onset([...path, field.key], undefined)}>Take away</button>
        </details>
      {:else}
        <FieldInput
          {field}
          {value}
          sources={draft.current?.sources ?? []}
          onset={(v) => onset([...path, field.key], v)}
        />
      {/if}
    </dd>
  {/each}
</dl>
{#if further.length > 0}
  <select
    class="field more"
    aria-label="Also say"
    value=""
    onchange={(e) => {
      adding = [...adding, e.currentTarget.value];
      e.currentTarget.value = '';
    }}
  >
    <option value="">also say …</option>
    {#each further as field (field.key)}<option value={field.key}
        >{sayField(field.key)}{field.about ? `: ${field.about}` : ''}</option
      >{/each}
  </select>
{/if}

<style>
  dl {
    display: grid;
    grid-template-columns: minmax(64px, max-content) minmax(0, 1fr);
    gap: 4px 8px;
    margin: 0;
  }
  dt {
    color: var(--soft);
    font-size: 12.5px;
    padding-top: 3px;
    max-width: 92px;
    overflow-wrap: break-word;
  }
  dd {
    margin: 0;
    min-width: 0;
  }
  details {
    border-bottom: 1px solid var(--hair);
    padding: 3px 0;
    margin-bottom: 2px;
  }
  details[open] {
    border-left: 2px solid var(--line);
    padding-left: 8px;
    margin-left: -60px;
    background: var(--paper);
  }
  summary {
    cursor: pointer;
    font-size: 13px;
    overflow-wrap: anywhere;
  }
  .small {
    padding: 1px 8px;
    font-size: 12.5px;
    margin-top: 4px;
  }
  .more {
    width: 100%;
    padding: 3px 7px;
    margin-top: 6px;
  }
</style>
