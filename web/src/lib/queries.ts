import { keepPreviousData, type QueryClient } from '@tanstack/svelte-query';
import { api, must, type Ledger } from './api/client';
import { chosen } from './api/chosen.svelte';
import { merged } from './ledger';

/** The plan that is chosen, with its radios and the people. */
export const workspaceQuery = () => ({
  queryKey: ['workspace', chosen.plan, chosen.person],
  queryFn: async () => must(await api.GET('/api/workspace')),
  placeholderData: keepPreviousData,
});

/** The slots of a radio. An answer that was overtaken by a later change is dropped. */
export const ledgerQuery = (client: QueryClient, load: number) => ({
  queryKey: ['ledger', load],
  queryFn: async (): Promise<Ledger> => {
    const held = client.getQueryData<Ledger>(['ledger', load])?.tag;
    const ask = async (tag: string | undefined) =>
      must(
        await api.GET('/api/loads/{load}', {
          params: { path: { load } },
          ...(tag ? { headers: { 'Mnemos-Ledger': tag } } : {}),
        }),
      );
    const answer = await ask(held);
    const known = client.getQueryData<Ledger>(['ledger', load]);
    if (known && known.revision > answer.revision) return known;
    return merged(known, answer) ?? ask(undefined);
  },
  enabled: load !== 0,
});

/** Which radio of the plan has which channel, and what one of them does not have. */
export const holdingsQuery = (plan: number, radios: number, load: number) => ({
  queryKey: ['holdings', plan, load],
  queryFn: async () =>
    must(await api.GET('/api/plans/{id}/holdings', { params: { path: { id: plan }, query: { load } } })),
  enabled: plan !== 0 && load !== 0 && radios > 1,
});
