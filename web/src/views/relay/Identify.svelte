<script lang="ts">
  import Mark from '$parts/Mark.svelte';
  import type { Report } from './relay.svelte';

  /** Who says the callsign on which side, and when. */
  let { r }: { r: Report } = $props();
  const minutes = $derived(r.identify[0]?.minutes ?? 0);
</script>

{#if r.identify.length > 0}
  <section aria-label="Identification">
    <h3>Who identifies</h3>
    {#if minutes > 0}<p class="marks" aria-hidden="true">
        <span></span><i>key</i><i>{minutes} min</i><i>{2 * minutes} min</i><i class="end">end</i>
      </p>{/if}
    {#each r.identify as i (i.side)}
      <p class="who" class:nobody={i.who === ''}>
        <span><Mark kind={i.who === '' ? 'conflict' : 'agrees'} /> {i.side}, {i.who || 'nobody'}</span>
        <b aria-hidden="true"><u></u><u></u><u></u><u></u></b>
        <small>{i.why}</small>
      </p>
    {/each}
    <p class="quiet">
      {minutes > 0
        ? `At the start, every ${String(minutes)} minutes and at the end`
        : 'As often as your authority asks'}. {r.identify[0]?.source}
    </p>
  </section>
{/if}

<style>
  section {
    border-bottom: 1px solid var(--rule);
    padding: 8px 0;
  }
  h3 {
    font-size: 15px;
    font-weight: var(--w-strong);
  }
  .marks,
  .who {
    display: grid;
    grid-template-columns: 106px repeat(3, 1fr) 24px;
    align-items: center;
    font-size: 13px;
  }
  .marks i {
    font-style: normal;
    color: var(--ink2);
    font-size: var(--t-label);
  }
  .who b {
    grid-column: 2 / -1;
    display: flex;
    justify-content: space-between;
    background: linear-gradient(var(--rule2), var(--rule2)) center / 100% 1px no-repeat;
  }
  .who u {
    width: 3px;
    height: 12px;
    background: var(--ink);
  }
  .who small {
    grid-column: 1 / -1;
    color: var(--ink2);
    font-size: 12.5px;
    padding-left: 18px;
  }
  .nobody {
    color: var(--conflict);
  }
  .nobody b {
    background: none;
    border-top: 1px dashed var(--conflict);
  }
  .nobody u {
    visibility: hidden;
    height: 6px;
  }
  .quiet {
    color: var(--ink2);
    font-size: 12.5px;
    padding-top: 3px;
  }
</style>
