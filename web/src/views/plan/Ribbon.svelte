<script lang="ts">
  import type { Reading, Ribbon } from '$lib/api/client';
  import { mhz } from '$lib/format';
  import { arc, blocks, clashes, clear, labels, placeLabels, WIDTH } from './ribbon';

  interface Props {
    ribbon: Ribbon;
    selected: number | null;
    reading: Reading | null;
    choose: (band: string) => void;
    pick: (slot: number) => void;
  }
  let { ribbon, selected, reading, choose, pick }: Props = $props();
  let raised = $state<number | null>(null);

  const band = $derived(ribbon.band);
  const x = (hz: number) => ((hz - band.lower_hz) / (band.upper_hz - band.lower_hz)) * WIDTH;
  const inside = (hz: number) => hz >= band.lower_hz && hz <= band.upper_hz;
  const fill = (use: string) =>
    use === 'weak-signal' || use === 'beacon'
      ? 'url(#weak)'
      : use === 'satellite'
        ? 'url(#sat)'
        : use === 'output'
          ? 'var(--buff)'
          : use === 'simplex'
            ? 'var(--sheet)'
            : 'var(--paper)';

  const draft = $derived(
    reading && inside(reading.channel.receive_hz)
      ? { slot: reading.slot, receive_hz: reading.channel.receive_hz, transmit_hz: reading.channel.transmit_hz }
      : null,
  );
  // What leaves the band is drawn last, over the arcs.
  const all = $derived([...ribbon.channels].sort((a, b) => Number(b.inside) - Number(a.inside)));
  /** So many that no number could be read: they are drawn as ticks, and only the chosen one with its pair. */
  const crowded = $derived(all.length > 150);
  const channels = $derived(crowded ? all.filter((c) => c.slot === selected) : all);
  const ticks = $derived(
    crowded
      ? (['agrees', 'unverified', 'conflict', 'stop'] as const).map((verdict) => ({
          verdict,
          d: all
            .filter((c) => c.verdict === verdict)
            .map(
              (c) => `M${x(c.receive_hz).toFixed(1)},${verdict === 'conflict' || verdict === 'stop' ? '34' : '40'}V52`,
            )
            .join(''),
        }))
      : [],
  );
  const wide = (slot: number) => 10 + 7.4 * String(slot).length;
  const levels = $derived(
    placeLabels([
      ...channels.map((c) => ({ x: x(c.receive_hz), wide: wide(c.slot), must: c.slot === (raised ?? selected) })),
      ...(draft ? [{ x: x(draft.receive_hz), wide: wide(draft.slot ?? 0), must: true }] : []),
    ]),
  );
  /** Off the band: at most one plate at each edge, and how many share it. */
  const plates = $derived(
    [false, true].flatMap((right) => {
      const there = channels.filter(
        (c) => !c.inside && c.transmit_hz !== null && c.transmit_hz > band.upper_hz === right,
      );
      const one = there.find((c) => c.slot === (raised ?? selected)) ?? there[0];
      if (!one) return [];
      const text = `${mhz(one.transmit_hz ?? 0)}, off the band${there.length > 1 ? ` (and ${String(there.length - 1)} more)` : ''}`;
      const long = text.length * 6.2;
      return [{ right, text, from: right ? WIDTH - long : 0, to: right ? WIDTH : long }];
    }),
  );
  /** The words beside the pennants, where nothing else is written. */
  const calling = $derived.by(() => {
    const taken = [
      ...plates,
      ...channels.flatMap((c, i) =>
        levels[i]?.level === 2 ? [{ from: x(c.receive_hz) - 6, to: x(c.receive_hz) + wide(c.slot) }] : [],
      ),
    ];
    return band.calling_hz.map((hz) => {
      const from = x(hz) + 10;
      const written = from + 44 < WIDTH && clear(from, from + 44, taken);
      if (written) taken.push({ from, to: from + 44 });
      return { hz, written };
    });
  });
  const met = $derived(clashes(ribbon));
  const shown = $derived(ribbon.channels.find((c) => c.slot === (raised ?? selected)));
</script>

<section
  class="border-t-2 border-bold bg-paper px-6 pt-[5px] pb-1.5 max-desk:overflow-x-auto max-desk:px-4 print:hidden"
  aria-label="Band ribbon, {band.name}"
>
  <div class="flex h-5 items-baseline gap-3.5 text-small whitespace-nowrap">
    {#each ribbon.bands as b, nth (nth)}
      {#if b === band.name}<h2 class="text-[15px] font-strong">{b}</h2>{:else}
        <button
          type="button"
          class="text-ink2 max-desk:min-w-11"
          onclick={() => {
            choose(b);
          }}>{b}</button
        >{/if}
    {/each}
    <p class="truncate text-ink2 max-desk:hidden">
      {#if shown?.says && (raised !== null || !draft)}Slot {shown.slot}: {shown.says}.{#each shown.meets as m, i (i)}<b
            class="ml-1 font-strong text-ink">Meets slot {m.slot}: {m.says}.</b
          >{/each}{:else if draft}{draft.slot === null ? 'The line' : `Slot ${String(draft.slot)}`} as it is written.{/if}
    </p>
    <p class="ml-auto flex items-center gap-1.5 text-label text-ink3 max-desk:hidden">
      <svg width="22" height="10" viewBox="0 0 22 10" aria-hidden="true"
        ><path d="M2,9A9,8 0 0 1 20,9" fill="none" stroke="currentColor" /></svg
      >output to input
      {#if met.some((c) => !c.harmonic)}<span class="ml-2" aria-hidden="true">✕</span>two channels meet{/if}
      {#if met.some((c) => c.harmonic)}<span class="ml-2" aria-hidden="true">×3</span>third harmonic{/if}
      <svg class="ml-2" width="8" height="8" viewBox="0 0 8 8" aria-hidden="true"
        ><path d="M4,1v6" stroke="currentColor" fill="none" /></svg
      >published, not in this radio
    </p>
  </div>
  <svg
    class="rb"
    viewBox="0 0 {WIDTH} 92"
    role="group"
    aria-label="{band.name}, {mhz(band.lower_hz)} to {mhz(band.upper_hz)} megahertz, with this radio's channels{crowded
      ? `, ${String(all.length)} of them`
      : ''}"
  >
    <defs>
      <pattern id="sat" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"
        ><path d="M0,0V5" class="pl" /></pattern
      >
      <pattern id="weak" width="6" height="6" patternUnits="userSpaceOnUse"
        ><circle cx="1.5" cy="1.5" r=".8" class="pd" /><circle cx="4.5" cy="4.5" r=".8" class="pd" /></pattern
      >
    </defs>
    {#each blocks(band.lower_hz, band.upper_hz) as b (b.from)}<rect
        x={x(b.from)}
        y="52"
        width={x(b.to) - x(b.from)}
        height="4"
        class="z1"
      />{/each}
    <rect x="0" y="52" width={WIDTH} height="4" class="zb" />
    {#each band.segments as s, nth (nth)}
      {@const w = x(s.upper_hz) - x(s.lower_hz)}
      <rect x={x(s.lower_hz)} y="56" width={w} height="18" class="seg" fill={fill(s.use)}
        ><title>{s.label}, {mhz(s.lower_hz)} to {mhz(s.upper_hz)}</title></rect
      >
      {#if w > s.label.length * 5.8 + 6}
        <text
          x={x(s.lower_hz) + w / 2}
          y="69"
          text-anchor="middle"
          style:stroke={s.use === 'output' || s.use === 'simplex' ? fill(s.use) : 'var(--paper)'}>{s.label}</text
        >
      {/if}
    {/each}
    {#each labels(band.lower_hz, band.upper_hz) as l, i (i)}
      <text
        class="scale"
        x={x(l)}
        y="89"
        text-anchor={i === 0 ? 'start' : x(l) > WIDTH - 20 ? 'end' : 'middle'}
        class:whole={l % 1e6 === 0}>{l % 1e6 === 0 ? l / 1e6 : mhz(l).replace(/0+$/, '')}</text
      >
    {/each}
    {#each ribbon.nearby_hz as hz, nth (nth)}<path class="near" d="M{x(hz)},46V52"
        ><title>published on {mhz(hz)}, not in this radio</title></path
      >{/each}
    {#each met as c, i (i)}
      {@const at = x(c.hz)}
      <g role="img" aria-label={c.says.join('; ')} class="met">
        <title>{c.says.join('; ')}</title>
        {#if c.harmonic}<path d="M{at},32V52" /><text x={at + 2} y="36">×3</text>
        {:else}<path d="M{at - 4},42l8,8m0,-8l-8,8" />{/if}
      </g>
    {/each}
    {#each ticks as t (t.verdict)}<path class="tk tick-{t.verdict}" d={t.d} />{/each}
    {#each channels as c, i (c.slot)}
      {@const at = x(c.receive_hz)}
      <g
        role="button"
        tabindex="0"
        aria-label="slot {c.slot}, {mhz(c.receive_hz)}, {c.verdict}"
        class="ch {c.verdict}"
        class:sel={c.slot === selected}
        class:dim={raised !== null && raised !== c.slot}
        onclick={() => {
          pick(c.slot);
        }}
        onkeydown={(e) => {
          if (e.key === 'Enter' || e.key === ' ') {
            e.preventDefault();
            pick(c.slot);
          }
        }}
        onmouseenter={() => (raised = c.slot)}
        onmouseleave={() => (raised = null)}
        onfocus={() => (raised = c.slot)}
        onblur={() => (raised = null)}
      >
        {#if c.transmit_hz !== null && c.transmit_hz !== c.receive_hz}
          {#if c.inside}
            <path class="arc" d={arc(at, x(c.transmit_hz))} /><path class="in" d="M{x(c.transmit_hz)},51l-4,-7h8Z" />
          {:else}
            {@const to = c.transmit_hz > band.upper_hz ? WIDTH : 0}
            <path class="arc" d="M{at},48Q{(at + to) / 2},{18} {to - Math.sign(to - 1) * 8},24" />
            <path class="off" d={to === 0 ? 'M0,24l9,-4v8Z' : `M${String(WIDTH)},24l-9,-4v8Z`} />
          {/if}
        {/if}
        <path class="tk" d="M{at},{46 - (levels[i]?.level ?? 0) * 12}V52" />
        <rect x={at - 5} y={36 - (levels[i]?.level ?? 0) * 12} width="22" height="16" fill="transparent" />
        {#if c.verdict === 'agrees'}<circle cx={at} cy={46 - (levels[i]?.level ?? 0) * 12} r="4" class="mk" />
        {:else if c.verdict === 'unverified'}<circle
            cx={at}
            cy={46 - (levels[i]?.level ?? 0) * 12}
            r="3.5"
            class="mk hollow"
          />
        {:else if c.verdict === 'conflict'}<path
            d="M{at},{40.5 - (levels[i]?.level ?? 0) * 12}l5.5,5.5l-5.5,5.5l-5.5,-5.5Z"
            class="mk"
          />
        {:else}<rect x={at - 4.2} y={41.8 - (levels[i]?.level ?? 0) * 12} width="8.4" height="8.4" class="mk" />{/if}
        {#if levels[i]?.written}<text class="no" x={at + 7} y={50 - (levels[i]?.level ?? 0) * 12}>{c.slot}</text>{/if}
      </g>
    {/each}
    {#each plates as p, nth (nth)}
      <rect x={p.from} y="4" width={p.to - p.from} height="14" class="plate" />
      <text class="offtext" x={p.right ? WIDTH - 4 : 4} y="15" text-anchor={p.right ? 'end' : 'start'}>{p.text}</text>
    {/each}
    {#each calling as c, nth (nth)}
      <path d="M{x(c.hz)},8V52" class="pole" /><path d="M{x(c.hz)},8L{x(c.hz) + 9},11L{x(c.hz)},14Z" class="flag"
        ><title>calling channel, {mhz(c.hz)}</title></path
      >
      {#if c.written}<text x={x(c.hz) + 12} y="15">calling</text>{/if}
    {/each}
    {#if draft}
      {@const high = 50 - (levels.at(-1)?.level ?? 0) * 12}
      <g class="ch draft" aria-hidden="true">
        {#if draft.transmit_hz !== null && draft.transmit_hz !== draft.receive_hz && inside(draft.transmit_hz)}
          <path class="arc" d={arc(x(draft.receive_hz), x(draft.transmit_hz))} /><path
            class="in"
            d="M{x(draft.transmit_hz)},51l-4,-7h8Z"
          />
        {/if}
        <path class="tk" d="M{x(draft.receive_hz)},{high - 6}V52" /><text
          class="no"
          x={x(draft.receive_hz) + 5}
          y={high}>{draft.slot}</text
        >
      </g>
    {/if}
  </svg>
</section>

<style>
  .met path {
    stroke: var(--conflict);
    stroke-width: 1.4;
    fill: none;
  }
  .met text {
    font-size: 10px;
    fill: var(--conflict);
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 3px;
  }
  .rb {
    display: block;
    width: 100%;
    height: auto;
    overflow: visible;
  }
  text {
    font: var(--w-normal) 11.5px var(--text);
    fill: var(--ink2);
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 3px;
    stroke-linejoin: round;
  }
  .z1 {
    fill: var(--bold);
  }
  .zb {
    fill: none;
    stroke: var(--bold);
  }
  .seg {
    stroke: var(--rule2);
  }
  .pl {
    stroke: var(--rule2);
  }
  .pd {
    fill: var(--rule2);
  }
  .scale {
    font-family: var(--figs);
  }
  .whole {
    font-weight: var(--w-strong);
    fill: var(--ink);
  }
  .near {
    stroke: var(--ink3);
  }
  .plate {
    fill: var(--paper);
  }
  .pole {
    stroke: var(--ink);
  }
  .flag {
    fill: var(--ink);
  }
  .ch {
    cursor: pointer;
    outline-offset: 1px;
  }
  .arc {
    fill: none;
    stroke: var(--ink2);
  }
  .in {
    fill: var(--paper);
    stroke: var(--ink2);
  }
  .tk {
    stroke: var(--ink);
    stroke-width: 1.2;
  }
  .tick-unverified {
    stroke: var(--ink3);
  }
  .tick-conflict {
    stroke: var(--conflict);
  }
  .tick-stop {
    stroke: var(--stop);
  }
  .mk {
    fill: var(--ink);
  }
  .hollow {
    fill: var(--paper);
    stroke: var(--ink2);
    stroke-width: 1.4;
  }
  .no {
    font-family: var(--figs);
    font-size: 12px;
    fill: var(--ink);
  }
  .conflict .mk {
    fill: var(--conflict);
  }
  .stop .mk,
  .off,
  .stop .no,
  .offtext {
    fill: var(--stop);
  }
  .stop .arc {
    stroke: var(--stop);
  }
  .sel .arc {
    stroke: var(--ink);
    stroke-width: 2;
  }
  .sel .tk {
    stroke-width: 2;
  }
  .sel .in {
    fill: var(--ink);
    stroke: var(--ink);
  }
  .sel .no {
    font-weight: 700;
  }
  .dim {
    opacity: 0.45;
  }
  .draft .arc {
    stroke: var(--accent);
    stroke-dasharray: 4 3;
    stroke-width: 1.5;
  }
  .draft .in,
  .draft .tk {
    stroke: var(--accent);
  }
  .draft .no {
    fill: var(--accent);
  }
  @media (max-width: 45em) {
    .rb {
      width: 1232px;
    }
  }
</style>
