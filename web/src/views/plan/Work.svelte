<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import Button from '$parts/Button.svelte';
  import Mark from '$parts/Mark.svelte';
  import { api, must, type LoadInfo, type Task } from '$lib/api/client';
  import { commands } from '$session/commands.svelte';
  import { chosen } from '$lib/api/chosen.svelte';
  import { navigate } from '../../router';
  import type { PlanState } from './plan.svelte';

  /** What to do next with this radio, worked out; each with what does it. */
  interface Props {
    plan: PlanState;
    load: LoadInfo;
    revision: number;
    /** Shows what speaks about a slot. */
    look: () => void;
  }
  let { plan, load, revision, look }: Props = $props();
  const work = createQuery(() => ({
    queryKey: ['work', load.id, revision],
    queryFn: async () => must(await api.GET('/api/loads/{load}/work', { params: { path: { load: load.id } } })),
    placeholderData: (old) => old,
  }));
  const tasks = $derived(work.data?.tasks ?? []);
  const titles: Record<Task['kind'], string> = {
    stop: 'Must not go on the air as it is',
    conflict: 'A witness says otherwise',
    behind: 'Not in the radio as planned',
    missing: 'The other radios have it',
    moved: 'In other slots than the others',
    unverified: 'Nobody has confirmed it, oldest first',
    listing: 'Old listings',
  };
  const marks = { stop: 'stop', conflict: 'conflict', unverified: 'unverified' } as const;
  const groups = $derived(
    (Object.keys(titles) as Task['kind'][])
      .map((kind) => ({ kind, tasks: tasks.filter((t) => t.kind === kind) }))
      .filter((g) => g.tasks.length > 0),
  );
  let all = $state<Task['kind'][]>([]);
  const few = 5;

  async function act(t: Task) {
    if (t.slot !== null) plan.selected = t.slot;
    if (t.do === 'fix' && t.slot !== null)
      await plan.fix(t.slot, { id: t.id, label: t.says } as Parameters<PlanState['fix']>[1]);
    else if (t.do === 'add') await plan.copy(t.from, t.from_slot, load.id, load.unit.name);
    else if (t.do === 'move') await plan.several.arrange('align', { slots: [] });
    else if (t.do === 'import') await navigate('/find');
    else if (t.do === 'walk') {
      chosen.load = t.from;
      await navigate('/load');
    } else look();
  }
  const first = $derived(tasks[0]);
  $effect(() =>
    untrack(() =>
      commands.add({
        id: 'work-first',
        says: 'Do the first thing of the list',
        scope: 'Plan',
        keys: ['Alt+Enter'],
        writing: true,
        can: () => first !== undefined,
        run: () => {
          if (first) void act(first);
        },
      }),
    ),
  );
</script>

<h2 class="text-head font-strong">To do, {load.unit.name}</h2>
{#if work.isError}<p role="alert">
    The list cannot be read: {work.error.message}.
    <button type="button" class="link" onclick={() => void work.refetch()}>Try again</button>
  </p>
{:else if work.data && tasks.length === 0}
  <p class="pt-2">
    Nothing is left to do: every channel agrees with what is published, and this radio has what the others have.
  </p>
{/if}
{#each groups as g (g.kind)}
  {@const some = all.includes(g.kind) ? g.tasks : g.tasks.slice(0, few)}
  <section class="border-b border-rule py-2 last:border-0" aria-label={titles[g.kind]}>
    <h3 class="flex items-baseline gap-2 text-[15px] font-strong">
      {#if g.kind in marks}<Mark kind={marks[g.kind as keyof typeof marks]} />{/if}{titles[g.kind]}
      <span class="font-normal text-ink2">{g.tasks.length}</span>
    </h3>
    <ul>
      {#each some as t, i (i)}
        <li class="flex items-baseline gap-2 py-1">
          <span class="w-7 flex-none text-right font-figs text-small text-ink2">{t.slot ?? ''}</span>
          <span class="min-w-0 flex-1">
            {#if t.slot === null}{t.title}{:else}<button
                type="button"
                class="text-left hover:underline max-desk:min-h-11"
                onclick={() => {
                  if (t.slot !== null) plan.selected = t.slot;
                  look();
                }}>{t.title}</button
              >{/if}
            {#if t.why}<span class="block text-small text-ink2">{t.why}</span>{/if}
            {#if t.do !== 'look' || t === first}<span class="mt-1 block"
                ><Button
                  key={t === first ? commands.key('work-first') : ''}
                  fix={t === first ? 'live' : 'idle'}
                  onclick={() => void act(t)}>{t.says}</Button
                ></span
              >{/if}
          </span>
        </li>
      {/each}
    </ul>
    {#if g.tasks.length > few}
      <button
        type="button"
        class="link ml-9 max-desk:min-h-11"
        onclick={() => (all = all.includes(g.kind) ? all.filter((k) => k !== g.kind) : [...all, g.kind])}
        >{all.includes(g.kind) ? 'Fewer' : `${String(g.tasks.length - few)} more`}</button
      >
    {/if}
  </section>
{/each}
