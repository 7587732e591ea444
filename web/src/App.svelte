<script lang="ts">
  import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
  import { Router } from 'sv-router';
  import './router';

  const client = new QueryClient({
    defaultOptions: { queries: { staleTime: Infinity, retry: 2, refetchOnWindowFocus: false } },
  });
</script>

<QueryClientProvider {client}>
  <Router />
</QueryClientProvider>
