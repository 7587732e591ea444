<script lang="ts">
  import type { SheetStep } from '$lib/api/client';

  /** The values that are passed on the way, counted: where one is, and how far it still is. */
  let { step, width = 436 }: { step: SheetStep; width?: number } = $props();
  const n = $derived(step.passes.length);
  const gap = $derived(Math.min(64, (width - 52) / Math.max(1, n - 1)));
  const every = $derived(Math.max(1, Math.ceil(46 / gap)));
  const x = (i: number) => 24 + i * gap;
  const named = (i: number) => i === 0 || i === n - 1 || (i % every === 0 && n - 1 - i >= every);
  const unit = $derived(step.unit ? ` ${step.unit}` : '');
</script>

<svg
  class="ladder"
  {width}
  height="62"
  viewBox="0 0 {width} 62"
  role="img"
  aria-label="{n - 1} on: {step.passes.join(', ')}"
>
  <path d="M{x(0)},22H{x(n - 1) - 7}" />
  {#each step.passes as value, i (i)}
    {#if i === n - 1}<circle class="ring" cx={x(i)} cy="22" r="6" /><circle class="dot" cx={x(i)} cy="22" r="2.6" />
    {:else}<path d="M{x(i)},{i === 0 ? 15 : 19}v{i === 0 ? 14 : 6}" />{/if}
    {#if i > 0 && (named(i) || gap > 18)}<text class="count" x={x(i)} y="10" text-anchor="middle">{i}</text>{/if}
    {#if named(i)}<text class:end={i === n - 1} x={x(i)} y="44" text-anchor="middle">{value}</text>{/if}
  {/each}
  <text class="from" x="4" y="59">opens at {step.opens}{unit}</text>
</svg>

<style>
  .ladder {
    display: block;
    margin: 12px 0 0 28px;
    max-width: 100%;
    overflow: visible;
  }
  path {
    stroke: var(--ink);
    stroke-width: 1.3;
    fill: none;
  }
  text {
    font: 12px var(--figs);
    fill: var(--ink2);
  }
  .count {
    fill: var(--ink3);
  }
  .end {
    font-weight: var(--w-strong);
    font-size: 13px;
    fill: var(--ink);
  }
  .from {
    font: 12px var(--text);
  }
  .ring {
    fill: none;
    stroke: var(--accent);
    stroke-width: 2;
  }
  .dot {
    fill: var(--ink);
  }
  @media (max-width: 45em) {
    .ladder {
      margin-left: 0;
    }
  }
</style>
