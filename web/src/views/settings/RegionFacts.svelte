<script lang="ts">
  import type { Region } from '$lib/api/client';

  /** What follows from the region, each line with its source. */
  let { region }: { region: Region } = $props();
  const facts = $derived([
    ['authority', region.authority],
    ['APRS', region.aprs.length > 0 ? `${region.aprs.join(', ')} MHz` : 'not known: confirm locally'],
    [
      'identify',
      region.identify.minutes > 0
        ? `every ${String(region.identify.minutes)} min (${region.identify.source})`
        : `how often: ${region.identify.source}`,
    ],
    ['listening elsewhere', region.monitoring],
    ['bands', region.bands.join(', ')],
    ['source', region.source],
    ['basis', `${region.basis}, ${region.as_of}`],
  ]);
</script>

<section aria-label="What follows from the region">
  <h2 class="border-b border-bold pb-1 text-head font-strong">{region.title}</h2>
  {#if !region.firm}
    <p class="my-2 border border-conflict px-3 py-2">
      No table for this region can be cited. Shifts and segments are to be confirmed locally, and nothing here is
      corrected on their account.
    </p>
  {/if}
  <dl class="grid grid-cols-[120px_1fr]">
    {#each facts as [name, text] (name)}
      <dt class="border-b border-rule py-1.5 text-ink2">{name}</dt>
      <dd class="border-b border-rule py-1.5">{text}</dd>
    {/each}
  </dl>
  <p class="mt-3 text-small text-ink2">
    Band plans are advice of the national society; the licence and the authority decide. Follow your local rules and
    your licence.
  </p>
</section>
