<script lang="ts">
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { tick, untrack } from 'svelte';
  import { chosen } from '$lib/api/chosen.svelte';
  import { api, must } from '$lib/api/client';
  import { client } from '$lib/client';
  import { holdingsQuery, ledgerQuery, workspaceQuery } from '$lib/queries';
  import { narrow } from '$lib/screen.svelte';
  import { commands } from '$session/commands.svelte';
  import { desk } from '$session/session';
  import { navigate } from '../../router';
  import { commandsOf } from './commands';
  import Draft from './Draft.svelte';
  import DraftFindings from './DraftFindings.svelte';
  import EntryLine from './EntryLine.svelte';
  import { later } from './later';
  import GoesInto from '$parts/GoesInto.svelte';
  import Ledger from './Ledger.svelte';
  import Matches from './Matches.svelte';
  import Nearby from './Nearby.svelte';
  import Panel from './Panel.svelte';
  import Pasted from './Pasted.svelte';
  import { PlanState } from './plan.svelte';
  import Said from './Said.svelte';
  import Side from './Side.svelte';

  const plan = new PlanState(desk);
  let input = $state<HTMLInputElement>();
  let fixes = $state(false);
  let band = $state('');

  const workspace = createQuery(workspaceQuery);
  const ledger = createQuery(() => ({
    ...ledgerQuery(client, chosen.load),
    // While the listings are being read there are no verdicts yet.
    refetchInterval: (q) => (q.state.data?.checking ? 400 : false),
  }));
  const loads = $derived(workspace.data?.loads ?? []);
  const holdings = createQuery(() =>
    holdingsQuery(workspace.data?.plan.id ?? 0, plan.matrix ? 2 : loads.length, chosen.load),
  );
  const occupied = $derived(ledger.data?.rows.some((r) => r.slot === plan.selected) ?? false);
  const found = createQuery(() => ({
    queryKey: ['evidence', chosen.load, plan.selected, ledger.data?.revision],
    queryFn: async () =>
      must(
        await api.GET('/api/loads/{load}/entries/{slot}', {
          params: { path: { load: chosen.load, slot: plan.selected ?? 0 } },
        }),
      ),
    enabled: occupied,
    placeholderData: keepPreviousData,
  }));
  const ribbon = createQuery(() => ({
    queryKey: ['ribbon', chosen.load, band, ledger.data?.revision, ledger.data?.checking],
    queryFn: async () =>
      must(
        await api.GET('/api/loads/{load}/ribbon', {
          params: { path: { load: chosen.load }, query: band ? { band } : {} },
        }),
      ),
    enabled: ledger.data !== undefined,
    placeholderData: keepPreviousData,
  }));
  const sets = createQuery(() => ({
    queryKey: ['sets', workspace.data?.plan.id ?? 0],
    queryFn: async () =>
      must(await api.GET('/api/plans/{id}/sets', { params: { path: { id: workspace.data?.plan.id ?? 0 } } })),
    enabled: workspace.data !== undefined,
    placeholderData: keepPreviousData,
  }));
  /** Every channel of the plan once, with the slot of this radio, or that everybody uses. */
  const lines = $derived([
    ...(ledger.data?.rows ?? []).map((r) => ({
      id: r.id,
      number: r.slot as number | null,
      name: r.channel.name,
      receive: r.channel.receive_hz,
    })),
    ...(holdings.data?.absent ?? []).map((a) => ({
      id: a.id,
      number: a.number,
      name: a.channel.name,
      receive: a.channel.receive_hz,
    })),
  ]);
  const fixing = $derived(ledger.data?.kinds.find((k) => k.rule === plan.fixing));
  const load = $derived(loads.find((l) => l.id === chosen.load));
  const others = $derived(loads.filter((l) => l.id !== chosen.load));
  const written = $derived(plan.line.trim() === '' ? undefined : plan.reading?.evidence);
  /** The panel may still show the slot before while this one is being read. */
  const here = $derived(occupied && found.data?.slot === plan.selected ? found.data : undefined);

  $effect(() => {
    if (chosen.load >= 0)
      untrack(() => {
        band = '';
        plan.open();
      });
  });
  // Which radios get the line too is a part of what it says.
  $effect(() => {
    if (chosen.also.length >= 0) untrack(() => void plan.read());
  });

  // Begin with the first channel that needs a look, so that the panel teaches.
  $effect(() => {
    if (!ledger.data || plan.selected !== null) return;
    const rows = ledger.data.rows;
    const first = rows.find((r) => r.verdict === 'conflict') ?? rows.find((r) => r.verdict === 'stop') ?? rows[0];
    plan.selected = first?.slot ?? load?.radio.slots.first ?? null;
  });

  // The ribbon shows the band that is spoken of, until another one is chosen.
  $effect(() => {
    const spoken = written?.band ?? found.data?.band;
    if (spoken) band = spoken;
  });

  async function write(slot: number, begun = '') {
    plan.place = slot;
    if (begun) plan.type(plan.line.trim() ? `${plan.line} ${begun}` : begun);
    await tick();
    input?.focus();
    await plan.read();
  }

  async function store(replace: boolean) {
    if (!plan.line.trim()) return;
    if (!(await plan.store(replace)) && plan.reading?.findings.some((f) => f.rule === 'entry-ambiguous')) {
      plan.trouble = `Choose one of the two readings first: ${commands.shown('line-fix')} takes the first, ${commands.shown('fixes')} lists both.`;
    }
    input?.focus();
  }

  function sheet(slot: number) {
    void navigate('/keypad/:load/:slot', { params: { load: String(chosen.load), slot: String(slot) } });
  }

  /** The first fix: of the line while there is one, else of the selected slot. */
  function fix() {
    if (plan.line.trim()) {
      void plan.fixLine(0);
      return;
    }
    const f = here?.findings.flatMap((x) => x.fixes)[0];
    if (f && plan.selected !== null) void plan.fix(plan.selected, f);
  }

  $effect(() =>
    untrack(() =>
      commands.add(
        ...commandsOf({
          plan,
          line: () => input?.focus(),
          fix,
          fixes: () => (fixes = true),
          store: (replace) => void store(replace),
          sheet: () => {
            if (occupied && plan.selected !== null) sheet(plan.selected);
          },
        }),
      ),
    ),
  );
  $effect(() => commands.catch(() => input));
</script>

<svelte:head><title>{workspace.data ? `Plan · ${workspace.data.plan.name} · Mnemos` : 'Mnemos'}</title></svelte:head>

{#snippet evidence()}
  {#if here}
    <Panel
      {plan}
      found={here}
      {sheet}
      {loads}
      holdings={holdings.data?.holdings ?? []}
      sets={sets.data?.sets ?? []}
      people={workspace.data?.people ?? []}
    />
  {:else if !occupied}
    <p class="pt-2 text-ink2">
      {plan.selected === null ? 'Choose a slot to see what speaks for it.' : `Slot ${String(plan.selected)} is empty.`}
      Type a channel on the entry line, such as <span class="font-figs">147.24 + 103.5</span>; what is published about
      it and what the band plan says appear as you type.
    </p>
  {/if}
{/snippet}

{#snippet lost()}
  <p role="alert" class="pt-2">This part of the page cannot be loaded. Reload the page.</p>
{/snippet}

{#snippet side()}
  <Side
    view={plan.side}
    choose={(v) => {
      plan.side = v;
    }}
  >
    {#if plan.side === 'work' && load && ledger.data}
      {@const { revision } = ledger.data}
      {#await later.work() then { default: Work }}
        <Work
          {plan}
          {load}
          {revision}
          look={() => {
            plan.side = 'channel';
          }}
        />
      {:catch}{@render lost()}{/await}
    {:else if plan.side === 'sets' && workspace.data}
      {@const { id } = workspace.data.plan}
      {#await later.sets() then { default: SetsPanel }}
        <SetsPanel {plan} {id} sets={sets.data} {loads} rows={ledger.data?.rows ?? []} />
      {:catch}{@render lost()}{/await}
    {:else if plan.side === 'history' && workspace.data && ledger.data}
      {@const { revision } = ledger.data}
      {@const { plans } = workspace.data}
      {@const { id } = workspace.data.plan}
      {#await later.history() then { default: History }}
        <History {plan} {id} {plans} {loads} {revision} />
      {:catch}{@render lost()}{/await}
    {:else}{@render evidence()}{/if}
  </Side>
{/snippet}

{#if workspace.isError && !workspace.data}
  <main class="p-6">
    <h1 class="sr-only">Plan</h1>
    <p role="alert">
      The application does not answer. Start it; this page comes back by itself, or
      <button class="link" onclick={() => void workspace.refetch()}>try again</button>.
    </p>
  </main>
{:else if workspace.data}
  <div class="page">
    <main class="main" class:only={narrow.is && plan.side !== 'channel' && !written}>
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
            {#if others.length > 0}<div class="border-t border-rule py-1 pl-10 max-desk:pl-0">
                <GoesInto {others} puts={plan.reading.puts} slot={plan.reading.slot} />
              </div>{/if}
            <Matches reading={plan.reading} />
            <DraftFindings {plan} reading={plan.reading} store={(replace) => void store(replace)} />
          {/if}
          <Pasted {plan} />
        </section>
        <div class="slots">
          {#if narrow.is}<Side
              view={plan.side}
              choose={(v) => {
                plan.side = v;
              }}
            />{/if}
          {#if ledger.data?.rows.length === 0 && !plan.reading}
            <Nearby {plan} revision={ledger.data.revision} />
          {/if}
          {#if ledger.data && load}
            <Ledger
              {plan}
              ledger={ledger.data}
              {load}
              {others}
              holdings={holdings.data?.holdings ?? []}
              absent={holdings.data?.absent ?? []}
              sets={sets.data?.sets ?? []}
              fixAll={(rule) => (plan.fixing = rule)}
              write={(slot, begun) => void write(slot, begun)}
              evidence={narrow.is ? evidence : undefined}
            />
          {:else if ledger.isError}
            <p role="alert" class="py-4">
              The slots cannot be read: {ledger.error.message}.
              <button type="button" class="link" onclick={() => void ledger.refetch()}>Try again</button>
            </p>
          {/if}
        </div>
      </div>
      {#if !narrow.is || written || plan.side !== 'channel'}
        <aside
          class="panel"
          id="evidence"
          aria-label={written ? 'Evidence for the line' : `Evidence for slot ${String(plan.selected ?? 'none')}`}
        >
          {#if written}<Draft found={written} />{:else}{@render side()}{/if}
        </aside>
      {/if}
    </main>
    {#if ribbon.data}
      {@const drawn = ribbon.data}
      {#await later.ribbon() then { default: Ribbon }}
        <Ribbon
          ribbon={drawn}
          selected={plan.selected}
          reading={plan.reading}
          choose={(b) => (band = b)}
          pick={(slot) => (plan.selected = slot)}
        />
      {:catch}{@render lost()}{/await}
    {/if}
  </div>
  {#if plan.several.pasting}
    {#await later.pasting() then { default: PastingDialog }}<PastingDialog {plan} />{:catch}{@render lost()}{/await}
  {/if}
  {#if fixing}
    {#await later.fixKind() then { default: FixKind }}<FixKind
        {plan}
        kind={fixing}
        close={() => (plan.fixing = '')}
      />{:catch}{@render lost()}{/await}
  {/if}
  {#if plan.files && workspace.data && load}
    {@const { id, name } = workspace.data.plan}
    {#await later.files() then { default: Files }}<Files
        {plan}
        {id}
        {name}
        {load}
        close={() => (plan.files = false)}
      />{:catch}{@render lost()}{/await}
  {/if}
  {#if plan.columns && load}
    {#await later.columns() then { default: Columns }}<Columns
        {plan}
        {load}
        close={() => (plan.columns = false)}
      />{:catch}{@render lost()}{/await}
  {/if}
  {#if plan.matrix}
    {#await later.matrix() then { default: FitMatrix }}<FitMatrix
        {plan}
        {loads}
        holdings={holdings.data?.holdings ?? []}
        {lines}
        close={() => (plan.matrix = false)}
      />{:catch}{@render lost()}{/await}
  {/if}
  {#if fixes}
    {#await later.fixes() then { default: Fixes }}<Fixes
        {plan}
        found={here}
        close={() => (fixes = false)}
      />{:catch}{@render lost()}{/await}
  {/if}
{/if}

<style>
  .page {
    display: grid;
    grid-template-rows: minmax(0, 1fr) auto;
    height: calc(var(--screen) - var(--bar));
    min-height: 594px;
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
    position: relative;
    margin-right: 12px;
    max-height: 56%;
    overflow-y: auto;
    padding-left: 10px;
    margin-left: -10px;
  }
  .slots {
    position: relative; /* what is only read aloud in a row stays in here */
    overflow-anchor: none; /* the rows that are drawn change while it scrolls */
    flex: 1;
    min-height: 0;
    overflow-y: auto;
    margin-left: -10px;
    padding: 0 12px 0 10px;
  }
  .panel {
    position: relative;
    background: var(--sheet);
    border-left: var(--line);
    padding: 14px var(--margin) 0 20px;
    overflow-y: auto;
    min-height: 0;
  }
  @media (max-width: 79.375em) {
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
  @media (max-width: 45em) {
    .only .left {
      display: none;
    }
    .only .panel {
      margin-top: 0;
      border-top: 0;
    }
    .page {
      padding-bottom: 56px;
    }
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
    }
  }
</style>
