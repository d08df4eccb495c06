<script lang="ts">
  import { Button } from '$lib/kit';
  import { type Catalogue, editValue, entryAt, type Product, statementsOf } from '$core/catalogue';
  import { parseDay } from '$core/date';
  import type { LintFinding } from '$core/lint';
  import { describeFinding, describeMend, sayDay, sayEntry } from '$core/wording';
  import type { Issue } from '$core/kit';
  import { naming } from '$lib/ready/naming';
  import { desk } from '$lib/state/desk.svelte';
  import { rule } from '$lib/state/acts';
  import { draft, sayIssues } from '$lib/state/draft.svelte';
  import { EntryNames } from './entry-names';

  let { onplace }: { onplace: (path: readonly (string | number)[]) => void } = $props();

  const MOST = 100;
  let all = $state(false);
  let issues = $state.raw<readonly Issue[]>([]);
  const KINDS = [
    ['fault', 'Contradictions and dead ends'],
    ['hole', 'What nobody has said'],
    ['note', 'Worth a look']
  ] as const;
  const ruled = $derived(desk.estate.decisions.filter((d) => d.kind === 'rule' && 'entry' in d.scope));

  async function mend(finding: LintFinding): Promise<void> {
    const edits = finding.mend ?? [];
    issues = await draft.revise(
      describeMend(finding),
      (c) => edits.reduce<unknown>(editValue, c) as Catalogue
    );
  }

  const statements = (finding: LintFinding) =>
    statementsOf((entryAt(draft.current, finding.path) as Record<string, unknown> | undefined) ?? {});
  const productOf = (finding: LintFinding): Product | undefined =>
    finding.path[0] === 'products' ? draft.current?.products[Number(finding.path[1])] : undefined;
  const namesOf = (finding: LintFinding): EntryNames =>
    new EntryNames(draft.current, productOf(finding), naming);
  function say(finding: LintFinding): string {
    const names = namesOf(finding);
    const text = describeFinding(finding, (key, detail) => names.detail(key, detail));
    return text.charAt(0).toUpperCase() + text.slice(1);
  }
  const sayText = (iso: string): string => {
    const day = parseDay(iso);
    return day === undefined ? iso : sayDay(day);
  };
  const where = (finding: LintFinding): string => {
    return productOf(finding)?.name ?? 'the whole catalogue';
  };
</script>

<div class="amiss">
  {#if issues.length > 0}<p role="alert"><b>Not changed. {sayIssues(issues)}</b></p>{/if}
  {#if draft.findings.length === 0}<p>Nothing is amiss, as far as can be told.</p>{/if}
  {#each KINDS as [kind, title] (kind)}
    {@const list = draft.findings.filter((f) => f.kind === kind)}
    {#if list.length > 0}
      <h2>{title} <span class="soft">{list.length}</span></h2>
      <ul>
        {#each all ? list : list.slice(0, MOST) as finding, i (i)}
          <li data-finding={finding.code}>
            <div>
              <span>{say(finding)}</span>
              <span class="soft">{where(finding)}</span>
            </div>
            <div class="acts">
              {#if finding.code === 'disputed'}
                {#each statements(finding) as s (s.key)}
                  <Button onclick={() => rule(finding.detail['entry'] ?? '', s.key, '')}
                    >Let “{namesOf(finding).any(s.key)}” hold</Button
                  >
                {/each}
              {:else if finding.mend}
                <Button onclick={() => void mend(finding)}>{describeMend(finding)}</Button>
              {:else}<span class="soft">{describeMend(finding)}</span>{/if}
              <Button onclick={() => onplace(finding.path)}>Show</Button>
            </div>
          </li>
        {/each}
      </ul>
      {#if list.length > MOST && !all}<p>
          <Button onclick={() => (all = true)}>Show all {list.length}</Button>
        </p>{/if}
    {/if}
  {/each}
  {#if ruled.length > 0}
    <h2>Ruled</h2>
    <ul>
      {#each ruled as d (d.id)}
        <li>
          <span
            >{'entry' in d.scope ? sayEntry(d.scope.entry, naming) : ''}:
            <b>{new EntryNames(draft.current, undefined, naming).any(d.holds ?? '')}</b>
            holds, since {sayText(d.day)}</span
          >
          <div class="acts">
            <Button onclick={() => rule('entry' in d.scope ? d.scope.entry : '', undefined, '')}
              >Take the ruling back</Button
            >
          </div>
        </li>
      {/each}
    </ul>
  {/if}
</div>

<style>
  h2 {
    margin: 18px 0 4px;
    color: var(--ink);
    font-size: 14px;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    max-width: 900px;
  }
  li {
    display: flex;
    justify-content: space-between;
    gap: 16px;
    padding: 7px 0;
    border-bottom: 1px solid var(--hair);
    overflow-wrap: anywhere;
  }
  li > div:first-child {
    display: flex;
    flex-direction: column;
  }
  .acts {
    display: flex;
    gap: 8px;
    align-items: flex-start;
    flex-wrap: wrap;
    justify-content: flex-end;
    max-width: 50%;
  }
</style>
