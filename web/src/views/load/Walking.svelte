<script lang="ts">
  import { untrack } from 'svelte';
  import Button from '$parts/Button.svelte';
  import Evidence from '$parts/Evidence.svelte';
  import StandingRule from '$parts/StandingRule.svelte';
  import type { Row } from '$lib/api/client';
  import { narrow } from '$lib/screen.svelte';
  import { shell } from '../../shell/shell.svelte';
  import Else from './Else.svelte';
  import { minutes } from './pace';
  import PressRibbon from './PressRibbon.svelte';
  import Rest from './Rest.svelte';
  import StepCard from './StepCard.svelte';
  import type { WalkState } from './walk.svelte';
  import WalkList from './WalkList.svelte';
  import { menu, presses, spoken } from './words';

  /** The walk: the list, the step, the display. */
  interface Props {
    walk: WalkState;
    standings: ReadonlyMap<number, Row['standing']['now']>;
    time: number;
  }
  let { walk, standings, time }: Props = $props();
  const stop = $derived(walk.stop);
  const unit = $derived(walk.walk?.unit ?? '');
  const characters = $derived(walk.walk?.radio.names.characters ?? '');
  const before = $derived(walk.stops[walk.at - 1]);
  const next = $derived(walk.stops[walk.at + 1]);
  const step = $derived(walk.current);
  const standing = $derived(stop ? (standings.get(stop.channel) ?? stop.standing.now) : 'planned');
  let looking = $state(false);
  const says = $derived.by(() => {
    if (step) return spoken(step, walk.steps.length);
    if (walk.phase === 'rest' && stop)
      return `It must show ${[stop.sheet.rest.shift, stop.sheet.rest.tone, stop.sheet.rest.figures].filter(Boolean).join(' ')}`;
    return '';
  });

  // The step has the whole screen of a phone, and the screen stays awake.
  $effect(() =>
    untrack(() => {
      shell.bare = true;
      let lock: { release: () => Promise<void> } | undefined;
      const wake = async () => {
        try {
          if (document.visibilityState === 'visible' && 'wakeLock' in navigator)
            lock = await navigator.wakeLock.request('screen');
        } catch {
          lock = undefined; // the browser does not let it
        }
      };
      const again = () => void wake();
      void wake();
      document.addEventListener('visibilitychange', again);
      return () => {
        shell.bare = false;
        document.removeEventListener('visibilitychange', again);
        void lock?.release();
      };
    }),
  );
  $effect(() => {
    if (walk.at >= 0) looking = false;
  });
  let sheet = $state<HTMLElement>();
  // What is done now stays in sight; on a phone what is done is gone, and the step is at the top.
  $effect(() => {
    if (walk.step < 0 || walk.at < 0 || !walk.phase) return;
    if (narrow.is) scrollTo(0, 0);
    else sheet?.querySelector('li[aria-current=step]')?.scrollIntoView({ block: 'nearest' });
  });
</script>

<main class="walk">
  <p class="sr-only" aria-live="polite">{says}</p>
  <div class="bar">
    <button
      type="button"
      class="link"
      onclick={() => {
        walk.leave();
      }}>Leave</button
    >
    <span><b>{unit}</b>, {Math.min(walk.at + 1, walk.stops.length)} of {walk.stops.length}</span>
    <span>{minutes(walk.secondsLeft)} left</span>
  </div>

  <h1 class="sr-only">Fill {unit} by its keys</h1>
  {#if !narrow.is}<WalkList {walk} {unit} {standings} {time} />{/if}
  <section bind:this={sheet} class="sheet" aria-label="Now keying {stop?.name ?? unit}">
    {#if walk.phase === 'end' && step}
      <h2 class="who"><span class="name">Put {unit} back</span></h2>
      <p class="say">
        Everything is stored. These steps take away what would reach the next channel that somebody keys in.
      </p>
      <div class="do mt-3">
        <StepCard {walk} {step} {characters} />
        <ol>
          {#each walk.steps.slice(walk.step + 1) as s (s.number)}<li class="row">
              <span class="no">{s.number}</span><span>{s.do}</span><span class="menu">{menu(s)}</span><span
                class="value">{s.value ?? s.acts.find((a) => a.verb === 'see')?.shows} {s.unit}</span
              >
            </li>{/each}
        </ol>
        <p class="say mt-3">Then it stands like this: {walk.walk?.end.leave.join(', ')}.</p>
      </div>
    {:else if stop}
      <div class="top">
        <h2 class="who">
          <span class="slot">{stop.slot}</span><span class="name">{stop.name || stop.short_name}</span><span class="ev"
            ><Evidence kind={stop.verdict} size={16} /></span
          >
        </h2>
        <p class="say">{stop.says}</p>
        <StandingRule standing={{ now: standing, was: '', person: 0, at: null }} person="" radio={unit} />
        {#each stop.doubts as d, nth (nth)}<p class="doubt"><Evidence kind="conflict" word="In doubt:" /> {d}</p>{/each}
        {#if stop.sheet.locked}<p class="doubt">
            Listening only: {stop.sheet.locked}. The transmitter is locked in this slot.
          </p>{/if}
      </div>
      {#if walk.phase !== 'else' && (walk.phase === 'step' || !narrow.is)}
        <div class="do">
          {#if stop.sheet.start.length > 0}
            <p class="kept"><b>Begin with:</b> {stop.sheet.start.join(', ')}.</p>
          {:else if stop.stays.length > 0}
            <p class="kept">
              Stays from {before?.name ?? 'the channel before'}: {stop.stays.map((x) => x.says).join(', ')}.
              <button type="button" class="link" aria-expanded={looking} onclick={() => (looking = !looking)}
                >check these</button
              >
            </p>
            {#if looking}
              <ul class="looks">
                {#each stop.stays as x, nth (nth)}<li>
                    <b>{x.says}</b>
                    {x.look || 'no display shows it: the read-out, or the step itself, does'}
                  </li>{/each}
              </ul>
            {/if}
          {/if}
          <ol>
            {#each walk.steps as s, i (s.number)}
              {#if step && i === walk.step}<li aria-current="step"><StepCard {walk} {step} {characters} /></li>
              {:else if !narrow.is || i > walk.step}
                <li class="row" class:done={i < walk.step || !step}>
                  <span class="no">{s.number}</span><span>{s.do}</span><span class="menu">{menu(s)}</span><span
                    class="value">{s.value ?? s.acts.find((a) => a.verb === 'see')?.shows} {s.unit}</span
                  ><span class="tick" aria-hidden="true">{i < walk.step || !step ? '✓' : ''}</span>
                </li>
              {/if}
            {/each}
          </ol>
        </div>
      {/if}
      {#if !narrow.is || walk.phase !== 'step'}
        <div class="see" class:alone={walk.phase === 'else'}>
          {#if walk.phase === 'dummy'}
            <h3>Into a dummy load</h3>
            <ul class="dummy">
              <li>Listen first, on receive and on transmit frequency: wait until nobody speaks.</li>
              <li>Dummy load in place of the aerial, lowest power.</li>
              <li>
                Press the transmit key for a moment, and read: <b class="font-figs">{stop.sheet.keyed?.figures}</b>.
              </li>
            </ul>
            <p class="say">Leave it out where you have no dummy load. Follow your local rules and your licence.</p>
            {#if !narrow.is}<p class="acts">
                <Button
                  fix="live"
                  key="Enter"
                  onclick={() => {
                    walk.keyed(true);
                  }}>It showed {stop.sheet.keyed?.figures}</Button
                >
                <Button
                  onclick={() => {
                    walk.keyed(false);
                  }}>Leave it out</Button
                >
                <Button
                  onclick={() => {
                    walk.to(1);
                  }}>It showed something else</Button
                >
              </p>{/if}
          {:else if walk.phase === 'else'}
            <Else
              {stop}
              wrong={walk.wrong}
              to={(n) => {
                walk.to(n);
              }}
            />
            {#if !narrow.is}<p class="acts">
                <Button
                  key="Backspace"
                  onclick={() => {
                    walk.back();
                  }}>Back</Button
                >
              </p>{/if}
          {:else}
            <Rest {stop} after={walk.steps.length} />
            {#if walk.phase === 'rest' && !narrow.is}<p class="acts">
                <Button
                  fix="live"
                  key="Enter"
                  onclick={() => {
                    walk.shows();
                  }}>It shows this</Button
                >
                <Button onclick={() => void walk.elsewise()}>Mine shows something else</Button>
                <Button
                  key="Backspace"
                  onclick={() => {
                    walk.back();
                  }}>Back</Button
                >
              </p>{/if}
            {#if next && narrow.is}<p class="next">
                Then <b>{next.slot} {next.name}</b>, {presses(next.effort.presses)}
              </p>{/if}
          {/if}
        </div>
      {/if}
    {/if}
  </section>
  <div class="foot">
    {#if walk.phase === 'rest'}
      <button type="button" onclick={() => void walk.elsewise()}>Something else</button><button
        type="button"
        class="main"
        onclick={() => {
          walk.shows();
        }}>It shows this</button
      >
    {:else if walk.phase === 'else'}
      <button
        type="button"
        onclick={() => {
          walk.back();
        }}>Back</button
      ><button
        type="button"
        class="main"
        onclick={() => {
          walk.to(1);
        }}>None of these</button
      >
    {:else if walk.phase === 'dummy'}
      <button
        type="button"
        onclick={() => {
          walk.keyed(false);
        }}>Leave it out</button
      ><button
        type="button"
        class="main"
        onclick={() => {
          walk.keyed(true);
        }}>It showed this</button
      >
    {:else}
      <button
        type="button"
        onclick={() => {
          walk.back();
        }}>Back</button
      ><button
        type="button"
        class="main"
        onclick={() => {
          walk.done();
        }}>Done, next step</button
      >
    {/if}
  </div>
</main>
<PressRibbon {walk} {time} />

<style>
  .bar,
  .foot {
    display: none;
  }
  .walk {
    display: grid;
    grid-template-columns: 424px minmax(0, 1fr);
    min-height: calc(var(--screen) - var(--bar) - 122px);
    padding-top: 5px;
  }
  .sheet {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 334px;
    grid-template-rows: auto 1fr;
    column-gap: 28px;
    min-width: 0;
    padding: 12px var(--margin) 16px 24px;
    border-left: var(--line);
    background: var(--sheet);
  }
  .top,
  .sheet > h2,
  .sheet > .say {
    grid-column: 1 / 3;
  }
  .who {
    display: flex;
    align-items: baseline;
    gap: 12px;
    font-size: var(--t-head);
    font-weight: var(--w-strong);
    line-height: 26px;
  }
  .slot {
    color: var(--ink2);
    font-family: var(--figs);
  }
  .name {
    flex: 1;
    min-width: 0;
  }
  .ev {
    font-size: 16px;
    font-weight: var(--w-normal);
  }
  .say,
  .doubt {
    margin-top: 2px;
    color: var(--ink2);
    font-size: 13.5px;
  }
  .doubt {
    color: var(--ink);
  }
  .do,
  .see {
    min-width: 0;
    padding-top: 12px;
  }
  .alone {
    grid-column: 1 / 3;
    max-width: 820px;
  }
  li[aria-current] {
    scroll-margin: 60px 0 130px; /* the head of the page and the ribbon lie over it */
  }
  .kept {
    padding-bottom: 7px;
    border-bottom: var(--hair);
    color: var(--ink2);
    font-size: var(--t-small);
  }
  .kept b {
    color: var(--ink);
  }
  .looks,
  .dummy {
    padding: 4px 0 6px;
    border-bottom: var(--hair);
    color: var(--ink2);
    font-size: var(--t-small);
  }
  .looks b {
    display: inline-block;
    min-width: 150px;
    color: var(--ink);
    font-weight: var(--w-medium);
  }
  .row {
    display: grid;
    grid-template-columns: 28px 150px minmax(0, 1fr) auto 22px;
    align-items: baseline;
    min-height: 30px;
    padding-top: 5px;
    border-bottom: var(--hair);
  }
  .row .no {
    color: var(--ink3);
    font: 13px var(--figs);
  }
  .row .menu {
    color: var(--ink2);
    font-size: var(--t-small);
  }
  .value {
    font: 16px var(--figs);
    text-align: right;
  }
  .tick {
    text-align: right;
  }
  .row.done {
    color: var(--ink2);
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    margin-top: 12px;
  }
  h3 {
    font-size: var(--t-lead, 15px);
    font-weight: var(--w-strong);
  }
  .dummy {
    list-style: disc;
    padding-left: 18px;
  }
  .next {
    margin-top: 16px;
    font-size: 17px;
  }
  @media (max-width: 73.75em) {
    .sheet {
      display: block;
    }
    .see {
      max-width: 460px;
      padding-top: 20px;
    }
  }
  @media (max-width: 45em) {
    .bar {
      position: sticky;
      top: 0;
      z-index: 6;
      display: flex;
      align-items: center;
      justify-content: space-between;
      height: 48px;
      padding: 0 16px;
      border-bottom: var(--heavy);
      background: var(--paper);
      font-size: 14px;
    }
    .bar button {
      min-height: 44px;
    }
    .bar b {
      font-weight: var(--w-strong);
    }
    .walk {
      display: block;
      min-height: 0;
      padding: 0;
    }
    .sheet {
      min-height: calc(var(--screen) - 48px);
      padding: 14px 16px 104px;
      border: 0;
    }
    .say,
    .doubt,
    .kept,
    .dummy,
    .looks {
      font-size: 14px;
    }
    .row {
      grid-template-columns: 28px minmax(0, 1fr) auto;
      min-height: 40px;
      padding-top: 9px;
      color: var(--ink2);
      font-size: 16px;
    }
    .row .menu,
    .row .tick {
      display: none;
    }
    .foot {
      position: fixed;
      inset: auto 0 0;
      z-index: 22;
      display: grid;
      grid-template-columns: minmax(84px, auto) 1fr;
      gap: 8px;
      padding: 10px 16px 14px;
      background: var(--sheet);
    }
    .foot button {
      height: 64px;
      padding: 0 12px;
      border: var(--line);
      border-radius: var(--radius);
      font-size: 18px;
    }
    .foot .main {
      border-color: var(--accent);
      background: var(--fix-ground);
      color: var(--fix-ink);
      font-weight: var(--w-medium);
    }
  }
</style>
