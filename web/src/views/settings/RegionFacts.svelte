<script lang="ts">
  import Wide from '$parts/Wide.svelte';
  import type { Region } from '$lib/api/client';

  /** What follows from the region, each line with its source. */
  let { region }: { region: Region } = $props();
  const monitoring: Record<string, string> = {
    open: 'the plan names no restriction; follow your local rules',
    restricted: 'to what is not meant for you may be unlawful: such channels are questioned, also receive-only',
    'confirm locally': 'to what is not meant for amateurs: confirm locally',
  };
  const facts = $derived([
    ['authority', region.authority],
    ['APRS', region.aprs.length > 0 ? `${region.aprs.join(', ')} MHz` : 'not known: confirm locally'],
    [
      'identify',
      region.identify.minutes > 0
        ? `every ${String(region.identify.minutes)} min (${region.identify.source})`
        : `how often: ${region.identify.source}`,
    ],
    ['listening', monitoring[region.monitoring] ?? region.monitoring],
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
  <dl class="grid grid-cols-[84px_1fr]">
    {#each facts as [name, text], nth (nth)}
      <dt class="border-b border-rule py-1.5 text-ink2">{name}</dt>
      <dd class="border-b border-rule py-1.5">{text}</dd>
    {/each}
  </dl>
  <Wide label="Bands, calling channels and usual shifts"
    ><table class="mt-4 w-full text-left text-small">
      <caption class="pb-1 text-left font-strong">Bands, calling channels and usual shifts, MHz</caption>
      <thead class="border-b border-rule2 text-label text-ink2">
        <tr
          ><th class="w-[74px] font-normal">band</th><th class="w-[70px] font-normal">calling</th><th
            class="font-normal">outputs and their shift</th
          ></tr
        >
      </thead>
      <tbody>
        {#each region.bands as b (b.name)}
          <tr class="border-b border-rule align-baseline">
            <th scope="row" class="py-1 font-strong"
              >{b.name}<span class="block font-figs text-label font-normal text-ink2">{b.limits}</span></th
            >
            <td class="font-figs">
              {#each b.calling as f, nth (nth)}<span class="block">{f}</span>{:else}<span class="text-ink2">–</span
                >{/each}
            </td>
            <td>
              {#each b.shifts as s, nth (nth)}
                <span class="grid grid-cols-[138px_86px_1fr] items-baseline">
                  <span class="font-figs">{s.outputs}</span><span class="font-figs">{s.shift}</span>
                  <span class="text-label text-ink2"
                    >{s.certainty}{s.alternatives.length > 0 ? `, also ${s.alternatives.join(', ')}` : ''}</span
                  >
                </span>
              {:else}<span class="text-ink2">none in the plan</span>{/each}
            </td>
          </tr>
        {/each}
      </tbody>
    </table></Wide
  >
  <p class="mt-3 text-small text-ink2">
    Band plans are advice of the national society; the licence and the authority decide. Follow your local rules and
    your licence.
  </p>
</section>
