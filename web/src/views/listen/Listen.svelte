<script lang="ts">
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { tick, untrack } from 'svelte';
  import { chosen as picks } from '$lib/api/chosen.svelte';
  import { api, must } from '$lib/api/client';
  import { client } from '$lib/client';
  import { ledgerQuery } from '$lib/queries';
  import { narrow } from '$lib/screen.svelte';
  import { commands, field } from '$session/commands.svelte';
  import { desk } from '$session/session';
  import Chosen from './Chosen.svelte';
  import DiaryPart from './DiaryPart.svelte';
  import DualPart from './DualPart.svelte';
  import GoalLine from './GoalLine.svelte';
  import { ListenState } from './listen.svelte';
  import Modes from './Modes.svelte';
  import Score from './Score.svelte';
  import Setup from './Setup.svelte';
  import StepScan from './StepScan.svelte';
  import Ways from './Ways.svelte';

  const listen = new ListenState(desk);
  let input = $state<HTMLInputElement>();
  let setup = $state<'' | 'lists' | 'rate' | 'resume' | 'priority'>('');
  let left = $state<'diary' | 'sweep'>('diary');
  let right = $state<'dual' | 'modes'>('dual');

  const ledger = createQuery(() => ledgerQuery(client, picks.load));
  // What is typed settles before anything is asked.
  let line = $state<string>();
  $effect(() => {
    const next = listen.line?.trim();
    const timer = window.setTimeout(() => (line = next), next ? 120 : 0);
    return () => {
      window.clearTimeout(timer);
    };
  });
  const report = createQuery(() => ({
    queryKey: ['listen', picks.load, ledger.data?.revision, ledger.data?.checking, line, listen.slot, listen.at],
    queryFn: () => listen.ask(picks.load, line),
    enabled: picks.load !== 0 && ledger.data !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
  }));
  const r = $derived(report.data?.load === picks.load ? report.data : undefined);
  const selected = $derived(r ? (listen.slot >= 0 ? listen.slot : r.goal.slot) : -1);
  const diary = createQuery(() => ({
    queryKey: ['diary', picks.load, ledger.data?.revision, selected],
    queryFn: async () =>
      must(
        await api.GET('/api/loads/{load}/diary', {
          params: { path: { load: picks.load }, query: { slot: selected } },
        }),
      ),
    enabled: picks.load !== 0 && r !== undefined,
    placeholderData: keepPreviousData,
  }));

  // Another radio has a goal and channels of its own.
  $effect(() => {
    if (picks.load)
      untrack(() => {
        listen.line = undefined;
        listen.slot = -1;
        listen.then = false;
        setup = '';
      });
  });

  const row = $derived(r?.rows.find((x) => x.slot === selected));
  const many = $derived(r?.best?.changes.length ?? 0);
  const after = $derived(many > 1 ? (many === 2 ? 'with both' : 'with all') : 'with it');
  const view = $derived(listen.then && r?.half_then ? r.half_then : r?.half);

  const make = () => {
    if (r?.best)
      void listen.change(picks.load, r.best.changes).then((done) => (listen.then = done ? false : listen.then));
  };
  const keep = async () => {
    if (!r || r.goal.trouble !== '') return;
    const text = (listen.line ?? r.goal.line).trim();
    if (await listen.set(picks.load, { goal: text })) listen.line = undefined;
  };
  /** Leaves the chosen channel out of the scan, or puts it back. */
  const toggle = (slot = selected) => {
    const x = r?.rows.find((y) => y.slot === slot);
    if (x) void listen.change(picks.load, [{ kind: x.in || x.second ? 'leave' : 'back', slot }]);
  };
  const prefer = (slot = selected) => {
    if (!r || slot < 0) return;
    const kind = r.has_priority ? 'priority' : r.receivers === 'dual receive' ? 'second' : 'watch';
    void listen.change(picks.load, [{ kind, slot }]);
  };
  const heard = async () => {
    if (!row) return;
    const d = await listen.note(picks.load, 'heard', row.slot, row.name);
    if (d) await client.invalidateQueries({ queryKey: ['diary', picks.load] });
    void client.invalidateQueries({ queryKey: ['listen', picks.load] });
  };
  const listening = async (what: 'begin' | 'stop') => {
    await listen.note(picks.load, what, selected, '');
    await client.invalidateQueries({ queryKey: ['diary', picks.load] });
  };
  async function open(what: typeof setup) {
    setup = setup === what ? '' : what;
    await tick();
    document.querySelector<HTMLElement>('#scan-setup input, #scan-setup button')?.focus();
  }

  const written = () => [null, input].includes(field() as HTMLInputElement | null);
  $effect(() =>
    untrack(() =>
      commands.add(
        { id: 'goal', says: 'Say what you want to hear', scope: 'Listen', keys: ['/'], run: () => input?.focus() },
        {
          id: 'listen-fix',
          says: 'Make the changes that reach the goal',
          scope: 'Listen',
          keys: ['='],
          writing: true,
          can: () => written() && r?.best !== undefined,
          run: make,
        },
        {
          id: 'heard',
          says: 'Heard now: note an over on the chosen channel',
          scope: 'Listen',
          keys: ['Alt+KeyH'],
          writing: true,
          can: () => row !== undefined,
          run: () => void heard(),
        },
        {
          id: 'listen-then',
          says: 'Show the half minute with the change, or as it is',
          scope: 'Listen',
          keys: ['Alt+KeyV'],
          writing: true,
          can: () => r?.half_then !== undefined,
          run: () => (listen.then = !listen.then),
        },
        {
          id: 'listen-rate',
          says: 'Time how fast the radio scans',
          scope: 'Listen',
          keys: ['Alt+KeyR'],
          writing: true,
          run: () => void open('rate'),
        },
        {
          id: 'listen-sweep',
          says: 'Step scan of a range',
          scope: 'Listen',
          run: () => (left = left === 'sweep' ? 'diary' : 'sweep'),
        },
        {
          id: 'scan-toggle',
          says: 'Leave the channel out of the scan, or put it back',
          scope: 'In the scan',
          keys: ['Space'],
          run: () => {
            toggle();
          },
        },
        {
          id: 'scan-prefer',
          says: 'Give the channel priority, or the other side',
          scope: 'In the scan',
          keys: ['Alt+KeyP'],
          can: () => r?.receivers !== 'one' || r.has_priority,
          run: () => {
            prefer();
          },
        },
      ),
    ),
  );
  $effect(() => commands.catch(() => input));
</script>

<svelte:head><title>Listen · Mnemos</title></svelte:head>

{#if r && view}
  <div class="listen">
    <main class="page">
      <h1 class="sr-only">Listen</h1>
      <div class="ground" aria-hidden="true"></div>
      <div class="left">
        <GoalLine state={listen} {r} bind:input keep={() => void keep()} />
        <Ways state={listen} {r} {after} {make} />
      </div>
      <aside class="panel" aria-label={row ? `Channel ${String(row.slot)}, ${row.name}` : 'Channel'}>
        {#if row}
          <Chosen
            {r}
            {row}
            {after}
            toggle={() => {
              toggle(row.slot);
            }}
            prefer={() => {
              prefer(row.slot);
            }}
            talk={(form) => listen.set(picks.load, { talk: { slot: row.slot, ...form } })}
            faults={listen.faults}
          />
        {:else}<p class="text-ink2">Choose a channel to see what of it is heard.</p>{/if}
      </aside>
      <section class="score" aria-label="Half a minute of scanning">
        <Score
          state={listen}
          {r}
          {view}
          {after}
          {selected}
          phone={narrow.is}
          now={() => (listen.at = '')}
          setup={(what) => void open(what)}
          act={(change) => void listen.change(picks.load, [change])}
          {toggle}
        >
          {#if setup !== ''}
            <Setup
              {r}
              what={setup}
              faults={listen.faults}
              close={() => (setup = '')}
              set={(form) => listen.set(picks.load, form)}
            />
          {/if}
        </Score>
      </section>
    </main>
    <div class="foot">
      <section class="side" aria-label={left === 'diary' ? 'Diary' : 'Step scan'}>
        {#if left === 'diary'}
          {#if diary.data}<DiaryPart
              diary={diary.data}
              at={{ day: r.day, hour: r.hour }}
              phone={narrow.is}
              heard={() => void heard()}
              listening={(what) => void listening(what)}
              choose={(slot) => (listen.slot = slot)}
              when={(t) => (listen.at = t)}
              sweep={() => (left = 'sweep')}
            />{/if}
        {:else}<StepScan load={picks.load} unit={r.unit} diary={() => (left = 'diary')} />{/if}
      </section>
      <section class="other" aria-label={right === 'dual' ? 'The two sides' : 'How the scan goes on'}>
        {#if right === 'dual'}
          <DualPart
            {r}
            modes={() => (right = 'modes')}
            watch={(slot) => void listen.set(picks.load, { watch: slot })}
            lock={(slot) => void listen.change(picks.load, [{ kind: 'listen', slot }])}
          />
        {:else}<Modes
            {r}
            dual={() => (right = 'dual')}
            take={(resume, stay) => void listen.change(picks.load, [{ kind: 'resume', slot: -1, resume, stay }])}
          />{/if}
      </section>
    </div>
  </div>
{:else if report.isError}
  <main class="p-6">
    <p role="alert">
      {report.error.message}
      <button type="button" class="link" onclick={() => (listen.at = '')}>Try again</button>
    </p>
  </main>
{:else}<main class="p-6" aria-busy="true"><p class="text-ink2">Reckoning what this radio will hear …</p></main>{/if}

<style>
  .listen {
    min-height: calc(var(--screen) - var(--bar));
    display: flex;
    flex-direction: column;
  }
  .page {
    flex: 1;
    display: grid;
    grid-template-columns: minmax(0, 1fr) var(--panel);
    grid-template-rows: auto 1fr;
    padding-top: 5px;
    position: relative;
  }
  .ground {
    position: absolute;
    right: 0;
    top: 5px;
    bottom: 0;
    width: var(--panel);
    background: var(--sheet);
    border-left: 1px solid var(--rule2);
  }
  .left {
    padding: 8px 12px 0 var(--margin);
    min-width: 0;
  }
  .panel {
    position: relative;
    padding: 14px var(--margin) 0 21px;
    min-width: 0;
  }
  .score {
    grid-column: 1 / 3;
    position: relative;
    margin: 4px var(--margin) 0;
    min-width: 0;
  }
  .foot {
    border-top: 2px solid var(--bold);
    display: grid;
    grid-template-columns: minmax(0, 1fr) var(--panel);
    min-height: 121px;
  }
  .side {
    padding: 6px 12px 8px var(--margin);
    min-width: 0;
  }
  .other {
    border-left: 1px solid var(--rule2);
    padding: 6px var(--margin) 8px 20px;
    min-width: 0;
  }
  @media (max-width: 79.4375em) {
    .page {
      display: flex;
      flex-direction: column;
    }
    .ground {
      display: none;
    }
    .left {
      padding-right: var(--margin);
    }
    .panel {
      order: 3;
      border-top: 1px solid var(--rule2);
      background: var(--sheet);
      padding: 12px var(--margin);
      margin-top: 12px;
    }
    .foot {
      display: block;
    }
    .other {
      border-left: 0;
      border-top: 1px solid var(--rule2);
      padding-left: var(--margin);
    }
  }
  @media (max-width: 45em) {
    .left {
      padding: 0 var(--margin);
    }
    .panel {
      border-top: 2px solid var(--bold);
    }
    .foot {
      padding-bottom: 64px; /* the views stand below */
    }
  }
</style>
