<script lang="ts">
  import type { KeypadSheet } from '$lib/api/client';
  import Keys from './Keys.svelte';
  import Shown from './Shown.svelte';

  /** What the display must show, before any word of transmitting. */
  let { sheet, slot }: { sheet: KeypadSheet['sheet']; slot: number } = $props();
  const hidden = $derived(new Intl.ListFormat('en-GB', { type: 'disjunction' }).format(sheet.hidden));
</script>

<section class="mt-3 grid grid-cols-2 gap-5 max-desk:grid-cols-1" aria-label="What the display must show">
  <Shown title="At rest the display must show" shown={sheet.rest} />
  {#if sheet.keyed && sheet.read_out}
    <div class="break-inside-avoid">
      <h2 class="border-b border-bold font-strong">Without sending: <Keys text={sheet.read_out} /></h2>
      <p
        class="mt-2 border border-rule2 px-4 py-2 text-right font-figs text-[34px] leading-tight font-strong print:py-1 print:text-[26px]"
      >
        {sheet.keyed.figures}
      </p>
      <p class="mt-1 text-label text-ink2">
        The transmit frequency. It proves sign and size of the shift. {sheet.keyed.note ?? ''}
      </p>
    </div>
  {:else if sheet.keyed}
    <div>
      <h2 class="border-b border-bold font-strong">Without sending</h2>
      <p class="pt-2">
        The profile names no key that shows the transmit frequency. It is calculated: <b class="font-figs font-strong"
          >{sheet.keyed.figures}</b
        >. To see it, use a dummy load and the lowest power, and listen first.
      </p>
    </div>
  {:else}
    <div>
      <h2 class="border-b border-bold font-strong">Transmitting</h2>
      <p class="pt-2">Slot {slot} is for listening. Do not try it with the transmit key.</p>
    </div>
  {/if}
</section>
{#if hidden}<p class="mt-1 text-ink2">It does not show {hidden}: only the steps do.</p>{/if}
{#each sheet.notes as n, i (i)}<p class="mt-1">{n}</p>{/each}
<p class="mt-2">
  Turn the radio off and on, recall slot {slot}, and compare once more.
  {#if sheet.keyed}
    When you transmit, the display shows <b class="font-figs font-strong"
      >{[sheet.keyed.shift, sheet.keyed.tone, sheet.keyed.figures].filter(Boolean).join(' ')}</b
    >. Transmit only when you mean to be heard: listen first, give your callsign, never without an aerial or a dummy
    load. Follow your local rules and your licence.
  {/if}
</p>
