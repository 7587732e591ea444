<script lang="ts">
  import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
  import Gate from './views/first/Gate.svelte';
  import './router';

  const client = new QueryClient({
    defaultOptions: { queries: { staleTime: Infinity, retry: 2, refetchOnWindowFocus: false } },
  });
</script>

<svelte:boundary>
  <QueryClientProvider {client}>
    <Gate />
  </QueryClientProvider>
  {#snippet failed(error, reset)}
    <main class="mx-auto max-w-[60ch] p-8" role="alert">
      <h1 class="font-strong">This view cannot be shown</h1>
      <p class="py-2">
        What you stored is safe: it is kept by the program, not by this page. Try again; if it comes back, reload the
        page.
      </p>
      <p class="pb-3 text-ink2">{error instanceof Error ? error.message : String(error)}</p>
      <button type="button" class="link" onclick={reset}>Try again</button>
    </main>
  {/snippet}
</svelte:boundary>
