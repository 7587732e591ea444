<script lang="ts">
  import { drawings } from './symbols';

  /** A symbol as it is drawn here; without a drawing, its table and code. */
  let { id, size = 18 }: { id: string; size?: number } = $props();
  const d = $derived(drawings[id] ?? drawings[`\\${id[1] ?? ''}`]);
</script>

{#if d && (id[0] === '/' ? drawings[id] : true)}<svg width={size} height={size} viewBox="0 0 18 18" aria-hidden="true"
    ><path {d} /></svg
  >{:else}<code>{id}</code>{/if}

<style>
  svg {
    display: inline-block;
    vertical-align: -4px;
  }
  path {
    fill: none;
    stroke: currentColor;
    stroke-width: 1.4;
    stroke-linejoin: round;
    stroke-linecap: round;
  }
  code {
    font: var(--w-normal) 12px var(--figs);
    border: 1px solid var(--rule2);
    padding: 0 2px;
  }
</style>
