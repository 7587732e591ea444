<script lang="ts">
  import { CornerDownLeft } from '@lucide/svelte';
  import Button from '$parts/Button.svelte';
  import type { Reading } from '$lib/api/client';

  /** Stores the line, and says where; over something else only on purpose. */
  let { reading, store }: { reading: Reading; store: (replace: boolean) => void } = $props();
  const radios = $derived(1 + reading.puts.filter((p) => !p.why).length);
</script>

{#snippet enter()}<CornerDownLeft size={14} aria-label="Enter" />{/snippet}

{#if reading.occupied}
  <Button
    disabled={!reading.complete}
    key="Shift+Enter"
    onclick={() => {
      store(true);
    }}>Store over {reading.occupied}</Button
  >
{:else}
  <Button
    disabled={!reading.complete || reading.slot === null}
    key={enter}
    onclick={() => {
      store(false);
    }}
    >{reading.slot === null
      ? 'The radio is full'
      : `Store in slot ${String(reading.slot)}${radios > 1 ? ` of ${String(radios)} radios` : ''}`}</Button
  >
{/if}
