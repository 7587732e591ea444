<script lang="ts">
  import type { SheetStep } from '$lib/api/client';
  import { letters } from './words';

  /** What to press, as keys: in the words that stand on them. */
  let { step, characters }: { step: SheetStep; characters: string } = $props();
</script>

<div class="caps" role="group" aria-label="Keys: {step.keys}">
  {#each step.acts as a, i (i)}
    {#if a.verb === 'press'}
      {#each a.keys as k, j (j)}<span class="cap">{k}</span>{/each}
      {#if a.other.length > 0 && a.times === 0}<span class="or">or</span>{#each a.other as k, j (j)}<span class="cap"
            >{k}</span
          >{/each}{/if}
      {#if a.times > 1}<span class="x">× {a.times}</span>{/if}
      {#if a.shows && a.times === 0}<span class="or">until it shows</span> <b>{a.shows}</b>{/if}
    {:else if a.verb === 'hold'}
      <span class="cap">hold {a.keys.join(' ')}</span>
    {:else if a.verb === 'turn'}
      <span class="or">turn</span><span class="cap">{a.keys.join(' ')}</span>
      <span class="or">until it shows</span> <b>{a.shows}</b>
    {:else if a.verb === 'type'}
      {#each a.text as digit, j (j)}<span class="cap digit">{digit}</span>{/each}
    {:else if a.verb === 'see'}
      <span class="or">it must show</span> <b>{a.shows}</b>
    {:else if a.verb === 'spell'}
      <span class="spell">
        {#each letters(a, characters) as l, j (j)}
          <span class="letter"
            ><b>{l.letter === ' ' ? '␣' : l.letter}</b><span>{a.keys[0]} × {l.presses}</span><span>{a.keys[1]}</span
            ></span
          >
        {/each}
      </span>
    {:else}<span class="or">{a.text}</span>{/if}
  {/each}
</div>

<style>
  .caps {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px;
    margin-left: 28px;
  }
  .cap {
    min-width: 32px;
    height: 30px;
    padding: 0 8px;
    border: 1px solid var(--rule2);
    border-radius: var(--radius);
    background: var(--sheet);
    font: var(--w-medium) 15px/28px var(--figs);
    text-align: center;
    white-space: nowrap;
  }
  .digit {
    min-width: 26px;
    padding: 0 4px;
  }
  .x {
    margin: 0 6px 0 -1px;
    font: var(--w-strong) 17px/30px var(--figs);
  }
  .or {
    color: var(--ink2);
    font-size: var(--t-small);
  }
  b {
    font: var(--w-strong) 22px var(--figs);
    white-space: pre;
  }
  .spell {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 10px;
  }
  .letter {
    display: flex;
    flex-direction: column;
    align-items: center;
    min-width: 52px;
    padding: 4px 6px;
    border: var(--hair);
    font: 12px/1.25 var(--figs);
    color: var(--ink2);
    white-space: nowrap;
  }
  .letter b {
    color: var(--ink);
    font-size: 24px;
    line-height: 28px;
  }
  @media (max-width: 45em) {
    .caps {
      gap: 8px 6px;
      margin-left: 0;
    }
    .cap {
      min-width: 36px;
      height: 44px;
      font-size: 18px;
      line-height: 42px;
    }
    .x {
      font-size: 22px;
      line-height: 44px;
    }
    .or {
      font-size: 16px;
    }
    b {
      font-size: 20px;
    }
  }
</style>
