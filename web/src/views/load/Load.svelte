<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import { api, must, type Fix } from '$lib/api/client';
  import { chosen } from '$lib/api/chosen.svelte';
  import { client } from '$lib/client';
  import { ledgerQuery } from '$lib/queries';
  import { commands } from '$session/commands.svelte';
  import { say } from '$session/say.svelte';
  import { desk } from '$session/session';
  import { navigate } from '../../router';
  import Before from './Before.svelte';
  import { WalkState } from './walk.svelte';
  import Walking from './Walking.svelte';

  let walk = $state.raw(new WalkState(desk, chosen.load));
  const ledger = createQuery(() => ledgerQuery(client, chosen.load));
  const fit = createQuery(() => ({
    queryKey: ['fit', chosen.load, ledger.data?.revision, ledger.data?.checking],
    queryFn: async () => must(await api.GET('/api/loads/{load}/fit', { params: { path: { load: chosen.load } } })),
    enabled: chosen.load !== 0,
    placeholderData: (old) => old,
  }));
  const standings = $derived(new Map((ledger.data?.rows ?? []).map((r) => [r.id, r.standing.now])));
  let time = $state(Date.now());
  $effect(() => {
    const timer = setInterval(() => (time = Date.now()), 5000);
    return () => {
      clearInterval(timer);
    };
  });

  // Another radio has a walk of its own.
  $effect(() => {
    const load = chosen.load;
    untrack(() => {
      if (walk.load !== load) walk = new WalkState(desk, load);
    });
  });
  // What changes in the plan changes the walk, as long as nobody is on it.
  $effect(() => {
    if (ledger.data && walk.load === ledger.data.load && ledger.data.revision >= 0)
      untrack(() => {
        if (walk.phase === 'before') void walk.ask();
      });
  });

  const change = async (w: {
    method: 'POST' | 'PATCH' | 'DELETE';
    path: string;
    slot: number;
    body: object;
    says: string;
  }) => {
    const revision = ledger.data?.revision ?? 0;
    const { done, problem } = await desk.ask({
      method: w.method,
      path: w.path,
      params: {
        path: { load: chosen.load, slot: w.slot },
        ...(w.method === 'DELETE' ? { query: { revision } } : {}),
      },
      ...(w.method === 'DELETE' ? {} : { body: { ...w.body, revision } }),
      load: chosen.load,
      says: w.says,
    });
    if (done)
      say.done(`${desk.ledger(chosen.load)?.undo.replace(/^./, (c) => c.toUpperCase()) ?? 'Done'}; Ctrl+Z undoes it`);
    else say.failed(problem?.detail ?? problem?.title ?? '');
  };
  const slotPath = '/api/loads/{load}/entries/{slot}';
  const apply = (slot: number, fix: Fix) =>
    void change({ method: 'POST', path: `${slotPath}/fix`, slot, body: { id: fix.id }, says: fix.label });
  const listen = (slot: number) =>
    void change({ method: 'PATCH', path: slotPath, slot, body: { shift: 'rx only' }, says: 'receive only' });
  const leave = (slot: number) =>
    void change({ method: 'DELETE', path: slotPath, slot, body: {}, says: 'take it out of this radio' });

  const scan = (slot: number) =>
    void change({ method: 'PATCH', path: slotPath, slot, body: { scan: 'yes' }, says: 'scan as the others' });

  /** A button or field that has the focus takes Enter itself. */
  const free = () => !document.activeElement?.matches('button, a, input, select, summary, [role=button]');
  const start = () => {
    if (walk.kept) void walk.anew();
    else walk.start();
  };
  $effect(() =>
    untrack(() =>
      commands.add(
        {
          id: 'walk-start',
          says: 'Start the walk',
          scope: 'Load',
          keys: ['$mod+Enter'],
          can: () => walk.phase === 'before' && (walk.stops.length > 0 || walk.kept !== undefined),
          run: start,
        },
        {
          id: 'walk-done',
          says: 'Step done; the display shows this',
          scope: 'Load',
          keys: ['Enter'],
          can: () => walk.going && walk.phase !== 'else' && free(),
          run: () => {
            if (walk.phase === 'rest') walk.shows();
            else if (walk.phase === 'dummy') walk.keyed(true);
            else walk.done();
          },
        },
        {
          id: 'walk-back',
          says: 'Back one step',
          scope: 'Load',
          keys: ['Backspace'],
          can: () => walk.going,
          run: () => {
            walk.back();
          },
        },
        {
          id: 'walk-else',
          says: 'Mine shows something else',
          scope: 'Load',
          can: () => walk.phase === 'rest',
          run: () => void walk.elsewise(),
        },
        {
          id: 'walk-leave',
          says: 'Leave the walk; it is found again',
          scope: 'Load',
          keys: ['Escape'],
          can: () => walk.going,
          run: () => {
            walk.leave();
          },
        },
      ),
    ),
  );
</script>

<svelte:head><title>Load · Mnemos</title></svelte:head>

{#if walk.going}
  <Walking {walk} {standings} {time} />
{:else if fit.data && walk.load === chosen.load}
  <Before
    fit={fit.data}
    {walk}
    {time}
    {apply}
    {listen}
    {leave}
    {scan}
    look={(slot) => void navigate('/keypad/:load/:slot', { params: { load: String(chosen.load), slot: String(slot) } })}
    {start}
  />
{:else if fit.isError}
  <main class="p-6"><p role="alert">{fit.error.message}</p></main>
{:else}<main class="p-6" aria-busy="true"><p class="text-ink2">Looking at what this radio will hold …</p></main>{/if}
