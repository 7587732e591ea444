<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { Router } from 'sv-router';
  import { api, must } from '$lib/api/client';
  import { navigate } from '../../router';
  import First from './First.svelte';

  /** Whoever opens an empty folder is asked three things first, whatever view they wanted. */
  const people = createQuery(() => ({
    queryKey: ['people'],
    queryFn: async () => must(await api.GET('/api/people')),
  }));
</script>

{#if people.data?.people.length === 0}
  <First opened={() => void navigate('/')} />
{:else if !people.isPending}
  <Router />
{/if}
