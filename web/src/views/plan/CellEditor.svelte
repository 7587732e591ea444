<script lang="ts">
  import { columnNames, type Column } from './columns';

  interface Props {
    column: Column;
    slot: number;
    text: string;
    /** What was typed before and is not saved. */
    begun?: string | undefined;
    /** A key began it: what is typed goes on behind it. */
    typed?: boolean;
    /** What may be written instead. */
    offers: () => Promise<string[]>;
    /** Saves the text; returns what is wrong with it, or nothing. */
    save: (text: string) => Promise<string | undefined>;
    /** Ends editing; direction says which cell comes next, 0 for none. */
    done: (direction: -1 | 0 | 1) => void;
  }
  let { column, slot, text, begun, typed = false, offers, save, done }: Props = $props();
  // svelte-ignore state_referenced_locally
  let value = $state(begun ?? text);
  let trouble = $state('');
  let ended = false;
  let offered = $state.raw<string[]>([]);
  /** The offer that the arrows have reached; -1 for what is typed. */
  let at = $state(-1);
  let own = '';
  // svelte-ignore state_referenced_locally
  void offers().then((o) => (offered = o));

  function reach(n: number) {
    if (at < 0) own = value;
    at = n;
    value = offered[n] ?? own;
  }

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
    } else if (e.key === 'ArrowDown' && at < offered.length - 1) {
      e.preventDefault();
      reach(at + 1);
    } else if (e.key === 'ArrowUp' && at >= 0) {
      e.preventDefault();
      reach(at - 1);
    } else if (e.key === 'Escape') {
      ended = true;
      done(0);
    }
  }

  function focus(node: HTMLInputElement) {
    node.focus();
    if (!typed) node.select();
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
    role={offered.length > 0 ? 'combobox' : undefined}
    aria-expanded={offered.length > 0 ? true : undefined}
    aria-controls={offered.length > 0 ? 'cell-offers' : undefined}
    aria-activedescendant={at >= 0 ? `offer-${String(at)}` : undefined}
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
  {#if offered.length > 0 && !trouble}
    <ul
      id="cell-offers"
      role="listbox"
      aria-label={column === 'short_name' ? 'Other short names' : 'Published here'}
      class="absolute top-[27px] -left-1 z-20 min-w-24 border border-rule2 bg-sheet py-0.5 text-small font-normal whitespace-nowrap text-ink {column ===
      'name'
        ? ''
        : 'font-figs'}"
    >
      {#each offered as o, n (o)}
        <li
          role="option"
          id="offer-{n}"
          aria-selected={n === at}
          class="cursor-pointer px-2 py-px max-desk:min-h-11 {n === at ? 'bg-water' : 'hover:bg-hover'}"
          onpointerdown={(e) => {
            e.preventDefault();
            value = o;
            void commit(0);
          }}
        >
          {o}
        </li>
      {/each}
    </ul>
  {/if}
  {#if trouble}
    <span
      id="cell-trouble"
      role="alert"
      class="absolute top-[27px] -left-1 z-20 max-w-80 border border-stop bg-sheet px-2 py-1 text-small leading-tight font-medium whitespace-normal text-stop"
      >{trouble}</span
    >
  {/if}
</span>
