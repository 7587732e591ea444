<script lang="ts">
  import type { KeypadSheet } from '$lib/api/client';
  import Evidence from '$parts/Evidence.svelte';
  import { mhz } from '$lib/format';

  /** What stands over the steps: which slot, and everything to know before the first key. */
  let { sheet: k }: { sheet: KeypadSheet } = $props();
</script>

<header class="flex items-end gap-x-5 gap-y-1 border-b-2 border-bold pb-2 max-desk:flex-wrap">
  <span class="font-figs text-[44px] leading-none font-strong">{k.slot}</span>
  <div class="flex-1">
    <h1 class="text-[26px] leading-tight font-strong">{k.name || k.short_name || mhz(k.channel.receive_hz)}</h1>
    <p class="text-ink2">{k.plan}, for {k.radio.name} ({k.radio.form})</p>
  </div>
  <p class="text-right text-[16px]">
    <Evidence kind={k.verdict} size={16} /><span class="block text-label text-ink2">{k.source || 'no listing'}</span>
  </p>
</header>

{#each k.stops as stop, i (i)}
  <p role="alert" class="my-2 border-2 border-stop px-3 py-1.5 font-strong text-stop">
    {i > 0 ? '' : k.sheet.locked ? 'Do not transmit on this channel.' : 'Do not key this channel in.'}
    {stop}
  </p>
{/each}
{#if k.sheet.locked}
  <p class="my-2 border border-rule2 px-3 py-1.5">
    <b class="font-strong"
      >{k.stops.length > 0 ? 'Listening only until this is put right.' : `Listening only: ${k.sheet.locked}.`}</b
    >
    {#if k.sheet.steps.some((s) => s.do === 'transmit lock')}
      The sheet locks the transmitter in this slot, and takes the lock off again at the end, so that it does not reach
      the next channel.
    {:else}
      {k.radio.name} does not transmit here.
    {/if}
  </p>
{/if}
{#each k.doubts as doubt, i (i)}
  <p class="my-2 border border-conflict px-3 py-1.5">
    <Evidence kind="conflict" word="Before you key this in:" />
    {doubt}
  </p>
{/each}
{#if k.sheet.losses.length > 0}
  <section class="my-2 border border-rule2 px-3 py-1.5">
    <h2 class="font-strong">What {k.radio.name} cannot hold</h2>
    <ul>
      {#each k.sheet.losses as l, i (i)}
        <li>{l.wanted}: {l.why}. The sheet has <b class="font-strong">{l.held}</b> instead.</li>
      {/each}
    </ul>
  </section>
{/if}
{#if k.sheet.check.length > 0}
  <section class="my-2 border border-rule2 px-3 py-1.5">
    <h2 class="font-strong">Check these in the manual: the profile leaves them open</h2>
    <ul>
      {#each k.sheet.check as c, i (i)}<li>☐ {c}</li>{/each}
    </ul>
  </section>
{/if}
