<script lang="ts">
  import { figures, toneText } from '$lib/format';
  import { blade, keyway } from '$lib/keyshape';
  import { wide, type Ground } from './draw';
  import type { Report } from './relay.svelte';

  /** The chain: from one end through the vehicle to the other, and back. */
  interface Props {
    r: Report;
    g: Ground;
    vehicle: string;
    bands: string[];
    watts: [number, number];
    foot: number;
  }
  let { r, g, vehicle, bands, watts, foot }: Props = $props();
  const m = $derived((g.a + g.b) / 2);
  const mid = $derived((g.out + g.back) / 2);
  const base = $derived(g.back + 44);
  const loops = $derived(r.loop?.does ?? false);
  type Leg = Report['legs'][number];
  /** Where each leg begins and ends: A's end to A, B to B's end, and back. */
  const drawn = $derived(
    (
      [
        [g.left, g.a, g.out],
        [g.b, g.right, g.out],
        [g.right, g.b, g.back],
        [g.a, g.left, g.back],
      ] as const
    ).flatMap(([from, to, y], i) => {
      const l = r.legs[i];
      return l ? [{ l, from, to, y, dir: Math.sign(to - from), len: Math.abs(to - from) }] : [];
    }),
  );
  const short = (l: Leg) =>
    l.dead
      ? 'silent'
      : { yes: 'passes', no: l.leg.elsewhere ? 'elsewhere' : 'stays shut', unknown: 'unknown' }[l.leg.passes];
  const says = (l: Leg) => (l.dead && l.leg.passes !== 'no' ? 'It fits, but nothing comes' : l.leg.says);
  const kind = (l: Leg) => (l.leg.passes === 'no' ? 'no' : l.leg.passes === 'unknown' ? 'unknown' : 'yes');
</script>

{#snippet mark(x: number, y: number, k: string)}
  {#if k === 'yes'}<circle class="m" cx={x + 5.5} cy={y + 5.5} r="4.2" />
  {:else if k === 'unknown'}<circle class="m open" cx={x + 5.5} cy={y + 5.5} r="3.7" />
  {:else if k === 'no'}<path class="m co" d="M{x + 5.5},{y}l5.5,5.5l-5.5,5.5l-5.5,-5.5Z" />
  {:else}<rect class="m st" {x} {y} width="10" height="10" />{/if}
{/snippet}

{#snippet verdict(x: number, y: number, k: string, text: string)}
  {@const w = wide(text) + 17}
  {@render mark(x - w / 2, y - 10, k)}
  <text class="sv" class:co={k === 'no'} class:cs={k === 'stop'} class:q2={k === 'unknown'} x={x - w / 2 + 17} {y}
    >{text}</text
  >
{/snippet}

{#snippet figure(hz: number, dx = 0)}
  {@const f = figures(hz)}
  <tspan class="sf b" {dx}>{f.mhz}</tspan><tspan class="sf" dx="-2">.</tspan><tspan class="sf" dx="-2">{f.khz}</tspan
  >{#if f.rest}<tspan class="sf fine" dx="1">{f.rest}</tspan>{/if}
{/snippet}

<rect class="box" x={g.a} y={g.out - 44} width={g.b - g.a} height={base - g.out + 44} />
{#each [g.left, g.a, g.b, g.right] as x (x)}<path
    class="post"
    d="M{x},{x === g.left || x === g.right ? g.back : base}V{foot}"
  />{/each}
{#each [g.left, g.right] as x (x)}<path class="wall" class:loop={loops} d="M{x},{g.out}V{g.back}" />{/each}
<path class="wall" d="M{g.a},{g.out - 44}H{g.b}V{base}H{g.a}Z" />
<path class="half" d="M{m},{g.out + 16}V{g.back - 16}" />

{#each drawn as { l, from, to, y, dir, len }, i (i)}
  {@const k = l.leg.key}
  {@const locked = l.leg.lock === 'tone' || l.leg.lock === 'unknown'}
  {@const bad = l.leg.passes === 'no'}
  {@const arrow = -len + (len - (locked ? (bad ? 122 : 72) : k ? 72 : 0)) / 2}
  <g transform="translate({to},{y}) scale({dir},1)" class:idle={l.dead}>
    <path
      class="ax"
      class:dead={l.dead}
      class:loop={l.loop && loops}
      d="M{-len},0H{k && !bad ? -66 : locked ? (bad && k ? -128 : -54) : 0}"
    />
    {#if !k && !locked}{:else if !bad}<path class="ax" class:dead={l.dead} class:loop={l.loop && loops} d="M-6,0H0" />
      {#if !locked}<path class="ax" class:dead={l.dead} class:loop={l.loop && loops} d="M-12,0H0" />{/if}
    {:else}<path class="ax dead" d="M{k ? -62 : -80},0H-54M-6,0H0" />{/if}
    {#if len > 120}<path
        class="ah"
        class:dead={l.dead}
        class:loop={l.loop && loops}
        d="M{arrow - 4},-4.5l9,4.5l-9,4.5Z"
      />{/if}
    {#if locked}
      <g transform="translate(-54,0)" class="lock" class:bad>
        <rect x="0" y="-13" width="48" height="29" class:unknown={l.leg.lock === 'unknown'} />
        {#if l.leg.wants}<path class="way" d={keyway(l.leg.wants.index)} />{/if}
      </g>
    {/if}
    {#if k}
      <g transform="translate({bad ? -128 : -72},0)" class="key">
        <path d="M8,-8.5a8,8 0 1,0 .01,0ZM8,-4.2a3.6,3.6 0 1,1 -.01,0Z" fill-rule="evenodd" />
        {#if !g.phone || !bad}<path d={blade(k.index)} />{/if}
      </g>
    {/if}
    {#if bad}<path class="m co" d="M{k ? -60 : -72},-7l7,7l-7,7l-7,-7Z" />{/if}
  </g>
  {#if l.leg.lock === 'unknown'}<text class="st" x={to - dir * 30} y={y + 5} text-anchor="middle">?</text>{/if}
  {#if g.phone}
    <text class="sl" x={(from + to) / 2} y={y - 45} text-anchor="middle">{l.gloss.replace('transmits', 'sends')}</text>
    <text x={(from + to) / 2} y={y - 23} text-anchor="middle">{@render figure(l.leg.hz)}</text>
  {:else}
    <text x={(from + to) / 2} y={y - 24} text-anchor="middle"
      ><tspan class="sl">{l.gloss}</tspan>{@render figure(l.leg.hz, 6)}</text
    >
  {/if}
  {#if l.leg.lock === 'tone' && l.leg.wants}
    {@const gap = bad && k ? ` ${toneText(k.text)} to ` : ''}
    <text class="sl" class:co={bad} x={to - dir * 8} y={y + 32} text-anchor={dir > 0 ? 'end' : 'start'}
      >{g.phone ? '' : bad ? (k ? gap : 'no tone to ') : `${l.locks} `}<tspan class="st"
        >{toneText(l.leg.wants.text)}</tspan
      ></text
    >
  {:else if k}
    <text class="sl" x={to - dir * 8} y={y + 32} text-anchor={dir > 0 ? 'end' : 'start'}
      >{g.phone ? '' : l.leg.lock === 'unknown' ? 'its lock is unknown ' : `${l.locks.split(',')[0] ?? ''} `}<tspan
        class="st">{toneText(k.text)}</tspan
      ></text
    >
  {/if}
  {@render verdict((from + to) / 2, y + 51, kind(l), g.phone ? short(l) : says(l))}
{/each}
<path class="ax" class:loop={loops} class:dead={r.legs[1]?.dead} d="M{g.a},{g.out}H{g.b}" />
<path class="ah" class:loop={loops} class:dead={r.legs[1]?.dead} d="M{m - 4},{g.out - 4.5}l9,4.5l-9,4.5Z" />
<path class="ax" class:loop={loops} class:dead={r.legs[3]?.dead} d="M{g.a},{g.back}H{g.b}" />
<path class="ah" class:loop={loops} class:dead={r.legs[3]?.dead} d="M{m + 4},{g.back - 4.5}l-9,4.5l9,4.5Z" />
<text class="nm" x={m} y={g.out - 25} text-anchor="middle">{vehicle}</text>
{#each [(g.a + m) / 2, (g.b + m) / 2] as x, i (i)}
  {#each [`side ${i === 0 ? 'A' : 'B'}`, bands[i] ?? '', `${String(watts[i] ?? 0)} W`] as t, n (n)}
    <text class={g.phone ? 'sn' : 'sl'} {x} y={mid - 12 + 17 * n} text-anchor="middle">{t}</text>
  {/each}
{/each}
{#if loops}{@render verdict(m, g.back + 29, 'stop', 'loop')}{/if}
{#each r.ends as e, i (i)}
  {#if g.phone}
    <text class="nm" x={i === 0 ? 0 : g.width} y="12" text-anchor={i === 0 ? 'start' : 'end'}>{e.name}</text>
    <text class="sn" x={i === 0 ? 0 : g.width} y="27" text-anchor={i === 0 ? 'start' : 'end'}
      >{e.says.split(',')[0]}</text
    >
  {:else}
    {@const x = i === 0 ? 0 : g.right + 44}
    {@const icon = i === 0 ? g.left - 34 : g.right + 8}
    {#if e.repeater}
      <path
        class="icon"
        transform="translate({icon},{mid - 24})"
        d="M14,9L9,34M14,9L19,34M11.8,20H16.2M10.6,26.5H17.4M14,9V5M8.5,8.5A7,7 0 0 1 8.5,0M19.5,8.5A7,7 0 0 0 19.5,0"
      />
    {:else}
      <path
        class="icon"
        transform="translate({icon},{mid - 20})"
        d="M7,11.5H16V28H7ZM9.5,11.5V2M9.5,15.5H13.5M9.5,18.5H13.5"
      />
    {/if}
    {#each e.name.split(' ').slice(0, 2) as word, n (n)}<text class="nm" {x} y={mid - 18 + 17 * n}>{word}</text>{/each}
    {@const below = mid - 18 + 17 * Math.min(2, e.name.split(' ').length)}
    {#if e.callsign}<text class="sm" {x} y={below}>{e.callsign}</text>{/if}
    {#each e.says.split(', ') as t, n (n)}<text class="sl" {x} y={below + (e.callsign ? 16 : 0) + 16 * n}>{t}</text
      >{/each}
  {/if}
{/each}

<style>
  text {
    fill: var(--ink);
    font: var(--w-normal) 12.5px var(--text);
  }
  .sl {
    fill: var(--ink2);
  }
  .sn {
    fill: var(--ink3);
    font-size: 11.5px;
  }
  .sf {
    font: var(--w-normal) var(--t-leg) var(--figs);
  }
  .b {
    font-weight: var(--w-strong);
  }
  .fine {
    font-size: 0.74em;
    fill: var(--ink2);
  }
  .st {
    font: var(--w-normal) 14px var(--figs);
    fill: var(--ink);
  }
  .sv {
    font-size: 13.5px;
    font-weight: var(--w-medium);
  }
  .sm {
    font: var(--w-normal) 12px var(--figs);
    fill: var(--ink3);
  }
  .nm {
    font-size: 15px;
    font-weight: var(--w-strong);
  }
  .co,
  .co .st {
    fill: var(--conflict);
  }
  text.co {
    font-weight: var(--w-strong);
  }
  .cs {
    fill: var(--stop);
    font-weight: var(--w-strong);
  }
  .q2 {
    fill: var(--ink2);
  }
  .m {
    fill: var(--ink);
  }
  .m.open {
    fill: none;
    stroke: var(--ink2);
    stroke-width: 1.4;
  }
  .m.co {
    fill: var(--conflict);
  }
  .m.st {
    fill: var(--stop);
  }
  .box {
    fill: var(--sheet);
  }
  .post {
    stroke: var(--rule2);
  }
  .wall {
    stroke: var(--ink);
    stroke-width: 1.4;
    fill: none;
  }
  .half {
    stroke: var(--rule2);
    stroke-dasharray: 4 3;
  }
  .ax {
    stroke: var(--ink);
    stroke-width: 1.4;
    fill: none;
  }
  .ax.dead {
    stroke: var(--rule2);
    stroke-dasharray: 2 3;
  }
  .loop {
    stroke: var(--stop);
    stroke-width: 2;
  }
  .ah {
    fill: var(--ink);
  }
  .ah.dead {
    fill: none;
    stroke: var(--rule2);
  }
  .ah.loop {
    fill: var(--stop);
    stroke: none;
  }
  .key path {
    fill: var(--ink);
  }
  .idle .key path {
    fill: var(--ink3);
  }
  .lock rect {
    fill: var(--buff);
    stroke: var(--ink);
    stroke-width: 1.3;
  }
  .lock .way {
    fill: var(--paper);
    stroke: var(--ink);
  }
  .lock .unknown {
    stroke-dasharray: 3 2;
  }
  .lock.bad rect {
    stroke: var(--conflict);
    stroke-width: 1.6;
  }
  .idle .lock rect,
  .idle .lock .way {
    stroke: var(--ink3);
  }
  .icon {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.4;
    stroke-linejoin: round;
  }
</style>
