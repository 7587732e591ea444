<script lang="ts">
  import type { FoundRepeater } from '$lib/api/client';
  import Frequency from '$parts/Frequency.svelte';
  import Mark from '$parts/Mark.svelte';
  import Needle from '$parts/Needle.svelte';
  import Tone from '$parts/Tone.svelte';
  import { distance } from '$lib/format';
  import { commands } from '$session/commands.svelte';
  import { idText, type FindState } from './find.svelte';

  let { find, list }: { find: FindState; list: FoundRepeater[] } = $props();

  function move(e: KeyboardEvent, at: number) {
    const step = { ArrowDown: 1, ArrowUp: -1, PageDown: 10, PageUp: -10, Home: -1e6, End: 1e6 }[e.key];
    if (e.key === ' ') {
      e.preventDefault();
      const r = list[at];
      if (r) find.pick(idText(r.id));
      return;
    }
    if (step === undefined) {
      commands.act('In the list', e);
      return;
    }
    e.preventDefault();
    const next = list[Math.max(0, Math.min(list.length - 1, at + step))];
    if (!next) return;
    find.selected = idText(next.id);
    document.getElementById(`r-${find.selected}`)?.focus();
  }
  const stop = $derived(
    list.some((r) => idText(r.id) === find.selected) ? find.selected : list[0] && idText(list[0].id),
  );
  const says = (r: FoundRepeater) =>
    r.conflicts.length > 0 ? 'listings differ' : r.stale ? `old: ${r.age}` : `confirmed ${r.age} ago`;
</script>

<ul role="listbox" aria-label="Repeaters" aria-multiselectable="true">
  {#each list as r, at (idText(r.id))}
    {@const id = idText(r.id)}
    <li
      id="r-{id}"
      role="option"
      tabindex={id === stop ? 0 : -1}
      aria-selected={find.picked.has(id) || id === find.selected}
      class="row cursor-default border-b border-rule py-1 {id === find.selected ? 'bg-sheet' : ''} {find.picked.has(id)
        ? 'picked'
        : ''}"
      onclick={() => (find.selected = id)}
      onfocus={() => (find.selected = id)}
      ondblclick={() => {
        find.pick(id);
      }}
      onkeydown={(e) => {
        move(e, at);
      }}
    >
      <span class="mt-0.5"
        >{#if r.conflicts.length > 0}<Mark kind="conflict" />{/if}</span
      >
      <span><Frequency hz={r.best.output_hz} pad={3} /></span>
      <span class="min-w-0 truncate"
        ><b class="font-strong">{r.title}</b>
        <span class="font-figs text-small text-ink2">{r.best.callsign}</span></span
      >
      <span class="text-right whitespace-nowrap"
        >{#if r.distance_km !== null}{distance(r.distance_km)}{:else}<span class="text-ink2">no position</span
          >{/if}</span
      >
      <span class="bearing text-right whitespace-nowrap"
        >{#if r.bearing_deg !== null}<Needle degrees={r.bearing_deg} />{/if}</span
      >
      <span class="second text-label text-ink2">
        {#if r.shift}{r.shift}{:else}shift not stated{/if},
        {#if r.best.uplink_tone === null}tone not stated{:else if r.best.uplink_tone === 'none'}no tone{:else}<Tone
            text={r.best.uplink_tone}
          />{/if}; {says(r)}{#if r.statements.length > 1}, {r.statements.length} listings{/if}{#if r.remark}; <b
            class="font-medium text-ink">{r.remark}</b
          >{/if}
      </span>
      <span class="plan text-right text-label whitespace-nowrap {r.slots.length > 0 ? 'text-ink' : 'text-ink3'}"
        >{#if find.picked.has(id)}picked{:else if r.slots.length > 0}slot {r.slots.join(', ')}{/if}</span
      >
    </li>
  {/each}
</ul>

<style>
  .row {
    display: grid;
    grid-template-columns: 18px 92px minmax(0, 1fr) 84px 58px;
    column-gap: 8px;
    padding-inline: 6px;
  }
  .second {
    grid-column: 2 / 4;
  }
  .plan {
    grid-column: 4 / 6;
  }
  .picked {
    box-shadow: inset 4px 0 0 var(--accent);
    background: var(--water);
  }
  @media (max-width: 45em) {
    .row {
      grid-template-columns: 14px 86px minmax(0, 1fr) 64px;
      column-gap: 6px;
    }
    .bearing {
      display: none;
    }
    .second {
      grid-column: 2 / 5;
    }
    .plan {
      grid-column: 2 / 5;
      text-align: left;
    }
  }
  .row:focus-visible {
    outline-offset: -2px;
  }
</style>
