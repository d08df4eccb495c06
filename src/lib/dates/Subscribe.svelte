<script lang="ts" module>
  /** The calendar that was sent last, while the page is open. */
  let sent = $state<{ readonly id: string; readonly path: string }>();
</script>

<script lang="ts">
  import { Button } from '$lib/kit';
  import { desk } from '$lib/state/desk.svelte';

  /** Sends the plan to the server this page came from, where a calendar program of the same machine can subscribe to it. */
  let said = $state('');
  let busy = $state(false);

  async function send(): Promise<void> {
    busy = true;
    said = '';
    try {
      const { catalogue, estate, today } = desk;
      const body = JSON.stringify({
        catalogue,
        estate,
        today: new Date(today * 86_400_000).toISOString().slice(0, 10)
      });
      const post = (id: string | undefined): Promise<Response> =>
        fetch(id ? `/api/calendar/${id}` : '/api/calendar', {
          method: id ? 'PUT' : 'POST',
          headers: { 'content-type': 'application/json' },
          body
        });
      let answer = await post(sent?.id);
      // The server has been started anew meanwhile.
      if (answer.status === 404 && sent) answer = await post(undefined);
      if (answer.ok) sent = (await answer.json()) as typeof sent;
      else
        said =
          answer.status === 403
            ? 'Only where the server runs on this very machine.'
            : 'The server did not take it.';
    } catch {
      said = 'The server cannot be reached.';
    } finally {
      busy = false;
    }
  }

  async function forget(): Promise<void> {
    const { id } = sent ?? {};
    sent = undefined;
    if (id) await fetch(`/api/calendar/${id}`, { method: 'DELETE' }).catch(() => undefined);
  }
</script>

<Button kind="small" disabled={busy} onclick={() => void send()}
  >{busy ? 'Sending…' : sent ? 'Send it anew' : 'Let a calendar subscribe…'}</Button
>
{#if sent}<span data-subscribed
    >Subscribe to <a class="mono" href={location.origin + sent.path}>{location.origin + sent.path}</a>
    <span class="soft">kept in the server’s memory until it ends.</span>
    <Button kind="small" onclick={() => void forget()}>Forget it</Button></span
  >{/if}
{#if said}<span role="alert">{said}</span>{/if}

<style>
  [data-subscribed] {
    overflow-wrap: anywhere;
  }
</style>
