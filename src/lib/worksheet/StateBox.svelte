<script lang="ts">
  import type { ItemState } from '$core/estate';

  /** The box before an item, with what has become of it; on paper one to tick. */
  let { state }: { state: ItemState } = $props();

  const MARKS: Readonly<Record<ItemState, string>> = {
    open: '',
    running: '…',
    passed: '✓',
    'passed with a warning': '✓!',
    failed: '✗',
    'not needed': '–'
  };
</script>

<span class="box" aria-hidden="true">{MARKS[state]}</span>

<style>
  .box {
    display: inline-block;
    width: 18px;
    height: 18px;
    border: 1.4px solid var(--ink);
    text-align: center;
    line-height: 15px;
    font-weight: 700;
    font-size: 12px;
    align-self: start;
  }
  @media print {
    .box {
      border-color: #000;
    }
  }
</style>
