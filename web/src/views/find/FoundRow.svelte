<script lang="ts">
  import Evidence from '$parts/Evidence.svelte';
  import Frequency from '$parts/Frequency.svelte';
  import Tone from '$parts/Tone.svelte';
  import Vector from '$parts/Vector.svelte';
  import type { FoundRepeater } from '$lib/api/client';
  import { bearing, distance, mhz } from '$lib/format';
  import { daysSince } from './age';
  import AgeRule from './AgeRule.svelte';
  import Missing from './Missing.svelte';

  interface Props {
    repeater: FoundRepeater;
    radio: string;
    today: string;
    fifth: boolean;
    selected: boolean;
    picked: boolean;
    /** The radios of the plan by number, to say which others hold it. */
    names: Record<number, string>;
  }
  let { repeater: r, radio, today, fifth, selected, picked, names }: Props = $props();
  const held = $derived(r.slots.length > 0);
  const cannot = $derived(r.cannot !== '');
  const differs = $derived(r.held.find((h) => h.mine)?.differs ?? []);
  const days = $derived(r.statements.map((s) => daysSince(s.updated, today)).filter((d) => d !== null));
  const past = $derived(r.distance_km !== null && r.distance_km > r.reach_km);
  const others = $derived([...new Set(r.held.filter((h) => !h.mine).map((h) => names[h.load] ?? ''))].filter(Boolean));
  const tone = $derived(r.best.uplink_tone);
</script>

<div class="row" class:cannot class:miss={!held && !cannot} class:fifth class:selected class:picked aria-hidden="true">
  <span class="n" title={others.length > 0 ? `Also in ${others.join(', ')}` : undefined}
    >{#if held}{r.slots[0]}{:else if cannot}–{:else}<Missing />{/if}{#if others.length > 0}<small
        >+{others.length}</small
      >{/if}</span
  >
  <span class="name"
    ><span class="nm truncate">{r.title}</span><span class="tag"
      >{r.best.callsign === r.title ? '' : r.best.callsign}</span
    ></span
  >
  <span class="out"><Frequency hz={r.best.output_hz} pad={4} /></span>
  <span class="shift"
    >{#if differs.includes('shift') || differs.includes('transmit')}<i class="ne">≠</i>{/if}{#if r.shift === null}<span
        class="word">not stated</span
      >{:else if r.shift === 0}<span class="word">{r.best.kind === 'listen' ? 'listen' : 'simplex'}</span
      >{:else}<Frequency hz={r.shift} signed />{/if}</span
  >
  <span class="tone"
    >{#if differs.includes('transmit_tone') || differs.includes('receive_tone')}<i class="ne">≠</i
      >{/if}{#if tone === null}<span class="word">not stated</span>{:else if tone === 'none'}<span class="word"
        >no tone</span
      >{:else}<Tone text={tone} pad />{/if}</span
  >
  <span class="away"
    >{#if r.distance_km !== null && r.bearing_deg !== null}<Vector
        degrees={r.bearing_deg}
        km={r.distance_km}
        {past}
      /><span class="km">{distance(r.distance_km)}</span><span class="deg">{bearing(r.bearing_deg)}</span>{:else}<span
        class="word">no position</span
      >{/if}</span
  >
  <span class="age"
    ><span class="rule"><AgeRule {days} differ={r.conflicts.length > 0} year={365} /></span><span class="ago"
      >{r.age}</span
    ></span
  >
  <span class="ev"><Evidence kind={r.trust.verdict} word={picked ? 'picked' : r.trust.says} /></span>
</div>
<span class="sr-only">
  {held ? `slot ${r.slots.join(', ')}` : cannot ? `not for ${radio}: ${r.cannot}` : 'missing'}, {r.title}
  {r.best.callsign}, {mhz(r.best.output_hz)}, {r.distance_km === null
    ? 'no position'
    : `${r.distance_km.toFixed(1)} kilometres`},
  {r.trust.says}, {r.age}{differs.length > 0 ? ', your channel differs from it' : ''}{picked
    ? ', picked'
    : ''}{others.length > 0 ? `, also in ${others.join(', ')}` : ''}
</span>

<style>
  .row {
    display: grid;
    grid-template-columns: var(--fcols);
    align-items: baseline;
    height: var(--row);
    border-top: 1px solid transparent;
    border-bottom: 1px solid transparent;
  }
  .row > * {
    min-width: 0;
    white-space: nowrap;
    line-height: calc(var(--row) - 2px);
  }
  .fifth {
    border-bottom-color: var(--rule);
  }
  .n {
    font-family: var(--figs);
    color: var(--ink2);
    padding-left: 4px;
  }
  .name {
    display: grid;
    grid-template-columns: minmax(0, 106fr) minmax(0, 58fr);
    align-items: baseline;
  }
  .tag {
    font: var(--w-normal) 11.5px var(--figs);
    color: var(--ink3);
  }
  .n small {
    margin-left: 3px;
    font-size: var(--t-note);
    color: var(--ink3);
  }
  .out,
  .shift {
    font-size: var(--t-fig);
  }
  .out {
    margin-left: -1ch;
  }
  .shift,
  .tone {
    position: relative;
  }
  .word {
    font-size: var(--t-label);
    color: var(--ink3);
  }
  .ne {
    position: absolute;
    left: -13px;
    font-style: normal;
    font-weight: var(--w-strong);
    color: var(--conflict);
  }
  .away {
    font-size: var(--t-small);
    color: var(--ink2);
  }
  .km {
    display: inline-block;
    width: 50px;
    text-align: right;
    margin-right: 8px;
  }
  .age {
    align-self: start;
  }
  .ago {
    display: none;
  }
  .ev {
    font-size: var(--t-small);
  }
  .miss .nm {
    font-weight: var(--w-strong);
  }
  .cannot,
  .cannot .n {
    color: var(--ink3);
  }
  .cannot :global(b) {
    font-weight: var(--w-normal);
  }
  .picked {
    background: var(--water);
    box-shadow: inset 4px 0 0 var(--accent);
  }
  .selected {
    background: var(--sheet);
    border-color: var(--rule2);
    position: relative;
    margin-left: -10px;
    padding-left: 10px;
  }
  .selected::before {
    content: '';
    position: absolute;
    left: 0;
    top: -1px;
    bottom: -1px;
    width: 4px;
    background: var(--ink);
  }
  .selected .nm {
    font-weight: var(--w-strong);
  }
  :global(:focus) > .selected::before {
    background: var(--accent);
  }
  @media (min-width: 79.4375em) {
    .selected::after {
      content: '';
      position: absolute;
      left: calc(100% - 1px);
      width: 14px;
      top: -1px;
      bottom: -1px;
      background: var(--sheet);
      border: solid var(--rule2);
      border-width: 1px 0;
      z-index: 1;
    }
  }
  @media (max-width: 45em) {
    .row {
      height: auto;
      min-height: var(--row-touch);
      padding: 4px 0 5px;
      grid-template-columns: 32px 88px 66px 74px minmax(0, 1fr);
      grid-template-areas: 'n name name age ev' 'n o s t v';
      border-bottom-color: var(--rule);
      align-content: center;
    }
    .n small {
      display: none;
    }
    .n {
      grid-area: n;
      padding: 0;
    }
    .name {
      grid-area: name;
      display: block;
      overflow: hidden;
    }
    .nm {
      display: block;
    }
    .tag {
      display: none;
    }
    .out {
      grid-area: o;
      margin-left: 0;
    }
    .out :global(s) {
      display: none;
    }
    .shift {
      grid-area: s;
      font-size: 14px;
    }
    .tone {
      grid-area: t;
    }
    .away {
      grid-area: v;
      justify-self: end;
    }
    .deg {
      display: none;
    }
    .km {
      width: auto;
      margin: 0;
    }
    .age {
      grid-area: age;
      font-size: var(--t-label);
      color: var(--ink2);
    }
    .rule {
      display: none;
    }
    .ago {
      display: block;
      line-height: 22px;
    }
    .ev {
      grid-area: ev;
      justify-self: end;
      max-width: 100%;
      overflow: hidden;
    }
    .selected {
      margin: 0 calc(-1 * var(--margin));
      padding-inline: var(--margin);
    }
  }
</style>
