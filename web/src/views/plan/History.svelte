<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import Button from '$parts/Button.svelte';
  import { api, must, type History, type LoadInfo, type PlanInfo } from '$lib/api/client';
  import { client } from '$lib/client';
  import { Act } from '$session/act.svelte';
  import { when } from '$lib/format';
  import Compare from './Compare.svelte';
  import type { PlanState } from './plan.svelte';

  /** What became of the plan, with a way back, named snapshots, and how two of them differ. */
  interface Props {
    plan: PlanState;
    id: number;
    plans: readonly PlanInfo[];
    loads: readonly LoadInfo[];
    revision: number;
  }
  let { plan, id, plans, loads, revision }: Props = $props();
  const act = new Act();
  const history = createQuery(() => ({
    queryKey: ['history', id, revision],
    queryFn: async () => must(await api.GET('/api/plans/{id}/history', { params: { path: { id } } })),
    placeholderData: (old) => old,
  }));
  /** Pages of it that were asked for. */
  let older = $state.raw<History['changes']>([]);
  let more = $state(true);
  const changes = $derived([...(history.data?.changes ?? []), ...older]);
  let name = $state('');
  let since = $state<number>();

  async function page() {
    const last = changes.at(-1)?.event;
    if (last === undefined) return;
    const h = must(await api.GET('/api/plans/{id}/history', { params: { path: { id }, query: { before: last } } }));
    older = [...older, ...h.changes];
    more = h.more;
  }
  const set = (h: History) => {
    client.setQueryData(['history', id, revision], h);
  };
  async function keep() {
    const kept = await act.try(async () => {
      set(must(await api.POST('/api/plans/{id}/snapshots', { params: { path: { id } }, body: { name } })));
    }, 'Snapshot kept');
    if (kept) name = '';
  }
</script>

<h2 class="text-head font-strong">History</h2>
<form
  class="flex items-baseline gap-2 border-b border-rule py-2"
  onsubmit={(e) => {
    e.preventDefault();
    void keep();
  }}
>
  <label class="flex min-w-0 flex-1 items-baseline gap-2"
    ><span class="text-ink2">name</span><input
      bind:value={name}
      placeholder="before the season"
      maxlength="60"
      autocomplete="off"
      aria-label="Name of the snapshot"
      aria-invalid={act.faults.name !== undefined}
      class="h-7 min-w-0 flex-1 border border-rule2 bg-sheet px-2 max-desk:h-11"
    /></label
  >
  <Button type="submit">Keep a snapshot</Button>
</form>
{#if act.faults.name}<p role="alert" class="text-small text-stop">{act.faults.name}</p>{/if}
{#each history.data?.snapshots ?? [] as s (s.id)}
  <p class="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-1.5">
    <b class="font-strong">{s.name}</b><span class="text-small text-ink2">{when(s.at)}</span>
    <span class="ml-auto flex gap-x-3">
      <button type="button" class="link" onclick={() => (since = s.event)}>Compare</button>
      <button type="button" class="link" onclick={() => void plan.several.back(s.event)}>Go back</button>
      <button
        type="button"
        class="link"
        onclick={() =>
          void act.try(async () => {
            set(
              must(
                await api.DELETE('/api/plans/{id}/snapshots/{snapshot}', {
                  params: { path: { id, snapshot: s.id } },
                }),
              ),
            );
          }, 'Snapshot removed; Ctrl+Z undoes it')}>Remove</button
      >
    </span>
  </p>
{/each}
<div class="py-2"><Button onclick={() => (since = 0)}>Compare plans, radios or times…</Button></div>
{#if history.data && changes.length === 0}<p class="text-ink2">Nothing was changed yet.</p>{/if}
<ol aria-label="Changes, newest first">
  {#each changes as c (c.event)}
    <li class="change" class:gone={c.undone}>
      <span class="min-w-0 flex-1"
        >{c.says}{#if c.undone}<span class="text-ink2">, undone</span>{/if}</span
      >
      <span class="flex-none text-small text-ink2"
        >{when(c.at)}{#if c.person}<span>{` · ${c.person}`}</span>{/if}</span
      >
      <span class="w-16 flex-none text-right"
        >{#if c.latest}<span class="text-small text-ink2">now</span>{:else}<button
            type="button"
            class="link text-small max-desk:min-h-11"
            aria-label="Go back to: {c.says}"
            onclick={() => void plan.several.back(c.event)}>go back</button
          >{/if}</span
      >
    </li>
  {/each}
</ol>
{#if history.data?.more && more}<button type="button" class="link py-2" onclick={() => void page()}
    >Older changes</button
  >{/if}
{#if since !== undefined}<Compare
    {id}
    {plans}
    {loads}
    snapshots={history.data?.snapshots ?? []}
    load={plan.load}
    {since}
    close={() => (since = undefined)}
  />{/if}

<style>
  .change {
    display: flex;
    align-items: baseline;
    gap: 10px;
    padding: 3px 0;
    border-bottom: 1px solid var(--rule);
  }
  .gone {
    color: var(--ink2);
  }
</style>
