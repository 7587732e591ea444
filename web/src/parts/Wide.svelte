<script lang="ts">
  import type { Snippet } from 'svelte';

  /** Something that may be wider than its column: it scrolls by itself, also from the keyboard. */
  let { label, children }: { label: string; children: Snippet } = $props();
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="overflow-x-auto focus-visible:outline-offset-[-2px]" role="region" aria-label={label} tabindex="0">
  {@render children()}
</div>
