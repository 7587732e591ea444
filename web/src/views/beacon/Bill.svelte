<script lang="ts">
  import Mark from '$parts/Mark.svelte';
  import type { BeaconView } from '$lib/api/client';
  import { fieldValue } from '$lib/field.svelte';
  import type { BeaconState, Line, Station } from './beacon.svelte';
  import DrawnSymbol from './DrawnSymbol.svelte';

  /** What each setting costs on the air, and what it could be instead. The lines add up. */
  interface Props {
    b: BeaconState;
    v: BeaconView;
    s: Station;
    set: (set: Record<string, unknown>, says: string) => void;
    symbols: () => void;
  }
  let { b, v, s, set, symbols }: Props = $props();
  const marks: Record<string, 'agrees' | 'conflict' | 'unverified'> = {
    agrees: 'agrees',
    differs: 'conflict',
    'no evidence': 'unverified',
  };
  const delta = (ms: number) => `${ms < 0 ? '−' : '+'}${Math.abs(ms).toFixed(1)}`;
  /** Fields of the frame that a line is about. */
  const of: Record<string, string> = {
    from: 'from',
    symbol: 'symbol',
    position: 'lat',
    comment: 'comment',
    path: 'via0',
  };
  const field = (e: Event) => (e.currentTarget as HTMLInputElement).value.trim();
  const number = (e: Event, name: string, was: number) => {
    const n = Number(field(e).replace(',', '.'));
    if (field(e) === '' || Number.isNaN(n)) (e.currentTarget as HTMLInputElement).value = String(was);
    else set({ [name]: n }, name);
  };
  const mark = (l: Line) => marks[l.mark] ?? 'unverified';
</script>

<div class="bill" role="table" aria-label="What each setting costs">
  <div class="row heads" role="row">
    <span role="columnheader">setting</span><span role="columnheader">as set</span><span role="columnheader"
      >or, in ms more or less</span
    ><span role="columnheader" class="r">ms</span><span role="columnheader">why</span>
  </div>
  {#each v.bill as l (l.id)}
    <!-- svelte-ignore a11y_mouse_events_have_key_events -->
    <div
      class="row"
      class:sum={l.id === 'sent'}
      class:hot={b.at === of[l.id]}
      role="row"
      tabindex="-1"
      onmouseover={() => (b.at = of[l.id] ?? '')}
    >
      <span role="rowheader" class="k">{l.name}</span>
      <span role="cell" class="set">
        {#if l.id === 'from'}<input
            aria-label="callsign and number"
            {@attach fieldValue(() => s.from)}
            placeholder="QX9ABC-7"
            autocapitalize="characters"
            spellcheck="false"
            size="10"
            onchange={(e) => {
              set({ from: field(e) }, 'the callsign');
            }}
          /><small>{l.note}</small>
        {:else if l.id === 'symbol'}<button type="button" class="pick" onclick={symbols}
            ><DrawnSymbol id={s.symbol} /> <code>{s.symbol}</code> <small>{l.note}</small></button
          >
        {:else if l.id === 'position'}<b>{l.value}</b>
          <small>{l.note}</small>
          <select
            aria-label="figures left out"
            value={String(s.ambiguity)}
            disabled={s.format === 'compressed'}
            onchange={(e) => {
              set({ ambiguity: Number(e.currentTarget.value) }, 'how exact the position is');
            }}
            >{#each ['exact', '1 out', '2 out', '3 out', '4 out'] as t, i (i)}<option value={String(i)}>{t}</option
              >{/each}</select
          >
        {:else if l.id === 'comment'}<select
            aria-label="call back on"
            value={String(s.back)}
            onchange={(e) => {
              set({ back: Number(e.currentTarget.value) }, 'where to call back');
            }}
            ><option value="-1">no call back</option>{#each v.slots as x (x.id)}<option value={x.id}
                >{x.id} {x.says}</option
              >{/each}{#if s.back >= 0 && !v.slots.some((x) => x.id === String(s.back))}<option value={String(s.back)}
                >slot {s.back}</option
              >{/if}</select
          ><input
            aria-label="words"
            {@attach fieldValue(() => s.words)}
            placeholder="words"
            maxlength="200"
            onchange={(e) => {
              set({ words: field(e) }, 'the words');
            }}
          />
        {:else if l.id === 'path'}<input
            aria-label="path"
            {@attach fieldValue(() => s.path)}
            placeholder="direct"
            spellcheck="false"
            size="16"
            onchange={(e) => {
              set({ path: field(e) }, 'the path');
            }}
          /><small>{l.note}</small>
        {:else if l.id === 'keyup'}<input
            aria-label="key-up delay in milliseconds"
            {@attach fieldValue(() => s.key_up)}
            inputmode="numeric"
            size="5"
            onchange={(e) => {
              number(e, 'key_up', s.key_up);
            }}
          /><small>ms</small>
        {:else if l.id === 'sent'}{#if s.smart}<b>speed and turn</b> <small>{l.note}</small>{:else}<small>every</small
            ><input
              aria-label="seconds between beacons"
              {@attach fieldValue(() => s.every)}
              inputmode="numeric"
              size="6"
              onchange={(e) => {
                number(e, 'every', s.every);
              }}
            /><small>s</small>{/if}
        {:else}<span class:quiet={l.id === 'always'}>{l.value}</span>{/if}
      </span>
      <span role="cell" class="or"
        >{#each l.options as o, nth (nth)}<button
            type="button"
            onclick={() => {
              set(o.set, o.label);
            }}
            >{o.label}{#if o.delta !== 0}<i>{delta(o.delta)}</i>{/if}</button
          >{/each}</span
      >
      <span role="cell" class="r cost">{l.cost.toFixed(1)}</span>
      <span role="cell" class="why"
        >{#if l.why}<Mark kind={mark(l)} /> {l.why}{/if}</span
      >
    </div>
  {/each}
</div>

<style>
  .row {
    display: grid;
    grid-template-columns: 66px minmax(0, 1.2fr) minmax(0, 1.15fr) 56px 132px;
    gap: 0 8px;
    align-items: center;
    min-height: 28px;
    padding: 2px 0 2px 40px;
    margin-left: -16px;
    border-bottom: 1px solid var(--rule);
    border-left: 4px solid transparent;
    padding-left: 36px;
  }
  .heads {
    font-size: var(--t-label);
    color: var(--ink2);
    border-bottom: 1px solid var(--bold);
    min-height: 22px;
  }
  .hot {
    background: var(--water);
    border-left-color: var(--accent);
  }
  .sum {
    border-top: 2px solid var(--bold);
  }
  .sum .cost {
    font-weight: var(--w-strong);
  }
  .k,
  small,
  .quiet {
    color: var(--ink2);
    font-size: 13px;
  }
  .set {
    display: flex;
    flex-wrap: wrap;
    gap: 3px 8px;
    align-items: center;
    min-width: 0;
  }
  .set b {
    font: var(--w-normal) 14px var(--figs);
  }
  input,
  select {
    height: 24px;
    border: 0;
    border-bottom: 1px solid var(--ink2);
    background: transparent;
    font: var(--w-normal) 14px var(--figs);
    color: var(--ink);
    padding: 0 2px;
    min-width: 0;
    max-width: 100%;
  }
  select {
    font: var(--w-normal) 13px var(--text);
    background: var(--paper);
    max-width: 150px;
  }
  .pick code {
    font: var(--w-normal) 14px var(--figs);
    border-bottom: 1px solid var(--ink2);
  }
  .or {
    display: flex;
    flex-wrap: wrap;
    gap: 0 12px;
    font-size: 13px;
  }
  .or button {
    min-height: 24px;
    text-align: left;
  }
  .or button:hover {
    text-decoration: underline;
  }
  .or i {
    font: var(--w-normal) 12.5px var(--figs);
    color: var(--ink2);
    margin-left: 4px;
  }
  .r {
    text-align: right;
  }
  .cost {
    font: var(--w-normal) 14px var(--figs);
  }
  .why {
    font-size: 13px;
    color: var(--ink2);
  }
  @media (max-width: 45em) {
    .heads {
      display: none;
    }
    .row {
      grid-template-columns: 68px minmax(0, 1fr) 56px;
      margin-left: 0;
      padding-left: 4px;
      padding-top: 6px;
    }
    .cost {
      grid-column: 3;
      grid-row: 1;
    }
    .or,
    .why {
      grid-column: 2 / -1;
    }
    .or button,
    .pick {
      min-height: 44px;
    }
    input,
    select {
      height: 44px;
    }
  }
</style>
