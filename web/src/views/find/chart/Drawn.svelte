<script lang="ts">
  import Mark from '$parts/Mark.svelte';
  import { onLand } from './coast';
  import { type Drawing, type Measure } from './layout';
  import { toScreen, type Point, type View } from './plane';

  /** What stands on the coast: rings, marks, plates, names, and the edge. */
  interface Props {
    drawing: Drawing;
    view: View;
    /** The coast, for the ground under a name. */
    rings: readonly Point[][];
    lights: readonly (Point & { name: string })[];
    selected: { reach: number; km: number; degrees: number } | undefined;
    placed: boolean;
    measure: Measure;
  }
  let { drawing, view, rings, lights, selected, placed, measure }: Props = $props();

  const grounds = $derived(
    drawing.labels.map((l) => onLand(rings, { x: (l.box.x0 + l.box.x1) / 2, y: (l.box.y0 + l.box.y1) / 2 })),
  );
  const shown = $derived(
    lights
      .map((l) => ({ ...toScreen(view, l), name: l.name }))
      .filter((p) => p.x > 12 && p.y > 16 && p.x < view.width - 12 && p.y < view.height - 12),
  );
  const kinds = {
    agrees: 'agrees',
    unverified: 'unverified',
    conflict: 'conflict',
    stop: 'stop',
    checking: 'checking',
  } as const;
  const marked = $derived(drawing.marks.filter((m) => m.kind !== 'dot'));
  const chosen = $derived.by(() => {
    if (!selected) return undefined;
    const a = (selected.degrees * Math.PI) / 180;
    return toScreen(view, { x: selected.km * Math.sin(a), y: selected.km * Math.cos(a) });
  });
</script>

<svg width={view.width} height={view.height} viewBox="0 0 {view.width} {view.height}" aria-hidden="true">
  {#each drawing.rings as r, nth (nth)}<circle
      class="ring"
      class:mine={r.mine}
      cx={drawing.you.x}
      cy={drawing.you.y}
      r={r.radius}
    />{/each}
  {#if selected && chosen}
    <circle class="reach" cx={chosen.x} cy={chosen.y} r={selected.reach * view.scale} />
    {#if placed}<path class="way" d="M{drawing.you.x},{drawing.you.y}L{chosen.x},{chosen.y}" />{/if}
    <circle class="chosen" cx={chosen.x} cy={chosen.y} r="9" />
  {/if}
  {#each shown as l, nth (nth)}<path
      class="rays"
      d="M{l.x},{l.y - 7.5}v-5M{l.x - 5},{l.y - 5.8}l-3.4,-3.7M{l.x + 5},{l.y - 5.8}l3.4,-3.7"
    />{/each}
  {#each [...drawing.labels, ...drawing.plates] as l (l)}{#if l.lead}<path
        class="lead"
        d="M{l.lead.from.x},{l.lead.from.y}L{l.lead.to.x},{l.lead.to.y}"
      />{/if}{/each}
  {#each drawing.marks as m, nth (nth)}
    {#if m.kind === 'dot'}<circle class="dot" cx={m.at.x} cy={m.at.y} r="2.2" />
    {:else if m.kind === 'missing'}<path
        class="tick"
        class:dim={m.spot.verdict !== 'agrees'}
        d="M{m.at.x},{m.at.y}v-9M{m.at.x - 3.5},{m.at.y}h7"
      />
    {:else if m.kind === 'cannot'}<path class="tick no" d="M{m.at.x},{m.at.y}v-5M{m.at.x - 2.5},{m.at.y}h5" />{/if}
  {/each}
  {#each marked as m, nth (nth)}{#if m.kind in kinds}<g transform="translate({m.at.x - 5.5},{m.at.y - 5.5})"
        ><Mark kind={kinds[m.kind as keyof typeof kinds]} size={11} /></g
      >{/if}{/each}
  {#each drawing.plates as p (p)}
    {@const held = p.held ? measure(p.held, 'slot') + 6 : 0}
    {@const lack = p.missing > 0 ? 19 + measure(String(p.missing), 'slot') : 0}
    <rect class="plate" x={p.box.x0 + 2} y={p.box.y0 + 1} width={p.box.x1 - p.box.x0 - 4} height="16" />
    <g transform="translate({p.box.x0 + 6},{p.box.y0 + 13})">
      {#if p.held}<text class="slot bare">{p.held}</text>{/if}
      {#if p.missing > 0}<path class="tick" d="M{held + 4},.5v-8M{held + 0.5},.5h7" /><text
          class="slot bare"
          x={held + 11}>{p.missing}</text
        >{/if}
      {#if p.cannot > 0}<path class="tick no" d="M{held + lack + 3},.5v-5M{held + lack + 0.5},.5h5" /><text
          class="slot bare no"
          x={held + lack + 10}>{p.cannot}</text
        >{/if}
    </g>
  {/each}
  {#each drawing.labels as l, i (l)}<text
      class="{l.face} {l.tone}"
      class:strong={l.strong}
      class:land={grounds[i]}
      x={l.x}
      y={l.y}>{l.text}</text
    >{/each}
  {#each drawing.rings as r, nth (nth)}{#if r.label}<text
        class="quiet far"
        class:mine={r.mine}
        x={r.label.x}
        y={r.label.y}>{r.label.text}</text
      >{/if}{/each}
  {#each drawing.places as p (p)}<circle class="place" cx={p.x} cy={p.y} r="1.6" />{/each}
  {#if placed}<g class="you"
      ><circle cx={drawing.you.x} cy={drawing.you.y} r="3.4" /><path
        d="M{drawing.you.x},{drawing.you.y - 7}v4M{drawing.you.x},{drawing.you.y + 3}v4M{drawing.you.x - 7},{drawing.you
          .y}h4M{drawing.you.x + 3},{drawing.you.y}h4"
      /></g
    >{/if}
  <rect class="edge" x=".5" y=".5" width={Math.max(0, view.width - 1)} height={Math.max(0, view.height - 1)} />
  <rect class="edge" x="4.5" y="4.5" width={Math.max(0, view.width - 9)} height={Math.max(0, view.height - 9)} />
  {#each drawing.blocks as b (`${String(b.x)} ${String(b.y)} ${String(b.width)}`)}<rect
      class="block"
      x={b.x}
      y={b.y}
      width={b.width}
      height={b.height}
    />{/each}
</svg>

<style>
  svg {
    display: block;
  }
  .ring {
    fill: none;
    stroke: var(--rule2);
    stroke-width: 0.8;
    stroke-dasharray: 1 3;
  }
  .ring.mine {
    stroke: var(--accent);
    stroke-width: 1.2;
    stroke-dasharray: 5 4;
  }
  .reach {
    fill: none;
    stroke: var(--ink);
    stroke-dasharray: 4 3;
  }
  .way {
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  .chosen {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
  .rays,
  .lead {
    stroke: var(--ink2);
    stroke-width: 0.9;
    fill: none;
  }
  .tick {
    stroke: var(--ink);
    stroke-width: 1.6;
    fill: none;
  }
  .tick.dim {
    stroke: var(--ink2);
    stroke-width: 1.3;
  }
  .tick.no {
    stroke: var(--ink3);
    stroke-width: 1.1;
  }
  .dot {
    fill: var(--ink);
    stroke: var(--buff);
  }
  .plate {
    fill: var(--sheet);
    stroke: var(--ink2);
    stroke-width: 0.9;
  }
  text {
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 2.6px;
    stroke-linejoin: round;
    fill: var(--ink2);
    font: var(--w-normal) 11.5px var(--text);
  }
  text.land {
    stroke: var(--buff);
  }
  text.slot {
    font: 600 12px var(--figs);
    fill: var(--ink);
  }
  text.bare {
    stroke: none;
  }
  text.no {
    fill: var(--ink3);
  }
  text.missing {
    font: var(--w-medium) 12.5px var(--text);
    fill: var(--ink);
  }
  text.missing.far {
    fill: var(--ink2);
    font-weight: var(--w-normal);
  }
  text.conflict {
    fill: var(--conflict);
  }
  text.stop {
    fill: var(--stop);
  }
  text.strong {
    font-weight: var(--w-strong);
  }
  text.water {
    font: italic 400 12px var(--text);
  }
  text.bearing {
    font: 400 11.5px var(--figs);
    fill: var(--ink3);
  }
  text.mine {
    fill: var(--accent);
    font-weight: var(--w-strong);
  }
  .place {
    fill: var(--ink2);
  }
  .you circle {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .you path {
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  .edge {
    fill: none;
    stroke: var(--bold);
  }
  .block {
    fill: var(--bold);
  }
</style>
