<script lang="ts">
  import { bearing } from '$lib/format';

  let { degrees }: { degrees: number } = $props();
</script>

<svg class="mr-1 inline-block align-[-0.08em] text-ink2" width="12" height="12" viewBox="0 0 12 12" aria-hidden="true">
  <g transform="rotate({degrees} 6 6)">
    <path d="M6,11.5V3" fill="none" stroke="currentColor" stroke-width="1.2" />
    <path d="M6,0L8.6,5H3.4Z" fill="currentColor" />
  </g>
</svg>{bearing(degrees)}
