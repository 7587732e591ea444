<script lang="ts">
  import { fieldValue } from '$lib/field.svelte';
  import type { BeaconState, Station } from './beacon.svelte';
  import { chart, gaps } from './draw';

  /** A track, driven at a fixed interval and by speed and turn. */
  interface Props {
    b: BeaconState;
    s: Station;
    drive: (text: string) => void;
    set: (set: Record<string, unknown>, says: string) => void;
  }
  let { b, s, drive, set }: Props = $props();
  let over = $state(false);
  const t = $derived(b.trip);
  const c = $derived(t ? chart(t, 358, 190) : undefined);
  const g = $derived(t ? gaps(t, 380, 96) : undefined);
  const take = async (files: FileList | null | undefined) => {
    const f = files?.[0];
    if (f) drive(await f.text());
  };
  const steps = [
    { id: 'fast_every', says: 'every', unit: 's' },
    { id: 'fast', says: 'from', unit: 'km/h on' },
    { id: 'slow_every', says: 'every', unit: 's' },
    { id: 'slow', says: 'below', unit: 'km/h' },
    { id: 'turn', says: 'and at turns of', unit: '°' },
    { id: 'slope', says: 'and', unit: '° a km/h' },
    { id: 'turn_after', says: 'but not within', unit: 's' },
  ];
  const hm = (x: number) => `${String(Math.floor(x / 3600))}:${String(Math.floor((x % 3600) / 60)).padStart(2, '0')}`;
  const bar = $derived(c ? (c.km > 120 ? 0.5 : c.km > 40 ? 1 : c.km > 8 ? 5 : 20) : 1);
</script>

<section
  class="trip"
  class:over
  aria-label="A track"
  ondragover={(e) => {
    e.preventDefault();
    over = true;
  }}
  ondragleave={() => (over = false)}
  ondrop={(e) => {
    e.preventDefault();
    over = false;
    void take(e.dataTransfer?.files);
  }}
>
  <div class="head">
    <h2>A track</h2>
    {#if t}<span class="quiet">{t.km.toFixed(1)} km in {hm(t.seconds)}</span>{/if}
    <label class="link"
      >drive a GPX file<input
        type="file"
        accept=".gpx,application/gpx+xml"
        class="sr-only"
        onchange={(e) => void take(e.currentTarget.files)}
      /></label
    >
    {#if !t}<button
        type="button"
        class="link"
        onclick={() =>
          void fetch('/walk.gpx').then(async (r) => {
            drive(await r.text());
          })}>or the walk of the demonstration</button
      >{/if}
  </div>
  <p class="steps">
    speed and turn:
    {#each steps as x (x.id)}<label
        >{x.says}
        <input
          {@attach fieldValue(() => s.steer[x.id] ?? 0)}
          inputmode="decimal"
          size="4"
          onchange={(e) => {
            const n = Number(e.currentTarget.value.replace(',', '.'));
            if (Number.isNaN(n)) e.currentTarget.value = String(s.steer[x.id] ?? 0);
            else set({ steer: { ...s.steer, [x.id]: n } }, 'the steps of speed and turn');
          }}
        />
        {x.unit}</label
      >{/each}
  </p>
  {#if b.driving}<p aria-busy="true" class="quiet">Driving it …</p>{/if}
  {#if t && c && g}
    <div class="two">
      <svg
        viewBox="0 0 358 190"
        role="img"
        aria-label="The track: {t.fixed.sent} beacons at a fixed interval, {t.steered
          .sent} by speed and turn; the worst gap is {t.steered.worst_m.toFixed(0)} metres"
      >
        <rect class="map" x=".5" y=".5" width="357" height="189" />
        <path class="way" d={c.path} /><path class="fixed" d={c.fixed} /><path class="steered" d={c.steered} />
        <path class="worst" d="M{c.worst.x - 4},{c.worst.y - 4}l8,8m0,-8l-8,8" />
        <circle cx={c.start.x} cy={c.start.y} r="3" /><path class="goal" d="M{c.end.x - 4},{c.end.y + 4}h8l-4,-8Z" />
        <path class="bar" d="M14,178v4h{bar * c.km}v-4" /><text x={18 + bar * c.km} y="182"
          >{bar < 1 ? `${String(bar * 1000)} m` : `${String(bar)} km`}</text
        >
      </svg>
      <div>
        <div class="row heads">
          <span>from the last known place</span><span>sent</span><span>on the air</span><span>mean</span><span
            >worst</span
          >
        </div>
        {#each [{ says: `every ${String(t.every)} s`, d: t.fixed }, { says: 'speed and turn', d: t.steered }] as x (x.says)}
          <div class="row">
            <span>{x.says}</span><span>{x.d.sent}</span><span>{x.d.on_air_s.toFixed(0)} s</span><span
              >{x.d.mean_m.toFixed(0)} m</span
            ><span>{x.d.worst_m.toFixed(0)} m</span>
          </div>
        {/each}
        <svg viewBox="-34 -6 420 122" class="gaps" aria-hidden="true">
          <path class="fixedline" d={g.fixed} /><path class="steeredline" d={g.steered} /><path
            class="axis"
            d="M0,0V96H380"
          />
          <text x="-4" y="4" text-anchor="end">{g.most}</text><text x="-4" y="100" text-anchor="end">0</text>
          <text x="0" y="112">0:00</text><text x="380" y="112" text-anchor="end">{hm(t.seconds)}</text>
        </svg>
      </div>
    </div>
  {:else}<p class="quiet">
      Drop a GPX file here to see where beacons would go out, and how far you are from the last known place.
    </p>{/if}
  {#if b.trouble}<p role="alert" class="text-stop">{b.trouble}</p>{/if}
</section>

<style>
  .trip {
    border-top: 2px solid var(--bold);
    margin-top: 10px;
    padding-top: 8px;
  }
  .over {
    background: var(--water);
  }
  .head {
    display: flex;
    flex-wrap: wrap;
    gap: 14px;
    align-items: baseline;
    padding-left: 40px;
  }
  h2 {
    font-weight: var(--w-strong);
  }
  .quiet,
  .steps {
    color: var(--ink2);
    font-size: 13px;
  }
  .steps {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 10px;
    padding: 2px 0 6px 40px;
  }
  .steps input {
    width: 44px;
    border: 0;
    border-bottom: 1px solid var(--ink2);
    background: transparent;
    font: var(--w-normal) 13px var(--figs);
    color: var(--ink);
    text-align: center;
  }
  .trip > .quiet {
    padding-left: 40px;
  }
  .head label {
    cursor: pointer;
    position: relative;
  }
  .head label:focus-within {
    outline: 2px solid var(--accent);
  }
  .head input {
    left: 0;
    width: 1px;
    height: 1px;
  }
  .two {
    display: grid;
    grid-template-columns: 358px minmax(0, 1fr);
    gap: 24px;
  }
  svg {
    display: block;
    width: 100%;
    overflow: visible;
  }
  .map {
    fill: var(--sheet);
    stroke: var(--bold);
    stroke-dasharray: 10 10;
    stroke-width: 2;
  }
  .way {
    fill: none;
    stroke: var(--ink2);
  }
  .fixed {
    stroke: var(--ink3);
    fill: none;
  }
  .steered {
    stroke: var(--ink);
    stroke-width: 1.8;
    fill: none;
  }
  .worst {
    stroke: var(--conflict);
    stroke-width: 2;
  }
  .goal {
    fill: var(--ink);
  }
  .bar {
    fill: none;
    stroke: var(--ink2);
  }
  text {
    font: var(--w-normal) 11.5px var(--figs);
    fill: var(--ink2);
  }
  .row {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 50px 80px 60px 60px;
    text-align: right;
    border-bottom: 1px solid var(--rule);
    font-size: 13px;
    min-height: 22px;
  }
  .row span:first-child {
    text-align: left;
  }
  .heads {
    color: var(--ink2);
    font-size: var(--t-label);
    border-bottom: 1px solid var(--bold);
  }
  .gaps {
    margin-top: 8px;
  }
  .fixedline {
    fill: none;
    stroke: var(--ink3);
  }
  .steeredline {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.3;
  }
  .axis {
    fill: none;
    stroke: var(--rule2);
  }
  @media (max-width: 45em) {
    .two {
      grid-template-columns: 1fr;
    }
    .head,
    .steps,
    .trip > .quiet {
      padding-left: 0;
    }
    .steps input,
    .head .link {
      min-height: 44px;
    }
  }
</style>
