<script lang="ts">
  // The arrow between the tone that goes out and the tone that comes in.
</script>

<svg class="mr-2 ml-0.5 inline-block flex-none text-ink3" width="18" height="12" viewBox="0 0 18 12" aria-hidden="true">
  <path d="M1,6H16M12,2.5L16,6L12,9.5" fill="none" stroke="currentColor" stroke-width="1.2" />
</svg><span class="sr-only"> to </span>
