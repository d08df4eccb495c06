<script lang="ts">
  import { Area, Check, Field, Text } from '$lib/kit';
  import { letIn } from './let-in.svelte';
  import type { Protocol } from './told';

  let { by, user }: { by: Protocol; user?: string } = $props();
</script>

<div class="in">
  {#if by === 'snmp'}<label class="row"
      ><Check bind:checked={letIn.isVersion3} /> by a user, version 3, in the place of a community</label
    >{/if}
  {#if by === 'snmp' && !letIn.isVersion3}<Field label="Community"
      ><Text type="password" autocomplete="off" bind:value={letIn.community} /></Field
    >{:else}
    {#if user === undefined}<Field label="User"><Text autocomplete="off" bind:value={letIn.user} /></Field
      >{/if}
    {#if by === 'snmp'}
      <Field label="What it signs with (SHA)"
        ><Text type="password" autocomplete="off" bind:value={letIn.authentication} /></Field
      ><Field label="What it hides with (AES)"
        ><Text type="password" autocomplete="off" bind:value={letIn.privacy} /></Field
      >
    {:else}<Field label="Password"
        ><Text type="password" autocomplete="off" bind:value={letIn.password} /></Field
      >{/if}
    {#if by === 'ssh'}<Field label="Or a private key"
        ><Area class="mono" rows={3} autocomplete="off" spellcheck={false} bind:value={letIn.key} /></Field
      >{#if letIn.key !== ''}<Field label="What opens the key"
          ><Text type="password" autocomplete="off" bind:value={letIn.passphrase} /></Field
        >{/if}{/if}
  {/if}
</div>

<style>
  .in {
    display: flex;
    flex-direction: column;
    gap: 8px;
  }
  .row {
    display: flex;
    gap: 8px;
    align-items: center;
  }
</style>
