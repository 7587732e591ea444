<script lang="ts">
  import { untrack, type Snippet } from 'svelte';
  import type { Found, FoundRepeater } from '$lib/api/client';
  import { commands } from '$session/commands.svelte';
  import { idText, type FindState } from './find.svelte';
  import FoundRow from './FoundRow.svelte';

  interface Props {
    find: FindState;
    found: Found;
    names: Record<number, string>;
    /** What is shown below the chosen row, on a phone. */
    opened: Snippet | undefined;
  }
  let { find, found, names, opened }: Props = $props();
  const list = $derived(found.repeaters);
  /** A new list is drawn a few rows at a time, so that the page answers meanwhile. */
  const few = 8;
  let drawn = $state(few);
  $effect(() => {
    if (list.length >= 0) untrack(() => (drawn = Math.max(few, list.findIndex(is) + 1)));
  });
  $effect(() => {
    if (drawn >= list.length) return;
    const frame = requestAnimationFrame(() => (drawn += few));
    return () => {
      cancelAnimationFrame(frame);
    };
  });
  const is = (r: FoundRepeater) => {
    const at = find.selected;
    return at !== undefined && r.statements.some((s) => idText(s) === idText(at));
  };
  const stop = $derived(Math.max(0, list.findIndex(is)));

  function move(e: KeyboardEvent, at: number) {
    const step = { ArrowDown: 1, ArrowUp: -1, PageDown: 10, PageUp: -10, Home: -1e6, End: 1e6 }[e.key];
    const r = list[at];
    if (e.key === ' ' && r) {
      e.preventDefault();
      find.pick(idText(r.id));
      return;
    }
    if (e.key === 'Escape' && find.selected) {
      e.preventDefault();
      find.selected = undefined;
      return;
    }
    if (step === undefined) {
      commands.act('In the list', e);
      return;
    }
    e.preventDefault();
    const next = list[Math.max(0, Math.min(list.length - 1, at + step))];
    if (!next) return;
    find.selected = next.id;
    document.getElementById(`r-${idText(next.id)}`)?.focus();
  }
</script>

<!-- On a phone a row opens in place: then it is a button in a list, and not an option. -->
<ul role={opened ? undefined : 'listbox'} aria-label="Repeaters" aria-multiselectable={opened ? undefined : true}>
  {#each list.slice(0, drawn) as r, at (idText(r.id))}
    {@const id = idText(r.id)}
    {@const here = is(r)}
    <li role={opened ? undefined : 'none'}>
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <div
        id="r-{id}"
        role={opened ? 'button' : 'option'}
        tabindex={opened || at === stop ? 0 : -1}
        aria-selected={opened ? undefined : find.picked.has(id) || here}
        aria-expanded={opened ? here : undefined}
        class="row cursor-default outline-none hover:bg-hover"
        onclick={() => (find.selected = opened && here ? undefined : r.id)}
        onfocus={(e) => {
          if (!opened && e.currentTarget.matches(':focus-visible')) find.selected = r.id;
        }}
        ondblclick={() => {
          if (!opened) find.pick(id);
        }}
        onkeydown={(e) => {
          if (opened && e.key === 'Enter') find.selected = here ? undefined : r.id;
          else move(e, at);
        }}
      >
        <FoundRow
          repeater={r}
          radio={found.radio || 'your radio'}
          today={found.today}
          fifth={(at + 1) % 5 === 0}
          selected={here}
          picked={find.picked.has(id)}
          {names}
        />
      </div>
      {#if opened && here}<div class="opened">{@render opened()}</div>{/if}
    </li>
  {/each}
</ul>

<style>
  .row:focus-visible {
    outline: 2px solid var(--accent);
    outline-offset: -2px;
  }
  .opened {
    margin: 0 calc(-1 * var(--margin));
    padding: 2px var(--margin) 12px;
    background: var(--sheet);
    border-bottom: var(--line);
    box-shadow: inset 4px 0 0 var(--ink);
  }
</style>
