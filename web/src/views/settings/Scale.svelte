<script lang="ts" module>
  import type { Follows } from '$lib/api/client';

  export type Row = 'published' | 'licence' | 'radio' | 'left';

  /** The widths of the bands, the same in every row: those with more repeaters are wider. */
  export function gridOf(f: Follows): string {
    return f.bands.map((b) => `minmax(62px, ${String(60 + Math.min(26, b.near) * 8)}fr)`).join(' ');
  }
</script>

<script lang="ts">
  /** One row of the scale of bands that runs through all answers. */
  interface Props {
    follows: Follows;
    row: Row;
    talks: (band: string) => boolean;
    toggle: (band: string) => void;
  }
  let { follows: f, row, talks, toggle }: Props = $props();
  type Band = Follows['bands'][number];
  const at = (b: Band, hz: number) => `${String((100 * (hz - b.lower_hz)) / (b.upper_hz - b.lower_hz))}%`;
  const edge = (hz: number) => String(hz / 1e6);
  const radio = (b: Band) => (b.receives ? (b.transmits ? 'receives, transmits' : 'receives only') : 'nothing');
  const left = (b: Band) => {
    if (b.near === 0) return '–';
    const parts = [
      b.talk > 0 ? `${String(b.talk)} to talk through` : '',
      b.ask > 0 ? `${String(b.ask)} to ask about` : '',
      b.out > 0 ? `${String(b.out)} out` : '',
    ];
    return parts.filter(Boolean).join(', ');
  };
</script>

<ul class="scale" style:grid-template-columns={gridOf(f)} aria-label="Bands: {row}">
  {#each f.bands as b (b.name)}
    <li class="band">
      {#if row === 'published' || row === 'left'}
        {#if row === 'published'}<span class="words"
            ><strong>{b.name}</strong> {b.near > 0 ? `${String(b.near)} near` : 'none near'}</span
          >{/if}
        <svg class="ticks" height="20" width="100%" aria-hidden="true">
          {#each b.outputs_hz as hz, i (i)}<line x1={at(b, hz)} x2={at(b, hz)} y1="0" y2="15" />{/each}
          <rect x="0" y="15.5" width="100%" height="4" />
          <line class="block" x1="0" x2="100%" y1="17.5" y2="17.5" />
        </svg>
        {#if row === 'published'}<span class="edges"
            ><span>{edge(b.lower_hz)}</span><span>{edge(b.upper_hz)}</span></span
          >
        {:else}<span class="words">{left(b)}</span>{/if}
      {:else if row === 'licence'}
        {@const on = talks(b.name)}
        <button
          type="button"
          class="words"
          aria-pressed={on}
          onclick={() => {
            toggle(b.name);
          }}
        >
          <b class:off={!on}>{b.name}</b><span class="bar" class:on></span>{on ? 'talk and listen' : 'listen'}
        </button>
      {:else}
        <span class="pair"
          ><span class="hair" class:on={b.receives}></span><span class="ink" class:on={b.transmits}></span></span
        >
        <span class="words">{radio(b)}</span>
      {/if}
    </li>
  {/each}
</ul>

<style>
  .scale {
    display: grid;
    gap: 8px 10px;
  }
  .band {
    min-width: 0;
  }
  .words {
    display: block;
    font-size: var(--t-label);
    color: var(--ink2);
    overflow-wrap: anywhere;
  }
  .ticks {
    display: block;
  }
  .ticks line {
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  .ticks rect {
    fill: none;
    stroke: var(--bold);
  }
  .ticks .block {
    stroke: var(--bold);
    stroke-width: 4;
    stroke-dasharray: 14 14;
  }
  .edges {
    display: flex;
    justify-content: space-between;
    font: var(--w-normal) var(--t-note) var(--figs);
    color: var(--ink3);
  }
  button {
    width: 100%;
    min-height: 44px;
    text-align: left;
  }
  button:hover {
    background: var(--hover);
  }
  b {
    display: block;
    font-weight: var(--w-strong);
    font-size: var(--t-body);
    color: var(--ink);
  }
  strong {
    display: block;
    font-weight: var(--w-strong);
    color: var(--ink);
  }
  .off {
    font-weight: var(--w-normal);
    color: var(--ink3);
    text-decoration: line-through;
  }
  .bar {
    display: block;
    height: 4px;
    margin: 3px 0;
    border-top: 2px dotted var(--rule2);
  }
  .bar.on {
    border-top: 4px solid var(--ink);
  }
  .pair {
    display: block;
    height: 14px;
    padding-top: 3px;
  }
  .hair,
  .ink {
    display: block;
    border-top: 1px dotted var(--rule2);
    margin-bottom: 4px;
  }
  .hair.on {
    border-top: 1px solid var(--ink);
  }
  .ink.on {
    border-top: 4px solid var(--ink);
  }
  @media (max-width: 45em) {
    .scale {
      grid-template-columns: repeat(auto-fill, minmax(96px, 1fr)) !important;
    }
  }
</style>
