<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { Router } from 'sv-router';
  import { api, must } from '$lib/api/client';
  import { navigate } from '../../router';
  import Shell from '../../shell/Shell.svelte';

  /** Whoever opens an empty folder is asked three things first, whatever view they wanted. */
  const people = createQuery(() => ({
    queryKey: ['people'],
    queryFn: async () => must(await api.GET('/api/people')),
  }));
</script>

{#if people.data?.people.length === 0}
  {#await import('./First.svelte') then { default: First }}<First opened={() => void navigate('/')} />{/await}
{:else if !people.isPending}
  <Shell><Router /></Shell>
{/if}
