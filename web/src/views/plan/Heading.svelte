<script lang="ts">
  import type { Snippet } from 'svelte';
  import Needle from '$parts/Needle.svelte';
  import type { Evidence as Case } from '$lib/api/client';
  import { distance } from '$lib/format';

  /** What the channel is, and which published record is meant. */
  let { found, children }: { found: Case; children: Snippet } = $props();
</script>

<header>
  <div class="flex items-baseline gap-3">
    <span class="font-figs text-head leading-none font-strong text-ink2">{found.slot || '–'}</span>
    <h2 class="min-w-0 flex-1 text-head leading-[26px] font-strong [overflow-wrap:anywhere]">
      {found.name || found.short_name || 'no name'}
    </h2>
    {@render children()}
  </div>
  <p class="mt-0.5 text-small text-ink2">
    {#if found.published}
      {@const m = found.published}
      <span class="font-figs">{m.callsign}</span>{#if m.distance_km !== null && m.bearing_deg !== null},
        {distance(m.distance_km)}
        <Needle degrees={m.bearing_deg} />,
        {#if m.horizon_km !== null}{m.within ? 'inside' : 'past'} your horizon ({Math.round(m.horizon_km)} km){:else}{m.within
            ? 'in'
            : 'out of'} the usual reach{/if}{/if}
      <span class="block">listed {m.age === 'undated' ? 'without a date' : `${m.age} ago`}, {m.source}</span>
    {:else}
      nothing is published that may be meant
    {/if}
  </p>
</header>
