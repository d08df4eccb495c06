<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { copyRelease, findUnlisted, findUnmatched, listRelease } from '$core/catalogue';
  import { modelOf } from '$core/compile';
  import { sayCount } from '$core/wording';
  import Amiss from '$lib/catalogue/Amiss.svelte';
  import Calendar from '$lib/catalogue/Calendar.svelte';
  import CellPanel from '$lib/catalogue/CellPanel.svelte';
  import DraftBar from '$lib/catalogue/DraftBar.svelte';
  import { DEMANDS, SHARED, TERMS, withNewProduct, type EntryPath } from '$lib/catalogue/entries';
  import EntryForm from '$lib/catalogue/EntryForm.svelte';
  import EntryLists from '$lib/catalogue/EntryLists.svelte';
  import HopTable from '$lib/catalogue/HopTable.svelte';
  import NoCatalogue from '$lib/catalogue/NoCatalogue.svelte';
  import ProductList from '$lib/catalogue/ProductList.svelte';
  import TextView from '$lib/catalogue/TextView.svelte';
  import { countInstalled, standingOn } from '$lib/catalogue/installed';
  import { desk } from '$lib/state/desk.svelte';
  import { draft, sayIssues } from '$lib/state/draft.svelte';
  import { describeSource } from '$lib/state/sources';

  const VIEWS = [
    ['table', 'Table'],
    ['calendar', 'Calendar'],
    ['demands', 'Demands'],
    ['terms', 'Rights and terms'],
    ['sources', 'Sources'],
    ['text', 'Text'],
    ['amiss', 'Amiss']
  ] as const;
  type View = (typeof VIEWS)[number][0];

  let cell = $state('');
  let release = $state('');
  let entry = $state.raw<{ path: EntryPath; one: string } | undefined>();
  let line = $state(0);
  let fault = $state('');

  const catalogue = $derived(draft.current);
  const chosen = $derived(page.url.searchParams.get('product'));
  const product = $derived(catalogue?.products.find((p) => p.id === chosen) ?? catalogue?.products[0]);
  const at = $derived(product ? (catalogue?.products.indexOf(product) ?? 0) : 0);
  const view = $derived<View>(VIEWS.find(([v]) => v === page.url.searchParams.get('view'))?.[0] ?? 'table');
  const isWhole = $derived(view === 'text' || view === 'amiss' || view === 'sources');
  const model = $derived(product && modelOf(product));
  const lineAt = $derived(product?.lines?.findIndex((l) => l.id === shownRelease?.line) ?? -1);
  const installed = $derived(countInstalled(desk.estate.systems, product?.id));
  const unlisted = $derived(product ? findUnlisted(desk.estate.systems, product) : []);
  const unmatched = $derived(findUnmatched(desk.estate.systems).length);
  const shownRelease = $derived(product?.releases.find((r) => r.id === release));
  const releaseAt = $derived(product?.releases.findIndex((r) => r.id === release) ?? -1);
  const [from = '', to = ''] = $derived(cell.split('>'));
  const hasCell = $derived(
    model !== undefined && model.sequence.indexById.has(from) && model.sequence.indexById.has(to)
  );
  const hasAside = $derived(
    draft.isOpen ||
      (view === 'table' && hasCell) ||
      (view === 'calendar' && releaseAt >= 0) ||
      (entry !== undefined &&
        (entry.path.length === 2 || view === 'demands' || view === 'terms' || view === 'sources'))
  );

  onMount(() => void draft.open());

  // The findings follow the catalogue and the rulings, wherever they were changed.
  $effect(() => {
    void [draft.current, desk.estate.decisions, desk.today];
    untrack(() => void draft.lint());
  });

  function show(next: View, id = product?.id): void {
    entry = undefined;
    void goto(`/catalogue?${new URLSearchParams({ ...(id ? { product: id } : {}), view: next })}`, {
      keepFocus: true,
      noScroll: true
    });
  }

  async function copy(id: string): Promise<void> {
    let made = '';
    const issues = await draft.revise(`new release after ${id}`, (c) => {
      const copied = product && copyRelease(product, id);
      if (!copied) return c;
      made = copied.release;
      return { ...c, products: c.products.map((p) => (p.id === product?.id ? copied.product : p)) };
    });
    fault = sayIssues(issues);
    if (made && issues.length === 0) release = made;
  }

  async function makeProduct(): Promise<void> {
    let id = '';
    const issues = await draft.revise('new product', (c) => {
      const made = withNewProduct(c);
      id = made.id;
      return made.catalogue;
    });
    fault = sayIssues(issues);
    if (issues.length > 0) return;
    show('table', id);
    entry = { path: ['products', (draft.current?.products.length ?? 1) - 1], one: 'product' };
  }

  /** A release for a text that machines of this product carry and the product does not list. */
  async function list(text: string): Promise<void> {
    const issues = await draft.revise(`listed ${text}`, (c) => ({
      ...c,
      products: c.products.map((p) => (p.id === product?.id ? listRelease(p, text) : p))
    }));
    fault = sayIssues(issues);
  }

  /** Opens the place of a finding: its entry where a view shows it, else its line in the text. */
  function goToPlace(path: readonly (string | number)[]): void {
    const list = path[0] === 'products' ? path[2] : path[0];
    const id = path[0] === 'products' ? catalogue?.products[Number(path[1])]?.id : undefined;
    const entryPath = path[0] === 'products' ? path.slice(0, 4) : path.slice(0, 2);
    const found = (
      [
        ['demands', DEMANDS],
        ['terms', TERMS],
        ['sources', SHARED]
      ] as const
    ).find(([, lists]) => lists.some((l) => l.list === list));
    const owner = catalogue?.products.find((p) => p.id === id);
    if (list === 'releases') {
      show('calendar', id);
      release = owner?.releases[Number(path[3])]?.id ?? '';
    } else if (list === 'hops' && path.length > 3) {
      const hop = owner?.hops?.[Number(path[3])];
      const first =
        owner &&
        modelOf(owner).releases.find((r) =>
          modelOf(owner).hopsFrom[r.index]?.some((h) => h.hop.id === hop?.id)
        );
      show('table', id);
      cell = `${first?.release.id ?? ''}>${hop?.to ?? ''}`;
    } else if (
      found &&
      entryPath.length === path.slice(0, entryPath.length).length &&
      typeof entryPath.at(-1) === 'number'
    ) {
      show(found[0], id);
      entry = { path: entryPath, one: found[1].find((l) => l.list === list)?.one ?? '' };
    } else {
      show('text', id);
      void draft.lineOf(path).then((found) => (line = found ?? 0));
    }
  }
</script>

{#if !catalogue && !draft.isOpen}
  <NoCatalogue {unmatched} onnew={() => void makeProduct()} />
{:else}
  <div class="page" class:with-aside={hasAside}>
    <ProductList
      products={catalogue?.products ?? []}
      chosen={product?.id}
      {view}
      {unmatched}
      onnew={() => void makeProduct()}
    />
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <article tabindex="0" aria-label={product?.name ?? 'Catalogue'}>
      <header>
        <h1>{isWhole ? catalogue?.name || 'The whole catalogue' : (product?.name ?? 'No product yet')}</h1>
        <nav aria-label="Views of the catalogue">
          {#each VIEWS as [id, name] (id)}
            <button class="tab" aria-current={view === id ? 'page' : undefined} onclick={() => show(id)}
              >{name}{#if id === 'amiss' && draft.findings.length > 0}<span class="count"
                  >{draft.findings.length}</span
                >{/if}</button
            >
          {/each}
        </nav>
      </header>
      {#if draft.busy}<p class="soft busy" role="status">Working it into the text…</p>{/if}
      {#if fault}<p role="alert"><b>Not changed. {fault}</b></p>{/if}
      {#if view === 'text'}
        <TextView {line} />
      {:else if view === 'amiss'}
        <Amiss onplace={goToPlace} />
      {:else if view === 'sources'}
        <p>
          <button class="act" onclick={() => (entry = { path: [], one: 'catalogue' })}
            >Name and currency</button
          >
        </p>
        <EntryLists
          lists={SHARED}
          base={[]}
          selected={entry?.path}
          onpick={(path, one) => (entry = { path, one })}
        />
      {:else if product && model}
        <p class="soft">
          {[product.publisher, product.about].filter(Boolean).join('. ')}.
          {product.source ? describeSource(catalogue, product, '') : ''}
        </p>
        <p class="row">
          <button class="act" onclick={() => (entry = { path: ['products', at], one: 'product' })}
            >Name and publisher</button
          >
          {#if view === 'calendar'}
            <button class="act" onclick={() => void copy(product.releases.at(-1)?.id ?? '')}
              >New release after the likeness of the last</button
            >
          {/if}
          {#each unlisted.slice(0, 3) as u (u.text)}
            <button class="act" onclick={() => void list(u.text)}
              >List “{u.text}”, which {sayCount(u.systems, 'machine')}
              {u.systems === 1 ? 'runs' : 'run'}</button
            >
          {/each}
        </p>
        {#if view === 'table'}
          <p class="soft">
            {model.tableComplete
              ? 'The publisher’s table is complete: an empty cell is forbidden.'
              : 'The table may have gaps: “?” is not recorded, not forbidden.'}
          </p>
          <HopTable {model} {installed} selected={cell} onpick={(f, t) => (cell = `${f}>${t}`)} />
        {:else if view === 'calendar'}
          <Calendar {product} {installed} selected={release} onpick={(id) => (release = id)} />
        {:else}
          <EntryLists
            lists={view === 'demands' ? DEMANDS : TERMS}
            base={['products', at]}
            {product}
            selected={entry?.path}
            onpick={(path, one) => (entry = { path, one })}
          />
        {/if}
      {/if}
    </article>
    {#if hasAside}
      <aside aria-label="What is being changed">
        {#if draft.isOpen}<DraftBar />{/if}
        {#if product && view === 'table' && hasCell}
          <CellPanel
            {product}
            {at}
            {from}
            {to}
            standing={standingOn(desk.estate.systems, product.id, from)}
          />
        {:else if product && view === 'calendar' && releaseAt >= 0}
          {#key release}
            <EntryForm
              path={['products', at, 'releases', releaseAt]}
              one="release"
              ongone={() => (release = '')}
            />
            {#if lineAt >= 0 && !shownRelease?.service}
              <p class="after soft">Its service is that of its line:</p>
              <EntryForm path={['products', at, 'lines', lineAt]} one="line" />
            {/if}
            <p class="after">
              <button class="act" onclick={() => void copy(release)}
                >New release after this one’s likeness</button
              >
              <span class="soft"
                >{sayCount(standingOn(desk.estate.systems, product.id, release).length, 'system')} on it</span
              >
            </p>
          {/key}
        {/if}
        {#if entry && (entry.path.length <= 2 || view === 'demands' || view === 'terms' || view === 'sources')}
          {#key entry.path.join('/')}<EntryForm
              path={entry.path}
              one={entry.one}
              ongone={() => (entry = undefined)}
            />{/key}
        {/if}
      </aside>
    {/if}
  </div>
{/if}

<style>
  .page {
    flex: 1;
    display: grid;
    grid-template-columns: 210px minmax(0, 1fr);
    min-height: 0;
  }
  .page.with-aside {
    grid-template-columns: 210px minmax(0, 1fr) 330px;
  }
  article {
    padding: 14px 24px 40px;
    overflow: auto;
  }
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    justify-content: space-between;
    gap: 4px 24px;
    border-bottom: 1px solid var(--hair);
    margin-bottom: 8px;
  }
  h1 {
    overflow-wrap: anywhere;
  }
  nav {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
  }
  .tab {
    font: inherit;
    color: inherit;
    background: none;
    border: 0;
    border-bottom: 3px solid transparent;
    padding: 3px 1px 4px;
    cursor: pointer;
  }
  .tab[aria-current] {
    font-weight: 650;
    border-bottom-color: var(--ink);
  }
  .count {
    color: var(--soft);
    margin-left: 5px;
    font-weight: 400;
  }
  aside {
    border-left: 1px solid var(--line);
    padding: 14px 18px 40px;
    overflow: auto;
  }
  .row,
  .after {
    display: flex;
    gap: 10px;
    align-items: center;
    flex-wrap: wrap;
    margin-top: 10px;
  }
  /* Only where it takes its time, and without pushing anything. */
  .busy {
    position: absolute;
    background: var(--paper);
    animation: late 0s linear 400ms both;
  }
  @keyframes late {
    from {
      visibility: hidden;
    }
    to {
      visibility: visible;
    }
  }
  @media print {
    .page,
    .page.with-aside {
      display: block;
    }
  }
</style>
