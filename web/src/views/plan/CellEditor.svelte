<script lang="ts">
  import { columnNames, type Column } from './columns';

  interface Props {
    column: Column;
    slot: number;
    text: string;
    /** What was typed before and is not saved. */
    begun?: string | undefined;
    /** Saves the text; returns what is wrong with it, or nothing. */
    save: (text: string) => Promise<string | undefined>;
    /** Ends editing; direction says which cell comes next, 0 for none. */
    done: (direction: -1 | 0 | 1) => void;
  }
  let { column, slot, text, begun, save, done }: Props = $props();
  // svelte-ignore state_referenced_locally
  let value = $state(begun ?? text);
  let trouble = $state('');
  let ended = false;

  async function commit(direction: -1 | 0 | 1) {
    if (ended) return;
    ended = true;
    const wrong = value === text ? undefined : await save(value);
    if (wrong === undefined) {
      done(direction);
      return;
    }
    ended = false;
    trouble = wrong;
  }

  function keydown(e: KeyboardEvent) {
    e.stopPropagation();
    if (e.key === 'Enter') {
      e.preventDefault();
      void commit(0);
    } else if (e.key === 'Tab') {
      e.preventDefault();
      void commit(e.shiftKey ? -1 : 1);
    } else if (e.key === 'Escape') {
      ended = true;
      done(0);
    }
  }

  function focus(node: HTMLInputElement) {
    node.focus();
    node.select();
  }
</script>

<span class="relative block">
  <input
    {@attach focus}
    bind:value
    class="absolute -top-0.5 -left-1 z-10 h-[26px] w-[calc(100%+8px)] min-w-20 bg-sheet px-1 shadow-[0_2px_0_var(--accent)] outline-none {column ===
    'name'
      ? ''
      : 'font-figs'}"
    aria-label="{columnNames[column]} of slot {slot}"
    aria-invalid={trouble !== ''}
    aria-describedby={trouble ? 'cell-trouble' : undefined}
    spellcheck="false"
    autocomplete="off"
    onkeydown={keydown}
    onblur={(e) => {
      // Another window in front is no reason to store what is half typed.
      if (document.activeElement !== e.currentTarget) void commit(0);
    }}
    onclick={(e) => {
      e.stopPropagation();
    }}
  />
  <span class="invisible">&nbsp;</span>
  {#if trouble}
    <span
      id="cell-trouble"
      role="alert"
      class="absolute top-[27px] -left-1 z-20 max-w-80 border border-stop bg-sheet px-2 py-1 text-small leading-tight font-medium whitespace-normal text-stop"
      >{trouble}</span
    >
  {/if}
</span>
