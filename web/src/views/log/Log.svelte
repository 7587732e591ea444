<script lang="ts">
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import { chosen as picks } from '$lib/api/chosen.svelte';
  import { api, must } from '$lib/api/client';
  import { client } from '$lib/client';
  import { ledgerQuery, workspaceQuery } from '$lib/queries';
  import { commands, field } from '$session/commands.svelte';
  import { desk } from '$session/session';
  import Causes from './Causes.svelte';
  import Evening from './Evening.svelte';
  import LogList from './LogList.svelte';
  import LogSheet from './LogSheet.svelte';
  import { LogState, type Act } from './log.svelte';
  import Pick from './Pick.svelte';
  import Refused from './Refused.svelte';
  import Search from './Search.svelte';
  import TestCardPart from './TestCardPart.svelte';
  import Tries from './Tries.svelte';

  const log = new LogState(desk);
  let time = $state(Date.now());
  let find = $state('');
  $effect(() => {
    const timer = setInterval(() => (time = Date.now()), 1000);
    return () => {
      clearInterval(timer);
    };
  });
  const workspace = createQuery(workspaceQuery);
  const ledger = createQuery(() => ledgerQuery(client, picks.load));
  $effect(() => {
    if (picks.load)
      untrack(() => {
        log.choose(-1);
      });
  });
  const rows = $derived(ledger.data?.rows ?? []);
  const card = createQuery(() => ({
    queryKey: ['card', picks.load, log.slot, ledger.data?.revision],
    queryFn: () => log.card(picks.load, log.slot),
    enabled: picks.load !== 0 && log.slot >= 0,
    placeholderData: keepPreviousData,
    retry: false,
  }));
  const book = createQuery(() => ({
    queryKey: ['log', picks.load, ledger.data?.revision, find],
    queryFn: async () =>
      must(await api.GET('/api/loads/{load}/log', { params: { path: { load: picks.load }, query: { find } } })),
    enabled: picks.load !== 0,
    placeholderData: keepPreviousData,
  }));
  const c = $derived(card.data && card.data.slot === log.slot && card.data.load === picks.load ? card.data : undefined);

  /** The act on the card: the chosen one, or that which tells most. */
  const act = $derived<Act | undefined>(c?.acts[log.chosen ?? 0]);
  const setting = $derived.by(() => {
    const base = act?.setting ?? c?.setting;
    if (!base || !c) return undefined;
    const first = !c.tries.some((t) => t.kind === 'key');
    return {
      ...base,
      where: first ? log.where || base.where : base.where,
      aerial: first ? log.aerial || base.aerial : base.aerial,
      tone: log.negative ? 'off' : base.tone,
    };
  });
  const answer = async (what: { answer?: string; yes?: boolean }) => {
    if (!setting || !c) return;
    const kind = act?.kind ?? 'key';
    if (await log.record(picks.load, log.negative ? 'key' : kind, setting, what))
      await client.invalidateQueries({ queryKey: ['log', picks.load] });
  };
  const keep = () =>
    void log.send(
      picks.load,
      'POST',
      '/api/loads/{load}/entries/{slot}/card/keep',
      { path: { load: picks.load, slot: log.slot } },
      { revision: ledger.data?.revision ?? 0 },
      'keep what worked',
    );
  const permit = (note: string) =>
    log.send(
      picks.load,
      'PUT',
      '/api/loads/{load}/entries/{slot}/card/permission',
      { path: { load: picks.load, slot: log.slot } },
      { note },
      'what the owner said',
    );
  /** What a search found goes where it belongs. */
  const take = (field: string, tone: string, says: string) =>
    void log.send(
      picks.load,
      'PATCH',
      '/api/loads/{load}/entries/{slot}',
      { path: { load: picks.load, slot: log.slot } },
      { [field]: tone, revision: ledger.data?.revision ?? 0 },
      says,
    );
  const choose = (slot: number) => {
    if (rows.some((r) => r.slot === slot)) log.choose(slot);
  };
  const call = async (callsign: string) => {
    const done = await log.send(
      picks.load,
      'PATCH',
      '/api/people/{id}',
      { path: { id: workspace.data?.me.id ?? 0 } },
      { callsign },
      'your callsign',
    );
    if (done) await client.invalidateQueries();
  };
  /** Whether the stored channel is not what worked. */
  const worked = $derived.by(() => {
    if (!c?.answered) return false;
    return (
      c.setting.tone !== (c.channel.transmit_tone || 'off') ||
      c.setting.width !== c.channel.bandwidth ||
      c.setting.offset_hz !== (c.channel.transmit_hz ?? c.channel.receive_hz) - c.channel.receive_hz
    );
  });
  $effect(() =>
    untrack(() =>
      commands.add({
        id: 'log-find',
        says: 'Find in the log',
        scope: 'Log',
        keys: ['/'],
        can: () => field() === null,
        run: () => document.querySelector<HTMLElement>('#log-find')?.focus(),
      }),
    ),
  );
</script>

<svelte:head><title>Log · Mnemos</title></svelte:head>

<div class="log">
  <main class="left">
    <h1 class="sr-only">Log</h1>
    {#if log.slot < 0}
      <Pick
        {rows}
        choose={(slot) => {
          log.choose(slot);
        }}
      />
    {:else if c && setting}
      {#if log.searching}
        <Search
          {log}
          {c}
          note={(what) => log.search(picks.load, what)}
          {take}
          back={() => {
            log.searching = false;
            log.trouble = '';
          }}
        />
      {:else if c.refused}
        <Refused
          {c}
          permit={(note) => void permit(note)}
          search={() => (log.searching = true)}
          back={() => {
            log.choose(-1);
          }}
        />
      {:else}
        <TestCardPart
          {log}
          {c}
          {act}
          {setting}
          {time}
          {worked}
          answer={(what) => void answer(what)}
          {keep}
          call={(s) => void call(s)}
          back={() => {
            log.choose(-1);
          }}
        />
        <Tries {c} {act} {setting} negative={log.negative} />
      {/if}
    {:else if card.isError}<p role="alert" class="py-4 text-stop">{card.error.message}</p>
    {:else}<p class="py-4 text-ink2" aria-busy="true">Looking at what is known of it …</p>{/if}
    {#if book.data && !find}<Evening
        tries={book.data.tries}
        due={c ? c.first && new Date(Date.parse(c.first) + c.minutes * 60_000).toISOString() : ''}
        {time}
        {choose}
      />{/if}
    {#if book.data}<LogList
        book={book.data}
        load={picks.load}
        bind:find
        {choose}
        brought={log.brought}
        bring={(file) => void log.bring(picks.load, file).then(() => client.invalidateQueries())}
        drop={(id) =>
          void log
            .send(picks.load, 'DELETE', '/api/log/{id}', { path: { id } }, {}, 'take a try out of the log')
            .then(() => client.invalidateQueries({ queryKey: ['log', picks.load] }))}
        edit={async (id, form) => {
          const done = await log.send(picks.load, 'PATCH', '/api/log/{id}', { path: { id } }, form, 'correct the log');
          await client.invalidateQueries({ queryKey: ['log', picks.load] });
          return done;
        }}
      />{/if}
  </main>
  {#if c && !c.refused}
    <aside class="panel" aria-label="Channel {c.slot}, {c.name}">
      <Causes
        {c}
        chosen={log.chosen ?? 0}
        choose={(i) => {
          log.chosen = i;
          log.negative = false;
        }}
        negative={() => (log.negative = true)}
        searching={log.searching}
        search={() => (log.searching = true)}
      />
    </aside>
  {/if}
</div>

{#if book.data}<LogSheet
    book={book.data}
    plan={workspace.data?.plan.name ?? ''}
    unit={workspace.data?.loads.find((l) => l.id === picks.load)?.unit.name ?? ''}
  />{/if}

<style>
  @media print {
    .log {
      display: none;
    }
  }
  .log {
    display: grid;
    grid-template-columns: minmax(0, 1fr) var(--panel);
    min-height: calc(var(--screen) - var(--bar));
    padding-top: 5px;
  }
  .left {
    padding: 8px 12px 12px var(--margin);
    min-width: 0;
  }
  .panel {
    background: var(--sheet);
    border-left: 1px solid var(--rule2);
    padding: 14px var(--margin) 12px 21px;
    min-width: 0;
  }
  @media (max-width: 79.4375em) {
    .log {
      display: flex;
      flex-direction: column;
    }
    .left {
      padding-right: var(--margin);
    }
    .panel {
      border-left: 0;
      border-top: 1px solid var(--rule2);
      padding: 12px var(--margin);
    }
  }
  @media (max-width: 45em) {
    .left {
      padding: 0 var(--margin) 72px; /* the views stand below */
    }
    .panel {
      order: -1;
      border-top: 0;
      border-bottom: 1px solid var(--rule2);
    }
  }
</style>
