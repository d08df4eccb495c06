<script lang="ts">
  import type { MissingPath } from '$core/plan';
  import { sayCount } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import PathQuestion from './PathQuestion.svelte';
  import PathRule from './PathRule.svelte';

  /** Upgrade paths that verdicts wait for: a sentence for a whole product, or one question a release that is installed. */
  let { paths }: { paths: readonly MissingPath[] } = $props();

  const products = $derived(
    [...new Set(paths.map((p) => p.product))].flatMap((id) => desk.products.get(id) ?? [])
  );
</script>

{#if products.length > 0}
  <section data-paths-to-say>
    <h2>Upgrade paths nobody has recorded</h2>
    <p class="soft">
      Say it for a whole product at once, release by release, or
      <a href="/catalogue/table">paste the publisher’s table</a>. What is recorded already stays as it is.
    </p>
    {#each products as product (product.id)}
      <article aria-label={product.name}>
        <h3>{product.name}</h3>
        <PathRule {product} />
        {#each paths.filter((p) => p.product === product.id) as path (path.from)}
          <div class="one">
            <span class="count mono">{sayCount(path.systems, 'system')}</span>
            <PathQuestion {product} from={path.from} to={path.to} />
          </div>
        {/each}
      </article>
    {/each}
  </section>
{/if}

<style>
  section {
    margin: 14px 0 22px;
  }
  article {
    margin: 10px 0 16px;
  }
  h3 {
    font-weight: 650;
  }
  .one {
    display: grid;
    grid-template-columns: 90px minmax(0, 1fr);
    align-items: baseline;
    border-top: 1px solid var(--hair);
  }
  .count {
    color: var(--soft);
  }
  @media (max-width: 700px) {
    .one {
      display: block;
      padding-top: 4px;
    }
  }
</style>
