<script lang="ts">
  /** The colour of a person; the name always stands beside it. */
  let { colour }: { colour: string } = $props();
</script>

<svg width="10" height="10" viewBox="0 0 10 10" class="flex-none" aria-hidden="true"
  ><rect
    x="0.5"
    y="0.5"
    width="9"
    height="9"
    style:fill="var(--who-{colour}, var(--ink2))"
    stroke="currentColor"
  /></svg
>
