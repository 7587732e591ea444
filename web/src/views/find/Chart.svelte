<script lang="ts">
  import L from 'leaflet';
  import type { FoundRepeater, MapSpots } from '$lib/api/client';
  import { theme } from '$lib/theme.svelte';
  import { coastsOf, Numbered, ringsOf, visible, type Coast } from './chart';
  import { idText, type Box } from './find.svelte';

  interface Props {
    place: { lat: number; lon: number } | null;
    /** Kilometres that the map shows at first. */
    within: number;
    spots: MapSpots['spots'];
    selected: FoundRepeater | undefined;
    outlines: Record<string, unknown>[];
    /** Called when the map has come to rest, with what it shows. */
    moved: (box: Box, zoom: number) => void;
    choose: (id: string) => void;
  }
  let { place, within, spots, selected, outlines, moved, choose }: Props = $props();

  let map: L.Map | undefined;
  let coast: L.Renderer | undefined;
  const coasts = L.layerGroup();
  const rings = L.layerGroup();
  const marks = L.layerGroup();
  const hand = L.layerGroup();
  let land = $state.raw<Coast[]>([]);
  let shown = $state.raw<Box>([0, 0, 0, 0]);

  const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim();
  const rest = () => {
    if (!map) return;
    const b = map.getBounds();
    const round = (n: number) => Math.round(n * 1e4) / 1e4;
    shown = [
      Math.max(-90, round(b.getSouth())),
      Math.max(-180, round(b.getWest())),
      Math.min(90, round(b.getNorth())),
      Math.min(180, round(b.getEast())),
    ];
    moved(shown, map.getZoom());
  };

  /** Puts the map into its element; a place is shown with what is around it. */
  function chart(node: HTMLElement) {
    map = L.map(node, {
      attributionControl: false,
      zoomControl: false,
      preferCanvas: true,
      worldCopyJump: false,
      minZoom: 2,
      maxZoom: 13,
      zoomAnimation: false,
      fadeAnimation: false,
      maxBounds: [
        [-90, -180],
        [90, 180],
      ],
    });
    map.createPane('coast').style.zIndex = '350'; // under everything that is drawn on it
    coast = L.canvas({ pane: 'coast', padding: 0.4 });
    L.control.scale({ imperial: false, position: 'bottomleft' }).addTo(map);
    for (const layer of [coasts, rings, marks, hand]) layer.addTo(map);
    if (place) look(place);
    else map.setView([25, 0], 2); // nobody has said where they are
    map.on('moveend', rest);
    rest();
    void import('virtual:coasts').then((m) => (land = coastsOf(m.default)));
    return {
      destroy: () => {
        map?.remove();
        map = undefined;
      },
    };
  }

  /** Shows what is around a place. */
  export function look(at: { lat: number; lon: number }) {
    map?.fitBounds(L.latLng(at.lat, at.lon).toBounds(within * 2000));
  }

  const own = $derived(outlines.flatMap((o) => coastsOf(ringsOf(o))));
  $effect(() => {
    void theme.current;
    coasts.clearLayers();
    if (!map || !coast) return;
    const style: L.PolylineOptions = {
      color: colour('ink2'),
      weight: 0.8,
      fillColor: colour('paper'),
      fillOpacity: 1,
      interactive: false,
      pane: 'coast',
      renderer: coast,
    };
    const [south, west, north, east] = shown;
    const [dy, dx] = [(north - south) / 2, (east - west) / 2];
    const wide: Box = [south - dy, west - dx, north + dy, east + dx];
    for (const c of visible([...land, ...own], wide, (north - south) / 430)) L.polygon(c.points, style).addTo(coasts);
  });

  $effect(() => {
    void theme.current;
    rings.clearLayers();
    if (!place) return;
    const perPixel = ((shown[2] - shown[0]) * 111.1) / 430; // kilometres
    for (const km of [25, 50, 100]) {
      if (km / perPixel < 24) continue; // too small to be read
      L.circle([place.lat, place.lon], {
        radius: km * 1000,
        color: colour('rule2'),
        weight: 1,
        fill: false,
        interactive: false,
      }).addTo(rings);
      const label = L.divIcon({
        className: 'ring-label',
        html: `${String(km)} km`,
        iconSize: [48, 14],
        iconAnchor: [24, 7],
      });
      L.marker([place.lat + km / 111.1, place.lon], { icon: label, interactive: false, keyboard: false }).addTo(rings);
    }
    const you = L.divIcon({ className: 'you', html: '', iconSize: [14, 14], iconAnchor: [7, 7] });
    L.marker([place.lat, place.lon], { icon: you, interactive: false, keyboard: false }).addTo(rings);
  });

  $effect(() => {
    void theme.current;
    marks.clearLayers();
    const ink = colour('ink');
    const sheet = colour('sheet');
    for (const s of spots) {
      const one = s.number === 1;
      const mark = one
        ? L.circleMarker([s.lat, s.lon], { radius: 5, color: ink, weight: 1, fillColor: ink, fillOpacity: 1 })
        : new Numbered([s.lat, s.lon], {
            radius: 9 + Math.min(9, Math.log2(s.number)),
            color: ink,
            weight: 1.4,
            fillColor: sheet,
            fillOpacity: 1,
            number: String(s.number),
            ink,
          });
      mark.on('click', () => {
        if (one) choose(idText(s));
        else map?.setView([s.lat, s.lon], map.getZoom() + 2);
      });
      mark.addTo(marks);
    }
  });

  $effect(() => {
    void theme.current;
    hand.clearLayers();
    const { lat, lon } = selected?.best ?? {};
    if (!selected || typeof lat !== 'number' || typeof lon !== 'number' || !map) return;
    const accent = colour('accent');
    // How far it reaches is drawn only where its height is published.
    if (selected.horizon) {
      L.circle([lat, lon], {
        radius: selected.reach_km * 1000,
        color: accent,
        weight: 1.2,
        dashArray: '5 4',
        fill: false,
        interactive: false,
      }).addTo(hand);
    }
    if (place) {
      L.polyline([L.latLng(place.lat, place.lon), L.latLng(lat, lon)], {
        color: accent,
        weight: 1.2,
        interactive: false,
      }).addTo(hand);
    }
    L.circleMarker([lat, lon], { radius: 8, color: accent, weight: 2.4, fill: false, interactive: false }).addTo(hand);
    if (!map.getBounds().contains([lat, lon])) map.panTo([lat, lon], { animate: false });
  });
</script>

<div class="relative border border-bold">
  <div
    use:chart
    class="chart h-[430px] max-desk:h-[320px]"
    role="application"
    aria-label="Map of what is published; the list holds the same"
  ></div>
  <div class="absolute top-2 right-2 z-10 flex flex-col gap-1">
    {#each [{ label: '+', name: 'Closer', step: 1 }, { label: '−', name: 'Farther', step: -1 }] as z (z.name)}
      <button
        type="button"
        aria-label={z.name}
        class="size-7 rounded-[2px] border border-rule2 bg-sheet font-strong max-desk:size-11"
        onclick={() => map?.setZoom(map.getZoom() + z.step)}>{z.label}</button
      >
    {/each}
  </div>
</div>

<style>
  .chart {
    background: var(--water);
    z-index: 0;
    font: inherit;
  }
  .chart :global(.ring-label) {
    text-align: center;
    line-height: 14px;
    font-size: 11.5px;
    color: var(--ink2);
    white-space: nowrap;
  }
  .chart :global(.you) {
    background: var(--accent);
    border: 2px solid var(--sheet);
    transform-origin: center;
    clip-path: polygon(50% 0, 100% 100%, 50% 76%, 0 100%);
  }
  .chart :global(.leaflet-control-scale-line) {
    background: transparent;
    border-color: var(--ink2);
    color: var(--ink2);
    text-shadow: none;
    font-size: 11.5px;
  }
</style>
