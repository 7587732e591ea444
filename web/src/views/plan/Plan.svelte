<script lang="ts">
  import { createQuery, keepPreviousData, useQueryClient } from '@tanstack/svelte-query';
  import { tinykeys } from 'tinykeys';
  import { tick } from 'svelte';
  import { api, ApiError, chosenPlan, must } from '$lib/api/client';
  import { singleKeys, typing } from '$lib/keys.svelte';
  import { navigate } from '../../router';
  import Bar from './Bar.svelte';
  import DraftFindings from './DraftFindings.svelte';
  import EntryLine from './EntryLine.svelte';
  import Keys from './Keys.svelte';
  import Ledger from './Ledger.svelte';
  import Matches from './Matches.svelte';
  import Nearby from './Nearby.svelte';
  import Pasted from './Pasted.svelte';
  import Panel from './Panel.svelte';
  import { PlanState } from './plan.svelte';
  import Ribbon from './Ribbon.svelte';
  import Said from './Said.svelte';

  const client = useQueryClient();
  const plan = new PlanState(client);
  let input = $state<HTMLInputElement>();
  let help = $state(false);
  let band = $state('');

  const workspace = createQuery(() => ({
    queryKey: ['workspace'],
    queryFn: async () => must(await api.GET('/api/workspace')),
  }));
  const ledger = createQuery(() => ({
    queryKey: ['ledger', plan.load],
    queryFn: async () => must(await api.GET('/api/loads/{load}', { params: { path: { load: plan.load } } })),
    enabled: plan.load !== 0,
    // While the listings are being read there are no verdicts yet.
    refetchInterval: (q) => (q.state.data?.checking ? 400 : false),
  }));
  const occupied = $derived(ledger.data?.rows.some((r) => r.slot === plan.selected) ?? false);
  const found = createQuery(() => ({
    queryKey: ['evidence', plan.load, plan.selected, ledger.data?.revision],
    queryFn: async () =>
      must(
        await api.GET('/api/loads/{load}/entries/{slot}', {
          params: { path: { load: plan.load, slot: plan.selected ?? 0 } },
        }),
      ),
    enabled: occupied,
    placeholderData: keepPreviousData,
  }));
  const ribbon = createQuery(() => ({
    queryKey: ['ribbon', plan.load, band, ledger.data?.revision, ledger.data?.checking],
    queryFn: async () =>
      must(
        await api.GET('/api/loads/{load}/ribbon', {
          params: { path: { load: plan.load }, query: band ? { band } : {} },
        }),
      ),
    enabled: ledger.data !== undefined,
    placeholderData: keepPreviousData,
  }));
  const radio = $derived(workspace.data?.loads.find((l) => l.id === plan.load)?.radio);

  $effect(() => {
    const loads = workspace.data?.loads;
    if (!loads || plan.load !== 0) return;
    const last = Number(localStorage.getItem('load'));
    open(loads.some((l) => l.id === last) ? last : (loads[0]?.id ?? 0));
  });

  // Begin with the first channel that needs a look, so that the panel teaches.
  $effect(() => {
    if (!ledger.data || plan.selected !== null) return;
    const rows = ledger.data.rows;
    const first = rows.find((r) => r.verdict === 'conflict') ?? rows.find((r) => r.verdict === 'stop') ?? rows[0];
    plan.selected = first?.slot ?? radio?.slots.first ?? null;
  });

  // The ribbon shows the band that is spoken of, until another one is chosen.
  $effect(() => {
    if (found.data?.band) band = found.data.band;
  });

  function open(load: number) {
    localStorage.setItem('load', String(load));
    band = '';
    plan.open(load);
  }

  /** Opens another plan, with the radio that it has first. */
  function another(id: number) {
    chosenPlan.id = id;
    localStorage.removeItem('load');
    plan.load = 0;
    plan.selected = null;
    void client.invalidateQueries();
  }

  // A plan that was removed meanwhile: open one that is there.
  $effect(() => {
    if (workspace.error instanceof ApiError && workspace.error.problem.status === 404 && chosenPlan.id !== 0)
      another(0);
  });

  async function write(slot: number) {
    plan.place = slot;
    await tick();
    input?.focus();
    await plan.read();
  }

  async function store(replace: boolean) {
    if (!plan.line.trim()) return;
    if (!(await plan.store(replace)) && plan.reading?.findings.some((f) => f.rule === 'entry-ambiguous')) {
      plan.trouble = 'Choose one of the two readings first: = for the first, Alt 2 for the second.';
    }
    input?.focus();
  }

  function sheet(slot: number) {
    void navigate('/keypad/:load/:slot', { params: { load: String(plan.load), slot: String(slot) } });
  }

  /** Applies the nth fix: of the line while somebody types, else of the selected slot. */
  function fix(n: number) {
    if (document.activeElement === input) {
      void plan.fixLine(n);
      return;
    }
    // The panel may still show the slot before while this one is being read.
    const here = occupied && found.data?.slot === plan.selected ? found.data : undefined;
    const f = here?.findings.flatMap((x) => x.fixes)[n];
    if (f && plan.selected !== null) void plan.fix(plan.selected, f);
  }

  const outside = (f: () => void) => (e: KeyboardEvent) => {
    if (typing(e) || (!singleKeys.on && !e.ctrlKey && !e.metaKey)) return;
    e.preventDefault();
    f();
  };

  $effect(() =>
    tinykeys(window, {
      '/': outside(() => input?.focus()),
      '.': outside(() => {
        fix(0);
      }),
      '?': outside(() => (help = true)),
      'Shift+?': outside(() => (help = true)),
      k: outside(() => {
        if (occupied && plan.selected !== null) sheet(plan.selected);
      }),
      '$mod+z': outside(() => void plan.undo()),
      '$mod+Shift+z': outside(() => void plan.undo(true)),
      ...Object.fromEntries(
        [1, 2, 3, 4, 5, 6, 7, 8, 9].map((n) => [
          `Alt+${String(n)}`,
          (e: KeyboardEvent) => {
            e.preventDefault();
            fix(n - 1);
          },
        ]),
      ),
    }),
  );
</script>

<svelte:head><title>{workspace.data ? `Plan · ${workspace.data.plan.name} · Mnemos` : 'Mnemos'}</title></svelte:head>

{#if workspace.isError}
  <p role="alert" class="p-6">
    The application does not answer. Start it again, then <button class="link" onclick={() => void workspace.refetch()}
      >try again</button
    >.
  </p>
{:else if workspace.data}
  <div class="page">
    <Bar
      workspace={workspace.data}
      ledger={ledger.data}
      load={plan.load}
      choose={open}
      plan={another}
      undo={(redo) => void plan.undo(redo)}
      help={() => (help = true)}
    />
    <main class="main">
      <h1 class="sr-only">Plan</h1>
      <div class="left">
        <section class="shrink-0" aria-label="Entry line">
          <EntryLine
            {plan}
            nextSlot={ledger.data?.next_slot ?? null}
            bind:input
            store={(replace) => void store(replace)}
          />
          <Said reading={plan.reading} trouble={plan.trouble} />
          {#if plan.reading}
            <Matches reading={plan.reading} />
            <DraftFindings {plan} reading={plan.reading} store={(replace) => void store(replace)} />
          {/if}
          <Pasted {plan} />
        </section>
        <div class="slots">
          {#if ledger.data?.rows.length === 0 && !plan.reading}
            <Nearby {plan} revision={ledger.data.revision} />
          {/if}
          {#if ledger.data && radio}
            <Ledger {plan} ledger={ledger.data} {radio} write={(slot) => void write(slot)} />
          {/if}
        </div>
      </div>
      <aside class="panel" id="evidence" aria-label="Evidence for slot {plan.selected ?? 'none'}">
        {#if occupied && found.data}
          <Panel {plan} found={found.data} {sheet} />
        {:else}
          <p class="pt-2 text-ink2">
            {plan.selected === null
              ? 'Choose a slot to see what speaks for it.'
              : `Slot ${String(plan.selected)} is empty.`}
            Type a channel on the entry line, such as <span class="font-figs">147.24 + 103.5</span>; what is published
            about it and what the band plan says appear as you type.
          </p>
        {/if}
      </aside>
    </main>
    {#if ribbon.data}
      <Ribbon
        ribbon={ribbon.data}
        selected={plan.selected}
        reading={plan.reading}
        choose={(b) => (band = b)}
        pick={(slot) => (plan.selected = slot)}
      />
    {/if}
    <p role="status" class="done">{plan.message}</p>
  </div>
  <Keys bind:open={help} />
{/if}

<style>
  .page {
    display: grid;
    grid-template-rows: auto minmax(0, 1fr) auto;
    height: 100vh;
    min-height: 640px;
  }
  .main {
    display: grid;
    grid-template-columns: minmax(0, 1fr) var(--panel);
    min-height: 0;
    padding-top: 5px;
  }
  .left {
    display: flex;
    flex-direction: column;
    min-height: 0;
    min-width: 0;
    padding: 8px 0 0 var(--margin);
  }
  .left > section {
    margin-right: 12px;
    max-height: 56%;
    overflow-y: auto;
    padding-left: 10px;
    margin-left: -10px;
  }
  .slots {
    flex: 1;
    min-height: 0;
    overflow-y: auto;
    margin-left: -10px;
    padding: 0 12px 0 10px;
  }
  .panel {
    background: var(--sheet);
    border-left: var(--line);
    padding: 14px var(--margin) 0 20px;
    overflow-y: auto;
    min-height: 0;
  }
  .done {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
  @media (max-width: 1270px) {
    .page {
      height: auto;
      display: block;
    }
    .main {
      display: block;
    }
    .left {
      padding-right: 0;
    }
    .left > section {
      max-height: none;
      margin-right: var(--margin);
    }
    .slots {
      padding-right: var(--margin);
    }
    .panel {
      border-left: 0;
      border-top: var(--heavy);
      margin-top: 12px;
      padding-left: var(--margin);
      overflow: visible;
    }
  }
  @media (max-width: 720px) {
    .left {
      padding: 0 var(--margin);
    }
    .left > section,
    .slots {
      margin: 0;
      padding: 0;
      overflow: visible;
    }
    .panel {
      padding: 16px;
      scroll-margin-top: 53px;
    }
  }
</style>
