<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, must, type Region } from '$lib/api/client';
  import RegionFacts from './RegionFacts.svelte';

  /** Where the data are and how they are kept safe, and where every kind of fact comes from. */
  let { region }: { region: Region | undefined } = $props();
  const about = createQuery(() => ({
    queryKey: ['about'],
    queryFn: async () => must(await api.GET('/api/about')),
    staleTime: Infinity,
  }));
  const sources = createQuery(() => ({
    queryKey: ['sources'],
    queryFn: async () => must(await api.GET('/api/sources')).sources,
  }));
  const today = new Date().toISOString().slice(0, 10);
</script>

<section aria-labelledby="data">
  <h2 id="data">Your data</h2>
  <p>
    Everything is in <code>{about.data?.folder ?? '…'}</code> on the computer that runs Mnemos; nothing leaves it.
  </p>
  <p class="pt-1">
    <a
      class="link max-desk:inline-flex max-desk:min-h-11 max-desk:items-center"
      href="/api/backup"
      download="mnemos-{today}.db">Save a backup</a
    >
    of all plans, radios, listings and people, with their history.
  </p>
  <p class="pt-1 text-small text-ink2">
    To go back to one, stop Mnemos and type <code>mnemos restore FILE --data {about.data?.folder ?? 'FOLDER'}</code>.
    What was there before is kept beside it.
  </p>
</section>

<section aria-labelledby="about">
  <h2 id="about">Where it comes from, and how sure it is</h2>
  <dl>
    {#each about.data?.sources ?? [] as s, nth (nth)}
      <dt>{s.what}</dt>
      <dd>{s.source}<span class="block text-label text-ink2">{s.sure}</span></dd>
    {/each}
    {#each sources.data ?? [] as s (s.name)}
      <dt>{s.name}</dt>
      <dd>
        {s.records.toLocaleString('en')} records, imported {s.updated.slice(0, 10)}{s.file
          ? ` from ${s.file}`
          : ''}<span class="block text-label text-ink2"
          >a statement of its publisher with its dates; where lists differ, Find says so</span
        >
      </dd>
    {/each}
    {#each region?.services ?? [] as s (s.id)}
      <dt>{s.name}</dt>
      <dd>{s.source}<span class="block text-label text-ink2">{s.licence}</span></dd>
    {/each}
  </dl>
</section>
{#if region}<RegionFacts {region} />{/if}

<style>
  h2 {
    font-weight: var(--w-strong);
    border-bottom: 1px solid var(--bold);
    padding-bottom: 3px;
    margin-bottom: 6px;
  }
  section {
    break-inside: avoid;
    padding-bottom: 20px;
  }
  code {
    font: var(--w-normal) 13px var(--figs);
    overflow-wrap: anywhere;
  }
  dl {
    display: grid;
    grid-template-columns: minmax(110px, 26%) minmax(0, 1fr);
    font-size: var(--t-small);
  }
  dt,
  dd {
    border-bottom: var(--hair);
    padding: 3px 0;
  }
  dt {
    padding-right: 10px;
    color: var(--ink2);
  }
</style>
