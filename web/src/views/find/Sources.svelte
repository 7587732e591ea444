<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, must } from '$lib/api/client';
  import type { FindState } from './find.svelte';
  import Rejected from './Rejected.svelte';

  let { find, bring }: { find: FindState; bring: () => void } = $props();
  let sure = $state('');
  let mending = $state('');
  const sources = createQuery(() => ({
    queryKey: ['sources'],
    queryFn: async () => must(await api.GET('/api/sources')).sources,
  }));
</script>

<section aria-label="Listings" class="mt-5">
  <div class="flex items-baseline justify-between border-b border-bold">
    <h2 class="font-strong">Listings</h2>
    <button type="button" class="link max-desk:min-h-11" onclick={bring}>Import a listing…</button>
  </div>
  <ul>
    {#each sources.data ?? [] as s (s.name)}
      <li class="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-1">
        <b class="font-strong [overflow-wrap:anywhere]">{s.name}</b>
        <span class="text-ink2"
          >{s.records.toLocaleString('en')} records, imported {s.updated.slice(0, 10)}{s.file
            ? ` from ${s.file}`
            : ''}</span
        >
        {#if s.rejects > 0}
          <button type="button" class="link" aria-haspopup="dialog" onclick={() => (mending = s.name)}
            >{s.rejects === 1 ? '1 row' : `${s.rejects.toLocaleString('en')} rows`} could not be read</button
          >
        {/if}
        <span class="ml-auto">
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
            <button type="button" class="link" aria-label="Remove {s.name}" onclick={() => (sure = s.name)}
              >remove</button
            >
          {/if}
        </span>
      </li>
    {:else}
      {#if sources.data}<li class="py-2 text-ink2">None yet.</li>{/if}
    {/each}
  </ul>
</section>
{#if mending}<Rejected source={mending} close={() => (mending = '')} />{/if}
