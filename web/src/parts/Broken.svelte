<script lang="ts">
  import Button from './Button.svelte';

  /** In place of a view that failed: what is safe, and what to do. */
  let { error, reset }: { error: unknown; reset: () => void } = $props();
</script>

<main class="mx-auto max-w-[60ch] p-8" role="alert">
  <h1 class="text-head font-strong">This view cannot be shown</h1>
  <p class="py-2">
    What you stored is safe: it is kept by the application, not by this page. Try again; if it comes back, reload the
    page. The other views still work.
  </p>
  <p class="pb-3 text-ink2">{error instanceof Error ? error.message : String(error)}</p>
  <Button onclick={reset}>Try again</Button>
  <Button
    onclick={() => {
      location.reload();
    }}>Reload the page</Button
  >
</main>
