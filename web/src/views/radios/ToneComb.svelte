<script lang="ts">
  import Wide from '$parts/Wide.svelte';
  import type { Preview } from '$lib/api/client';

  /** The table of tones as a comb: long where the plan uses one, dotted where the radio lacks it. */
  let { preview }: { preview: Preview } = $props();
  const table = $derived(preview.drawing.tones.filter((t) => t.text !== '1750'));
  const burst = $derived(preview.drawing.tones.find((t) => t.text === '1750'));
  const w = $derived(Math.min(9.1, 446 / Math.max(1, table.length - 1)));
  const end = $derived(26 + (table.length - 1) * w);
  const lacks = $derived(table.filter((t) => !t.known).length);
  const used = $derived(table.filter((t) => t.used));
  const missing = $derived(used.filter((t) => !t.known).map((t) => t.text));
  const label = $derived(
    `${String(table.length)} tones, ${String(lacks)} of them it lacks; the plan uses ${String(used.length)}${missing.length > 0 ? `, of which it lacks ${missing.join(', ')}` : ', all known'}`,
  );
</script>

{#snippet comb(t: { known: boolean; used: boolean }, x: number)}
  <path class={t.used ? (t.known ? 'used' : 'used lost') : t.known ? 'known' : 'lacks'} d="M{x},{t.used ? 4 : 11}V20" />
{/snippet}

<Wide label="Tones as a drawing">
  <svg class="d" width="638" height="24" viewBox="0 0 638 24" role="img" aria-label={label}>
    {#each table as t, i (i)}{@render comb(t, 26 + i * w)}{/each}
    <path class="axis" d="M26,20.5H{end}" />
    <text class="fg" x="20" y="20" text-anchor="end">67</text>
    <text class="fg" x={end + 6} y="20">254.1</text><text class="quiet" x={end + 44} y="20">Hz</text>
    {#if burst}{@render comb(burst, end + 78)}<text class="fg {burst.known ? '' : 'quiet'}" x={end + 84} y="20"
        >1750</text
      >{/if}
  </svg>
</Wide>

<style>
  .axis {
    stroke: var(--rule2);
  }
  .used {
    stroke: var(--ink);
    stroke-width: 2.4;
  }
  .used.lost {
    stroke: var(--stop);
  }
  .known {
    stroke: var(--ink2);
  }
  .lacks {
    stroke: var(--rule2);
    stroke-dasharray: 1.4 2;
  }
</style>
