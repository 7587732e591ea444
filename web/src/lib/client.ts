import { QueryClient } from '@tanstack/svelte-query';

/** What has been read from the application; changes are told of, so nothing grows stale by itself. */
export const client = new QueryClient({
  defaultOptions: { queries: { staleTime: Infinity, retry: 2, refetchOnWindowFocus: false } },
});
