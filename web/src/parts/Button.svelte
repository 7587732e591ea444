<script lang="ts">
  import type { Snippet } from 'svelte';
  import { keyShortcut, keyWords } from '$session/keys';

  interface Props {
    onclick?: (e: MouseEvent) => void;
    type?: 'button' | 'submit';
    /** The key that does the same, as the registry writes it, or a drawing of it; shown at the left edge, no part of the name. */
    key?: string | Snippet;
    /** The fix whose key works now is filled; a fix whose key is elsewhere is outlined. */
    fix?: 'live' | 'idle' | undefined;
    /** What the person most likely came for, or what cannot be meant lightly. */
    kind?: 'plain' | 'main' | 'grave';
    disabled?: boolean;
    label?: string;
    children: Snippet;
  }
  let { onclick, type = 'button', key, fix, kind = 'plain', disabled = false, label, children }: Props = $props();
  const look = $derived(
    fix === 'live'
      ? 'live'
      : fix === 'idle'
        ? 'border-accent font-medium text-accent'
        : { plain: '', main: 'border-accent font-medium text-accent', grave: 'border-conflict text-conflict' }[kind],
  );
</script>

<button
  {type}
  class="inline-flex min-h-7 items-stretch rounded-[2px] border border-rule2 bg-sheet text-[13.5px] whitespace-nowrap max-desk:min-h-11 {look} disabled:cursor-default disabled:border-dashed disabled:bg-transparent disabled:text-ink3"
  aria-keyshortcuts={typeof key === 'string' && key ? keyShortcut(key) : undefined}
  aria-label={label}
  {disabled}
  {onclick}
>
  {#if key}
    <kbd
      aria-hidden="true"
      class="flex min-w-[26px] items-center justify-center border-r border-current px-1.5 font-figs font-strong max-desk:hidden {typeof key ===
        'string' && keyWords(key).length > 2
        ? 'text-label'
        : 'text-[15px]'}"
      >{#if typeof key === 'string'}{keyWords(key)}{:else}{@render key()}{/if}</kbd
    >
  {/if}
  <span class="inline-flex items-center px-[11px]"><span>{@render children()}</span></span>
</button>

<style>
  .live {
    background: var(--fix-ground);
    border-color: var(--accent);
    color: var(--fix-ink);
    font-weight: var(--w-medium);
  }
</style>
