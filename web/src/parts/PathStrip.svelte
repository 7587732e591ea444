<script lang="ts">
  import type { Evidence, Key, Leg } from '$lib/api/client';
  import { figures, mhz, tone, toneText } from '$lib/format';
  import { blade, keyway } from '$lib/keyshape';
  import Mark, { type MarkKind } from './Mark.svelte';

  /** The way of a signal from you to the other station and back. */
  let { path }: { path: Evidence['path'] } = $props();

  const simplex = $derived(path.through === '' && path.up !== null);
  const mark: Record<Leg['passes'], MarkKind> = { yes: 'agrees', no: 'conflict', unknown: 'unverified' };
  const colour: Record<Leg['passes'], string> = { yes: '', no: 'text-conflict', unknown: 'text-ink2' };

  const say = (leg: Leg) => `${mhz(leg.hz)} megahertz, ${leg.key ? toneText(leg.key.text) : 'no tone'}. ${leg.says}.`;
  const label = $derived(
    (path.up ? `You transmit ${say(path.up)} ` : 'You do not transmit. ') + `You receive ${say(path.down)}`,
  );
</script>

{#snippet frequency(hz: number, x: number, hot = false)}
  {@const f = figures(hz)}
  <text {x} y="34" class="sf" class:hot text-anchor="middle"
    ><tspan class="strong">{f.mhz}</tspan><tspan dx="-3.2">.</tspan><tspan dx="-3.2">{f.khz}</tspan><tspan class="fine"
      >{f.rest}</tspan
    ></text
  >
{/snippet}

{#snippet toneLabel(key: Key | null, x: number, what: string, bad = false)}
  {#if key}
    {@const t = tone(key.text)}
    <text {x} y="91" class="st" class:bad text-anchor="middle"
      >{t.whole}{#if t.decimal}<tspan dx="-2.1">.</tspan><tspan dx="-2.1">{t.decimal}</tspan>{/if}{#if t.unit}<tspan
          class="su"
          dx="3">{t.unit}</tspan
        >{/if}</text
    >
  {/if}
  <text {x} y={key ? 105 : 91} class="sl" text-anchor="middle">{what}</text>
{/snippet}

{#snippet keyAt(key: Key, x: number, bad: boolean)}
  <g transform="translate({x},0)" class="key" class:bad>
    <path d="M8,-8.5a8,8 0 1,0 .01,0ZM8,-4.2a3.6,3.6 0 1,1 -.01,0Z" fill-rule="evenodd" /><path d={blade(key.index)} />
  </g>
{/snippet}

{#snippet lockAt(leg: Leg, x: number)}
  {#if leg.lock === 'tone' && leg.wants}
    <g transform="translate({x},0)">
      <rect x="0" y="-13" width="48" height="29" class="body" />
      <path class="way" d={keyway(leg.wants.index)} />
    </g>
  {:else if leg.lock === 'unknown'}
    <g transform="translate({x},0)">
      <rect x="0" y="-13" width="48" height="29" class="body dashed" />
      <text x="24" y="6" class="st" text-anchor="middle">?</text>
    </g>
  {:else if leg.lock === 'burst'}
    <circle cx={x + 24} cy="0" r="8" class="ring" />
  {/if}
{/snippet}

{#snippet hand(x: number)}
  <path
    d="M7,11.5H16V28H7ZM9.5,11.5V2M9.5,15.5H13.5M9.5,18.5H13.5"
    transform="translate({x},-17)"
    fill="none"
    stroke="currentColor"
    stroke-width="1.4"
    stroke-linejoin="round"
  />
{/snippet}

{#snippet mast()}
  <g transform="translate(183,-23)" fill="none" stroke="currentColor" stroke-width="1.4" stroke-linejoin="round">
    <path d="M14,9L9,34M14,9L19,34M11.8,20H16.2M10.6,26.5H17.4M14,9V5" />
    <path d="M8.5,8.5A7,7 0 0 1 8.5,0M19.5,8.5A7,7 0 0 0 19.5,0" />
    <circle cx="14" cy="4" r="1.8" fill="currentColor" stroke="none" />
  </g>
{/snippet}

<svg class="strip text-ink" viewBox="0 0 392 108" role="img" aria-label={label}>
  {#if path.up}
    <text x="104" y="10" class="sl" text-anchor="middle">you transmit</text>
    {@render frequency(path.up.hz, 104, path.up.elsewhere)}
  {:else}
    <text x="104" y="24" class="sl" text-anchor="middle">your transmitter is blocked</text>
  {/if}
  <text x="288" y="10" class="sl" text-anchor="middle">you receive</text>
  {@render frequency(path.down.hz, 288)}
  <g transform="translate(0,58)">
    {@render hand(-1)}
    {#if path.up}
      {@const dead = path.up.passes === 'no'}
      <path class="ax" d="M22,0H{path.up.key ? 38 : 126}" />
      <path class="ax" class:dead d="M{path.up.key ? 101 : 100},0H126" />
      <path class="ax" class:dead={path.up.passes !== 'yes'} d="M{path.up.lock === 'open' ? 126 : 174},0H186" />
      {#if path.up.lock === 'open'}<path class="ax" d="M126,0H174" />{/if}
      {#if path.up.key}{@render keyAt(path.up.key, 38, dead && !path.up.elsewhere)}{/if}
      {#if dead}<path d="M113.5,-7.3L121,0L113.5,7.5L106,0Z" class="stopper" />{/if}
      {#if !simplex}{@render lockAt(path.up, 126)}{:else}<path class="ax" d="M126,0H183" />{/if}
    {/if}
    {#if simplex || !path.up}
      {@render hand(183)}
    {:else}
      {@render mast()}
    {/if}
    <path class="ax" d="M207,0H{path.down.key && path.down.lock === 'tone' ? 293 : 310}" />
    <path class="head" d="M248,-4.5L257,0L248,4.5Z" />
    <path class="ax" class:dead={path.down.passes === 'no'} d="M{path.down.lock === 'open' ? 310 : 358},0H370" />
    {@render lockAt(path.down, 310)}
    {#if path.down.key && path.down.passes === 'yes' && path.down.lock === 'tone'}
      {@render keyAt(path.down.key, 292, false)}
    {:else if path.down.key}
      {@render keyAt(path.down.key, path.down.lock === 'open' ? 262 : 232, path.down.passes === 'no')}
      {#if path.down.passes === 'no'}<path
          transform="translate(187,0)"
          d="M113.5,-7.3L121,0L113.5,7.5L106,0Z"
          class="stopper"
        />{/if}
    {/if}
    {#if path.down.lock === 'open'}<path class="ax" d="M{path.down.key ? 325 : 310},0H358" />{/if}
    {@render hand(370)}
  </g>
  {#if path.up}
    {#if path.up.key}{@render toneLabel(path.up.key, 67, 'your key')}{/if}
    {#if path.up.either.length > 0}
      <text x="156" y="91" class="either" text-anchor="middle">{path.up.either.join(' or ')}</text>
      <text x="150" y="105" class="sl" text-anchor="middle">its lock</text>
    {:else if !simplex && path.up.lock !== 'open'}
      {@render toneLabel(
        path.up.wants,
        150,
        path.up.lock === 'unknown' ? 'its lock, unknown' : path.up.lock === 'burst' ? 'opens to a burst' : 'its lock',
        path.up.passes === 'no' && !path.up.elsewhere,
      )}
    {/if}
  {/if}
  {#if path.down.lock === 'tone' && path.down.passes === 'yes'}
    {@render toneLabel(path.down.key, 322, simplex ? 'same key and lock' : 'its key, your lock')}
  {:else if path.down.lock === 'tone'}
    {@render toneLabel(path.down.key, 262, path.down.key ? 'its key' : '')}
    {@render toneLabel(path.down.wants, 334, 'your lock', path.down.passes === 'no')}
  {:else if path.down.key && !simplex}
    {@render toneLabel(path.down.key, 296, 'its key; you are open')}
  {/if}
  <text x="0" y="91" class="sl">you</text>
  <text x="197" y="28" class="sl" text-anchor="middle">{simplex ? 'another' : path.up ? 'repeater' : 'sender'}</text>
  <text x="392" y="91" class="sl" text-anchor="end">you</text>
</svg>
<p class="grid grid-cols-2 justify-items-center pt-1.5 pb-2.5 text-[13.5px] font-medium">
  <span class="inline-flex items-center gap-1.5 {path.up ? colour[path.up.passes] : ''}">
    {#if path.up}<Mark kind={mark[path.up.passes]} size={11} />{path.up.says}{:else}You would not transmit{/if}
  </span>
  <span class="inline-flex items-center gap-1.5 {colour[path.down.passes]}">
    <Mark kind={mark[path.down.passes]} size={11} />{path.down.says}
  </span>
</p>

<style>
  .either {
    font: var(--w-strong) 12.5px var(--figs);
    fill: var(--conflict);
  }
  .strip {
    display: block;
    width: 100%;
    max-width: 392px;
    height: auto;
    margin-top: 14px;
    overflow: visible;
  }
  .sl {
    font: var(--w-normal) 12.5px var(--text);
    fill: var(--ink2);
  }
  .sf {
    font: var(--w-normal) var(--t-leg) var(--figs);
    fill: var(--ink);
  }
  .sf.hot {
    fill: var(--conflict);
  }
  .strong {
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
  .st.bad {
    font-weight: var(--w-strong);
    fill: var(--conflict);
  }
  .su {
    font: var(--w-normal) 11.5px var(--text);
    fill: var(--ink3);
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
  .head {
    fill: var(--ink);
  }
  .key path {
    fill: var(--ink);
  }
  .key.bad path {
    fill: var(--conflict);
  }
  .stopper {
    fill: var(--conflict);
  }
  .body {
    fill: var(--buff);
    stroke: var(--ink);
    stroke-width: 1.3;
  }
  .dashed {
    stroke-dasharray: 4 3;
  }
  .way {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 1;
  }
  .ring {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.4;
  }
</style>
