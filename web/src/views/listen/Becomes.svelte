<script lang="ts">
  // The arrow between what is and what would be.
</script>

<svg class="mx-1.5 inline-block text-ink3" width="14" height="10" viewBox="0 0 14 10" aria-hidden="true"
  ><path d="M1,5H12M8.6,1.8L12,5L8.6,8.2" fill="none" stroke="currentColor" stroke-width="1.2" /></svg
><span class="sr-only"> becomes </span>
