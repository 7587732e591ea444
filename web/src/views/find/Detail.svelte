<script lang="ts">
  import type { FoundRepeater } from '$lib/api/client';
  import Mark from '$parts/Mark.svelte';
  import Wide from '$parts/Wide.svelte';
  import { fieldWords, mhz, toneText } from '$lib/format';
  import Correct from './Correct.svelte';
  import { idText, type FindState } from './find.svelte';

  let { find, repeater }: { find: FindState; repeater: FoundRepeater } = $props();

  type Said = FoundRepeater['best'];
  const tone = (t: string | null) => (t === null ? '' : t === 'none' ? 'none' : toneText(t));
  const fields: { name: string; of: (s: Said) => string; raw: (s: Said) => string }[] = [
    { name: 'output', of: (s) => mhz(s.output_hz), raw: () => '' },
    { name: 'input', of: (s) => (s.input_hz ? mhz(s.input_hz) : ''), raw: (s) => (s.input_hz ? mhz(s.input_hz) : '') },
    { name: 'uplink_tone', of: (s) => tone(s.uplink_tone), raw: (s) => s.uplink_tone ?? '' },
    { name: 'downlink_tone', of: (s) => tone(s.downlink_tone), raw: (s) => s.downlink_tone ?? '' },
    { name: 'mode', of: (s) => s.mode, raw: (s) => s.mode },
    { name: 'width', of: (s) => s.width, raw: (s) => s.width },
    { name: 'status', of: (s) => s.status, raw: (s) => s.status },
    { name: 'access', of: (s) => s.access, raw: (s) => s.access },
  ];
  const differs = (name: string) => repeater.conflicts.some((c) => c.field === name);
  const reach = $derived.by(() => {
    if (repeater.distance_km === null) return 'Its position is not published.';
    const km = `${repeater.reach_km.toFixed(0)} km`;
    const inside = repeater.distance_km <= repeater.reach_km;
    return repeater.horizon
      ? `You are ${inside ? 'inside' : 'past'} its radio horizon (${km}), calculated from its published height and your aerial.`
      : `Its height is not published: it is taken to reach ${km}, and you are ${inside ? 'nearer' : 'farther'}.`;
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
            <th class="min-w-[124px] pr-4 font-normal"
              ><b class="block font-strong">{s.source}</b><span class="text-label text-ink2"
                >{s.updated ?? 'no date'}</span
              ></th
            >
          {/each}
          <th class="min-w-[150px] font-normal"
            ><b class="block font-strong">yours</b><span class="text-label text-ink2">what you know better</span></th
          >
        </tr>
      </thead>
      <tbody>
        {#each fields as f (f.name)}
          <tr class="border-b border-rule align-baseline">
            <th scope="row" class="py-0.5 font-normal text-ink2">{fieldWords(f.name)}</th>
            {#each repeater.statements as s, i (idText(s))}
              {@const text = f.of(s)}
              <td class="pr-4 {text ? '' : 'text-ink3'} {differs(f.name) ? 'font-strong' : ''}"
                >{text || 'not stated'}{#if differs(f.name)}
                  {#if i === 0}<span class="ml-1 inline-flex items-baseline gap-1 font-normal text-conflict"
                      ><Mark kind="conflict" size={10} />differs</span
                    >{/if}
                  {#if text}<button
                      type="button"
                      class="link ml-1 font-normal"
                      aria-label="Use this value: {s.source}: {fieldWords(f.name)} {text}"
                      onclick={() => void find.correct(repeater.id, f.name, f.raw(s), `as ${s.source} has it`)}
                      >Use this value</button
                    >{/if}
                {/if}</td
              >
            {/each}
            <td>
              {#if f.name !== 'output'}
                <Correct {find} {repeater} field={f.name} />
              {/if}
            </td>
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
                    }}>Not the same repeater</button
                  >
                {/if}
              </td>
            {/each}
            <td></td>
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
