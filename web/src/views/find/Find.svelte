<script lang="ts">
  import { createQuery, keepPreviousData, useQueryClient } from '@tanstack/svelte-query';
  import { tick, untrack } from 'svelte';
  import Button from '$parts/Button.svelte';
  import GoesInto from '$parts/GoesInto.svelte';
  import Mark from '$parts/Mark.svelte';
  import { api, must, type FoundRepeater } from '$lib/api/client';
  import { chosen as picks } from '$lib/api/chosen.svelte';
  import { handed } from '$lib/handed';
  import { workspaceQuery } from '$lib/queries';
  import { narrow } from '$lib/screen.svelte';
  import { commands, field } from '$session/commands.svelte';
  import { desk } from '$session/session';
  import Around from './Around.svelte';
  import BringListing from './BringListing.svelte';
  import Chart from './chart/Chart.svelte';
  import Chosen from './Chosen.svelte';
  import { FindState, idText } from './find.svelte';
  import FindLine from './FindLine.svelte';
  import Missing from './Missing.svelte';
  import Results from './Results.svelte';
  import Sentence from './Sentence.svelte';
  import Sources from './Sources.svelte';
  import WordMenu from './WordMenu.svelte';
  import Yours from './Yours.svelte';
  import { ageAt } from './age';

  const find = new FindState(useQueryClient(), desk);
  find.selected = handed.record;
  let bringing = $state(false);
  let dropped = $state<File>();
  let input = $state<HTMLInputElement>();
  let over = $state(false);
  let menu = $state(false);
  let jump = $state(false);
  let most = $state(60); // rows are drawn as they are asked for

  // What is typed settles before anything is asked.
  let line = $state('');
  $effect(() => {
    const next = find.line.trim();
    const timer = window.setTimeout(() => (line = next), next === '' ? 0 : 70);
    return () => {
      window.clearTimeout(timer);
    };
  });
  $effect(() => {
    if (line.length >= 0) untrack(() => (most = 60));
  });

  const workspace = createQuery(workspaceQuery);
  const loads = $derived(workspace.data?.loads ?? []);
  const load = $derived(loads.find((l) => l.id === picks.load));
  const others = $derived(loads.filter((l) => l.id !== picks.load));
  const also = $derived(others.filter((l) => picks.also.includes(l.id)).length);
  const names = $derived(Object.fromEntries(loads.map((l) => [l.id, l.unit.name])));

  const found = createQuery(() => ({
    queryKey: ['find', line, picks.load, most],
    queryFn: async () => must(await api.GET('/api/find', { params: { query: { line, load: picks.load, most } } })),
    placeholderData: keepPreviousData,
  }));
  /** Words that the whole answer goes by, so that the four answers are not asked for with each letter. */
  const place = $derived(
    found.data?.words
      .filter((w) => w.menu === 'from')
      .map((w) => w.text)
      .join(' ') ?? '',
  );
  const around = createQuery(() => ({
    queryKey: ['find', 'around', place, picks.load],
    queryFn: async () =>
      must(await api.GET('/api/find/around', { params: { query: { line: place, load: picks.load } } })),
    placeholderData: keepPreviousData,
  }));
  const look = createQuery(() => ({
    queryKey: ['find', 'look', find.selected, place, picks.load],
    queryFn: () => find.look(find.selected ?? { source: '', key: '' }, place, picks.load),
    enabled: find.selected !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
  }));

  const list = $derived(found.data?.repeaters ?? []);
  const settled = $derived(line === find.line.trim() && !found.isPlaceholderData);
  const seen = $derived(find.selected ? look.data : undefined);
  const several = $derived(list.filter((r) => find.picked.has(idText(r.id))));
  const two = $derived(several.length === 2 ? several : undefined);
  const subject = $derived<readonly FoundRepeater[]>(several.length > 0 ? several : seen ? [seen.repeater] : []);
  const from = $derived(found.data?.place ?? found.data?.middle);
  const doubts = $derived(settled ? (found.data?.words.filter((w) => w.says !== '' && w.state !== '') ?? []) : []);
  const heads = { distance: 'Nearest first', reach: 'Best in reach first', frequency: 'By frequency' };
  const number = (n: number) => n.toLocaleString('en');

  // Into the list as soon as it is that of what was typed.
  $effect(() => {
    if (!jump || !settled || found.isFetching) return;
    jump = false;
    void tick().then(() => document.querySelector<HTMLElement>('[aria-label=Repeaters] [tabindex="0"]')?.focus());
  });
  // What is gone cannot stay chosen.
  $effect(() => {
    if (look.isError) find.selected = undefined;
  });

  const add = (some: readonly FoundRepeater[]) => {
    if (load) void find.add(some, load);
  };
  /** The first thing to do: with what is chosen, or else with what is missing nearest. */
  function act() {
    if (!load) return;
    const fix = seen?.stored ? seen.evidence?.findings.flatMap((f) => f.fixes)[0] : undefined;
    const slot = seen?.repeater.slots[0];
    if (several.length > 0) add(several);
    else if (seen && fix && slot !== undefined) void find.fix(load.id, slot, fix.id, fix.label);
    else if (seen && !seen.stored) add([seen.repeater]);
    else if (!seen) add((around.data?.missing ?? []).slice(0, around.data?.vacant.length ?? 0));
  }
  const written = () => [null, input].includes(field() as HTMLInputElement | null);
  $effect(() =>
    untrack(() =>
      commands.add(
        { id: 'search', says: 'Search', scope: 'Find', keys: ['/'], run: () => input?.focus() },
        {
          id: 'find-fix',
          says: 'Add what is missing, or make it as published',
          scope: 'Find',
          keys: ['='],
          writing: true,
          can: written,
          run: act,
        },
        {
          id: 'add',
          says: 'Add to the radio',
          scope: 'Find',
          keys: ['$mod+Enter'],
          writing: true,
          can: () => written() && subject.length > 0,
          run: () => {
            add(subject);
          },
        },
        {
          id: 'find-words',
          says: 'Show the words for the line',
          scope: 'Find',
          keys: ['Alt+KeyW'],
          writing: true,
          run: () => (menu = !menu),
        },
        {
          id: 'import',
          says: 'Import a listing',
          scope: 'Find',
          keys: ['$mod+i'],
          writing: true,
          run: () => (bringing = true),
        },
        {
          id: 'list-add',
          says: 'Add to the radio',
          scope: 'In the list',
          keys: ['Enter'],
          listed: false,
          run: () => {
            add(subject);
          },
        },
      ),
    ),
  );
  $effect(() => commands.catch(() => input));
  function dropFile(e: DragEvent) {
    e.preventDefault();
    over = false;
    dropped = e.dataTransfer?.files[0];
    if (dropped) bringing = true;
  }
  const yearAt = ageAt(365);
  const monthAt = ageAt(30);
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

{#snippet chart()}
  {#if from && found.data}
    <Chart
      {line}
      load={picks.load}
      {from}
      placed={found.data.place !== null}
      named={found.data.named}
      marks={found.data.marks}
      within={found.data.within_km}
      selected={seen && seen.repeater.distance_km !== null && seen.repeater.bearing_deg !== null
        ? {
            id: idText(seen.repeater.id),
            reach: seen.repeater.reach_km,
            km: seen.repeater.distance_km,
            degrees: seen.repeater.bearing_deg,
          }
        : undefined}
      radio={load?.unit.name ?? 'your radio'}
      choose={(id) => {
        find.selected = id;
        void tick().then(() => document.getElementById(`r-${idText(id)}`)?.scrollIntoView({ block: 'nearest' }));
      }}
    />
  {/if}
{/snippet}
{#snippet chosen()}
  {#if seen && found.data}
    <Chosen {find} look={seen} {load} today={found.data.today} vacant={found.data.vacant[0]} {others} {act} />
  {/if}
{/snippet}
{#snippet said()}
  {#if find.trouble}<p role="alert" class="pl-10 text-stop max-desk:pl-0">{find.trouble}</p>{/if}
  <p role="status" class="pl-10 max-desk:pl-0 {find.message ? 'py-1' : ''}">{find.message}</p>
{/snippet}

<div class="page">
  <main class="left">
    <h1 class="sr-only">Find</h1>
    <FindLine {find} found={found.data} {settled} load={picks.load} bind:input enter={() => (jump = true)} />
    {#if found.data}
      {@const f = found.data}
      <Sentence {find} found={f} {doubts} radio={load?.unit.name} />
      {@render said()}
      {#if narrow.is}{@render chart()}{/if}
      <div class="head">
        <h2>{heads[f.order]}</h2>
        <button type="button" class="link" aria-expanded={menu} aria-controls="find-menu" onclick={() => (menu = !menu)}
          >words {menu ? '▴' : '▾'}</button
        >
        <p class="tally">
          <span><Missing /> {number(f.missing)} missing</span>
          <span><Mark kind="agrees" /> {number(f.trusts.agrees)} agree</span>
          <span><Mark kind="unverified" /> {number(f.trusts.unverified)} unverified</span>
          {#if f.trusts.conflict > 0}<span class="text-conflict"
              ><Mark kind="conflict" /> {number(f.trusts.conflict)} differ</span
            >{/if}
          {#if f.trusts.stop > 0}<span class="text-stop"
              ><Mark kind="stop" /> {number(f.trusts.stop)} closed to you</span
            >{/if}
        </p>
      </div>
      {#if menu}<WordMenu {find} found={f} load={picks.load} />{/if}
      {#if several.length > 0}
        {#if others.length > 0}<div class="pt-1 pl-10 max-desk:pl-0"><GoesInto {others} /></div>{/if}
        <div class="flex flex-wrap items-center gap-3 py-1.5 pl-10 max-desk:pl-0">
          <b class="mr-auto font-strong">{several.length} picked</b>
          {#if two?.[0] && two[1]}
            {@const [a, b] = [two[0].id, two[1].id]}
            <Button onclick={() => void find.decide(a, b, true)}>Same repeater</Button>
          {/if}
          <Button
            onclick={() => {
              find.picked.clear();
            }}>Pick none</Button
          >
          <Button
            key={commands.key('add')}
            fix="live"
            disabled={!load}
            onclick={() => {
              add(several);
            }}
            >Add {several.length} to {load?.unit.name ?? 'the plan'}{also > 0
              ? ` and ${String(also)} more`
              : ''}</Button
          >
        </div>
      {/if}
      <div class="cols" aria-hidden="true">
        <span class="pl-1">slot</span><span>name</span><span>output</span><span>shift</span><span>tone</span><span
          >{f.named ? `from ${f.named}` : 'from you'}</span
        ><span class="relative"><i style:left="{monthAt}px">month</i><i style:left="{yearAt}px">year</i></span><span
          >listings</span
        >
      </div>
      <div class="rows">
        {#if f.records === 0}
          <p class="py-4 pl-10 max-desk:pl-0">
            <button type="button" class="link" onclick={() => (bringing = true)}>Import a listing</button>: a table, a
            workbook, GeoJSON, or text that you paste.
          </p>
        {:else if f.found === 0}
          <p class="py-4 pl-10 text-ink2 max-desk:pl-0">
            Take a word out of the line, or import a listing that covers what you look for.
          </p>
        {/if}
        <Results {find} found={f} {names} opened={narrow.is ? chosen : undefined} />
        {#if f.found > list.length}
          {#if list.length < 500}
            <button
              type="button"
              class="link my-2 ml-10 min-h-6 max-desk:min-h-11"
              onclick={() => (most = Math.min(500, most + 140))}>show more of {number(f.found)}</button
            >
          {:else}<p class="my-2 pl-10 text-ink2">
              The first 500 of {number(f.found)}: type another word to see the others.
            </p>{/if}
        {/if}
      </div>
    {:else if found.isError}
      <p role="alert" class="py-4">The application does not answer. Start it; this page comes back by itself.</p>
    {:else}
      <p class="py-1 pl-10 text-ink2">Reading what is published…</p>
    {/if}
    <Yours {find} />
    <Sources {find} bring={() => (bringing = true)} />
  </main>
  {#if !narrow.is}
    <aside class="panel" aria-label={seen ? seen.repeater.title : 'Chart and what is around'}>
      {@render chart()}
      {#if seen}
        <button type="button" class="link mt-1" onclick={() => (find.selected = undefined)}>← what is around</button>
        {@render chosen()}
      {:else if around.data && found.data && found.data.records > 0}
        <Around around={around.data} {load} choose={(id) => (find.selected = id)} add={act} />
      {/if}
    </aside>
  {/if}
</div>
{#if narrow.is && !seen && around.data && found.data && find.line === '' && found.data.records > 0}
  <section class="around" aria-label="What is around">
    <Around
      around={around.data}
      {load}
      choose={(id) => {
        find.selected = id;
        void tick().then(() => document.getElementById(`r-${idText(id)}`)?.scrollIntoView({ block: 'center' }));
      }}
      add={act}
    />
  </section>
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
  .page {
    --fcols: 40px 160fr 86fr 70fr 76fr 114fr 84fr 82fr;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 532px;
    height: calc(var(--screen) - var(--bar));
    min-height: 594px;
    padding-top: 5px;
  }
  .left {
    display: flex;
    flex-direction: column;
    min-width: 0;
    min-height: 0;
    padding: 8px 12px 0 var(--margin);
  }
  .head {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0 14px;
    border-top: var(--line);
    padding: 6px 0 0 40px;
    min-height: 26px;
  }
  h2 {
    font-weight: var(--w-strong);
  }
  .tally {
    display: flex;
    flex-wrap: wrap;
    gap: 0 14px;
    margin-left: auto;
    font-size: var(--t-small);
    color: var(--ink2);
  }
  .cols {
    display: grid;
    grid-template-columns: var(--fcols);
    height: 22px;
    line-height: 20px;
    font-size: var(--t-label);
    color: var(--ink2);
    border-bottom: 1px solid var(--bold);
    white-space: nowrap;
  }
  .cols > span {
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .cols > span.relative {
    overflow: visible;
  }
  .cols i {
    position: absolute;
    transform: translateX(-50%);
    font-style: normal;
    font-size: var(--t-note);
  }
  .rows {
    position: relative; /* what is only read aloud in a row stays in here, and makes no page longer */
    flex: 1;
    min-height: 120px;
    overflow: hidden auto;
    margin: 0 -12px 0 -10px;
    padding: 0 12px 0 10px;
  }
  .panel {
    position: relative;
    background: var(--sheet);
    border-left: var(--line);
    padding: 12px var(--margin) 0 16px;
    overflow-y: auto;
    min-height: 0;
  }
  @media (max-width: 79.375em) {
    .page {
      display: block;
      height: auto;
    }
    .left {
      padding-right: var(--margin);
    }
    .rows {
      max-height: 60vh;
    }
    .panel {
      border-left: 0;
      border-top: var(--heavy);
      padding-left: var(--margin);
      padding-bottom: 16px;
      overflow: visible;
    }
  }
  @media (max-width: 45em) {
    .page {
      padding-bottom: 8px;
      min-height: 0;
    }
    .left {
      padding: 0 var(--margin);
    }
    .cols {
      display: none;
    }
    .head {
      padding-left: 0;
      margin: 0 calc(-1 * var(--margin));
      padding: 6px var(--margin);
      border-top: var(--heavy);
      border-bottom: 1px solid var(--bold);
    }
    .tally {
      margin-left: 0;
    }
    .rows {
      max-height: none;
      overflow: visible;
      margin: 0;
      padding: 0;
    }
    .around {
      padding: 0 var(--margin) 72px;
    }
  }
</style>
