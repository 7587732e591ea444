<script lang="ts">
  import Frequency from '$parts/Frequency.svelte';
  import StandingBars from '$parts/StandingBars.svelte';
  import Mark from '$parts/Mark.svelte';
  import type { Row } from '$lib/api/client';
  import { beats } from './pace';
  import type { WalkState } from './walk.svelte';

  /** The channels in the order of the walk: what is behind, where one is, what comes and about when. */
  interface Props {
    walk: WalkState;
    unit: string;
    /** How far each channel has come, by its number, as the plan has it. */
    standings: ReadonlyMap<number, Row['standing']['now']>;
    time: number;
  }
  let { walk, unit, standings, time }: Props = $props();
  const here = $derived(walk.phase === 'end' ? walk.stops.length : walk.at);
  /** When each channel that is still to come begins, by the person's own pace. */
  const times = $derived.by(() => {
    let soon = beats(...walk.steps.slice(walk.step));
    return walk.stops.map((s, i) => {
      if (i <= here) return '';
      const at = new Date(time + soon * walk.secondsAPress * 1000);
      soon += beats(s.effort);
      return at.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
    });
  });
  let list = $state<HTMLElement>();
  $effect(() => {
    if (here >= 0) list?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' });
  });
</script>

<section bind:this={list} class="list" aria-label="Channels of this walk">
  <div class="head">
    <h2>{unit}, {walk.stops.length} channels</h2>
    <p>{here} done, {Math.max(0, walk.stops.length - here)} to come</p>
  </div>
  <div class="row cols">
    <span>slot</span><span>name</span><span>receive</span><span class="n">presses</span><span class="s">standing</span>
  </div>
  <ol>
    {#each walk.stops as s, i (s.slot)}
      {@const state = standings.get(s.channel) ?? s.standing.now}
      <li class="row" class:done={i < here} class:now={i === here} aria-current={i === here ? 'step' : undefined}>
        <span class="slot">{s.slot}</span>
        <span class="truncate">{s.name || s.short_name}</span>
        <Frequency hz={s.holds.receive_hz} pad={3} />
        <span class="n">{s.effort.presses}</span>
        <span class="s">
          {#if i === here}<b
              >{walk.phase === 'step' ? `step ${String(walk.step + 1)} of ${String(walk.steps.length)}` : 'look'}</b
            >
          {:else}<StandingBars now={state} />{#if i < here}<span aria-hidden="true">{state}</span>{:else}<span
                class="clock">{times[i]}</span
              >{/if}{/if}
        </span>
      </li>
    {/each}
  </ol>
  {#if walk.walk?.asides.some((a) => a.kind !== 'stored')}
    <p class="aside">
      Not keyed: {#each walk.walk.asides.filter((a) => a.kind !== 'stored') as a, i (i)}{i > 0 ? '; ' : ''}{a.slot}
        {a.name}{#if a.kind === 'held back'}&nbsp;<span class="text-stop"><Mark kind="stop" size={11} /> stop</span
          >{:else}, does not fit{/if}{/each}.
    </p>
  {/if}
</section>

<style>
  .list {
    min-width: 0;
    padding: 8px 12px 8px var(--margin);
  }
  .head {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
    height: 24px;
    padding-left: 36px;
  }
  h2 {
    font-weight: var(--w-strong);
  }
  .head p {
    color: var(--ink2);
    font-size: var(--t-small);
  }
  ol {
    max-height: calc(var(--screen) - var(--bar) - 230px);
    overflow-y: auto;
  }
  .row {
    display: grid;
    grid-template-columns: 36px minmax(0, 1fr) 78px 48px 96px;
    align-items: baseline;
    min-height: 22px;
    border-top: 1px solid transparent;
    line-height: 20px;
    white-space: nowrap;
  }
  .cols {
    border-bottom: 1px solid var(--bold);
    color: var(--ink2);
    font-size: var(--t-label);
  }
  .row:nth-child(5n) {
    border-bottom: var(--hair);
  }
  .slot,
  .n {
    color: var(--ink2);
    font-family: var(--figs);
    font-size: 14px;
  }
  .slot {
    padding-left: 4px;
  }
  .n {
    text-align: right;
    font-size: 13px;
  }
  .cols .n {
    font: inherit;
  }
  .s {
    display: flex;
    align-items: baseline;
    gap: 7px;
    padding-left: 11px;
    color: var(--ink2);
    font-size: var(--t-small);
  }
  .clock {
    color: var(--ink3);
    font-family: var(--figs);
  }
  .done {
    color: var(--ink2);
  }
  .now {
    position: relative;
    margin-left: -10px;
    padding-left: 10px;
    border-color: var(--rule2);
    background: var(--sheet);
    box-shadow: 0 1px 0 var(--rule2);
    font-weight: var(--w-strong);
  }
  .now::before {
    content: '';
    position: absolute;
    inset: -1px auto -1px 0;
    width: 4px;
    background: var(--accent);
  }
  .now b {
    color: var(--accent);
    font-weight: var(--w-medium);
  }
  .aside {
    margin-top: 4px;
    padding: 4px 0 0 36px;
    border-top: var(--line);
    color: var(--ink2);
    font-size: var(--t-label);
  }
</style>
