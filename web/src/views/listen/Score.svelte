<script lang="ts">
  import type { Snippet } from 'svelte';
  import Frequency from '$parts/Frequency.svelte';
  import Mark from '$parts/Mark.svelte';
  import type { ListenReport } from '$lib/api/client';
  import { commands } from '$session/commands.svelte';
  import Becomes from './Becomes.svelte';
  import type { Change, ListenState } from './listen.svelte';
  import Strip from './Strip.svelte';
  import { spoken, type Half } from './strip';
  import { goes, hour, round, ten } from './words';

  /** Channel by channel: half a minute of the receiver, and what comes of it. */
  interface Props {
    state: ListenState;
    r: ListenReport;
    view: Half;
    after: string;
    selected: number;
    phone: boolean;
    now: () => void;
    setup: (what: 'lists' | 'rate' | 'resume' | 'priority') => void;
    act: (change: Change) => void;
    toggle: (slot: number) => void;
    children: Snippet;
  }
  let { state: listen, r, view, after, selected, phone, now, setup, act, toggle, children }: Props = $props();
  let strip = $state(578);

  const lists = $derived(r.lists.filter((l) => l.chosen));
  const shown = $derived(
    r.rows.filter((x) => x.in || x.second || x.slot === selected || listen.others || lists.length === 0),
  );
  const hidden = $derived(r.rows.length - shown.length);
  const both = $derived(r.half_then !== undefined);
  const what = $derived(
    lists.length > 0 ? lists.map((l) => l.name).join(', then ') : `${String(r.scanned)} of ${String(r.held)} channels`,
  );
  const name = (slot: number) => r.rows.find((x) => x.slot === slot)?.name ?? String(slot);

  function press(e: KeyboardEvent) {
    const at = shown.findIndex((x) => x.slot === selected);
    const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: shown.length - 1 }[e.key];
    const next = to === undefined ? undefined : shown[Math.max(0, Math.min(shown.length - 1, to))];
    if (next) {
      listen.slot = next.slot;
      document.getElementById(`scan-${String(next.slot)}`)?.focus();
      e.preventDefault();
    } else if ((e.target as HTMLElement).matches('[role=row]')) commands.act('In the scan', e);
  }
  const place = (i: number) => (i + 0.5) * 24;
</script>

<div class="head">
  <h2>
    Half a minute, {hour(r.day, r.hour)}{#if listen.at}
      <button type="button" class="link ml-2 font-normal" onclick={now}>now</button>{/if}
  </h2>
  <p>
    <button
      type="button"
      class="src"
      onclick={() => {
        setup('lists');
      }}>{what}</button
    >,
    <button
      type="button"
      class="src"
      onclick={() => {
        setup('rate');
      }}>{r.rate.per_second.toFixed(1)} a second{r.rate.timed ? ', timed' : ''}</button
    >,
    <button
      type="button"
      class="src"
      onclick={() => {
        setup('resume');
      }}>{goes(r.resume, r.stay)}</button
    >{#if r.priority >= 0},
      <button
        type="button"
        class="src"
        onclick={() => {
          setup('priority');
        }}>{r.every === 1 ? 'every second' : `every ${String(r.every + 1)}th`} look at {name(r.priority)}</button
      >{/if}
  </p>
  {#if both}
    <span class="switch" role="group" aria-label="Show">
      <button type="button" aria-pressed={!listen.then} onclick={() => (listen.then = false)}>as it is</button>
      <button type="button" aria-pressed={listen.then} onclick={() => (listen.then = true)}>{after}</button>
    </span>
  {/if}
</div>
{@render children()}
<div role="grid" aria-label="Channels scanned" aria-rowcount={shown.length + 1} tabindex="-1" onkeydown={press}>
  <div class="row cols" role="row">
    <span role="columnheader" class="c-n">slot</span><span role="columnheader" class="c-name">name</span><span
      role="columnheader"
      class="c-rx">receive</span
    ><span role="columnheader" class="c-strip" bind:clientWidth={strip}><span class="sr-only">half a minute</span></span
    ><span role="columnheader" class="r c-a">overs<br />an hour</span><span role="columnheader" class="sp"
      ><span class="long">{round(r.goal.length)} s overs heard, of 10<br />as it is{both ? `, ${after}` : ''}</span
      ><span class="tiny">of 10</span></span
    ><span role="columnheader" class="r c-w">mean<br />wait</span><span role="columnheader" class="r c-m"
      >missed<br />an hour</span
    ><span role="columnheader" class="r c-sh">share<br />of time</span>
  </div>
  <div class="body">
    {#each shown as x, i (x.slot)}
      {@const out = !x.in && !x.second}
      <div
        class="row"
        class:sel={x.slot === selected}
        class:five={i % 5 === 4}
        class:out
        role="row"
        id="scan-{x.slot}"
        tabindex={x.slot === selected || (selected < 0 && i === 0) ? 0 : -1}
        aria-selected={x.slot === selected}
        onclick={() => (listen.slot = x.slot)}
        onfocus={() => (listen.slot = x.slot)}
        onkeydown={undefined}
      >
        <span role="gridcell" class="c-n">{x.slot}</span>
        <span role="gridcell" class="c-name"
          >{phone ? x.short_name || x.name : x.name}{#if x.priority && r.every > 1}<i>priority</i>{:else if x.second}<i
              >second receiver</i
            >{/if}</span
        >
        <span role="gridcell" class="c-rx"><Frequency hz={x.receive_hz} /></span>
        <span role="gridcell" class="c-strip"
          ><span class="sr-only">{x.by === 'always' ? 'always on' : spoken(view, x.slot)}</span></span
        >
        {#if out}
          <span role="gridcell" class="call"
            ><span class="text-ink3">left out</span><button
              type="button"
              class="link"
              tabindex={x.slot === selected ? 0 : -1}
              onclick={() => {
                toggle(x.slot);
              }}>put back</button
            ></span
          >
        {:else if x.call}
          <span role="gridcell" class="call called"
            ><span class="text"
              ><Mark kind={x.call.kind === 'stop' ? 'stop' : 'conflict'} />
              <span class="long">{x.call.title}</span><span class="tiny">{x.call.short}</span></span
            >{#if x.call.do}<button
                type="button"
                class="link"
                tabindex={x.slot === selected ? 0 : -1}
                onclick={() => {
                  if (x.call) act({ kind: x.call.do, slot: x.slot });
                }}>{x.call.label}</button
              >{/if}</span
          >
          <span role="gridcell" class="r c-sh f">{Math.round(100 * x.share)}<small> %</small></span>
        {:else}
          <span role="gridcell" class="r c-a f" class:quiet={x.by === 'guess'}
            >{round(x.rate)}{#if x.by === 'guess'}<small> guess</small>{/if}</span
          >
          <svg class="bar" width="62" height="10" viewBox="0 0 62 10" aria-hidden="true">
            <rect class="o" x=".6" y=".6" width="60.8" height="8.8" /><rect
              class="h"
              width={62 * x.chance}
              height="10"
            />
            {#if x.then !== undefined}<path class="u" d="M{62 * x.then},-3V13" /><path
                class="a"
                d="M{62 * x.then},-3V13"
              />{/if}
          </svg>
          <span role="gridcell" class="c-p f"
            >{ten(x.chance)}{#if x.then !== undefined}<Becomes /><b class="then">{ten(x.then)}</b>{/if}</span
          >
          <span role="gridcell" class="r c-w f"
            >{x.second ? '0' : x.wait === undefined ? '–' : x.wait.toFixed(1)}<small> s</small></span
          >
          <span role="gridcell" class="r c-m f">{round(x.missed)}</span>
          <span role="gridcell" class="r c-sh f">{Math.round(100 * x.share)}<small> %</small></span>
        {/if}
      </div>
    {/each}
    {#if strip > 20}
      <Strip half={view} rows={shown.map((x, i) => ({ slot: x.slot, y: place(i) }))} width={strip} {selected} {phone} />
    {/if}
  </div>
</div>
<div class="row sum">
  <span class="legend"
    ><span><svg width="18" height="9"><rect class="h" width="18" height="9" /></svg>heard</span><span
      ><svg width="18" height="9"><rect class="o" x=".6" y=".6" width="16.8" height="7.8" /></svg>missed</span
    ><span
      ><svg width="20" height="9"
        ><path class="p" d="M1,1L9,8" /><circle class="h" cx="2" cy="2" r="1.5" /><circle
          class="h"
          cx="8"
          cy="7"
          r="1.5"
        /><path class="p" d="M11,7H20" stroke-width="2" /></svg
      >receiver</span
    ></span
  >
  <span class="total"
    >of {round(r.overs)} overs an hour on {lists.length > 0 ? 'these' : 'all'} channels, {r.unit} hears
    <span class="f"
      >{round(r.heard)}{#if r.best && both}<Becomes /><b class="then">{round(r.best.heard)}</b>{/if}</span
    ></span
  >
</div>
{#if hidden > 0 || (listen.others && lists.length > 0)}
  <p class="more">
    <button type="button" class="link" onclick={() => (listen.others = !listen.others)}
      >{listen.others ? 'only what is scanned' : `${String(hidden)} more that are not scanned`}</button
    >
  </p>
{/if}
{#if r.guesses > 0}<p class="more">
    {r.guesses}
    {r.guesses === 1 ? 'rate is a guess' : 'rates are guesses'}: note what you hear, or say how much there is.
  </p>{/if}

<style>
  .head {
    display: flex;
    align-items: baseline;
    gap: 14px;
    border-top: 1px solid var(--rule2);
    padding: 6px 0 2px 40px;
    margin-right: calc(var(--panel) - 12px);
  }
  .head h2 {
    font-size: var(--t-body);
    font-weight: var(--w-strong);
    white-space: nowrap;
  }
  .head p {
    font-size: 13px;
    color: var(--ink2);
    flex: 1;
    min-width: 0;
  }
  .src {
    text-decoration: underline dotted;
    text-underline-offset: 3px;
    text-decoration-color: var(--rule2);
    text-align: left;
    min-height: 24px;
  }
  .src:hover {
    color: var(--ink);
  }
  .switch {
    display: flex;
    gap: 12px;
    font-size: 13px;
    white-space: nowrap;
  }
  .switch button {
    color: var(--ink2);
    min-height: 24px;
  }
  .switch [aria-pressed='true'] {
    color: var(--ink);
    font-weight: var(--w-strong);
    box-shadow: 0 3px 0 var(--ink);
  }
  .row {
    display: grid;
    grid-template-columns: 40px 130px 74px minmax(0, 1fr) 94px 74px 92px 62px 54px 48px;
    align-items: baseline;
    height: 24px;
    line-height: 23px;
    position: relative;
    white-space: nowrap;
  }
  .body {
    position: relative;
  }
  .body .row {
    cursor: default;
    border-bottom: 1px solid transparent;
  }
  .body .five {
    border-bottom-color: var(--rule);
  }
  .cols {
    height: auto;
    min-height: 34px;
    align-items: end;
    font-size: var(--t-label);
    line-height: 15px;
    color: var(--ink2);
    border-bottom: 1px solid var(--bold);
    padding-bottom: 2px;
  }
  .r {
    text-align: right;
  }
  .c-n {
    font-family: var(--figs);
    color: var(--ink2);
    padding-left: 4px;
  }
  .cols .c-n {
    font-family: var(--text);
  }
  .c-name {
    overflow: hidden;
    text-overflow: ellipsis;
    padding-right: 8px;
  }
  .c-name i {
    font-style: normal;
    font-size: var(--t-note);
    color: var(--ink3);
    margin-left: 6px;
  }
  .c-rx {
    font-size: 14px;
  }
  .sp {
    grid-column: 6 / 8;
    padding-left: 12px;
  }
  .tiny {
    display: none;
  }
  .f {
    font-family: var(--figs);
    font-size: 14px;
  }
  .f small {
    margin-left: 2px;
    font: var(--w-normal) 11.5px var(--text);
    color: var(--ink3);
  }
  .quiet {
    color: var(--ink2);
  }
  .bar {
    align-self: center;
    justify-self: end;
    overflow: visible;
  }
  .c-p {
    padding-left: 8px;
  }
  .o {
    fill: none;
    stroke: var(--ink2);
    stroke-width: 1.2;
  }
  .h {
    fill: var(--ink);
  }
  .u {
    stroke: var(--sheet);
    stroke-width: 4;
  }
  .a {
    stroke: var(--accent);
    stroke-width: 2;
  }
  .p {
    stroke: var(--ink);
    fill: none;
  }
  .then {
    color: var(--accent);
    font-weight: var(--w-normal);
  }
  .sel .then,
  .total .then {
    font-weight: var(--w-strong);
  }
  .call {
    grid-column: 5 / 11;
    display: flex;
    justify-content: space-between;
    gap: 8px;
    font-size: 13px;
    padding-left: 20px;
    min-width: 0;
  }
  .called {
    grid-column: 5 / 10;
  }
  .text {
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .out .c-n,
  .out .c-name,
  .out .c-rx {
    color: var(--ink3);
  }
  .sel {
    background: var(--sheet);
    margin-left: -10px;
    padding-left: 10px;
  }
  .sel::before {
    content: '';
    position: absolute;
    left: 0;
    top: -1px;
    bottom: -1px;
    width: 4px;
    background: var(--ink);
  }
  .sel:focus-visible::before {
    background: var(--accent);
  }
  .sel .c-name,
  .sel .f {
    font-weight: var(--w-strong);
  }
  .sum {
    border-top: 1px solid var(--bold);
    display: flex;
    justify-content: space-between;
    align-items: flex-start;
    margin-top: 22px;
    height: auto;
    min-height: 26px;
    font-size: 13px;
    color: var(--ink2);
    line-height: 25px;
  }
  .legend {
    display: flex;
    gap: 12px;
    font-size: 11.5px;
    padding-left: 4px;
  }
  .legend span {
    display: flex;
    gap: 5px;
    align-items: center;
  }
  .total {
    width: calc(var(--panel) - 44px);
    display: flex;
    justify-content: space-between;
  }
  .more {
    padding: 0 0 6px 40px;
    font-size: 13px;
    color: var(--ink2);
  }
  @media (max-width: 79.4375em) {
    .head {
      margin-right: 0;
    }
  }
  @media (max-width: 45em) {
    .head {
      flex-wrap: wrap;
      padding-left: 0;
      gap: 2px 14px;
    }
    .head h2 {
      flex: 1;
    }
    .head p {
      order: 3;
      flex-basis: 100%;
    }
    .head p .src,
    .switch button {
      min-height: 32px;
    }
    .row {
      grid-template-columns: 24px 58px minmax(0, 1fr) 78px;
      font-size: 13px;
    }
    .cols {
      min-height: 18px;
    }
    .c-n {
      padding: 0;
      font-size: 13px;
    }
    .c-rx,
    .c-a,
    .bar,
    .c-w,
    .c-m,
    .c-sh,
    .long {
      display: none;
    }
    .tiny {
      display: inline;
    }
    .c-name {
      font: 12px/23px var(--figs);
      padding-right: 4px;
    }
    .cols .c-name {
      font: inherit;
    }
    .c-name i {
      display: none;
    }
    .sp,
    .c-p {
      grid-column: 4;
      padding: 0;
      text-align: right;
    }
    .f {
      font-size: 13px;
    }
    .call,
    .called {
      grid-column: 4;
      padding: 0;
      justify-content: flex-end;
      font-size: 11.5px;
    }
    .call .link {
      display: none;
    }
    .sel {
      margin: 0 calc(-1 * var(--margin));
      padding: 0 var(--margin);
    }
    .sum {
      flex-direction: column;
    }
    .legend {
      padding: 0;
    }
    .total {
      width: 100%;
      line-height: 1.4;
    }
    .more {
      padding-left: 0;
    }
    .more .link {
      min-height: 44px;
    }
  }
</style>
