<script lang="ts">
  import { draft } from '$lib/state/draft.svelte';
  import type { TextEditor } from './text-editor';

  let { line }: { line: number } = $props();

  let host: HTMLElement | undefined = $state();
  let editor = $state.raw<TextEditor | undefined>();
  let typing: ReturnType<typeof setTimeout> | undefined;
  const AFTER_TYPING_MS = 200;

  // The editor is drawn by its own library, loaded only here.
  $effect(() => {
    const element = host;
    if (!element) return;
    let opened: TextEditor | undefined;
    let gone = false;
    void import('./text-editor').then(({ openTextEditor }) => {
      if (gone) return;
      opened = openTextEditor(element, {
        text: draft.shownText,
        ontext: (text) => {
          clearTimeout(typing);
          typing = setTimeout(() => void draft.setText(text), AFTER_TYPING_MS);
        },
        complete: (text, offset) => draft.complete(text, offset)
      });
      editor = opened;
    });
    return () => {
      gone = true;
      opened?.destroy();
    };
  });

  // The library holds its own copy of text, marks and place: they follow ours.
  $effect(() => editor?.setText(draft.shownText));
  $effect(() => editor?.setIssues(draft.issues));
  $effect(() => {
    if (line > 0) editor?.goToLine(line);
  });
</script>

<div class="text" bind:this={host}>
  {#if !editor}<p class="soft">Opening the editor…</p>{/if}
</div>
<p class="soft hint">
  Ctrl Space completes, Ctrl F finds. What is typed here is a draft: the table and the lists follow it, and
  nothing counts until it is kept.
</p>

<style>
  .text {
    height: calc(100vh - 216px);
    min-height: 260px;
    margin-top: 10px;
  }
  .hint {
    margin-top: 6px;
    font-size: 12.5px;
  }
</style>
