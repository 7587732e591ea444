<script lang="ts">
  import { createQuery, keepPreviousData, useQueryClient } from '@tanstack/svelte-query';
  import { tick, untrack } from 'svelte';
  import Button from '$parts/Button.svelte';
  import GoesInto from '$parts/GoesInto.svelte';
  import Select from '$parts/Select.svelte';
  import { api, must } from '$lib/api/client';
  import { chosen as picks } from '$lib/api/chosen.svelte';
  import { workspaceQuery } from '$lib/queries';
  import { narrow } from '$lib/screen.svelte';
  import { commands, field } from '$session/commands.svelte';
  import { desk } from '$session/session';
  import BringListing from './BringListing.svelte';
  import Chart from './Chart.svelte';
  import { cellAt } from './chart';
  import Detail from './Detail.svelte';
  import { FindState, idText, narrowing, type Box, type Only } from './find.svelte';
  import Results from './Results.svelte';
  import Sources from './Sources.svelte';

  const find = new FindState(useQueryClient(), desk);
  let bringing = $state(false);
  let dropped = $state<File>();
  let search = $state<HTMLInputElement>();
  let zoom = $state(8);
  let over = $state(false);
  let chart = $state<{ look: (place: { lat: number; lon: number }) => void }>();
  let jump = $state(false);
  /** On a phone: whether the chosen record is shown over the list. */
  let near = $derived(find.selected !== '');
  let most = $state(60); // a list that is rendered whole keeps the page from answering

  // The map and what is typed settle before anything is asked.
  let asked = $state<{ query: FindState['query']; within: string; sort: FindState['sort']; box: Box | undefined }>();
  $effect(() => {
    const next = { query: find.query, within: find.within, sort: find.sort, box: find.box };
    const timer = window.setTimeout(() => (asked = next), 160);
    return () => {
      window.clearTimeout(timer);
    };
  });

  const first = createQuery(() => ({
    queryKey: ['find', 'place'],
    queryFn: async () => must(await api.GET('/api/find', { params: { query: { most: 1 } } })),
  }));
  const found = createQuery(() => ({
    queryKey: ['find', asked, most],
    queryFn: async () =>
      must(
        await api.GET('/api/find', {
          params: {
            query: {
              ...asked?.query,
              // What somebody looks for by name may be anywhere; else the list is that of the map.
              ...(asked?.box && !asked.query.text && !asked.query.only?.includes('no-place') ? { box: asked.box } : {}),
              ...(Number(asked?.within) > 0 ? { within: Number(asked?.within) } : {}),
              sort: asked?.sort ?? 'distance',
              most,
            },
          },
        }),
      ),
    enabled: asked?.box !== undefined,
    placeholderData: keepPreviousData,
  }));
  const spots = createQuery(() => ({
    queryKey: ['spots', asked?.query, asked?.box, zoom],
    queryFn: async () =>
      must(
        await api.GET('/api/find/spots', {
          params: { query: { ...asked?.query, box: asked?.box ?? [-90, -180, 90, 180], cell: cellAt(zoom) } },
        }),
      ),
    enabled: asked?.box !== undefined,
    placeholderData: keepPreviousData,
  }));
  const outlines = createQuery(() => ({
    queryKey: ['outlines'],
    queryFn: async () => must(await api.GET('/api/outlines')).outlines,
    staleTime: Infinity,
  }));

  let folded = $state(true);
  const set = $derived(
    [find.band, find.source, find.opens, find.within].filter((x) => x !== '').length + find.only.length,
  );
  const same = (value: string) => ({ value, label: value });
  const openings = [
    { value: '', label: 'anything' },
    { value: 'carrier', label: 'carrier alone' },
    { value: 'tone', label: 'CTCSS tone' },
    { value: 'code', label: 'DCS code' },
    { value: 'burst', label: '1750 Hz burst' },
    { value: 'dtmf', label: 'DTMF' },
  ];
  const orders = [
    { value: 'distance', label: 'distance' },
    { value: 'reach', label: 'likely reach' },
    { value: 'frequency', label: 'frequency' },
  ];
  const list = $derived(found.data?.repeaters ?? []);
  const selected = $derived(list.find((r) => r.statements.some((s) => idText(s) === find.selected)));
  const chosen = $derived(find.chosen(list));
  const two = $derived(chosen.length === 2 ? chosen : undefined);

  // A locator is a place to look at, once.
  let looked = '';
  $effect(() => {
    const there = found.data;
    if (!there?.place || there.locator === looked || !asked?.query.text || there.locator === first.data?.locator)
      return;
    looked = there.locator;
    chart?.look(there.place);
  });

  // Into the list as soon as it is that of what was typed.
  $effect(() => {
    const settled = asked?.query.text === find.query.text && !found.isFetching && !found.isPlaceholderData;
    if (!jump || !settled) return;
    jump = false;
    void tick().then(() => document.querySelector<HTMLElement>('[role=option][tabindex="0"]')?.focus());
  });

  function choose(id: string) {
    const r = list.find((x) => x.statements.some((s) => idText(s) === id));
    if (!r) return;
    find.selected = idText(r.id);
    document.getElementById(`r-${find.selected}`)?.scrollIntoView({ block: 'nearest' });
  }

  const workspace = createQuery(workspaceQuery);
  const loads = $derived(workspace.data?.loads ?? []);
  const load = $derived(loads.find((l) => l.id === picks.load));
  const others = $derived(loads.filter((l) => l.id !== picks.load));
  const also = $derived(others.filter((l) => picks.also.includes(l.id)).length);
  const add = () => {
    if (load) void find.add(list, load);
  };
  $effect(() =>
    untrack(() =>
      commands.add(
        { id: 'search', says: 'Search', scope: 'Find', keys: ['/'], run: () => search?.focus() },
        {
          id: 'add',
          says: 'Add to the radio',
          scope: 'Find',
          keys: ['$mod+Enter'],
          writing: true,
          can: () => [null, search].includes(field() as HTMLInputElement | null),
          run: add,
        },
        {
          id: 'import',
          says: 'Import a listing',
          scope: 'Find',
          keys: ['$mod+i'],
          writing: true,
          run: () => (bringing = true),
        },
        { id: 'list-add', says: 'Add to the radio', scope: 'In the list', keys: ['Enter'], listed: false, run: add },
      ),
    ),
  );
  $effect(() => commands.catch(() => search));
  function dropFile(e: DragEvent) {
    e.preventDefault();
    over = false;
    dropped = e.dataTransfer?.files[0];
    if (dropped) bringing = true;
  }
</script>

<svelte:head><title>Find · Mnemos</title></svelte:head>
<svelte:window
  ondragover={(e) => {
    e.preventDefault();
    over = true;
  }}
  ondragleave={() => (over = false)}
  ondrop={dropFile}
/>

<main class="mx-auto max-w-[1500px] px-6 py-4 max-desk:px-4 max-desk:pb-20">
  <h1 class="sr-only">Find</h1>
  <form
    class="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-bold pb-3"
    onsubmit={(e) => {
      e.preventDefault();
    }}
  >
    <input
      bind:this={search}
      bind:value={find.text}
      aria-label="Search"
      onkeydown={(e) => {
        if (e.key !== 'Enter' && e.key !== 'ArrowDown') return;
        e.preventDefault();
        jump = true;
      }}
      placeholder="any word, first figures, or a locator"
      autocomplete="off"
      spellcheck="false"
      class="h-[34px] w-[320px] rounded-[2px] border border-rule2 bg-sheet px-2 max-desk:h-11 max-desk:w-full"
    />
    {#if narrow.is}
      <button type="button" class="link min-h-11" aria-expanded={folded === false} onclick={() => (folded = !folded)}
        >{folded ? 'filters' : 'fewer filters'}{set > 0 ? ` (${String(set)} set)` : ''}</button
      >
    {/if}
    {#if !narrow.is || !folded}
      <div class="flex items-center gap-2">
        <span class="text-ink2">band</span>
        <Select
          label="band"
          options={[{ value: '', label: 'all' }, ...(first.data?.bands ?? []).map(same)]}
          bind:value={find.band}
        />
      </div>
      {#if (first.data?.sources.length ?? 0) > 1}
        <div class="flex items-center gap-2">
          <span class="text-ink2">listing</span>
          <Select
            label="listing"
            options={[{ value: '', label: 'all' }, ...(first.data?.sources ?? []).map(same)]}
            bind:value={find.source}
          />
        </div>
      {/if}
      <div class="flex items-center gap-2">
        <span class="whitespace-nowrap text-ink2">opened by</span>
        <Select
          label="opened by"
          options={openings}
          bind:value={() => find.opens, (v) => (find.opens = v as typeof find.opens)}
        />
      </div>
      <label class="flex items-center gap-2"
        ><span class="text-ink2">within</span>
        <input
          bind:value={find.within}
          inputmode="numeric"
          placeholder="the map"
          class="h-[30px] w-[76px] rounded-[2px] border border-rule2 bg-sheet px-2 max-desk:h-11"
        /><span class="text-ink2">km</span></label
      >
      <div class="flex items-center gap-2">
        <span class="text-ink2">by</span>
        <Select label="by" options={orders} bind:value={() => find.sort, (v) => (find.sort = v as typeof find.sort)} />
      </div>
      <fieldset class="flex flex-wrap gap-x-4 gap-y-1">
        <legend class="sr-only">Only</legend>
        {#each narrowing as n (n.value)}
          <label class="flex items-center gap-1.5 max-desk:min-h-11"
            ><input type="checkbox" value={n.value satisfies Only} bind:group={find.only} />{n.label}</label
          >
        {/each}
      </fieldset>
    {/if}
  </form>
  <div class="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-6 max-wide:block">
    <div class="max-wide:mb-6">
      <div class="flex min-h-11 flex-wrap items-center gap-x-3 gap-y-1 py-2">
        <p class="mr-auto text-ink2" role="status">
          {#if found.data}<b class="font-figs font-strong text-ink">{list.length}</b>
            {list.length === 1 ? 'repeater' : 'repeaters'}{found.data.more ? ', the nearest of more' : ''}, of
            {found.data.records.toLocaleString('en')} records{#if found.data.nowhere > 0 && !find.only.includes('no-place')};
              <button type="button" class="link" onclick={() => find.only.push('no-place')}
                >{found.data.nowhere.toLocaleString('en')} without a place</button
              >{/if}{/if}
          {find.message}
        </p>
        {#if two && two[0] && two[1]}
          {@const [a, b] = [two[0].id, two[1].id]}
          <Button onclick={() => void find.decide(a, b, true)}>One repeater</Button>
        {/if}
        <Button
          key={commands.key('add')}
          fix={chosen.length > 0 ? 'live' : undefined}
          disabled={chosen.length === 0 || !load}
          onclick={add}
          >Add {chosen.length > 1 ? `${String(chosen.length)} ` : ''}to {load?.unit.name ?? 'the plan'}{also > 0
            ? ` and ${String(also)} more`
            : ''}</Button
        >
        {#if others.length > 0}<div class="basis-full"><GoesInto {others} /></div>{/if}
      </div>
      {#if find.trouble}<p role="alert" class="pb-2 text-stop">{find.trouble}</p>{/if}
      {#if found.isError}<p role="alert" class="py-4">
          The application does not answer. Start it again and reload the page.
        </p>{/if}
      {#if found.data && found.data.records === 0}
        <p class="py-6">
          Nothing is published here yet. <button type="button" class="link" onclick={() => (bringing = true)}
            >Import a listing</button
          >: a table, a workbook, GeoJSON, or text that you paste.
        </p>
      {:else if found.data && list.length === 0}
        <p class="py-6 text-ink2">
          Nothing published here matches. Untick a filter, show more of the map, or import a listing that covers it.
        </p>
      {/if}
      <div class="results">
        <Results {find} {list} />
        {#if found.data?.more && list.length >= most}
          <button type="button" class="link my-2 max-desk:min-h-11" onclick={() => (most += 140)}>show more</button>
        {/if}
      </div>
      <Sources {find} bring={() => (bringing = true)} />
    </div>
    <div>
      {#if first.data}
        <Chart
          bind:this={chart}
          place={first.data.place}
          within={60}
          spots={spots.data?.spots ?? []}
          {selected}
          outlines={outlines.data ?? []}
          moved={(box, z) => {
            find.box = box;
            zoom = z;
          }}
          {choose}
        />
      {/if}
      {#if selected && !narrow.is}<Detail {find} repeater={selected} />{:else if list.length > 0 && !narrow.is}
        <p class="mt-4 text-ink2">
          Choose a repeater in the list or on the map: what each listing says of it appears here. Space picks several.
        </p>
      {/if}
    </div>
  </div>
</main>
{#if selected && narrow.is && near}
  <div class="fixed inset-x-0 bottom-14 z-10 max-h-[52vh] overflow-y-auto border-t-2 border-bold bg-paper px-4 pb-3">
    <div class="sticky top-0 flex items-center justify-between gap-3 bg-paper py-1">
      <Button fix="live" disabled={!load} onclick={add}>Add to {load?.unit.name ?? 'the plan'}</Button>
      <button type="button" class="link min-h-11" onclick={() => (near = false)}>close</button>
    </div>
    <Detail {find} repeater={selected} />
  </div>
{/if}
{#if over}
  <p
    class="pointer-events-none fixed inset-4 z-50 flex items-center justify-center border-4 border-dashed border-accent bg-paper text-head"
  >
    Let go to import the listing
  </p>
{/if}
<BringListing bind:open={bringing} file={dropped} />

<style>
  .results {
    max-height: calc(var(--screen) - 250px);
    overflow-y: auto;
  }
  @media (max-width: 79.375em) {
    .results {
      max-height: 420px;
    }
  }
</style>
