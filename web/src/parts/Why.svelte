<script lang="ts">
  import { ChevronDown } from '@lucide/svelte';

  /** Opens the reasoning of a finding: one line per witness. */
  let { open = $bindable(false) }: { open?: boolean } = $props();
</script>

<button
  type="button"
  class="link inline-flex min-h-6 items-center gap-0.5 max-desk:-my-2.5 max-desk:py-2.5"
  aria-expanded={open}
  onclick={() => (open = !open)}
  >why<ChevronDown size={12} class={open ? 'rotate-180' : ''} aria-hidden="true" /></button
>
