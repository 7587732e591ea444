<script lang="ts">
  import Mark from '$parts/Mark.svelte';
  import type { Word } from '$lib/api/client';
  import { commands } from '$session/commands.svelte';
  import type { PlanState } from './plan.svelte';
  import StoreButton from './StoreButton.svelte';

  interface Props {
    plan: PlanState;
    nextSlot: number | null;
    input?: HTMLInputElement;
    store: (replace: boolean) => void;
  }
  let { plan, nextSlot, input = $bindable(), store }: Props = $props();

  const reading = $derived(plan.reading);
  const words = $derived<Word[]>(reading && plan.line ? reading.words : []);
  const slot = $derived(reading?.slot ?? plan.place ?? nextSlot);
  /** The fields that a grave finding speaks of. */
  const doubted = $derived(
    new Set(reading?.findings.filter((f) => f.severity === 'stop' || f.severity === 'fix').map((f) => f.field)),
  );
  const fieldOf: Record<string, string[]> = {
    receive: ['receive'],
    transmit: ['transmit', 'shift'],
    shift: ['shift'],
    simplex: ['shift'],
    tone: ['transmit_tone'],
    tones: ['transmit_tone', 'receive_tone'],
    'tone squelch': ['transmit_tone', 'receive_tone'],
    'receive tone': ['receive_tone'],
    'receive and transmit': ['receive', 'transmit', 'shift'],
    band: ['receive'],
    callsign: ['name'],
    slot: ['slot'],
    name: ['name'],
  };
  const doubt = (w: Word) => w.problem !== undefined || (fieldOf[w.as] ?? []).some((f) => doubted.has(f));

  let scrolled = $state(0);

  /** The line in pieces: words in their weight, what is between them as it is. */
  const pieces = $derived.by(() => {
    const runes = [...plan.line];
    const out: { text: string; word?: Word }[] = [];
    let at = 0;
    for (const w of words) {
      if (w.start > at) out.push({ text: runes.slice(at, w.start).join('') });
      out.push({ text: runes.slice(w.start, w.end).join(''), word: w });
      at = w.end;
    }
    out.push({ text: runes.slice(at).join('') });
    return out;
  });

  const gloss = (w: Word) => {
    if (w.problem !== undefined) return w.as === 'unknown' ? '?' : w.as;
    return w.guess ?? w.as;
  };
</script>

<div class="line border-rule bg-sheet">
  <span class="slot" aria-hidden="true">{slot ?? '–'}</span>
  <label class="sr-only" for="entry">Channel for slot {slot ?? 'none'}: type what the listing says</label>
  <div class="field">
    <input
      id="entry"
      bind:this={input}
      value={plan.line}
      oninput={(e) => {
        plan.type(e.currentTarget.value);
      }}
      onscroll={(e) => (scrolled = e.currentTarget.scrollLeft)}
      onkeydown={(e) => {
        commands.act('On the line', e);
      }}
      onpaste={(e) => {
        const text = e.clipboardData?.getData('text') ?? '';
        if (!/[\r\n]/.test(text.trim())) return;
        e.preventDefault();
        void plan.paste(text);
      }}
      spellcheck="false"
      autocomplete="off"
      autocapitalize="off"
      maxlength="400"
      aria-describedby="say gloss"
    />
    <div class="paint" aria-hidden="true">
      <div style:transform="translateX({-scrolled}px)">
        {#if plan.line === ''}
          <span class="text-[15px] text-ink3">such as 146.94 -600 88.5 Marran</span>
        {:else}
          {#each pieces as p, i (i)}{#if p.word}<span
                class="word"
                class:strong={p.word.as === 'receive' || p.word.as === 'shift'}
                >{p.text}{#if p.word.as !== 'joins'}<span
                    class="bracket"
                    class:guess={p.word.guess}
                    class:doubt={doubt(p.word)}
                    ><em
                      >{#if doubt(p.word)}<Mark kind="conflict" size={9} />{/if}{gloss(p.word)}</em
                    ></span
                  >{/if}</span
              >{:else}<span>{p.text}</span>{/if}{/each}
        {/if}
      </div>
    </div>
  </div>
  {#if reading && plan.line}
    <span class="mt-4 ml-3 flex-none max-desk:hidden"><StoreButton {reading} {store} /></span>
  {/if}
</div>
<p id="gloss" class="sr-only">
  {words.map((w) => `${w.text} taken as ${w.as}${w.problem ? `: ${w.problem}` : ''}`).join(', ')}
</p>

<style>
  .line {
    display: flex;
    align-items: flex-start;
    height: 64px;
    border: 1px solid var(--rule);
    border-left: 0;
    margin-left: -10px;
    padding: 0 10px;
    position: relative;
  }
  .line::before {
    content: '';
    position: absolute;
    left: 0;
    top: -1px;
    bottom: -1px;
    width: 4px;
    background: var(--rule2);
  }
  .line:focus-within::before {
    background: var(--accent);
  }
  .slot {
    width: 40px;
    flex: none;
    padding-left: 4px;
    font: var(--w-strong) 20px/46px var(--figs);
    color: var(--accent);
  }
  .field {
    position: relative;
    flex: 1;
    min-width: 0;
    height: 62px;
  }
  input {
    width: 100%;
    height: 42px;
    border: 0;
    padding: 0;
    background: none;
    font: 440 var(--t-entry) / 42px var(--figs);
    color: transparent;
    caret-color: var(--accent);
    outline: 0;
    position: relative;
    z-index: 1;
  }
  .paint {
    position: absolute;
    inset: 0;
    overflow: hidden;
    white-space: pre;
    font: 440 var(--t-entry) / 42px var(--figs);
    pointer-events: none;
  }
  .word {
    position: relative;
    display: inline-block;
    height: 42px;
    vertical-align: top;
  }
  .strong {
    font-weight: var(--w-strong);
  }
  .bracket {
    position: absolute;
    left: 0;
    right: 0;
    top: 38px;
    height: 6px;
    border: 1px solid var(--ink2);
    border-top: 0;
  }
  .guess {
    border-style: dashed;
  }
  .doubt {
    border-color: var(--conflict);
    border-style: solid;
    border-width: 0 2px 2px;
  }
  em {
    position: absolute;
    left: 50%;
    top: 8px;
    transform: translateX(-50%);
    font: var(--w-normal) var(--t-label) / 1.2 var(--text);
    color: var(--ink2);
    white-space: nowrap;
    display: inline-flex;
    align-items: center;
    gap: 4px;
  }
  .doubt em {
    color: var(--conflict);
    font-weight: var(--w-strong);
  }
  @media (max-width: 45em) {
    .line {
      margin: 0 calc(-1 * var(--margin));
      padding: 0 var(--margin);
      border-width: 0 0 1px;
    }
    .slot {
      width: 32px;
      font-size: 17px;
      padding: 0;
    }
    input,
    .paint {
      font-size: 19px;
    }
  }
  @media (forced-colors: active) {
    input {
      color: FieldText;
    }
    .paint {
      display: none;
    }
  }
</style>
