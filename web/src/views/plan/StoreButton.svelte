<script lang="ts">
  import { CornerDownLeft } from '@lucide/svelte';
  import Action from '$parts/Action.svelte';
  import type { Reading } from '$lib/api/client';

  /** Stores the line, and says where; over something else only on purpose. */
  let { reading, store }: { reading: Reading; store: (replace: boolean) => void } = $props();
</script>

{#snippet enter()}<CornerDownLeft size={14} aria-label="Enter" />{/snippet}

{#if reading.occupied}
  <Action
    disabled={!reading.complete}
    key="Shift Enter"
    onclick={() => {
      store(true);
    }}>Store over {reading.occupied}</Action
  >
{:else}
  <Action
    disabled={!reading.complete || reading.slot === null}
    key={enter}
    onclick={() => {
      store(false);
    }}>{reading.slot === null ? 'The radio is full' : `Store in slot ${String(reading.slot)}`}</Action
  >
{/if}
