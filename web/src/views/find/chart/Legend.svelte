<script lang="ts">
  import Mark from '$parts/Mark.svelte';

  /** What the marks of the chart mean. */
  let { radio, placed }: { radio: string; placed: boolean } = $props();
</script>

<p class="legend">
  <span><Mark kind="agrees" size={11} /> <span class="font-figs">5</span> in {radio}, by slot</span>
  <span
    ><svg width="12" height="12" viewBox="0 0 12 12" aria-hidden="true"><path class="tick" d="M6,10V1M2.5,10h7" /></svg> missing,
    by name</span
  >
  <span
    ><svg width="12" height="8" viewBox="0 0 12 8" aria-hidden="true"><path class="tick no" d="M6,7V2M3.5,7h5" /></svg>
    not for {radio}</span
  >
  <span>{placed ? 'edge: bearing from you' : 'centred on what is published'}</span>
</p>

<style>
  .legend {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 0 12px;
    padding-top: 5px;
    font-size: var(--t-label);
    color: var(--ink2);
  }
  .legend svg {
    display: inline-block;
  }
  .tick {
    stroke: var(--ink);
    stroke-width: 1.6;
    fill: none;
  }
  .tick.no {
    stroke: var(--ink3);
    stroke-width: 1.1;
  }
  @media (max-width: 45em) {
    .legend {
      display: none;
    }
  }
</style>
