<script lang="ts">
  import { Button, Pop, Table } from '$lib/kit';

  /** How words, fields and facts are found; beside the box they are typed into. */
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

<Button aria-label="How to find">?</Button>
<Pop title="How to find">
  <Table>
    <tbody>
      {#each EXAMPLES as [text, means] (text)}<tr><td class="mono">{text}</td><td>{means}</td></tr>{/each}
    </tbody>
  </Table>
  <p class="soft">
    Fields: name, team, site, product, release, patch, edition, architecture, verdict, slack, systems,
    deadline, stage, missing, observed, source, note, or the id of a fact.
  </p>
</Pop>
