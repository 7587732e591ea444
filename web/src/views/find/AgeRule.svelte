<script lang="ts">
  import { ageAt, width } from './age';

  /** A stroke for each listing that has a date; past the line of the year evidence is old. */
  let { days, differ = false, year }: { days: readonly number[]; differ?: boolean; year: number } = $props();
  const newest = $derived(Math.min(...days));
</script>

<svg class="age" {width} height="22" viewBox="0 0 {width} 22" aria-hidden="true">
  <path class="month" d="M{ageAt(30).toFixed(1)},-2V24" />
  <path class="year" d="M{ageAt(year).toFixed(1)},-2V24" />
  {#if days.length > 0}<path class="base" d="M0,11.5H{ageAt(newest).toFixed(1)}" />{/if}
  {#each days as d, i (i)}<path class="stroke" class:differ d="M{ageAt(d).toFixed(1)},6.5V16.5" />{/each}
</svg>

<style>
  .age {
    display: block;
    overflow: visible;
  }
  .base {
    stroke: var(--ink2);
  }
  .month {
    stroke: var(--rule);
  }
  .year {
    stroke: var(--rule2);
  }
  .stroke {
    stroke: currentColor;
    stroke-width: 1.8;
  }
  .differ {
    stroke: var(--conflict);
  }
</style>
