<script lang="ts">
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import Button from '$parts/Button.svelte';
  import Evidence from '$parts/Evidence.svelte';
  import { chosen as picks } from '$lib/api/chosen.svelte';
  import { client } from '$lib/client';
  import { toneText } from '$lib/format';
  import { ledgerQuery, workspaceQuery } from '$lib/queries';
  import { narrow } from '$lib/screen.svelte';
  import { commands, field } from '$session/commands.svelte';
  import { desk } from '$session/session';
  import Chain from './Chain.svelte';
  import { ground, loopScale, overScale } from './draw';
  import LoopTime from './LoopTime.svelte';
  import OverTime from './OverTime.svelte';
  import { RelayState, type Fix } from './relay.svelte';
  import RunCard from './RunCard.svelte';
  import SideLine from './SideLine.svelte';
  import Verdict from './Verdict.svelte';

  const relay = new RelayState(desk);
  let first = $state<HTMLInputElement>();
  let second = $state<HTMLInputElement>();
  let width = $state(0);

  const workspace = createQuery(workspaceQuery);
  const ledger = createQuery(() => ledgerQuery(client, picks.load));
  // What is typed settles before anything is asked.
  let asked = $state<{ a: string | undefined; b: string | undefined; way: string | undefined }>({
    a: undefined,
    b: undefined,
    way: undefined,
  });
  $effect(() => {
    const next = { a: relay.a, b: relay.b, way: relay.way };
    const timer = window.setTimeout(() => (asked = next), next.a === undefined && next.b === undefined ? 0 : 120);
    return () => {
      window.clearTimeout(timer);
    };
  });
  $effect(() => {
    if (picks.load)
      untrack(() => {
        relay.again();
      });
  });
  const look = createQuery(() => ({
    queryKey: ['relay', picks.load, ledger.data?.revision, ledger.data?.checking, asked.a, asked.b, asked.way],
    queryFn: () => relay.ask(picks.load, asked.a, asked.b, asked.way),
    enabled: picks.load !== 0 && ledger.data !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
  }));
  const v = $derived(look.data);
  const r = $derived(v?.report);
  const people = $derived(workspace.data?.people ?? []);
  const hands = $derived(v?.units.filter((u) => u.load !== picks.load) ?? []);

  const g = $derived(ground(Math.max(width, 340), narrow.is));
  const top = $derived(g.time + (narrow.is ? 48 : 46));
  const scale = $derived(r?.over ? overScale(r.over, top, narrow.is) : r?.loop ? loopScale(r.loop, top) : undefined);
  const foot = $derived(scale?.foot ?? g.time);
  const label = $derived(
    r
      ? `${r.legs.map((l) => `${l.gloss} on ${String(l.leg.hz / 1e6)} megahertz: ${l.leg.says}.`).join(' ')} ${
          r.over
            ? `Speak ${r.over.wait.toFixed(2)} seconds after you key, and key again ${r.over.again.toFixed(1)} seconds after you let go.`
            : ''
        } ${r.loop?.does ? `It loops: a turn takes ${r.loop.period.toFixed(1)} seconds, and nothing ends it.` : ''}`
      : '',
  );
  const waits = (tone: string | null) => (tone && tone !== 'none' ? `only with ${toneText(tone)}` : 'whatever comes');
  const tells = (tone: string | null) => (tone && tone !== 'none' ? `with ${toneText(tone)}` : 'without a tone');

  const fix = (x: Fix) => {
    if (v) void relay.fix(v, picks.load, x);
  };
  const set = (form: Record<string, unknown>) => {
    if (v) void relay.set(picks.load, form, 'what the relay rests on', v.revision);
  };
  const keep = () => {
    if (v) void relay.keep(v, picks.load);
  };
  const way = (to: string) => {
    relay.way = to;
    if (v) void relay.keep(v, picks.load);
  };
  const live = $derived(r?.findings.filter((f) => f.severity !== 'note').flatMap((f) => f.fixes)[0]);
  $effect(() =>
    untrack(() =>
      commands.add(
        {
          id: 'relay-line',
          says: 'Write side A',
          scope: 'Relay',
          keys: ['/'],
          can: () => field() === null,
          run: () => first?.focus(),
        },
        {
          id: 'relay-take',
          says: 'Take both sides into the plan and both radios',
          scope: 'Relay',
          keys: ['$mod+Enter'],
          can: () => v !== undefined && v.kept && !v.taken && r !== undefined && r.verdict !== 'stop',
          run: () => {
            if (v) void relay.take(picks.load, v.revision);
          },
        },
        {
          id: 'relay-fix',
          says: 'Do the first fix',
          scope: 'Relay',
          keys: ['='],
          can: () => live !== undefined && !(field() !== null && field() !== first && field() !== second),
          run: () => {
            if (live) fix(live);
          },
        },
      ),
    ),
  );
</script>

<svelte:head><title>Relay · Mnemos</title></svelte:head>

<div class="relay">
  <main class="left">
    <h1 class="sr-only">Relay</h1>
    {#if v && !v.can}
      <section class="empty">
        <h2>{v.vehicle} does not relay</h2>
        <p>
          A cross-band relay hears on one side while it sends on the other: it needs two receivers and a cross-band
          mode. Dual watch will not do.
        </p>
        {#if v.units.some((u) => u.can)}
          <p class="do">
            {#each v.units.filter((u) => u.can) as u (u.load)}<Button
                kind="main"
                onclick={() => {
                  picks.load = u.load;
                }}>Relay with {u.name}</Button
              >{/each}
          </p>
        {:else}<p>No radio of this plan does. Add a mobile unit with two receivers in Radios.</p>{/if}
      </section>
    {:else if v}
      {#if relay.card && r}
        <RunCard
          {v}
          who={people.find((p) => p.id === v.by)?.name ?? ''}
          tick={(step, done) => void relay.set(picks.load, { tick: { step, done } }, 'tick the run card', v.revision)}
          rehearsed={(yes) => void relay.set(picks.load, { rehearsed: yes }, 'note the rehearsal', v.revision)}
          back={() => (relay.card = false)}
        />
      {:else}
        <section class="sides" aria-label="The two sides">
          <SideLine
            letter="A"
            side={v.a}
            value={relay.a ?? v.a.line}
            type={(s) => (relay.a = s)}
            {keep}
            bind:input={first}
          />
          <SideLine
            letter="B"
            side={v.b}
            value={relay.b ?? v.b.line}
            type={(s) => (relay.b = s)}
            {keep}
            bind:input={second}
          />
        </section>
        {#if v.a.channel && v.b.channel}
          <p class="say" aria-live="polite">
            Hears {v.a.hears}
            {waits(v.a.channel.receive_tone)}, sends {v.b.sends || 'nothing'}
            {tells(v.b.channel.transmit_tone)}.{#if v.way !== 'out'}<span class="ml-1"
                >Back: hears {v.b.hears}
                {waits(v.b.channel.receive_tone)}, sends {v.a.sends || 'nothing'}
                {tells(v.a.channel.transmit_tone)}.</span
              >{/if}
          </p>
        {/if}
        <p class="acts">
          <label
            >works <select
              value={relay.way ?? v.way}
              onchange={(e) => {
                way(e.currentTarget.value);
              }}
              ><option value="both">both ways</option><option value="out">A to B only</option><option value="back"
                >B to A only</option
              ></select
            ></label
          >
          <label
            >handheld <select
              value={String(v.settings.hand)}
              onchange={(e) => {
                set({ hand: Number(e.currentTarget.value) });
              }}
              >{#if v.settings.hand === 0}<option value="0">nobody said</option>{/if}{#each hands as u (u.load)}<option
                  value={String(u.load)}>{u.name}</option
                >{/each}</select
            ></label
          >
          {#if !v.kept}<Button kind="main" onclick={keep}>Keep this</Button><button
              type="button"
              class="link"
              onclick={() => {
                relay.a = relay.b = relay.way = undefined;
              }}>as it was</button
            >{/if}
          {#if relay.trouble}<span role="alert" class="text-stop">{relay.trouble}</span>{/if}
        </p>
        {#if !r}
          <section class="empty">
            <h2>A handheld through {v.vehicle}</h2>
            <p>
              Write both sides as you would type a channel, or the number of a slot. Side A is mostly the link to your
              handheld, such as <button
                type="button"
                class="link f"
                onclick={() => (relay.a = '446.1 simplex ts 186.2 low')}>446.1 simplex ts 186.2 low</button
              >; side B the repeater, such as
              <button type="button" class="link f" onclick={() => (relay.b = '145.29 - 110.9 mid')}
                >145.29 - 110.9 mid</button
              >. One side is VHF, the other UHF.
            </p>
          </section>
        {/if}
        {#if narrow.is && r}
          <section class="first" aria-label="Verdict in short">
            <header>
              <h2>{r.title}</h2>
              <Evidence kind={r.verdict} />
            </header>
            {#if live}<Button
                fix="live"
                onclick={() => {
                  if (live) fix(live);
                }}>{live.label}</Button
              >{/if}
          </section>
        {/if}
        <div class="draw" bind:clientWidth={width}>
          {#if r && width > 0}
            <svg {width} height={Math.ceil(foot + 12)} role="img" aria-label={label}>
              <Chain {r} {g} vehicle={v.vehicle} bands={r.bands} watts={[v.a.watts, v.b.watts]} {foot} />
              <path class="div" d="M0,{g.time}H{width}" />
              {#if r.over && scale}<OverTime
                  o={r.over}
                  {g}
                  s={scale}
                  vehicle={v.vehicle}
                  timeout={v.settings.timeout}
                />
              {:else if r.loop && scale}<LoopTime l={r.loop} {g} s={scale} />{/if}
            </svg>
            <p class="basis">Delays: {r.basis}.</p>
          {/if}
        </div>
      {/if}
    {:else if look.isError}<p role="alert" class="py-4 text-stop">{look.error.message}</p>
    {:else}<p class="py-4 text-ink2" aria-busy="true">Working the relay out …</p>{/if}
  </main>
  {#if v?.can && r}{#key picks.load}<Verdict {v} {r} {relay} load={picks.load} {set} {fix} />{/key}{/if}
</div>

<style>
  .relay {
    display: grid;
    grid-template-columns: minmax(0, 1fr) var(--panel);
    min-height: calc(var(--screen) - var(--bar));
    padding-top: 5px;
  }
  .left {
    padding: 8px 12px 12px var(--margin);
    min-width: 0;
  }
  .sides {
    display: flex;
    background: var(--sheet);
    border: 1px solid var(--rule);
    border-left: 0;
    margin-left: -10px;
  }
  .say {
    padding: 6px 0 0 40px;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 16px;
    align-items: center;
    padding: 4px 0 6px 40px;
    font-size: 13px;
    color: var(--ink2);
  }
  select {
    height: 26px;
    border: 1px solid var(--rule2);
    border-radius: 2px;
    background: var(--sheet);
    color: var(--ink);
    padding: 0 4px;
  }
  .draw svg {
    display: block;
    overflow: visible;
  }
  .div {
    stroke: var(--rule2);
  }
  .basis {
    color: var(--ink2);
    font-size: 12.5px;
  }
  .empty {
    padding: 18px 0 12px 40px;
    max-width: 640px;
  }
  .empty h2 {
    font-size: var(--t-head);
    line-height: 26px;
    font-weight: var(--w-strong);
  }
  .empty .do {
    padding-top: 10px;
    display: flex;
    gap: 10px;
  }
  .f {
    font-family: var(--figs);
  }
  header {
    display: flex;
    align-items: baseline;
    gap: 12px;
  }
  header h2 {
    flex: 1;
    min-width: 0;
  }
  .first {
    border-top: 1px solid var(--rule);
    padding: 8px 0 12px;
  }
  .first h2 {
    font-size: 17px;
    font-weight: var(--w-strong);
  }
  @media (max-width: 79.4375em) {
    .relay {
      display: flex;
      flex-direction: column;
    }
    .left {
      padding-right: var(--margin);
    }
  }
  @media (max-width: 45em) {
    .left {
      padding: 0 var(--margin) 12px;
    }
    .sides {
      flex-direction: column;
      margin: 0 calc(-1 * var(--margin));
    }
    .say,
    .acts,
    .empty {
      padding-left: 0;
    }
    select {
      height: 44px;
    }
  }
  @media print {
    .relay {
      display: block;
    }
  }
</style>
