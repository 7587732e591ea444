<script lang="ts">
  import type { Ledger } from '$lib/api/client';
  import { link } from '$lib/api/link.svelte';
  import { clock } from '$lib/format';
  import { writes } from '$session/session';

  /** Whether what was typed is saved: the one place that says so. */
  let { ledger }: { ledger: Ledger | undefined } = $props();
  // What is saved within a moment is not spoken of.
  let slow = $state(false);
  $effect(() => {
    if (writes.queue.length === 0) {
      slow = false;
      return;
    }
    const timer = setTimeout(() => (slow = true), 300);
    return () => {
      clearTimeout(timer);
    };
  });
</script>

<span class="text-label whitespace-nowrap text-ink3">
  {#if writes.trouble || !link.up}<b class="font-strong text-stop">not saved</b>
  {:else if slow}saving
  {:else if ledger}saved {clock(ledger.saved_at)}{/if}
</span>
