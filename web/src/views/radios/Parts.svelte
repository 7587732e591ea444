<script lang="ts">
  import Button from '$parts/Button.svelte';
  import Mark from '$parts/Mark.svelte';
  import { narrow } from '$lib/screen.svelte';
  import type { Preview } from '$lib/api/client';
  import BandRuler from './BandRuler.svelte';
  import Dotted from './Dotted.svelte';
  import KeyedIn from './KeyedIn.svelte';
  import NameWindow from './NameWindow.svelte';
  import SlotCells from './SlotCells.svelte';
  import Threads from './Threads.svelte';
  import { parts, threadsOf } from './threads';
  import ToneComb from './ToneComb.svelte';
  import type { RadiosState } from './radios.svelte';

  /** A profile as five parts to check on the radio in the hand, each with one test and what hangs on it. */
  let { radio, preview, use }: { radio: RadiosState; preview: Preview; use: (fill: boolean) => void } = $props();
  const own = $derived(radio.form?.own ?? false);
  const d = $derived(preview.drawing);
  const threads = $derived(threadsOf(preview.rows));
  const range = $derived(/(\d+)\D+(\d+)/.exec(radio.form?.texts.slots ?? '') ?? ['', '1', '1']);
  const checked = $derived(new Set((radio.texts.checked ?? '').split(/,\s*/).filter(Boolean)));
  const hangs = (part: string, n: number) => {
    if (part === 'names') return n > 0 ? `${String(n)} names would be fuller` : 'no name depends on it';
    return n > 0 ? `${String(n)} ${n === 1 ? 'channel depends' : 'channels depend'} on it` : 'no channel depends on it';
  };
  function check(part: string) {
    radio.texts.checked = parts.filter((p) => checked.has(p) !== (p === part)).join(', ');
    radio.typed();
  }
  const lostHere = (i: number) => threads.at[i]?.lost ?? [];

  // The threads run beside the parts: they are drawn where these are.
  let box = $state<HTMLElement>();
  let tops = $state.raw<number[]>([]);
  let bottom = $state(0);
  $effect(() => {
    const root = box;
    if (!root) return;
    const measure = () => {
      const now = [...root.querySelectorAll<HTMLElement>('.part')].map((e) => e.offsetTop);
      if (now.join() !== tops.join()) tops = now;
      bottom = root.offsetHeight;
    };
    const watch = new ResizeObserver(measure);
    watch.observe(root);
    for (const e of root.children) watch.observe(e);
    measure();
    return () => {
      watch.disconnect();
    };
  });
</script>

{#snippet test(part: (typeof parts)[number], i: number)}
  {@const t = d.trials.find((x) => x.part === part)}
  {#if t}
    <label class="check">
      <input
        type="checkbox"
        checked={checked.has(part)}
        disabled={!own}
        aria-label="Checked on the radio: {part}"
        onchange={() => {
          check(part);
        }}
      />
      <span>{t.says}</span>
      <span class="gain" class:some={t.gain > 0}>{hangs(part, t.gain)}</span>
    </label>
  {/if}
  {#if narrow.is}
    {#if lostHere(i).length > 0}<p class="losses">
        <Mark kind="stop" size={11} /> <b>−{lostHere(i).length}</b>
        {lostHere(i)
          .map((r) => `${String(r.slot)} ${r.channel.name}`)
          .join(', ')}; {threads.at[i]?.left} go on
      </p>{/if}
  {/if}
{/snippet}

<div class="sheet">
  <div class="parts" bind:this={box}>
    <section class="part" aria-label="Bands">
      <span class="no">1</span>
      <h2>Receives <Dotted {radio} of="receive" /> MHz, transmits <Dotted {radio} of="transmit" /> MHz</h2>
      <BandRuler {preview} />
      {@render test('bands', 0)}
    </section>
    <section class="part" aria-label="Slots">
      <span class="no">2</span>
      <h2>
        Slots <Dotted {radio} of="slots" />{#if own || radio.texts.special_slots}, and special ones:
          <Dotted {radio} of="special_slots" />{/if}
      </h2>
      <SlotCells {preview} first={Number(range[1])} last={Number(range[2])} />
      {#if d.moves.length > 0}
        <div class="fix">
          <p>
            {d.moves.length === 1 ? 'One channel has' : `${String(d.moves.length)} channels have`} no slot of
            {d.moves.length === 1 ? 'its' : 'their'} number here. “Go to {d.moves[0]?.from}” would then mean {d.moves[0]
              ?.to} on this radio.
          </p>
          {#if radio.form?.load === null && !radio.dirty}
            <Button
              fix="idle"
              onclick={() => {
                use(true);
              }}
              >Add with {d.moves.length} in {d.moves
                .slice(0, 6)
                .map((m) => m.to)
                .join(', ')}{d.moves.length > 6 ? ' …' : ''}</Button
            >
          {/if}
        </div>
      {/if}
      {@render test('slots', 1)}
    </section>
    <section class="part" aria-label="Shift">
      <span class="no">3</span>
      <h2>
        To set a shift, <Dotted {radio} of="entry" />{#if radio.texts.entry === 'automatic'}, by the table of
          <Dotted
            {radio}
            of="automatic_region"
          />{/if}{#if radio.texts.entry !== 'columns' && radio.texts.entry !== 'twice'}; up to
          <Dotted {radio} of="offset_max" /> MHz in steps of <Dotted {radio} of="offset_resolution" /> MHz{/if}
      </h2>
      {#if d.example}<KeyedIn example={d.example} />{:else}<p class="py-1 text-small text-ink2">
          No channel of the plan fits whole, so there is none to show how it is keyed.
        </p>{/if}
      {@render test('shift', 2)}
    </section>
    <section class="part" aria-label="Tones">
      <span class="no">4</span>
      <h2>
        <Dotted {radio} of="ctcss" /> tones, separate ones each way <Dotted {radio} of="separate_tones" />, 1750 Hz
        <Dotted {radio} of="burst" />; <Dotted {radio} of="dcs" /> codes{#if radio.texts.dcs !== '0'}, inverted
          <Dotted {radio} of="inverted_dcs" />{/if}
      </h2>
      <ToneComb {preview} />
      {@render test('tones', 3)}
    </section>
    <section class="part" aria-label="Names">
      <span class="no">5</span>
      <h2>
        Names of <Dotted {radio} of="name_length" /> characters, keyed in on the radio <Dotted
          {radio}
          of="name_keypad"
        />{#if own}, out of <Dotted {radio} of="name_characters" />{/if}
      </h2>
      <NameWindow
        {preview}
        length={Number(radio.form?.texts.name_length ?? 0)}
        characters={radio.texts.name_characters ?? ''}
      />
      {@render test('names', 4)}
    </section>
  </div>
  {#if !narrow.is}<div
      class="beside"
      role="img"
      aria-label="Of {threads.total} channels {threads.at
        .filter((a) => a.lost.length > 0)
        .map((a) => `${String(a.lost.length)} are lost at ${a.part}`)
        .join(', ') || 'none is lost'}; {threads.whole.length} fit as they are, {threads.part.length} in part"
    >
      <Threads {preview} {tops} {bottom} />
    </div>
  {:else}
    <p class="pt-2">
      <b class="font-strong">{threads.whole.length}</b> of {threads.total} channels as they are{#if threads.part.length > 0},
        <b class="font-strong text-conflict">{threads.part.length} in part</b>: {threads.part
          .map((r) => `${String(r.slot)} ${r.channel.name}`)
          .join(', ')}{/if}.
    </p>
  {/if}
</div>

<style>
  .sheet {
    display: grid;
    grid-template-columns: minmax(0, 668px) minmax(0, 340px);
    align-items: start; /* the threads are as long as the parts, and must not make them longer */
    gap: 20px;
  }
  .parts {
    position: relative;
    min-width: 0;
  }
  .part {
    position: relative;
    border-top: var(--hair);
    padding: 7px 0 8px 28px;
  }
  .part:first-child {
    border-top: 1px solid var(--bold);
  }
  .no {
    position: absolute;
    left: 4px;
    top: 9px;
    font: var(--w-strong) 15px/20px var(--figs);
    color: var(--ink2);
  }
  h2 {
    font-size: var(--t-lead);
    line-height: 24px;
  }
  .check {
    display: flex;
    align-items: baseline;
    gap: 8px;
    min-height: 24px;
    font-size: 13.5px;
    line-height: 18px;
    margin-top: 2px;
  }
  .check input {
    width: 14px;
    height: 14px;
    flex: none;
    align-self: center;
  }
  .gain {
    margin-left: auto;
    padding-left: 12px;
    white-space: nowrap;
    font-size: var(--t-small);
    color: var(--ink2);
  }
  .some {
    color: var(--ink);
    font-weight: var(--w-strong);
  }
  .fix {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px 14px;
    margin: 6px 0 5px;
    font-size: 13.5px;
  }
  .fix p {
    flex: 1 1 220px;
  }
  .losses {
    font-size: var(--t-small);
    padding-top: 4px;
  }
  .losses b {
    color: var(--stop);
  }
  .parts :global(.d) {
    display: block;
    margin-top: 5px;
  }
  .parts :global(.d text) {
    font: var(--w-normal) 11.5px var(--text);
    fill: var(--ink2);
  }
  .parts :global(.d .fg) {
    font-family: var(--figs);
  }
  .parts :global(.d text.held) {
    font-weight: 600;
    fill: var(--ink);
  }
  .parts :global(.d text.lost) {
    font-weight: 600;
    fill: var(--stop);
  }
  .parts :global(.d text.half) {
    font-weight: 600;
    fill: var(--conflict);
  }
  .parts :global(.d .quiet) {
    fill: var(--ink3);
  }
  @media (max-width: 79.375em) {
    .sheet {
      grid-template-columns: minmax(0, 1fr) minmax(240px, 300px);
      gap: 16px;
    }
  }
  @media (max-width: 45em) {
    .sheet {
      display: block;
    }
    .part {
      padding-left: 24px;
    }
    .no {
      left: 0;
    }
    .check {
      display: grid;
      grid-template-columns: 20px minmax(0, 1fr);
      gap: 1px 8px;
      padding: 6px 0;
      min-height: 44px;
    }
    .gain {
      grid-column: 2;
      margin: 0;
      padding: 0;
      white-space: normal;
    }
    .check input {
      width: 20px;
      height: 20px;
      align-self: start;
    }
  }
</style>
