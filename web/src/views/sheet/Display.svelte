<script lang="ts">
  import type { HandsetDisplay } from '$lib/api/client';

  /** The display of the handset, with what each sign means, in figures and in words. */
  let { display }: { display: HandsetDisplay } = $props();
  const cells = $derived([
    ...(display.slot ? [{ text: display.slot, means: 'slot' }] : []),
    ...display.marks.map((m) => ({ text: m.text, means: m.means })),
  ]);
</script>

<div class="border-2 border-rule2 bg-sheet px-4 pt-3 pb-2">
  <div class="flex flex-wrap items-end gap-x-4 gap-y-2">
    {#each cells as c, i (i)}
      <span class="cell"
        ><span class="text-[20px]">{c.text}</span><span class="bracket"></span><span class="means">{c.means}</span
        ></span
      >
    {/each}
    <span class="cell ml-auto items-end">
      <b class="text-[38px] leading-none font-strong">{display.figures || '–'}</b>
      <span class="bracket"></span><span class="means">{display.what}</span>
    </span>
  </div>
  <p class="mt-2 flex min-h-9 items-baseline justify-between border-t border-rule pt-1.5 font-figs">
    {#if display.open}
      <span class="font-text text-ink2">{display.open}</span><b class="text-[24px] leading-none font-strong"
        >{display.value || '–'}</b
      >
    {:else if display.name}
      <span class="font-text text-ink2">name</span><b class="text-[20px] leading-none font-strong">{display.name}</b>
    {:else}
      <span class="font-text text-ink3">no setting is open</span>
    {/if}
  </p>
</div>
<p class="mt-1.5 min-h-10" role="status">{display.says}</p>

<style>
  .cell {
    display: flex;
    flex-direction: column;
    font-family: var(--figs);
  }
  .bracket {
    height: 5px;
    margin-top: 2px;
    border: solid var(--rule2);
    border-width: 0 1px 1px;
    align-self: stretch;
  }
  .means {
    color: var(--ink2);
    font-family: var(--text);
    font-size: 12.5px;
    text-align: center;
  }
</style>
