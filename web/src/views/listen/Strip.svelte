<script lang="ts">
  import { draw, type Half, type Placed } from './strip';

  /** The receiver's way through half a minute, over the rows of the channels. What is heard is solid, what is missed hollow. */
  interface Props {
    half: Half;
    rows: readonly Placed[];
    width: number;
    selected: number;
    phone: boolean;
  }
  let { half, rows, width, selected, phone }: Props = $props();
  const d = $derived(draw(half, rows, width, selected));
  const bottom = $derived((rows.at(-1)?.y ?? 0) + 12);
  const x = (t: number) => (Math.max(0, Math.min(half.seconds, t)) / half.seconds) * width;
  const ticks = $derived(Array.from({ length: half.seconds / (phone ? 10 : 5) + 1 }, (_, i) => i * (phone ? 10 : 5)));
  const chosen = $derived(rows.find((r) => r.slot === selected)?.y ?? 0);
  const wide = (says: string) => says.length * 5.9 + 14;
</script>

<svg class="strip" {width} height={bottom + 22} aria-hidden="true">
  {#each rows as r (r.slot)}<path class="staff" d="M0,{r.y}H{width}" />{/each}
  {#each ticks.slice(1, -1) as t (t)}<path class="staff" d="M{x(t)},2V{bottom}" />{/each}
  {#each d.overs as o, i (i)}<rect
      class="over"
      class:mine={o.slot === selected}
      x={o.x + 0.5}
      y={o.y - 4.5}
      width={Math.max(1, o.w - 1)}
      height="9"
    />{/each}
  {#each d.heard as o, i (i)}<rect class="heard" x={o.x} y={o.y - 5} width={o.w} height="10" />{/each}
  <path class="flight" d={d.flights} />
  <path class="way" d={d.way} />
  {#each d.holds as h, i (i)}<path class="hold" d="M{h.x},{h.y}h{h.w}" />{/each}
  {#each d.looks as l, i (i)}<circle class="heard" cx={l.x} cy={l.y} r="1.8" />{/each}
  {#each d.away as a, i (i)}
    {@const [from, to] = [x(a.from), x(a.to)]}
    {#if to - from > wide(a.says)}
      {@const half = (a.says.length * 5.9) / 2 + 5}
      <path class="away" d="M{from},-9H{(from + to) / 2 - half}M{(from + to) / 2 + half},-9H{to}" />
      <text x={(from + to) / 2} y="-5" text-anchor="middle">{a.says}</text>
    {:else}<path class="away" d="M{from},-9H{to}" />{/if}
    {#if a.from >= 0}<path class="away" d="M{from + 0.5},-13v8" /><path
        class="cut"
        d="M{from + 0.5},-4V{chosen - 6}"
      />{/if}
    {#if a.to <= half.seconds}<path class="away" d="M{to - 0.5},-13v8" /><path
        class="cut"
        d="M{to - 0.5},-4V{chosen - 6}"
      />{/if}
  {/each}
  <rect class="scale" x=".5" y={bottom + 1} width={width - 1} height="4" />
  {#each Array.from({ length: half.seconds / 2 }, (_, i) => i) as i (i)}<rect
      class="heard"
      x={x(2 * i)}
      y={bottom + 1}
      width={x(1)}
      height="4"
    />{/each}
  {#each ticks as t (t)}<text
      class="m"
      x={x(t)}
      y={bottom + 17}
      text-anchor={t === 0 ? 'start' : t === half.seconds ? 'end' : 'middle'}>{t}{t === half.seconds ? ' s' : ''}</text
    >{/each}
</svg>

<style>
  .strip {
    position: absolute;
    top: 0;
    left: 244px;
    overflow: visible;
    pointer-events: none;
  }
  .staff {
    stroke: var(--rule);
  }
  .over {
    fill: var(--paper);
    stroke: var(--ink2);
    stroke-width: 1.1;
  }
  .mine {
    fill: var(--sheet);
  }
  .heard {
    fill: var(--ink);
  }
  .way {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.15;
  }
  .hold {
    stroke: var(--ink);
    stroke-width: 2;
  }
  .flight,
  .cut {
    fill: none;
    stroke: var(--rule2);
    stroke-dasharray: 1 3;
  }
  .away {
    fill: none;
    stroke: var(--ink2);
  }
  .scale {
    fill: none;
    stroke: var(--bold);
  }
  text {
    font: var(--w-normal) 11.5px var(--text);
    fill: var(--ink2);
  }
  .m {
    font-family: var(--figs);
  }
  @media (max-width: 45em) {
    .strip {
      left: 82px;
    }
  }
</style>
