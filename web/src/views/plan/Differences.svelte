<script lang="ts">
  import Frequency from '$parts/Frequency.svelte';
  import type { Comparison } from '$lib/api/client';

  /** How two lists of channels differ, row by row; where some of it can be taken, each row can be chosen. */
  let { found, taken = $bindable() }: { found: Comparison; taken?: number[] } = $props();
  const n = $derived(found.differences.length);
</script>

<p class="py-2" role="status">
  {n === 0
    ? `No difference: ${String(found.same)} channels are the same.`
    : `${String(n)} ${n === 1 ? 'differs' : 'differ'}, ${String(found.same)} are the same.`}
</p>
<ul>
  {#each found.differences as d, i (i)}
    {@const c = d.is ?? d.was}
    <li
      class="grid grid-cols-[auto_40px_minmax(0,1fr)_110px_minmax(0,2fr)] items-baseline gap-x-2 border-b border-rule py-1 max-desk:grid-cols-[auto_32px_1fr]"
    >
      {#if taken}<input
          type="checkbox"
          aria-label="Take {c?.name ?? ''}, slot {c?.slot ?? ''}"
          checked={taken.includes(i)}
          onchange={() => (taken = taken?.includes(i) ? taken.filter((x) => x !== i) : [...(taken ?? []), i])}
        />{:else}<span></span>{/if}
      <span class="font-figs text-ink2">{c?.slot ?? ''}</span>
      <span class="truncate font-strong">{c?.name ?? ''}</span>
      <span class="text-right max-desk:col-start-3 max-desk:text-left"
        >{#if c}<Frequency hz={c.receive_hz} pad={3} />{/if}</span
      >
      <span class="text-small max-desk:col-start-3">
        {#if !d.was}<b class="font-strong">new</b>
        {:else if !d.is}<b class="font-strong">gone</b>
        {:else}{#each d.fields as f, k (f.field)}{k > 0 ? '; ' : ''}{f.field}
            <span class="text-ink2 line-through">{f.was || 'none'}</span>
            <b class="font-strong">{f.is || 'none'}</b>{/each}{/if}
      </span>
    </li>
  {/each}
</ul>
