<script lang="ts">
  import Wide from '$parts/Wide.svelte';
  import type { Preview } from '$lib/api/client';
  import { rulerAt, shares, spread } from './spread';

  /** What it receives and transmits: all bands by the logarithm, and each that the plan uses drawn out. */
  let { preview }: { preview: Preview } = $props();
  const W = 636;
  const d = $derived(preview.drawing);
  const x = (hz: number) => rulerAt(hz / 1e6, W);
  const bands = $derived(d.bands.filter((b) => b.channels > 0 || d.bands.length <= 3).slice(0, 4));
  const places = $derived(
    shares(
      bands.map((b) => b.channels),
      W,
      20,
      100,
    ),
  );
  const ticks = [30, 50, 100, 150, 200, 300, 400, 500, 1000];
  const fine = [...Array(10).keys()]
    .map((i) => 30 + i * 10)
    .concat([200, 300, 400, 500, 600, 700, 800, 900, 1000, 1100, 1200, 1300]);
  const meets = (s: { lower_hz: number; upper_hz: number }, b: { lower_hz: number; upper_hz: number }) =>
    s.lower_hz <= b.upper_hz && b.lower_hz <= s.upper_hz;
  const drawn = $derived(
    bands.map((b, i) => {
      const at = places[i] ?? { x: 0, width: 80 };
      const to = (hz: number) =>
        at.x + (Math.max(b.lower_hz, Math.min(b.upper_hz, hz)) - b.lower_hz) * (at.width / (b.upper_hz - b.lower_hz));
      const rows = preview.rows
        .filter((r) => r.channel.receive_hz >= b.lower_hz && r.channel.receive_hz <= b.upper_hz)
        .sort((p, q) => p.channel.receive_hz - q.channel.receive_hz);
      const some = rows.slice(0, Math.floor(at.width / 17));
      const labels = spread(
        some.map((r) => to(r.channel.receive_hz)),
        18,
        at.x + 8,
        at.x + at.width - 8,
      );
      return {
        b,
        ...at,
        to,
        edges: b.name.length * 6 + 56 < at.width,
        more: rows.length - some.length,
        marks: some.map((r, k) => ({ r, x: to(r.channel.receive_hz), at: labels[k] ?? 0 })),
        rx: d.receive.filter((s) => meets(s, b)),
        tx: d.transmit.filter((s) => meets(s, b)),
      };
    }),
  );
  const says = $derived(
    bands
      .map(
        (b) =>
          `${b.name}: ${String(b.channels)} channels of the plan, ${d.receive.some((s) => meets(s, b)) ? (d.transmit.some((s) => meets(s, b)) ? 'receives and transmits' : 'receives only') : 'does not receive'}`,
      )
      .join('; '),
  );
  const Y = 92;
</script>

<Wide label="Bands as a drawing">
  <svg class="d" width={W} height="116" viewBox="0 0 {W} 116" role="img" aria-label={says}>
    <path class="axis" d="M0,32H{W}" />
    {#each fine as f, nth (nth)}<path class="tick" d="M{x(f * 1e6)},30V32" />{/each}
    {#each ticks as f, nth (nth)}<path class="tick" d="M{x(f * 1e6)},28V32" /><text
        class="fg"
        x={x(f * 1e6)}
        y="11"
        text-anchor="middle">{f}</text
      >{/each}
    <text class="quiet" x={W} y="11" text-anchor="end">MHz</text>
    <text class="quiet" x={W} y="25" text-anchor="end">hair: receives, ink: transmits</text>
    {#each d.receive as s, i (i)}<path class="rx" d="M{x(s.lower_hz)},33V38.5H{x(s.upper_hz)}V33" />{/each}
    {#each d.transmit as s, i (i)}<rect
        class="tx"
        x={x(s.lower_hz)}
        y="33"
        width={Math.max(1.5, x(s.upper_hz) - x(s.lower_hz))}
        height="6"
      />{/each}
    {#each drawn as g (g.b.name)}
      <path
        class="fan"
        d="M{x(g.b.lower_hz)},{g.rx.length > 0 ? 39 : 33}L{g.x},{Y - 34}V{Y}M{x(g.b.upper_hz)},{g.rx.length > 0
          ? 39
          : 33}L{g.x + g.width},{Y - 34}V{Y}"
      />
      <rect class="none" x={g.x} y={Y} width={g.width} height="6" />
      {#each g.rx as s, i (i)}<path class="rx" d="M{g.to(s.lower_hz)},{Y + 5.5}H{g.to(s.upper_hz)}" />{/each}
      {#each g.tx as s, i (i)}<rect
          class="tx"
          x={g.to(s.lower_hz)}
          y={Y}
          width={g.to(s.upper_hz) - g.to(s.lower_hz)}
          height="6"
        />{/each}
      {#each g.marks as m, nth (nth)}
        {@const kind = m.r.lost === 'bands' ? 'lost' : m.r.half === 'bands' ? 'half' : 'held'}
        <path class="elbow {kind}" d="M{m.at},{Y - 17}V{Y - 14}L{m.x},{Y - 5}V{Y}" />
        <text class="fg {kind}" x={m.at} y={Y - 20} text-anchor="middle">{m.r.slot}</text>
      {/each}
      {#if g.more > 0}<text class="quiet" x={g.x + g.width} y={Y - 36} text-anchor="end">+{g.more}</text>{/if}
      {#if g.edges}<text class="fg" x={g.x} y={Y + 21}>{g.b.lower_hz / 1e6}</text>{/if}
      <text class="quiet" x={g.x + g.width / 2} y={Y + 21} text-anchor="middle">{g.b.name}</text>
      {#if g.edges}<text class="fg" x={g.x + g.width} y={Y + 21} text-anchor="end">{g.b.upper_hz / 1e6}</text>{/if}
    {/each}
  </svg>
</Wide>

<style>
  .axis,
  .tick {
    stroke: var(--rule2);
    fill: none;
  }
  .rx {
    stroke: var(--ink);
    stroke-width: 1.2;
    fill: none;
  }
  .tx {
    fill: var(--ink);
  }
  .fan {
    stroke: var(--rule2);
    stroke-width: 0.8;
    fill: none;
  }
  .none {
    fill: none;
    stroke: var(--rule2);
    stroke-dasharray: 3 3;
  }
  .elbow {
    stroke: var(--ink2);
    stroke-width: 0.8;
    fill: none;
  }
  .elbow.lost {
    stroke: var(--stop);
  }
  .elbow.half {
    stroke: var(--conflict);
  }
</style>
