<script lang="ts">
  import { Progress } from 'bits-ui';

  /** How far something long is. */
  let { label, share }: { label: string; share: number } = $props();
  const percent = $derived(Math.round(share * 100));
</script>

<Progress.Root class="my-3 h-3 border border-bold" aria-label={label} value={percent} max={100}>
  <div class="h-full bg-ink" style:width="{percent}%"></div>
</Progress.Root>
