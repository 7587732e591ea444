<script lang="ts">
  /** How far a channel has come into a radio, as four small bars; hollow where the radio holds what it was before. */
  let { now, was = '' }: { now: string; was?: string } = $props();
  const states = ['planned', 'stored', 'keyed', 'proven'];
  const at = $derived(states.indexOf(was || now));
  const says = $derived(was ? `${was}, and changed since` : now);
</script>

<span class="bars" class:was title={says}
  >{#each states as s, i (s)}<i class:on={i <= at}></i>{/each}<span class="sr-only">{says}</span></span
>

<style>
  .bars {
    display: inline-flex;
    align-items: center;
    align-self: center;
    gap: 2px;
  }
  i {
    box-sizing: border-box;
    width: 6px;
    height: 1px;
    background: var(--ink3);
  }
  .on {
    height: 3px;
    background: var(--ink);
  }
  .was .on {
    height: 4px;
    border: 1px solid var(--ink2);
    background: none;
  }
</style>
