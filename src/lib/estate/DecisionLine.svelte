<script lang="ts">
  import { Button, Day, Text } from '$lib/kit';
  import { parseDay } from '$core/date';
  import type { Decision } from '$core/estate';
  import { sayDay } from '$core/wording';
  import { removeDecision, saveDecision } from '$lib/state/acts';
  import { sayDecision, scopeOf } from './decision-words';

  /** A decision as a sentence; its reason and its last day are changed where they stand. */
  let { decision }: { decision: Decision } = $props();

  let editing = $state<'reason' | 'until'>();
  const scope = $derived(scopeOf(decision));
  const sayText = (iso: string | undefined): string => {
    const day = parseDay(iso ?? '');
    return day === undefined ? '' : sayDay(day);
  };

  function setReason(text: string): void {
    const { reason: _old, ...rest } = decision;
    void _old;
    editing = undefined;
    const reason = text.trim();
    void saveDecision('Gave a decision its reason', reason === '' ? rest : { ...rest, reason });
  }

  function setUntil(until: string): void {
    const { until: _old, ...rest } = decision;
    void _old;
    editing = undefined;
    void saveDecision(
      until === '' ? 'A decision holds without an end' : `A decision holds until ${sayText(until)}`,
      until === '' ? rest : { ...rest, until }
    );
  }
</script>

<li data-decision={decision.id}>
  <span class="said">
    {#if scope.href}<a href={scope.href}>{scope.words}</a>{:else}<b>{scope.words}</b>{/if}
    <b>{sayDecision(decision)}</b>,
    {#if editing === 'reason'}because
      <Text
        value={decision.reason ?? ''}
        aria-label="Reason"
        maxlength={2000}
        onchange={(e) => setReason(e.currentTarget.value)}
        onkeydown={(e) => e.key === 'Escape' && (editing = undefined)}
      />{:else}<Button kind="link" aria-label="Change the reason" onclick={() => (editing = 'reason')}
        >{decision.reason ? `because: ${decision.reason.replace(/\.$/, '')}` : 'no reason given'}</Button
      >{/if},
    {#if editing === 'until'}until <Day
        label="Until"
        value={decision.until ?? ''}
        onchange={setUntil}
      /><Button kind="small" onclick={() => setUntil('')}>without an end</Button>{:else}<Button
        kind="link"
        aria-label="Change the last day"
        onclick={() => (editing = 'until')}
        >{decision.until ? `until ${sayText(decision.until)}` : 'without an end'}</Button
      >{/if}.
    <span class="soft">{decision.who ?? 'nobody named'}, {sayText(decision.day)}</span>
  </span>
  <Button kind="small" onclick={() => void removeDecision(decision)}>Take back</Button>
</li>

<style>
  .said {
    overflow-wrap: anywhere;
    min-width: 0;
  }
  .said :global(.field) {
    padding: 2px 6px;
  }
  li > :global(.act) {
    flex: none;
  }
</style>
