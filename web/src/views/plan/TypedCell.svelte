<script lang="ts">
  import type { Snippet } from 'svelte';
  import { columnNames } from './columns';
  import type { Typed } from './plan.svelte';

  /** What was typed into a cell and is not saved: it waits, or stands beside what somebody else put there. */
  interface Props {
    typed: Typed;
    theirs: () => void;
    mine: () => void;
    /** What the application holds. */
    children: Snippet;
  }
  let { typed, theirs, mine, children }: Props = $props();
  const key = $derived(`typed-${String(typed.slot)}-${typed.column}`);
</script>

{#if typed.state === 'waiting'}
  <span class="waiting text-accent" title="Not saved yet: {typed.why}"
    >{typed.text}<span class="sr-only">, not saved yet</span></span
  >
{:else}
  <span class="relative block">
    <span class="waiting text-stop">{typed.text}</span>
    <span
      class="absolute top-[24px] -left-1 z-20 block w-max max-w-80 border border-stop bg-sheet px-2 py-1.5 text-small leading-tight whitespace-normal text-ink"
      role="alert"
      aria-labelledby={key}
    >
      <span class="block" id={key}
        ><b class="font-strong text-stop">Not saved, {columnNames[typed.column]}:</b> {typed.why}</span
      >
      <span class="flex items-baseline gap-3 pt-1.5">
        <button type="button" class="link max-desk:min-h-11" onclick={theirs}
          >keep what is there: {@render children()}</button
        >
        <button type="button" class="link max-desk:min-h-11" onclick={mine}>use mine: {typed.text}</button>
      </span>
    </span>
  </span>
{/if}

<style>
  .waiting {
    border-bottom: 2px dashed currentColor;
  }
</style>
