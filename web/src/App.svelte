<script lang="ts">
  import { QueryClientProvider } from '@tanstack/svelte-query';
  import { client } from '$lib/client';
  import { start } from '$session/session';
  import Broken from './parts/Broken.svelte';
  import Gate from './views/first/Gate.svelte';
  import './router';

  start();
</script>

<svelte:boundary>
  <QueryClientProvider {client}>
    <Gate />
  </QueryClientProvider>
  {#snippet failed(error, reset)}<Broken {error} {reset} />{/snippet}
</svelte:boundary>
