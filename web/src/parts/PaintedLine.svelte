<script lang="ts" module>
  /** A word of a line with what it was taken as. */
  export interface PaintedWord {
    start: number;
    end: number;
    /** Under its bracket; "" for a word without one. */
    as: string;
    guess?: boolean;
    doubt?: boolean;
    strong?: boolean;
  }
</script>

<script lang="ts">
  import type { HTMLInputAttributes } from 'svelte/elements';
  import Mark from './Mark.svelte';

  /** A line that is written large, each of its words bracketed with what it was taken as. */
  interface Props extends Omit<HTMLInputAttributes, 'value' | 'oninput' | 'type'> {
    value: string;
    words: readonly PaintedWord[];
    /** Said in the empty line. */
    such: string;
    input?: HTMLInputElement | undefined;
    typed: (text: string) => void;
  }
  let { value, words, such, input = $bindable(), typed, ...rest }: Props = $props();

  let scrolled = $state(0);

  /** The line in pieces: words in their weight, what is between them as it is. */
  const pieces = $derived.by(() => {
    const runes = [...value];
    const out: { text: string; word?: PaintedWord }[] = [];
    let at = 0;
    for (const w of words) {
      if (w.start > at) out.push({ text: runes.slice(at, w.start).join('') });
      out.push({ text: runes.slice(w.start, w.end).join(''), word: w });
      at = w.end;
    }
    out.push({ text: runes.slice(at).join('') });
    return out;
  });
</script>

<div class="field">
  <input
    {...rest}
    bind:this={input}
    {value}
    oninput={(e) => {
      typed(e.currentTarget.value);
    }}
    onscroll={(e) => (scrolled = e.currentTarget.scrollLeft)}
    spellcheck="false"
    autocomplete="off"
    autocapitalize="off"
  />
  <div class="paint" aria-hidden="true">
    <div style:transform="translateX({-scrolled}px)">
      {#if value === ''}
        <span class="text-[15px] text-ink3">{such}</span>
      {:else}
        {#each pieces as p, i (i)}{#if p.word}<span class="word" class:strong={p.word.strong}
              >{p.text}{#if p.word.as}<span class="bracket" class:guess={p.word.guess} class:doubt={p.word.doubt}
                  ><em
                    >{#if p.word.doubt}<Mark kind="conflict" size={9} />{/if}{p.word.as}</em
                  ></span
                >{/if}</span
            >{:else}<span>{p.text}</span>{/if}{/each}
      {/if}
    </div>
  </div>
</div>

<style>
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
