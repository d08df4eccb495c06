<script lang="ts">
  import { Area, Choice, Text } from '$lib/kit';
  import type { FieldOutline } from '$core/catalogue';
  import { formatInline, parseInline } from '$core/exchange';

  let {
    field,
    value,
    sources,
    onset
  }: {
    field: FieldOutline;
    value: unknown;
    sources: readonly { id: string; title: string }[];
    onset: (value: unknown) => void;
  } = $props();

  let fault = $state('');
  const text = $derived(formatInline(value));
  const isLong = $derived(
    field.kind === 'value' ||
      text.length > 40 ||
      ['needs', 'when', 'note', 'where', 'how'].includes(field.key)
  );

  function setText(typed: string): void {
    fault = '';
    const clean = typed.trim();
    if (clean === text) return;
    if (clean === '') return onset(undefined);
    if (field.kind === 'number') {
      if (Number.isInteger(Number(clean))) return onset(Number(clean));
      fault = 'A whole number goes here.';
      return;
    }
    if (field.kind === 'list' && !clean.startsWith('['))
      return onset(
        clean
          .split(',')
          .map((t) => t.trim())
          .filter(Boolean)
      );
    if (field.kind === 'text' || !/^[{[]/.test(clean)) return onset(clean);
    const read = parseInline(clean);
    if (read) onset(read.value);
    else fault = 'This cannot be read: look at its brackets and quotes.';
  }
</script>

{#if field.kind === 'choice'}
  <Choice
    class="whole"
    aria-label={field.key}
    value={text}
    onchange={(e) => onset(e.currentTarget.value || undefined)}
  >
    {#if !field.required}<option value="">not said</option>{/if}
    {#each field.choices as choice (choice)}<option value={choice}>{choice}</option>{/each}
  </Choice>
{:else if field.kind === 'switch'}
  <Choice
    class="whole"
    aria-label={field.key}
    value={value === undefined ? '' : String(value)}
    onchange={(e) => onset(e.currentTarget.value === '' ? undefined : e.currentTarget.value === 'true')}
  >
    <option value="">not said</option><option value="true">yes</option><option value="false">no</option>
  </Choice>
{:else if field.key === 'source'}
  <Choice
    class="whole"
    aria-label="source"
    value={text}
    onchange={(e) => onset(e.currentTarget.value || undefined)}
  >
    <option value="">the product’s own source</option>
    {#each sources as source (source.id)}<option value={source.id}>{source.title}</option>{/each}
  </Choice>
{:else if isLong}
  <Area
    class="mono whole"
    rows={Math.min(6, Math.ceil(Math.max(1, text.length) / 38))}
    aria-label={field.key}
    value={text}
    onchange={(e) => setText(e.currentTarget.value)}
    onkeydown={(e) => e.key === 'Enter' && (e.preventDefault(), setText(e.currentTarget.value))}
  ></Area>
{:else}
  <Text
    class="mono whole"
    aria-label={field.key}
    inputmode={field.kind === 'number' ? 'numeric' : undefined}
    value={text}
    onchange={(e) => setText(e.currentTarget.value)}
  />
{/if}
{#if fault}<p class="fault" role="alert">{fault}</p>{/if}

<style>
  .fault {
    font-weight: 650;
  }
</style>
