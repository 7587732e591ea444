<script lang="ts">
  import { untrack } from 'svelte';
  import Button from '$parts/Button.svelte';
  import Frequency from '$parts/Frequency.svelte';
  import Mark from '$parts/Mark.svelte';
  import type { ListenReport } from '$lib/api/client';
  import { commands } from '$session/commands.svelte';
  import type { Row } from './listen.svelte';
  import { round, seconds, ten } from './words';

  /** The chosen channel: how much of its overs is heard, by their length. */
  interface Props {
    r: ListenReport;
    row: Row;
    after: string;
    toggle: () => void;
    prefer: () => void;
    talk: (said: { rate: number; length: number }) => Promise<boolean>;
    faults: Record<string, string>;
  }
  let { r, row, after, toggle, prefer, talk, faults }: Props = $props();
  let width = $state(392);
  let saying = $state(false);
  let rate = $state('');
  let length = $state('');

  const slot = $derived(row.slot);
  $effect(() => {
    if (slot >= 0)
      untrack(() => {
        saying = false;
      });
  });
  const mine = $derived(r.goal.slot === row.slot);
  const share = $derived(r.goal.share);
  const [x0, y0, y1] = [26, 108, 30];
  const px = $derived((width - x0 - 6) / r.curve.longest);
  const X = (s: number) => x0 + s * px;
  const Y = (p: number) => y0 - p * (y0 - y1);
  const line = (points: readonly number[]) =>
    points
      .map((p, i) => `${i ? 'L' : 'M'}${X((i / (points.length - 1)) * r.curve.longest).toFixed(1)},${Y(p).toFixed(1)}`)
      .join('');
  const step = $derived(r.curve.longest / 12);
  const both = $derived(r.curve.then.length > 0);
  const kinds: Record<string, string> = { diary: 'diary', said: 'you say', guess: 'a guess', always: '' };
  const number = (t: string) => Number(t.trim().replace(',', '.') || 0);
  async function say(e: SubmitEvent) {
    e.preventDefault();
    if (await talk({ rate: number(rate), length: number(length) })) saying = false;
  }
  const other = $derived(
    r.has_priority ? 'Give it priority' : r.receivers === 'dual receive' ? 'Second receiver' : 'On the other side',
  );
</script>

<div class="flex items-baseline gap-3">
  <span class="font-figs text-head font-strong text-ink2">{row.slot}</span>
  <h2 class="min-w-0 flex-1 truncate text-head leading-[26px] font-strong">{row.name}</h2>
  {#if !mine}<span class="text-[16px] whitespace-nowrap text-ink2">{ten(row.chance)} of 10</span>
  {:else if r.reached}<span class="text-[16px] font-strong whitespace-nowrap"
      ><Mark kind="agrees" size={16} /> reached</span
    >{:else if r.goal.trouble === ''}<span class="text-[16px] font-strong whitespace-nowrap text-conflict"
      ><Mark kind="conflict" size={16} />
      {share - row.chance < 0.005 ? 'just short' : `${ten(share - row.chance)} short`}</span
    >{/if}
</div>
<p class="where">
  <Frequency hz={row.receive_hz} />, opens in {row.opens.toFixed(2)} s; {#if row.by === 'always'}always on the air{:else}<button
      type="button"
      class="src"
      aria-expanded={saying}
      onclick={() => {
        saying = !saying;
        rate = row.by === 'said' ? String(row.rate) : '';
        length = String(row.length);
      }}>{kinds[row.by]}</button
    >: {round(row.rate)} overs an hour, {round(row.length)} s each{/if}
</p>
{#if saying}
  <form class="flex flex-wrap items-baseline gap-2 py-1 text-small" onsubmit={(e) => void say(e)}>
    <label for="talk-rate">overs an hour</label>
    <input id="talk-rate" class="box" inputmode="decimal" placeholder="as the diary" bind:value={rate} />
    <label for="talk-length">of</label>
    <input id="talk-length" class="box short" inputmode="decimal" bind:value={length} /> s
    <Button type="submit">Say so</Button>
    {#if faults.rate ?? faults.length}<p class="w-full text-stop">{faults.rate ?? faults.length}</p>{/if}
  </form>
{/if}
<div bind:clientWidth={width}>
  <svg
    class="curve"
    {width}
    height="128"
    viewBox="0 0 {width} 128"
    role="img"
    aria-label="Overs heard of 10 by their length. An over of {r.goal.length} seconds: {ten(
      row.chance,
    )} as it is{both && row.then !== undefined ? `, ${ten(row.then)} ${after}` : ''}."
  >
    <path class="hair" d="M{x0},{Y(0.5)}H{X(r.curve.longest)}M{x0},{Y(1)}H{X(r.curve.longest)}" />
    <path class="cut" d="M{x0},{Y(share)}H{X(r.curve.longest)}M{X(r.goal.length)},{y1}V{y0}" />
    <path class="axis" d="M{x0},{y1 - 4}V{y0}" />
    <rect class="axis" x={x0} y={y0} width={r.curve.longest * px} height="4" />
    {#each Array.from({ length: 6 }, (_, i) => i) as i (i)}<rect
        class="tooth"
        x={X(2 * i * step)}
        y={y0}
        width={step * px}
        height="4"
      />{/each}
    {#each Array.from({ length: 7 }, (_, i) => i) as i (i)}<text
        class="m"
        x={X(2 * i * step)}
        y={y0 + 17}
        text-anchor="middle">{2 * i * step}</text
      >{/each}
    <text class="m b" x={x0 - 6} y={Y(share) + 4} text-anchor="end">{round(10 * share)}</text>
    {#if Math.abs(share - 0.5) > 0.12}<text class="m" x={x0 - 6} y={Y(0.5) + 4} text-anchor="end">5</text>{/if}
    <text class="m" x={x0 - 6} y={Y(0) + 4} text-anchor="end">0</text>
    <text x="0" y="9">heard of 10, by length in seconds</text>
    <path class="ln" d="M{width - 148},5h18" /><text x={width - 126} y="9">as it is</text>
    {#if both}<path class="ln then" d="M{width - 78},5h18" /><text class="then" x={width - 56} y="9">{after}</text>{/if}
    <path class="ln" d={line(r.curve.now)} />
    {#if both}<path class="ln then" d={line(r.curve.then)} />{/if}
    <circle cx={X(r.goal.length)} cy={Y(row.chance)} r="3.6" />
    <text
      class="b"
      x={X(r.goal.length) + 8}
      y={Y(row.chance) + (both && row.then !== undefined && row.then < row.chance ? -6 : 14)}>{ten(row.chance)}</text
    >
    {#if both && row.then !== undefined}
      <circle class="then" cx={X(r.goal.length)} cy={Y(row.then)} r="3.6" />
      <text
        class="b then"
        x={X(r.goal.length) - 8}
        y={Y(row.then) + (row.then < row.chance ? 14 : -6)}
        text-anchor="end">{ten(row.then)}</text
      >
    {/if}
  </svg>
</div>
<p class="need">
  For {round(10 * share)} of 10 an over must last
  <b>{r.curve.reach === undefined ? '–' : seconds(r.curve.reach)}</b> as it is{#if both}, <b class="then"
      >{r.curve.reach_then === undefined ? '–' : seconds(r.curve.reach_then)}</b
    >
    {after}{/if}.
</p>
<p class="acts">
  <button
    type="button"
    class="link"
    aria-keyshortcuts={commands.key('scan-toggle') === 'Space' ? undefined : commands.key('scan-toggle')}
    onclick={toggle}>{row.in || row.second ? 'Leave it out' : 'Scan it'}</button
  >
  {#if (r.has_priority || r.receivers !== 'one') && !row.priority && !row.second}<button
      type="button"
      class="link"
      onclick={prefer}>{other}</button
    >{:else if row.priority}<span>looked at between the others</span>{/if}
  {#if row.in && row.stops > 0.05}<span>stops {round(row.stops)} times an hour</span>{/if}
</p>

<style>
  .where,
  .need,
  .acts {
    font-size: 13px;
    color: var(--ink2);
    margin-top: 2px;
  }
  .src {
    text-decoration: underline dotted;
    text-underline-offset: 3px;
    text-decoration-color: var(--rule2);
  }
  .box {
    height: 26px;
    width: 96px;
    border: 1px solid var(--rule2);
    border-radius: 2px;
    background: var(--paper);
    padding: 0 6px;
  }
  .short {
    width: 52px;
  }
  .curve {
    display: block;
    margin-top: 7px;
    overflow: visible;
  }
  .curve text {
    font: var(--w-normal) 11.5px var(--text);
    fill: var(--ink2);
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 3px;
    stroke-linejoin: round;
  }
  .curve .m {
    font-family: var(--figs);
  }
  .curve text.b {
    font-weight: var(--w-strong);
    fill: var(--ink);
  }
  .curve text.then {
    fill: var(--accent);
  }
  .hair {
    stroke: var(--rule);
  }
  .cut {
    stroke: var(--rule2);
    stroke-dasharray: 1 3;
  }
  .axis {
    fill: none;
    stroke: var(--bold);
  }
  .tooth,
  circle {
    fill: var(--ink);
  }
  circle.then {
    fill: var(--accent);
  }
  .ln {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.8;
    stroke-linejoin: round;
  }
  .ln.then {
    stroke: var(--accent);
    stroke-dasharray: 5 3;
  }
  .need b {
    font: var(--w-strong) 13px var(--figs);
    color: var(--ink);
  }
  .need b.then {
    color: var(--accent);
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 16px;
    padding-bottom: 6px;
  }
</style>
