<script lang="ts">
  import Button from '$parts/Button.svelte';
  import type { Diary } from '$lib/api/client';
  import { commands } from '$session/commands.svelte';
  import { days, hour, next, round } from './words';

  /** What was heard on the chosen channel, by hour and weekday; what was missed is counted too. */
  interface Props {
    diary: Diary;
    at: { day: number; hour: number };
    phone: boolean;
    heard: () => void;
    listening: (what: 'begin' | 'stop') => void;
    choose: (slot: number) => void;
    when: (at: string) => void;
    sweep: () => void;
  }
  let { diary, at, phone, heard, listening, choose, when, sweep }: Props = $props();
  let width = $state(578);
  const week = [1, 2, 3, 4, 5, 6, 0];
  const most = $derived(Math.max(10, ...diary.cells.map((c) => c.rate ?? 0)));
  const cell = $derived(width / 24);
  const full = $derived(cell - 3);
  const missed = $derived(diary.rate === undefined ? 0 : diary.rate * diary.hours);
  const busiest = $derived(
    diary.cells.reduce<Diary['cells'][number] | undefined>(
      (b, c) => ((c.rate ?? 0) > (b?.rate ?? 0) ? c : b),
      undefined,
    ),
  );
  function pick(e: MouseEvent) {
    const box = (e.currentTarget as SVGElement).getBoundingClientRect();
    const h = Math.floor(((e.clientX - box.left) / box.width) * 24);
    const d = week[Math.floor((e.clientY - box.top - 4) / 13)];
    if (d !== undefined && h >= 0 && h < 24) when(next(new Date(), d, h));
  }
</script>

<div class="diary">
  <div class="text">
    <h2>
      Diary {#if diary.slot >= 0}<span>of {diary.slot} {diary.name}</span>{/if}
    </h2>
    {#if diary.hours > 0}
      <p>
        heard <b>{round(diary.heard)}</b> in {round(diary.hours)} hours{#if missed > 0},<br />with those missed
          <b>{round(missed)}</b>{/if}
      </p>
      <p class="key">
        <svg width="21" height="8"><rect class="o" x=".5" y=".5" width="20" height="7" /></svg>
        {round(most)} an hour · – silent
      </p>
    {:else}<p>Nobody has listened to it yet.</p>{/if}
    <p class="acts">
      <Button key={commands.key('heard')} disabled={diary.slot < 0} onclick={heard}>Heard now</Button>
      {#if diary.since}
        <button
          type="button"
          class="link"
          onclick={() => {
            listening('stop');
          }}>stop listening</button
        >
      {:else}<button
          type="button"
          class="link"
          onclick={() => {
            listening('begin');
          }}>I listen now</button
        >{/if}
      <button type="button" class="link" onclick={sweep}>step scan</button>
    </p>
    {#if diary.since}<p class="key">
        listening since {new Date(diary.since).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}, {diary.noted}
        noted
      </p>{/if}
  </div>
  <div class="week" bind:clientWidth={width}>
    <!-- svelte-ignore a11y_no_noninteractive_element_interactions, a11y_click_events_have_key_events -->
    <svg
      {width}
      height="118"
      role="img"
      aria-label="Overs an hour on {diary.name || 'this channel'} by hour and weekday{busiest?.rate
        ? `; busiest ${hour(busiest.day, busiest.hour)}, ${round(busiest.rate)} an hour`
        : ''}"
      onclick={pick}
    >
      {#each week as d, i (d)}<text class:b={d === at.day} x="-8" y={i * 13 + 14} text-anchor="end"
          >{days[d]?.slice(0, 3)}</text
        >{/each}
      {#each Array.from({ length: 25 }, (_, i) => i) as h (h)}<path
          class="hair"
          d="M{(h * cell).toFixed(1)},4V95"
        />{/each}
      <rect class="now" x={at.hour * cell} y={4 + week.indexOf(at.day) * 13} width={cell} height="13" />
      {#each diary.cells as c (`${String(c.day)} ${String(c.hour)}`)}
        {@const y = 7 + week.indexOf(c.day) * 13}
        {#if c.rate === undefined}<circle class="few" cx={(c.hour + 0.5) * cell} cy={y + 4} r="1.4" />
        {:else if c.rate === 0}<path class="silent" d="M{c.hour * cell + 2},{y + 4}h5" />
        {:else}
          {@const w = (c.rate / most) * full}
          <rect class="o" x={c.hour * cell + 2} y={y + 0.5} width={w} height="7" />
          <rect
            class="h"
            x={c.hour * cell + 1.5}
            {y}
            width={Math.min(w, (c.heard / Math.max(0.01, c.hours) / most) * full)}
            height="8"
          />
        {/if}
      {/each}
      <rect class="scale" x="0" y="96" {width} height="4" />
      {#each Array.from({ length: 12 }, (_, i) => i) as h (h)}<rect
          class="h"
          x={2 * h * cell}
          y="96"
          width={cell}
          height="4"
        />{/each}
      {#each [0, 3, 6, 9, 12, 15, 18, 21, 24] as h (h)}{#if !phone || h % 6 === 0}<text
            class="m"
            x={h * cell}
            y="112"
            text-anchor={h === 0 ? 'start' : h === 24 ? 'end' : 'middle'}>{h}{h === 24 ? ' h' : ''}</text
          >{/if}{/each}
    </svg>
  </div>
</div>
{#if diary.favourites.length > 0}
  <p class="best">
    <span>most to hear:</span>
    {#each diary.favourites.slice(0, 5) as f, nth (nth)}
      <span
        ><button
          type="button"
          class="link"
          onclick={() => {
            choose(f.slot);
          }}>{f.name}</button
        >
        {round(f.rate)} an hour, best
        <button
          type="button"
          class="link"
          onclick={() => {
            choose(f.slot);
            when(next(new Date(), f.day, f.hour));
          }}>{hour(f.day, f.hour)}</button
        ></span
      >
    {/each}
  </p>
{/if}

<style>
  .diary {
    display: grid;
    grid-template-columns: 196px minmax(0, 1fr);
    column-gap: 48px;
  }
  h2 {
    font-size: 15px;
    line-height: 20px;
    font-weight: var(--w-strong);
  }
  h2 span {
    font-weight: var(--w-normal);
    font-size: 13px;
    color: var(--ink2);
  }
  p {
    font-size: 13px;
    line-height: 17px;
    color: var(--ink2);
  }
  p b {
    color: var(--ink);
    font-weight: var(--w-strong);
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
    align-items: center;
    margin-top: 5px;
  }
  .key svg {
    display: inline-block;
  }
  svg {
    display: block;
    overflow: visible;
  }
  text {
    font: var(--w-normal) 11.5px var(--text);
    fill: var(--ink2);
  }
  text.b {
    font-weight: var(--w-strong);
    fill: var(--ink);
  }
  .m {
    font-family: var(--figs);
  }
  .hair {
    stroke: var(--rule);
  }
  .now {
    fill: var(--sheet);
    stroke: var(--rule2);
  }
  .o {
    fill: none;
    stroke: var(--ink2);
  }
  .h {
    fill: var(--ink);
  }
  .silent {
    stroke: var(--rule2);
  }
  .few {
    fill: var(--rule2);
  }
  .scale {
    fill: none;
    stroke: var(--bold);
  }
  .best {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
    margin-top: 4px;
  }
  @media (max-width: 45em) {
    .diary {
      display: block;
    }
    .week {
      margin: 8px 0 0 34px;
    }
    .acts .link,
    .best .link {
      min-height: 44px;
    }
    .best {
      display: block;
    }
    .best > span {
      display: block;
    }
  }
</style>
