<script lang="ts">
  import { Button, Dialog, Table, Text } from '$lib/kit';
  import { onMount } from 'svelte';
  import { sayCount } from '$core/wording';
  import JoinPanel from '$lib/estate/JoinPanel.svelte';
  import StartOver from '$lib/estate/StartOver.svelte';
  import BackedUp from '$lib/estate/BackedUp.svelte';
  import Keeping from '$lib/estate/Keeping.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import { copyWorkspace, makeEmptyWorkspace, switchTo } from '$lib/state/workspaces';
  import { takeOutWorkspace } from '$lib/state/take-out';
  import { joining } from '$lib/state/joining.svelte';
  import { currentWorkspace, FIRST } from '$lib/storage/database';
  import {
    readWorkspaces,
    renameWorkspace,
    removeWorkspace,
    type WorkspaceEntry
  } from '$lib/storage/workspaces';

  let list = $state.raw<readonly WorkspaceEntry[]>([]);
  let overOpen = $state(false);
  let fresh = $state('');
  let removing = $state.raw<WorkspaceEntry | undefined>();
  const here = currentWorkspace();

  onMount(() => void read());

  const read = async (): Promise<void> => void (list = await readWorkspaces());
  const nameOf = (w: WorkspaceEntry): string => w.name || (w.id === FIRST ? 'First workspace' : w.id);

  async function rename(entry: WorkspaceEntry, name: string): Promise<void> {
    await renameWorkspace(entry, name.trim().slice(0, 200));
    await read();
    if (entry.id === here) desk.keeper.workspaceName = name.trim();
  }

  async function remove(): Promise<void> {
    const entry = removing;
    removing = undefined;
    if (!entry) return;
    await removeWorkspace(entry.id);
    if (entry.id === here) switchTo(FIRST);
    else await read();
  }
</script>

<svelte:head><title>Workspaces - Orange Stair</title></svelte:head>

<div class="page">
  {#if joining.merged}<JoinPanel />{/if}
  <section>
    <h1>Workspaces in this browser</h1>
    <p class="soft lead">
      Each has an estate, a catalogue and a history of changes of its own. One opened from a file for reading
      cannot be changed; a copy of it can.
    </p>
    <Table class="narrow">
      <tbody>
        {#each list as entry (entry.id)}
          <tr data-workspace={entry.id}>
            <td
              ><Text
                value={nameOf(entry)}
                aria-label="Name of {nameOf(entry)}"
                onchange={(e) => void rename(entry, e.currentTarget.value)}
              /></td
            >
            <td
              >{entry.id === here
                ? `open on this tab: ${sayCount(desk.estate.systems.length, 'system')}`
                : ''}
              {entry.readOnly ? 'for reading only' : ''}</td
            >
            <td class="acts">
              {#if entry.id !== here}<Button onclick={() => switchTo(entry.id)}>Open</Button>
              {:else}
                <Button onclick={() => void copyWorkspace(`Copy of ${nameOf(entry)}`)}
                  >Make a copy and open it</Button
                >
                <Button onclick={takeOutWorkspace}>Take out as a file</Button>
              {/if}
              {#if entry.id !== FIRST}<Button onclick={() => (removing = entry)}>Remove…</Button>{/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </Table>
    <form
      class="row"
      onsubmit={(e) => (e.preventDefault(), void makeEmptyWorkspace(fresh.trim() || 'New workspace'))}
    >
      <Text bind:value={fresh} placeholder="Name" aria-label="Name of a new workspace" maxlength={200} />
      <Button type="submit">Make an empty one and open it</Button>
    </form>
  </section>
  <Keeping />
  <BackedUp />
  <section>
    <h1>Start over</h1>
    <p class="lead">Everything in this workspace is taken off the desk, after a file of it if you like.</p>
    <p><Button onclick={() => (overOpen = true)}>Start over…</Button></p>
  </section>
  <section>
    <h1>Two people’s work</h1>
    <p class="lead">
      Take in another’s workspace file under <a href="/import">Bring in</a> and join it with this one: what only
      one of you has is kept, facts you read differently become disputed, and every other difference is shown for
      you to choose.
    </p>
  </section>
</div>

<StartOver bind:open={overOpen} />
<Dialog
  bind:open={() => removing !== undefined, (open) => !open && (removing = undefined)}
  title="Remove {removing ? nameOf(removing) : ''} for good?"
>
  <p>
    Its systems, decisions and history of changes are gone then; this cannot be undone. A file of it stays.
  </p>
  <p class="row">
    <Button onclick={() => void remove()}>Remove it</Button>
    <Button onclick={() => (removing = undefined)}>Keep it</Button>
  </p>
</Dialog>

<style>
  .page {
    overflow: auto;
    flex: 1;
    padding: 12px 24px 30px;
    display: flex;
    flex-direction: column;
    gap: 20px;
  }
  .page :global(h1) {
    font-size: 16px;
  }
  .page :global(.lead) {
    max-width: 760px;
    margin: 4px 0;
  }
  .acts {
    text-align: right;
    white-space: nowrap;
  }
  .page :global(.row) {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    margin-top: 8px;
  }
  td :global(.field) {
    width: 260px;
  }
</style>
