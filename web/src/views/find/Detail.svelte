<script lang="ts">
  import Wide from '$parts/Wide.svelte';
  import type { FoundRepeater } from '$lib/api/client';
  import Mark from '$parts/Mark.svelte';
  import { mhz, toneText } from '$lib/format';
  import { idText, type FindState } from './find.svelte';

  let { find, repeater }: { find: FindState; repeater: FoundRepeater } = $props();

  const tone = (t: string | null) => (t === null ? 'not stated' : t === 'none' ? 'none' : toneText(t));
  const fields = [
    { name: 'output', of: (s: FoundRepeater['best']) => mhz(s.output_hz) },
    { name: 'input', of: (s: FoundRepeater['best']) => (s.input_hz ? mhz(s.input_hz) : 'not stated') },
    { name: 'uplink tone', of: (s: FoundRepeater['best']) => tone(s.uplink_tone) },
    { name: 'downlink tone', of: (s: FoundRepeater['best']) => tone(s.downlink_tone) },
    { name: 'mode', of: (s: FoundRepeater['best']) => s.mode || 'not stated' },
    { name: 'width', of: (s: FoundRepeater['best']) => s.width || 'not stated' },
    { name: 'status', of: (s: FoundRepeater['best']) => s.status || 'not stated' },
    { name: 'access', of: (s: FoundRepeater['best']) => s.access || 'not stated' },
  ];
  const differs = (name: string) => repeater.conflicts.some((c) => c.field === name);
  const reach = $derived.by(() => {
    if (repeater.distance_km === null) return 'Its position is not published.';
    const km = `${repeater.reach_km.toFixed(0)} km`;
    const where = repeater.distance_km <= repeater.reach_km ? 'inside' : 'past';
    return repeater.horizon
      ? `You are ${where} its radio horizon (${km}), worked out from its published height and your aerial.`
      : `Its height is not published: it is taken to reach ${km}, and you are ${where === 'inside' ? 'nearer' : 'farther'}.`;
  });
</script>

<section aria-label="What the listings say" class="mt-4 [overflow-wrap:anywhere]">
  <h2 class="flex flex-wrap items-baseline gap-2 text-head font-strong">
    {repeater.title} <span class="font-figs text-small font-normal text-ink2">{repeater.best.callsign}</span>
  </h2>
  <p class="text-ink2">{reach}</p>
  {#if repeater.remark}<p class="font-medium">{repeater.remark[0]?.toUpperCase()}{repeater.remark.slice(1)}.</p>{/if}
  {#if repeater.best.note}<p class="text-ink2">Note in the listing: {repeater.best.note}</p>{/if}
  <Wide label="The listings side by side">
    <table class="mt-2 text-left">
      <thead class="border-b border-bold align-bottom">
        <tr>
          <th class="w-[104px] font-normal text-ink2">field</th>
          {#each repeater.statements as s (idText(s))}
            <th class="min-w-[128px] pr-4 font-normal"
              ><b class="block font-strong">{s.source}</b><span class="text-label text-ink2"
                >{s.updated ?? 'no date'}</span
              ></th
            >
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each fields as f (f.name)}
          <tr class="border-b border-rule align-baseline">
            <th scope="row" class="py-0.5 font-normal text-ink2">{f.name}</th>
            {#each repeater.statements as s, i (idText(s))}
              {@const text = f.of(s)}
              <td class="pr-4 {text === 'not stated' ? 'text-ink3' : ''} {differs(f.name) ? 'font-strong' : ''}"
                >{text}{#if differs(f.name) && i === 0}<span
                    class="ml-1.5 inline-flex items-baseline gap-1 font-normal text-conflict"
                    ><Mark kind="conflict" size={10} />differs</span
                  >{/if}</td
              >
            {/each}
          </tr>
        {/each}
        {#if repeater.statements.length > 1}
          <tr>
            <td></td>
            {#each repeater.statements as s, i (idText(s))}
              <td class="py-1">
                {#if i > 0}
                  <button
                    type="button"
                    class="link"
                    onclick={() => {
                      const first = repeater.statements[0];
                      if (first)
                        void find.decide(
                          { source: first.source, key: first.key },
                          { source: s.source, key: s.key },
                          false,
                        );
                    }}>another repeater</button
                  >
                {/if}
              </td>
            {/each}
          </tr>
        {/if}
      </tbody>
    </table>
  </Wide>
  {#if repeater.conflicts.length > 0}
    <p class="mt-1 text-label text-ink2">
      The newest statement is taken first; check on the air, or ask the owner, before you rely on it.
    </p>
  {/if}
</section>
