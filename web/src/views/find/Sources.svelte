<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, must } from '$lib/api/client';
  import type { FindState } from './find.svelte';
  import { dateWords } from './age';
  import Rejected from './Rejected.svelte';

  let { find, bring }: { find: FindState; bring: () => void } = $props();
  let sure = $state('');
  let mending = $state('');
  const sources = createQuery(() => ({
    queryKey: ['sources'],
    queryFn: async () => must(await api.GET('/api/sources')).sources,
  }));
</script>

<section aria-label="Listings" class="srcs">
  {#each sources.data ?? [] as s (s.name)}
    <span class="flex flex-wrap items-baseline gap-x-2">
      <b class="font-medium [overflow-wrap:anywhere] text-ink">{s.name}</b>
      <span
        >{s.records.toLocaleString('en')} records, {dateWords(s.updated.slice(0, 10), new Date().toISOString())}{s.file
          ? ` from ${s.file}`
          : ''}</span
      >
      {#if s.rejects > 0}
        <button type="button" class="link" aria-haspopup="dialog" onclick={() => (mending = s.name)}
          >{s.rejects === 1 ? '1 row' : `${s.rejects.toLocaleString('en')} rows`} could not be read</button
        >
      {/if}
      {#if sure === s.name}
        <button
          type="button"
          class="link text-stop"
          onclick={() => {
            sure = '';
            void find.drop(s.name);
          }}>Remove</button
        >
        <button type="button" class="link" onclick={() => (sure = '')}>Cancel</button>
      {:else}
        <button type="button" class="link" aria-label="Remove {s.name}" onclick={() => (sure = s.name)}>remove</button>
      {/if}
    </span>
  {/each}
  <button type="button" class="link ml-auto max-desk:min-h-11" onclick={bring}>Import a listing…</button>
</section>
{#if mending}<Rejected source={mending} close={() => (mending = '')} />{/if}

<style>
  .srcs {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 2px 18px;
    border-top: var(--line);
    padding: 5px 0 8px 40px;
    font-size: var(--t-small);
    color: var(--ink2);
  }
  @media (max-width: 45em) {
    .srcs {
      padding-left: 0;
    }
  }
</style>
