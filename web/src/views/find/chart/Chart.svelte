<script lang="ts">
  import { untrack } from 'svelte';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { api, must, type StatementID } from '$lib/api/client';
  import { narrow } from '$lib/screen.svelte';
  import { theme } from '$lib/theme.svelte';
  import { coastsOf, namesOf, ringsOf, shore, type Coast } from './coast';
  import Drawn from './Drawn.svelte';
  import Legend from './Legend.svelte';
  import { layOut, type Face, type Mark as Placed } from './layout';
  import { nextScale, planeAround, scaleFor, windowOf, type Place, type Point } from './plane';

  interface Props {
    line: string;
    load: number;
    /** Where one looks from; true directions start there. */
    from: Place;
    /** Whether that is a place that somebody named, or only the middle of what is published. */
    placed: boolean;
    /** What that place is called, where it is not one's own. */
    named: string;
    /** Places that somebody named. */
    marks: readonly { name: string; lat: number; lon: number }[];
    within: number;
    selected: { id: string; reach: number; km: number; degrees: number } | undefined;
    radio: string;
    choose: (id: StatementID) => void;
  }
  let { line, load, from, placed, named, marks, within, selected, radio, choose }: Props = $props();

  let width = $state(492);
  let height = $state(346);
  let at = $state<Point>({ x: 0, y: 0 });
  let scale = $state(0);
  let canvas = $state<HTMLCanvasElement>();
  let land = $state.raw<readonly Coast[]>([]);
  const view = $derived({ at, scale: scale || scaleFor(placed ? within || 60 : 600, width, height), width, height });

  // Another place to look from: the chart goes there.
  $effect(() => {
    if (from.lat + from.lon > -1e9) at = { x: 0, y: 0 };
  });
  // Who names a distance wants to see it.
  $effect(() => {
    if (within > 0) scale = scaleFor(within * 1.05, width, height);
  });
  void import('virtual:coasts').then((m) => (land = coastsOf(m.default)));

  const outlines = createQuery(() => ({
    queryKey: ['outlines'],
    queryFn: async () => must(await api.GET('/api/outlines')).outlines,
    staleTime: Infinity,
  }));
  const own = $derived((outlines.data ?? []).flatMap((o) => coastsOf(ringsOf(o))));
  const names = $derived((outlines.data ?? []).flatMap((o) => namesOf(o)));
  const plane = $derived(planeAround(from));

  // The window settles before anything is asked; what is known moves with it at once.
  let asked = $state<{ west: number; south: number; east: number; north: number; cell: number }>();
  $effect(() => {
    const w = windowOf(view);
    const next = {
      west: Math.max(-20_100, w.west),
      south: Math.max(-20_100, w.south),
      east: Math.min(20_100, w.east),
      north: Math.min(20_100, w.north),
      cell: 12 / view.scale,
    };
    const timer = window.setTimeout(() => (asked = next), untrack(() => asked) ? 120 : 0);
    return () => {
      window.clearTimeout(timer);
    };
  });
  const spots = createQuery(() => ({
    queryKey: ['find', 'chart', line, load, from, asked],
    queryFn: async () =>
      must(
        await api.GET('/api/find/chart', {
          params: { query: { line, load, ...(asked ?? { west: 0, south: 0, east: 0, north: 0, cell: 1 }) } },
        }),
      ),
    enabled: asked !== undefined,
    placeholderData: keepPreviousData,
  }));

  const faces: Record<Face, string> = {
    slot: "600 12px 'Atkinson Hyperlegible Mono Variable'",
    missing: "680 12.5px 'Atkinson Hyperlegible Next Variable'",
    quiet: "400 11.5px 'Atkinson Hyperlegible Next Variable'",
    water: "italic 400 12px 'Atkinson Hyperlegible Next Variable'",
    bearing: "400 11.5px 'Atkinson Hyperlegible Mono Variable'",
  };
  const pen = document.createElement('canvas').getContext('2d');
  const widths: Record<string, number> = {};
  const measure = (text: string, face: Face) => {
    const key = face + text;
    const known = widths[key];
    if (known !== undefined) return known;
    if (pen) pen.font = faces[face];
    return (widths[key] = pen?.measureText(text).width ?? text.length * 7);
  };

  const cartouche = $derived(
    own.length > 0 && near(own) ? (outlines.data?.[0]?.name as string | undefined) : undefined,
  );
  /** Whether the own coast is in the window. */
  function near(coasts: readonly Coast[]): boolean {
    return shore(coasts, from, view).length > 0;
  }
  const title = $derived(cartouche ?? (named ? `Around ${named}` : placed ? 'Around you' : 'All that is published'));
  const under = $derived(
    cartouche ? ((outlines.data?.[0]?.description as string | undefined) ?? '') : 'coarse coast, 1 : 50 million',
  );
  const drawing = $derived(
    layOut({
      view,
      spots: spots.data?.spots ?? [],
      within,
      selected: selected?.id,
      names: [...names, ...marks.map((m) => ({ ...m, kind: 'mark' as const }))].map((n) => ({
        ...plane(n.lat, n.lon),
        kind: n.kind,
        name: n.name,
      })),
      keep: [
        { x0: 8, y0: 8, x1: 18 + Math.max(measure(title, 'missing'), measure(under, 'quiet')), y1: 44 },
        { x0: 8, y0: height - 26, x1: 160, y1: height },
        { x0: width - (narrow.is ? 150 : 102), y0: height - (narrow.is ? 62 : 46), x1: width, y1: height },
      ],
      measure,
    }),
  );
  const rings = $derived(shore([...land, ...own], from, view));
  $effect(() => {
    void theme.current;
    const ctx = canvas?.getContext('2d');
    if (!canvas || !ctx) return;
    const ratio = window.devicePixelRatio || 1;
    canvas.width = Math.round(width * ratio);
    canvas.height = Math.round(height * ratio);
    const style = getComputedStyle(document.documentElement);
    ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
    ctx.fillStyle = style.getPropertyValue('--sheet');
    ctx.fillRect(0, 0, width, height);
    ctx.beginPath();
    for (const ring of rings) {
      ring.forEach((p, i) => {
        if (i === 0) ctx.moveTo(p.x, p.y);
        else ctx.lineTo(p.x, p.y);
      });
      ctx.closePath();
    }
    ctx.fillStyle = style.getPropertyValue('--buff');
    ctx.fill('evenodd');
    ctx.strokeStyle = style.getPropertyValue('--ink2');
    ctx.lineWidth = 0.9;
    ctx.lineJoin = 'round';
    ctx.stroke();
  });

  function zoom(way: 1 | -1, about: Point = { x: width / 2, y: height / 2 }) {
    const before = view.scale;
    const next = nextScale(before, way);
    // What is under the pointer stays there.
    const [dx, dy] = [about.x - width / 2, height / 2 - about.y];
    at = { x: at.x + dx / before - dx / next, y: at.y + dy / before - dy / next };
    scale = next;
  }
  const pan = (dx: number, dy: number) => (at = { x: at.x + dx / view.scale, y: at.y + dy / view.scale });
  function home() {
    at = { x: 0, y: 0 };
    scale = 0;
  }
  function key(e: KeyboardEvent) {
    const quarter = { x: width / 4, y: height / 4 };
    const acts: Record<string, () => void> = {
      ArrowLeft: () => pan(-quarter.x, 0),
      ArrowRight: () => pan(quarter.x, 0),
      ArrowUp: () => pan(0, quarter.y),
      ArrowDown: () => pan(0, -quarter.y),
      '+': () => {
        zoom(1);
      },
      '-': () => {
        zoom(-1);
      },
      Home: home,
    };
    const act = acts[e.key];
    if (!act || e.ctrlKey || e.metaKey || e.altKey) return;
    e.preventDefault();
    e.stopPropagation();
    act();
  }

  /** The fingers or the pointer on the chart. */
  const held: Record<number, Point> = {};
  let moved = false;
  function down(e: PointerEvent) {
    held[e.pointerId] = { x: e.clientX, y: e.clientY };
    moved = false;
  }
  function drag(e: PointerEvent) {
    const last = held[e.pointerId];
    if (!last) return;
    const now = { x: e.clientX, y: e.clientY };
    const others = Object.entries(held).filter(([id]) => Number(id) !== e.pointerId);
    const other = others[0]?.[1];
    if (other) {
      const [was, is] = [Math.hypot(last.x - other.x, last.y - other.y), Math.hypot(now.x - other.x, now.y - other.y)];
      if (Math.abs(is - was) < 24) return; // a step of zooming takes so much of a pinch
      zoom(is > was ? 1 : -1);
      moved = true;
    } else {
      if (!moved && Math.hypot(now.x - last.x, now.y - last.y) < 4) return;
      if (!moved) (e.currentTarget as Element).setPointerCapture(e.pointerId);
      moved = true;
      pan(last.x - now.x, now.y - last.y);
    }
    held[e.pointerId] = now;
  }
  const up = (e: PointerEvent) => delete held[e.pointerId]; // eslint-disable-line @typescript-eslint/no-dynamic-delete

  const inside = (e: MouseEvent): Point => {
    const box = (e.currentTarget as Element).getBoundingClientRect();
    return { x: ((e.clientX - box.left) * width) / box.width, y: ((e.clientY - box.top) * height) / box.height };
  };
  /** What is under the pointer: the nearest mark, or a plate. */
  function click(e: MouseEvent) {
    if (moved) return;
    const p = inside(e);
    const plate = drawing.plates.find(
      (x) => p.x >= x.box.x0 - 2 && p.x <= x.box.x1 + 2 && p.y >= x.box.y0 - 2 && p.y <= x.box.y1 + 2,
    );
    if (plate) {
      open(plate.at);
      return;
    }
    let best: Placed | undefined;
    let least = 22;
    for (const m of drawing.marks) {
      const d = Math.hypot(m.at.x - p.x, m.at.y - p.y);
      if (d < least) [best, least] = [m, d];
    }
    const label = drawing.labels.find(
      (l) => l.face !== 'bearing' && p.x >= l.box.x0 && p.x <= l.box.x1 && p.y >= l.box.y0 && p.y <= l.box.y1,
    );
    if (label && !best)
      best = drawing.marks.find((m) => m.spot.title === label.text || String(m.spot.held[0]) === label.text);
    if (!best) return;
    if (best.kind === 'dot') open(best.at);
    else choose(best.spot.id);
  }
  /** Goes closer to what is drawn as one. */
  function open(p: Point) {
    zoom(1, p);
    zoom(1, p);
  }
</script>

<div class="chart" bind:clientWidth={width} bind:clientHeight={height}>
  <canvas bind:this={canvas} aria-hidden="true"></canvas>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
  <div
    role="application"
    tabindex="0"
    aria-label="Chart of what the line finds, {spots.data?.number ??
      0} in the window; the list says the same. Arrows move it, plus and minus go closer and farther, Home goes back to you."
    class="hand"
    onkeydown={key}
    onpointerdown={down}
    onpointermove={drag}
    onpointerup={up}
    onpointercancel={up}
    onclick={click}
    onwheel={(e) => {
      if (!e.ctrlKey && document.activeElement !== e.currentTarget) return;
      e.preventDefault();
      zoom(e.deltaY < 0 ? 1 : -1, inside(e));
    }}
  >
    <Drawn
      {drawing}
      {view}
      {rings}
      lights={names.filter((n) => n.kind === 'light').map((n) => ({ ...plane(n.lat, n.lon), name: n.name }))}
      {selected}
      {placed}
      {measure}
    />
  </div>
  {#if drawing.unnamed > 0}<p class="unnamed">{drawing.unnamed} without room for a name</p>{/if}
  <p class="cart"><b>{title}</b><span>{under}</span></p>
  <p class="zoom">
    {#each [{ label: '⌂', name: 'Back to you', act: home }, { label: '+', name: 'Closer', act: () => {
          zoom(1);
        } }, { label: '−', name: 'Farther', act: () => {
          zoom(-1);
        } }] as b (b.name)}
      <button type="button" aria-label={b.name} onclick={b.act}>{b.label}</button>
    {/each}
  </p>
</div>
<Legend {radio} {placed} />

<style>
  .chart {
    position: relative;
    height: 346px;
    overflow: hidden;
    background: var(--sheet);
  }
  canvas {
    position: absolute;
    width: 100%;
    height: 100%;
  }
  .hand {
    position: absolute;
    inset: 0;
    touch-action: pan-y;
    user-select: none;
    cursor: default;
  }
  .hand:focus-visible {
    outline-offset: -2px;
    z-index: 1;
  }
  .cart {
    position: absolute;
    left: 9px;
    top: 9px;
    padding: 1px 5px 2px;
    line-height: 1.25;
    background: var(--sheet);
    pointer-events: none;
  }
  .cart b {
    display: block;
    font-weight: var(--w-strong);
  }
  .cart span {
    font-size: var(--t-note);
    color: var(--ink2);
  }
  .unnamed {
    position: absolute;
    left: 9px;
    bottom: 9px;
    padding: 0 5px;
    font-size: var(--t-note);
    line-height: 15px;
    color: var(--ink2);
    background: var(--sheet);
    pointer-events: none;
  }
  .zoom {
    position: absolute;
    right: 11px;
    bottom: 11px;
    display: flex;
    z-index: 2;
  }
  .zoom button {
    width: 28px;
    height: 28px;
    border: var(--line);
    background: var(--sheet);
    font: var(--w-strong) 15px/1 var(--figs);
  }
  .zoom button + button {
    border-left: 0;
  }
  @media (max-width: 45em) {
    .chart {
      height: 270px;
      margin: 0 calc(-1 * var(--margin));
    }
    .zoom button {
      width: 44px;
      height: 44px;
    }
  }
</style>
