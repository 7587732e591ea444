<script lang="ts">
  import Mark from '$parts/Mark.svelte';
  import type { LogBook } from '$lib/api/client';
  import { evening } from './evening';

  /** The newest evening as a line: each test where it was in time, and where one stood. */
  interface Props {
    tries: LogBook['tries'];
    /** When the callsign is due again; empty for no test that goes on. */
    due: string;
    time: number;
    choose: (slot: number) => void;
  }
  let { tries, due, time, choose }: Props = $props();
  let width = $state(0);
  const e = $derived(width > 0 ? evening(tries, width) : undefined);
  const x = (at: number) => (e ? Math.max(0, Math.min(width, ((at - e.from) / (e.to - e.from)) * width)) : 0);
  const wide = (says: string) => says.length * 6.2 + 12;
  const dueAt = $derived(due ? Date.parse(due) : 0);
</script>

<section class="evening" aria-label="The last session" bind:clientWidth={width}>
  {#if e}
    <p class="head">
      <b>{time - e.to < 6 * 3600_000 ? 'This session' : 'The last session'}</b>
      <span
        >{e.channels === 1 ? 'one channel' : `${String(e.channels)} channels`}, {e.ups === 1
          ? 'one call'
          : `${String(e.ups)} calls`}</span
      >
    </p>
    <div class="line">
      {#each e.tests as t, i (i)}
        {#if t.row >= 0}<button
            type="button"
            style:left="{Math.min(x(t.from) - 6, width - 44)}px"
            style:top="{t.row === 0 ? 22 : 2}px"
            title="{t.name}: {t.back ? 'answered' : 'silent'}"
            onclick={() => {
              choose(t.slot);
            }}
            ><Mark kind={t.back ? 'agrees' : 'unverified'} />
            {t.slot}<span class="sr-only"> {t.name}, {t.back ? 'answered' : 'silent'}</span></button
          >{/if}
      {/each}
      <svg {width} height="92" aria-hidden="true">
        {#each e.tests as t, i (i)}
          <path class="stem" d="M{x(t.from)},{t.row === 1 ? 20 : 40}V60" />
          {#if t.to > t.from}<path class="span" d="M{x(t.from)},54H{x(t.to)}" />{/if}
          {#each t.ups as u, k (k)}<path class="up" d="M{x(u.at)},50V60" />{/each}
        {/each}
        {#if dueAt > e.from && dueAt < e.to}<path class="due" d="M{x(dueAt)},44V60" />{/if}
        <path class="scale" d="M0,60.5H{width}" />
        {#each e.ticks as t, nth (nth)}<path class="tick" d="M{x(t.at)},57V60" />
          <text
            class:whole={t.whole}
            x={x(t.at)}
            y="89"
            text-anchor={x(t.at) < 20 ? 'start' : x(t.at) > width - 20 ? 'end' : 'middle'}>{t.says}</text
          >{/each}
        {#each e.places as p, i (i)}
          <path class="place" d="M{x(p.from) + 0.5},61V76" />
          {#if x(p.to) - x(p.from) > wide(p.says)}<text x={(x(p.from) + x(p.to)) / 2} y="73" text-anchor="middle"
              >{p.says}</text
            >{/if}
        {/each}
      </svg>
    </div>
  {/if}
</section>

<style>
  .evening {
    min-height: 1px;
  }
  .head {
    display: flex;
    gap: 14px;
    align-items: baseline;
    border-top: 2px solid var(--bold);
    padding-top: 6px;
    margin-top: 14px;
  }
  .head b {
    font-weight: var(--w-strong);
  }
  .head span {
    color: var(--ink2);
    font-size: 13px;
  }
  .line {
    position: relative;
    height: 94px;
  }
  .line button {
    position: absolute;
    display: flex;
    gap: 4px;
    align-items: center;
    font: var(--w-normal) 13px var(--figs);
    height: 20px;
  }
  .line button:hover {
    text-decoration: underline;
  }
  svg {
    position: absolute;
    inset: 0;
    overflow: visible;
  }
  text {
    font-size: var(--t-label);
    fill: var(--ink2);
  }
  .whole {
    fill: var(--ink);
    font-weight: var(--w-strong);
  }
  .stem,
  .up,
  .tick {
    stroke: var(--ink);
    fill: none;
  }
  .up {
    stroke-width: 1.5;
  }
  .span {
    stroke: var(--ink2);
  }
  .scale {
    stroke: var(--bold);
    stroke-width: 3;
  }
  .place {
    stroke: var(--rule2);
  }
  .due {
    stroke: var(--accent);
    stroke-width: 2;
  }
  @media (max-width: 45em) {
    .evening {
      display: none; /* the list below has the same */
    }
  }
  @media print {
    .evening {
      display: none;
    }
  }
</style>
