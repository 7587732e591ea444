<script lang="ts">
  import { tick } from 'svelte';
  import LineGround from '$parts/LineGround.svelte';
  import PaintedLine from '$parts/PaintedLine.svelte';
  import type { Found } from '$lib/api/client';
  import type { FindState } from './find.svelte';

  interface Props {
    find: FindState;
    found: Found | undefined;
    /** The words are those of what is typed now. */
    settled: boolean;
    load: number;
    input?: HTMLInputElement | undefined;
    /** Goes into the list. */
    enter: () => void;
  }
  let { find, found, settled, load, input = $bindable(), enter }: Props = $props();

  const words = $derived(
    (settled ? (found?.words ?? []) : []).map((w) => ({
      start: w.from,
      end: w.to,
      as: w.as,
      guess: w.state === 'guess',
      doubt: w.state === 'doubt',
      strong: /^\d/.test(w.text),
    })),
  );
  const list = $derived(find.completions);

  async function take(at: number) {
    const c = list[at];
    if (!c) return;
    const caret = find.complete(c);
    await tick();
    input?.focus();
    input?.setSelectionRange(caret, caret);
  }

  function press(e: KeyboardEvent) {
    const open = list.length > 0;
    if (e.key === 'ArrowDown' && open) find.at = (find.at + 1) % list.length;
    else if (e.key === 'ArrowUp' && open) find.at = ((find.at + list.length) % (list.length + 1)) - 1;
    else if (e.key === 'Escape' && open) find.close();
    else if (e.key === 'Escape' && find.line !== '') find.line = '';
    else if ((e.key === 'Enter' || e.key === 'Tab') && open && find.at >= 0) void take(find.at);
    else if ((e.key === 'Enter' && !e.ctrlKey && !e.metaKey) || e.key === 'ArrowDown') {
      find.close();
      enter();
    } else return;
    e.preventDefault();
    e.stopPropagation();
  }
</script>

<div class="relative">
  <LineGround number={found ? String(found.found) : '–'}>
    <label class="sr-only" for="find-line">Search what is published</label>
    <PaintedLine
      id="find-line"
      bind:input
      value={find.line}
      {words}
      such="a name, 146.9, 2m missing 60km"
      typed={(text) => void find.type(text, [...text.slice(0, input?.selectionStart ?? text.length)].length, load)}
      onkeydown={press}
      onblur={() => {
        find.close();
      }}
      maxlength={200}
      role="combobox"
      aria-expanded={list.length > 0}
      aria-controls="find-completions"
      aria-autocomplete="list"
      aria-activedescendant={find.at >= 0 ? `completion-${String(find.at)}` : undefined}
      aria-describedby="find-gloss"
    />
    {#if find.line !== ''}
      <button
        type="button"
        class="link mt-3 ml-2 h-6 flex-none max-desk:min-h-11"
        onclick={() => {
          find.line = '';
          find.close();
          input?.focus();
        }}>clear</button
      >
    {:else}
      <p class="mt-2.5 ml-3 flex-none text-right text-label leading-[1.4] text-ink3 max-desk:hidden">
        part of a name or callsign, the first figures, a band,<br />or a word:
        <span class="font-figs text-ink2">missing</span>, <span class="font-figs text-ink2">open</span>,
        <span class="font-figs text-ink2">agreed</span>, <span class="font-figs text-ink2">this-year</span>
      </p>
    {/if}
  </LineGround>
  <p id="find-gloss" class="sr-only">
    {(found?.words ?? []).map((w) => `${w.text}: ${w.as}${w.says ? `. ${w.says}` : ''}`).join(', ')}
  </p>
  <ul
    id="find-completions"
    role="listbox"
    aria-label="Completions"
    class="absolute top-full left-[30px] z-20 min-w-[320px] border border-rule2 bg-sheet max-desk:left-0 max-desk:w-full {list.length >
    0
      ? ''
      : 'hidden'}"
  >
    {#each list as c, i (i)}
      <li
        role="option"
        id="completion-{i}"
        aria-selected={i === find.at}
        class="flex min-h-7 cursor-default items-baseline justify-between gap-4 px-3 py-1 max-desk:min-h-11 max-desk:items-center {i ===
        find.at
          ? 'bg-water'
          : ''}"
        onpointerdown={(e) => {
          e.preventDefault();
          void take(i);
        }}
      >
        <b class="font-figs font-medium">{c.text}</b><span class="text-label text-ink2">{c.says}</span>
      </li>
    {/each}
  </ul>
</div>
