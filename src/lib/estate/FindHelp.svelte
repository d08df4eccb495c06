<script lang="ts">
  import { Table } from '$lib/kit';
  import Dialog from '$lib/components/Dialog.svelte';

  let { open = $bindable(false) }: { open?: boolean } = $props();
  const EXAMPLES = [
    ['draw ticket', 'both words, anywhere'],
    ['"board room"', 'the words together'],
    ['draw or board', 'either'],
    ['not closed', 'without that word'],
    ['team = ticket', 'the team’s name holds the word'],
    ['slack < 30', 'less than thirty days left'],
    ['deadline < 2031-07', 'a day, or the beginning of one'],
    ['memory < 8 GB', 'any fact, with its unit'],
    ['patch = ?', 'nobody knows it']
  ] as const;
</script>

<Dialog bind:open title="Finding">
  <Table>
    <tbody>
      {#each EXAMPLES as [text, means] (text)}<tr><td class="mono">{text}</td><td>{means}</td></tr>{/each}
    </tbody>
  </Table>
  <p class="soft">
    Fields: name, team, site, product, release, patch, edition, architecture, verdict, slack, systems,
    deadline, stage, missing, observed, source, note, or the id of a fact.
  </p>
</Dialog>
