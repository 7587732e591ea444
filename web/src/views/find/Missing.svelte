<script lang="ts">
  /** What a radio could hold and does not: a mark that stands on the ground; small where the radio cannot have it. */
  let { small = false }: { small?: boolean } = $props();
</script>

<svg class="inline-block flex-none align-[-0.1em]" width="12" height="12" viewBox="0 0 12 12" aria-hidden="true">
  {#if small}<path d="M6,10V5M3.5,10h5" fill="none" stroke="currentColor" stroke-width="1.1" />{:else}<path
      d="M6,10V1M2.5,10h7"
      fill="none"
      stroke="currentColor"
      stroke-width="1.6"
    />{/if}
</svg>
