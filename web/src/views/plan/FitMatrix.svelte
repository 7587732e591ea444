<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import Button from '$parts/Button.svelte';
  import Dialog from '$parts/Dialog.svelte';
  import { api, must, type Channel, type Holding, type LoadInfo } from '$lib/api/client';
  import { mhz } from '$lib/format';
  import { listed, wordOf, type Line } from './matrix';
  import type { PlanState } from './plan.svelte';
  import { RowWindow } from './window.svelte';

  /** Every channel of the plan on every radio: what it cannot hold and why, and the nearest that it can. */
  interface Props {
    plan: PlanState;
    loads: readonly LoadInfo[];
    holdings: readonly Holding[];
    lines: readonly Line[];
    close: () => void;
  }
  let { plan, loads, holdings, lines, close }: Props = $props();
  let only = $state(false);
  let at = $state<{ channel: number; load: number }>();
  let list = $state<HTMLElement>();
  const held = $derived(new Map(holdings.map((h) => [`${String(h.channel)} ${String(h.load)}`, h])));
  const of = (channel: number, load: number) => held.get(`${String(channel)} ${String(load)}`);
  const rows = $derived(listed(lines, loads, of, only));
  const view = new RowWindow(() => rows.map(() => 24));
  const shown = $derived(view.range);
  const line = $derived(lines.find((l) => l.id === at?.channel));
  const load = $derived(loads.find((l) => l.id === at?.load));
  const nearest = createQuery(() => ({
    queryKey: ['holdings', 'nearest', at?.load, at?.channel],
    queryFn: async () =>
      must(
        await api.GET('/api/loads/{load}/nearest/{channel}', {
          params: { path: { load: at?.load ?? 0, channel: at?.channel ?? 0 } },
        }),
      ),
    enabled: at !== undefined,
  }));
  const says: [string, (c: Channel) => string][] = [
    ['receive', (c) => mhz(c.receive_hz)],
    ['transmit', (c) => (c.transmit_hz === null ? 'blocked' : mhz(c.transmit_hz))],
    ['tone out', (c) => c.transmit_tone ?? 'no tone'],
    ['tone in', (c) => c.receive_tone ?? 'open'],
    ['width', (c) => c.bandwidth],
    ['power', (c) => c.power],
  ];
  function keydown(e: KeyboardEvent) {
    const r = Math.max(
      0,
      rows.findIndex((l) => l.id === at?.channel),
    );
    const c = Math.max(
      0,
      loads.findIndex((l) => l.id === at?.load),
    );
    const by = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
      PageUp: [-18, 0],
      PageDown: [18, 0],
      Home: [-rows.length, 0],
      End: [rows.length, 0],
    }[e.key];
    if (!by) return;
    e.preventDefault();
    const n = at ? Math.min(Math.max(r + (by[0] ?? 0), 0), rows.length - 1) : 0;
    const m = at ? Math.min(Math.max(c + (by[1] ?? 0), 0), loads.length - 1) : 0;
    const [row, unit] = [rows[n], loads[m]];
    if (!row || !unit) return;
    at = { channel: row.id, load: unit.id };
    view.reveal(list, n);
  }
  const add = async () => {
    const from = holdings.find((h) => h.channel === at?.channel && h.slot !== null);
    if (at && load && from?.slot !== undefined && from.slot !== null)
      await plan.copy(from.load, from.slot, at.load, load.unit.name);
  };
</script>

<Dialog
  bind:open={
    () => true,
    (o) => {
      if (!o) close();
    }
  }
  title="What fits into which radio"
  says="The number is the slot. ≠ is held with a change; add is not in this radio yet. Choose a cell for the reason and the nearest that fits."
  wide="full"
>
  <label class="flex items-center gap-2 pb-2 max-desk:min-h-11"
    ><input type="checkbox" bind:checked={only} /> only what does not fit everywhere as it is ({listed(
      lines,
      loads,
      of,
      true,
    ).length} of {lines.length})</label
  >
  <div class="flex min-h-0 gap-6 max-desk:flex-col">
    <div class="box" data-matrix>
      <div
        role="grid"
        tabindex="0"
        aria-label="Channels and radios"
        aria-rowcount={rows.length + 1}
        aria-activedescendant={at ? `fit-${String(at.channel)}-${String(at.load)}` : undefined}
        onkeydown={keydown}
        style:--columns="44px minmax(110px, 1fr) 82px repeat({loads.length}, minmax(48px, 64px))"
        style:min-width="{250 + loads.length * 50}px"
      >
        <div role="row" class="line head text-label text-ink2">
          <span role="columnheader">slot</span><span role="columnheader">name</span><span role="columnheader"
            >receive</span
          >
          {#each loads as l (l.id)}<span role="columnheader" class="truncate text-right" title={l.unit.name}
              >{l.unit.name}</span
            >{/each}
        </div>
        <div {@attach view.attach} bind:this={list} role="rowgroup" class="relative" style:height="{view.whole}px">
          <div class="absolute inset-x-0" style:top="{view.start(shown.first)}px" role="presentation">
            {#each rows.slice(shown.first, shown.end) as l, n (l.id)}
              <div role="row" class="line" aria-rowindex={shown.first + n + 2}>
                <span role="gridcell" class="font-figs text-ink2">{l.number ?? ''}</span>
                <span role="gridcell" class="truncate">{l.name}</span>
                <span role="gridcell" class="font-figs">{mhz(l.receive)}</span>
                {#each loads as u (u.id)}
                  {@const w = wordOf(of(l.id, u.id), l.number)}
                  <span
                    role="gridcell"
                    id="fit-{l.id}-{u.id}"
                    aria-selected={at?.channel === l.id && at.load === u.id}
                    class="cell {w.loud ? '' : 'text-ink2'}"
                    class:here={at?.channel === l.id && at.load === u.id}
                    ><button
                      type="button"
                      tabindex="-1"
                      class="w-full text-right"
                      onclick={() => (at = { channel: l.id, load: u.id })}>{w.text}</button
                    ></span
                  >
                {/each}
              </div>
            {/each}
          </div>
        </div>
      </div>
    </div>
    <div class="why" aria-live="polite">
      {#if at && line && load && nearest.data}
        {@const n = nearest.data}
        <h3 class="text-[15px] font-strong">{line.name} in {load.unit.name}</h3>
        {#if !n.can}
          <p>It cannot be held: {n.losses[0]?.why ?? 'the radio does not receive there'}.</p>
        {:else}
          <p>
            {n.losses.length === 0 ? 'It is held as planned' : 'The nearest that it can hold'}{n.slot === null
              ? ''
              : `, in slot ${String(n.slot)}`}.
          </p>
          <table class="my-2 w-full">
            <thead class="text-label text-ink2"
              ><tr
                ><th></th><th class="text-left font-normal">planned</th><th class="text-left font-normal">held</th></tr
              ></thead
            >
            <tbody>
              {#each says as [what, g] (what)}
                <tr class="border-t border-rule">
                  <th class="pr-2 text-left font-normal text-ink2">{what}</th>
                  <td class="font-figs">{g(n.wanted)}</td>
                  <td class="font-figs {g(n.held) === g(n.wanted) ? 'text-ink2' : 'font-strong'}">{g(n.held)}</td>
                </tr>
              {/each}
            </tbody>
          </table>
          {#each n.losses as l, i (i)}<p class="text-small">{l.why}: {l.held} for {l.wanted}.</p>{/each}
          {#if n.slot === null}<div class="pt-2">
              <Button onclick={() => void add()}>Add it{n.losses.length > 0 ? ' like that' : ''}</Button>
            </div>{/if}
        {/if}
        {#if plan.trouble}<p role="alert" class="pt-2 text-stop">{plan.trouble}</p>{/if}
      {:else}<p class="text-ink2">Choose a cell with the arrows or a click.</p>{/if}
    </div>
  </div>
</Dialog>

<style>
  .box {
    position: relative;
    height: 52vh;
    min-width: 0;
    flex: 1;
    overflow: auto;
    border-top: 1px solid var(--ink);
  }
  .line {
    display: grid;
    grid-template-columns: var(--columns);
    align-items: baseline;
    column-gap: 8px;
    height: 24px;
    line-height: 22px;
    border-bottom: 1px solid var(--rule);
  }
  .head {
    position: sticky;
    top: 0;
    z-index: 2;
    background: var(--paper);
  }
  .cell {
    font-family: var(--font-figs);
    font-size: var(--t-small);
    text-align: right;
  }
  .here {
    outline: 2px solid var(--accent);
    outline-offset: -1px;
  }
  .why {
    width: 320px;
    flex: none;
  }
  @media (max-width: 45em) {
    .why {
      width: auto;
    }
  }
</style>
