<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    onclick: () => void;
    /** The key that does the same, shown at the left edge. */
    key?: string | Snippet;
    /** The fix whose key works now is filled; a fix whose key is elsewhere is outlined. */
    fix?: 'live' | 'idle';
    disabled?: boolean;
    children: Snippet;
  }
  let { onclick, key, fix, disabled = false, children }: Props = $props();
</script>

<button
  type="button"
  class="inline-flex h-7 items-center rounded-[2px] border border-rule2 bg-sheet text-[13.5px] whitespace-nowrap max-desk:h-11 {fix ===
  'live'
    ? 'live'
    : fix === 'idle'
      ? 'border-accent font-medium text-accent'
      : ''} disabled:cursor-default disabled:border-dashed disabled:bg-transparent disabled:text-ink3"
  {disabled}
  {onclick}
>
  {#if key}
    <kbd
      class="flex min-w-[26px] items-center justify-center self-stretch border-r border-current px-1 font-figs text-[15px] font-strong max-desk:min-w-8"
      >{#if typeof key === 'string'}{key}{:else}{@render key()}{/if}</kbd
    >
  {/if}
  <span class="px-[11px]">{@render children()}</span>
</button>

<style>
  .live {
    background: var(--fix-ground);
    border-color: var(--accent);
    color: var(--fix-ink);
    font-weight: var(--w-medium);
  }
</style>
