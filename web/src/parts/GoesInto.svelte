<script lang="ts">
  import { chosen } from '$lib/api/chosen.svelte';
  import type { LoadInfo, Put } from '$lib/api/client';

  /** Which other radios get what is added too, and in which slot where that is known. */
  interface Props {
    others: readonly LoadInfo[];
    puts?: readonly Put[];
    slot?: number | null;
  }
  let { others, puts = [], slot = null }: Props = $props();
  const put = (load: number) => puts.find((p) => p.load === load);

  function set(load: number, on: boolean) {
    chosen.also = on ? [...chosen.also, load] : chosen.also.filter((x) => x !== load);
  }
</script>

<fieldset class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
  <legend class="float-left mr-4 text-ink2">also goes into</legend>
  {#each others as l (l.id)}
    {@const p = put(l.id)}
    <label class="inline-flex min-h-7 items-center gap-1.5 max-desk:min-h-11">
      <input
        type="checkbox"
        checked={chosen.also.includes(l.id)}
        onchange={(e) => {
          set(l.id, e.currentTarget.checked);
        }}
      />
      {l.unit.name}
      {#if p?.why}<span class="text-label text-conflict">{p.why}</span>
      {:else if p}<span class="font-figs {p.slot === slot ? 'text-ink2' : 'font-strong'}">{p.slot}</span>{/if}
    </label>
  {/each}
</fieldset>
