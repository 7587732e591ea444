<script lang="ts">
  import type { WalkState } from './walk.svelte';
  import { beats, minutes, type Effort } from './pace';
  import { presses } from './words';

  /** The presses of a walk to scale, above what slot order would take: what is saved is a length. */
  let { walk, time }: { walk: WalkState; time: number } = $props();
  const none: Effort = { presses: 0, repeats: 0 };
  const left = 84;
  const right = 1232;
  const w = $derived(walk.walk);
  const total = $derived(w?.effort.presses ?? 0);
  const most = $derived(Math.max(w?.in_slot_order.presses ?? 1, total, 1));
  const saved = $derived(most - total);
  const scale = $derived((right - left) / most);
  const x = (n: number) => left + n * scale;
  /** Each channel with where it begins, in presses and as they take time. */
  const blocks = $derived.by(() => {
    let at = 0;
    let beat = 0;
    const all = [...walk.stops, { slot: 0, effort: sum(w?.end.steps ?? []) }];
    return all.map((s) => {
      const b = { slot: s.slot, at, n: s.effort.presses, beat, beats: beats(s.effort) };
      at += b.n;
      beat += b.beats;
      return b;
    });
  });
  const sum = (steps: readonly Effort[]): Effort => ({
    presses: steps.reduce((n, s) => n + s.presses, 0),
    repeats: steps.reduce((n, s) => n + s.repeats, 0),
  });
  const all = $derived(w ? beats(w.effort) : 0);
  /** How many presses have been made after so many beats. */
  const at = (beat: number): number => {
    const b = blocks.findLast((y) => y.beat <= beat);
    return b ? b.at + (b.beats > 0 ? Math.min(1, (beat - b.beat) / b.beats) * b.n : 0) : 0;
  };
  const past = $derived(walk.going ? all - walk.left : 0);
  const pace = $derived(walk.secondsAPress);
  const own = $derived(walk.pace.presses >= 20);
  const here = $derived(walk.phase === 'end' ? walk.stops.length : walk.at);
  /** How much more the next channel takes when the radio is put down here. */
  const pause = $derived.by(() => {
    const s = walk.stops[walk.at];
    return s ? Math.max(0, s.alone.presses - s.effort.presses) : 0;
  });
  const tick = $derived([1, 2, 5, 10, 15, 30, 60, 120].find((m) => (all * pace) / 60 / m <= 8) ?? 240);
  const begun = $derived(time - past * pace * 1000);
  const marks = $derived(
    Array.from({ length: Math.floor((all * pace) / 60 / tick) + 1 }, (_, i) => ({
      n: at((i * tick * 60) / pace),
      says: walk.going
        ? new Date(begun + i * tick * 60_000).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
        : `${String(i * tick)} min`,
    })).filter((m) => !walk.going || Math.abs(x(m.n) - x(at(past))) > 60),
  );
</script>

<section class="ribbon" aria-label="Presses of this walk">
  <div class="head">
    <h2>{presses(total)}</h2>
    <p>
      {#if saved > 0}This order keeps equal settings together and saves <b
          >{saved.toLocaleString('en-GB')} of {most.toLocaleString('en-GB')}</b
        >, {minutes((beats(w?.in_slot_order ?? none) - all) * pace)}.
      {:else}This order takes no more than the slots in their order.{/if}
    </p>
    <p class="pace">
      {#if walk.going}<b>{minutes(walk.secondsLeft)} left</b>
        {own ? `at your ${pace.toFixed(1)} s a press` : `at ${pace.toFixed(1)} s a press`}{pause > 0
          ? `; a pause here adds ${presses(pause)}`
          : ''}
      {:else}{own ? `${pace.toFixed(1)} s a press, your own pace` : '1.2 s a press until your own pace is known'}{/if}
    </p>
  </div>
  <svg
    viewBox="0 0 1232 66"
    role="img"
    aria-label="Presses of each channel in this order: {walk.stops
      .map((b) => `slot ${String(b.slot)} ${String(b.effort.presses)}`)
      .join(', ')}; in slot order {most}"
  >
    <defs
      ><pattern id="saved" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"
        ><path d="M0,0V5" /></pattern
      ></defs
    >
    <text class="label" x="0" y="24">this order</text>
    {#each Array.from({ length: Math.ceil(total / 100) }, (_, i) => i * 100) as n (n)}<rect
        class="fifty"
        x={x(n)}
        y="5"
        width={Math.min(50, total - n) * scale}
        height="4"
      />{/each}
    <rect class="frame" x={x(0)} y="5" width={total * scale} height="4" />
    {#each blocks as b, i (i)}
      <rect class="block" class:now={walk.going && i === here} x={x(b.at)} y="9" width={b.n * scale} height="20" />
      {#if b.n * scale > 16 && i < walk.stops.length}<text
          class="slot"
          class:cur={walk.going && i === here}
          x={x(b.at + b.n / 2)}
          y="23"
          text-anchor="middle">{b.slot}</text
        >{/if}
    {/each}

    {#if saved > 0}
      <rect class="saved" x={x(total)} y="9" width={saved * scale} height="20" />
      {#if saved * scale > 110}<text x={x(total + saved / 2)} y="23" text-anchor="middle">{presses(saved)} saved</text
        >{/if}
    {/if}
    {#if walk.going}<path class="past" d="M{x(0)},30H{x(at(past))}" /><path
        class="caret"
        d="M{x(at(past))},3V34"
      /><text class="here" x={x(at(past))} y="50" text-anchor="middle">now</text>{/if}
    {#each marks as m (m.n)}<path class="tick" d="M{x(m.n)},31v5" /><text
        class="time"
        x={x(m.n)}
        y="50"
        text-anchor={m.n === 0 ? 'start' : 'middle'}>{m.says}</text
      >{/each}
    <text x="1232" y="64" text-anchor="end">one block = 50 presses</text>
  </svg>
</section>

<style>
  .ribbon {
    position: sticky;
    bottom: 0;
    z-index: 5;
    padding: 5px var(--margin) 6px;
    border-top: var(--heavy);
    background: var(--paper);
  }
  .head {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0 14px;
    font-size: var(--t-small);
  }
  h2 {
    font-size: 15px;
    font-weight: var(--w-strong);
  }
  .head p {
    color: var(--ink2);
  }
  b {
    color: var(--ink);
    font-weight: var(--w-strong);
  }
  .pace {
    margin-left: auto;
  }
  svg {
    display: block;
    width: 100%;
    overflow: visible;
  }
  text {
    font: 11.5px var(--text);
    fill: var(--ink2);
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 3px;
    stroke-linejoin: round;
  }
  .label {
    font-size: 12.5px;
    font-weight: var(--w-strong);
    fill: var(--ink);
  }
  .slot {
    font: 12px var(--figs);
    fill: var(--ink);
    stroke: none;
  }
  .cur,
  .here {
    fill: var(--accent);
    font-weight: var(--w-strong);
  }
  .time {
    font-family: var(--figs);
  }
  .fifty {
    fill: var(--bold);
  }
  .frame {
    fill: none;
    stroke: var(--bold);
  }
  .block {
    fill: var(--paper);
    stroke: var(--rule2);
  }
  .block.now {
    fill: var(--water);
    stroke: var(--accent);
    stroke-width: 1.5;
  }
  .saved {
    fill: url(#saved);
    stroke: var(--rule2);
  }
  pattern path,
  .tick {
    stroke: var(--rule2);
  }
  .past {
    stroke: var(--ink);
    stroke-width: 3;
  }
  .caret {
    stroke: var(--accent);
    stroke-width: 2;
  }
  @media (max-width: 45em) {
    .ribbon {
      display: none;
    }
  }
</style>
