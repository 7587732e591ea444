<script lang="ts">
  import Button from '$parts/Button.svelte';
  import Frequency from '$parts/Frequency.svelte';
  import Mark from '$parts/Mark.svelte';
  import Vector from '$parts/Vector.svelte';
  import type { Around, FoundRepeater, LoadInfo, StatementID } from '$lib/api/client';
  import { distance } from '$lib/format';
  import { commands } from '$session/commands.svelte';
  import Missing from './Missing.svelte';

  interface Props {
    around: Around;
    load: LoadInfo | undefined;
    choose: (id: StatementID) => void;
    add: () => void;
  }
  let { around: a, load, choose, add }: Props = $props();
  const slots = $derived(a.vacant.slice(0, a.missing.length));
  const name = $derived(load?.unit.name ?? 'your radio');
  const strokes = (n: number, long: number) => ({ n: Math.min(n, long), more: n > long });
</script>

{#snippet line(r: FoundRepeater, cells: import('svelte').Snippet)}
  <li>
    <button
      type="button"
      class="line"
      onclick={() => {
        choose(r.id);
      }}>{@render cells()}</button
    >
  </li>
{/snippet}

<div class="four">
  <section aria-labelledby="near">
    <h2 id="near">Nearest you are missing</h2>
    <ul class="near">
      {#each a.missing as r (r.id.source + r.id.key)}
        {#snippet cells()}
          <span class="truncate">{r.title}</span><span class="text-right"><Frequency hz={r.best.output_hz} /></span
          ><span class="text-center"
            >{#if r.bearing_deg !== null}<Vector degrees={r.bearing_deg} km={r.distance_km ?? 0} />{/if}</span
          ><span class="text-right text-ink2">{r.distance_km === null ? '' : distance(r.distance_km)}</span>
        {/snippet}
        {@render line(r, cells)}
      {:else}
        <li class="none">
          {a.held > 0 ? `${name} has all that can be heard here.` : 'No repeater that can be heard here is published.'}
        </li>
      {/each}
    </ul>
    {#if a.missing.length > 0 && slots.length > 0}
      <p class="pt-2">
        <Button key={commands.key('find-fix')} fix="live" onclick={add}
          >Add to {slots.length === 1 ? 'slot' : 'slots'} {slots.join(', ')}</Button
        >
      </p>
    {:else if a.missing.length > 0}
      <p class="more">{load ? `${name} is full.` : 'Add a radio to the plan first.'}</p>
    {/if}
  </section>

  <section aria-labelledby="doubt">
    <h2 id="doubt">In doubt <small>of {a.held} in {name}</small></h2>
    <ul class="doubt">
      {#each a.doubt as d (d.repeater.id.source + d.repeater.id.key)}
        {#snippet cells()}
          <span><Mark kind={d.verdict} /></span><span class="font-figs">{d.repeater.slots[0]}</span><span
            class="truncate">{d.repeater.title}</span
          ><span class="text-right text-ink2">{d.why}</span>
        {/snippet}
        {@render line(d.repeater, cells)}
      {:else}
        <li class="none">
          {a.held === 0 ? `${name} holds nothing that is published here.` : 'Nothing: all is as published.'}
        </li>
      {/each}
    </ul>
  </section>

  <section aria-labelledby="bands">
    <h2 id="bands">
      Held and missing <small>by band{a.within_km > 0 ? `, within ${String(a.within_km)} km` : ''}</small>
    </h2>
    <ul class="bands">
      {#each a.bands as b (b.name)}
        {@const held = strokes(b.held, 30)}
        {@const missing = strokes(b.missing, 30 - held.n)}
        <li class="line">
          <span>{b.name}</span>
          <svg width={(held.n + missing.n) * 5.2} height="13" aria-hidden="true">
            {#each [...Array(held.n).keys()] as i (i)}<path class="held" d="M{1.5 + i * 5.2},0V13" />{/each}
            {#each [...Array(missing.n).keys()] as i (i)}<path
                class="lack"
                d="M{1.5 + (held.n + i) * 5.2},7V13"
              />{/each}
          </svg>
          <span class="text-label text-ink2">{b.held} of {b.held + b.missing}</span>
        </li>
      {:else}<li class="none">Nothing published here is in a band that {name} can use.</li>{/each}
    </ul>
    <p class="more">
      {#if a.other > 0}{a.other} in bands that {name} cannot use.{/if}
      {#if a.thin}Thinnest: <b class="font-strong">{a.thin.direction}</b>, {a.thin.held} of {a.thin.all} within {a.thin
          .within_km} km.{/if}
    </p>
  </section>

  <section aria-labelledby="last">
    <h2 id="last">Confirmed last <small>by a listing</small></h2>
    <ul class="last">
      {#each a.confirmed as r (r.id.source + r.id.key)}
        {#snippet cells()}
          <span class="font-figs text-ink2"
            >{#if r.slots.length > 0}{r.slots[0]}{:else}<Missing />{/if}</span
          ><span class="truncate">{r.title}</span><span class="text-right text-ink2">{r.age} ago</span>
        {/snippet}
        {@render line(r, cells)}
      {:else}<li class="none">No listing has dates.</li>{/each}
    </ul>
  </section>
</div>

<style>
  .four {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 12px 24px;
    margin-top: 12px;
  }
  h2 {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    gap: 8px;
    font-size: 13.5px;
    font-weight: var(--w-strong);
    border-bottom: 1px solid var(--bold);
    padding-bottom: 3px;
    white-space: nowrap;
  }
  small {
    font: var(--w-normal) var(--t-label) var(--text);
    color: var(--ink2);
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .line {
    display: grid;
    width: 100%;
    min-height: 24px;
    align-items: baseline;
    line-height: 22px;
    border-bottom: var(--hair);
    text-align: left;
    white-space: nowrap;
    font-size: 13.5px;
  }
  button.line:hover {
    background: var(--hover);
  }
  .near .line {
    grid-template-columns: minmax(0, 1fr) 70px 26px 52px;
  }
  .doubt .line {
    grid-template-columns: 20px 30px minmax(0, 1fr) auto;
  }
  .bands .line {
    grid-template-columns: 50px minmax(0, 1fr) auto;
    align-items: center;
  }
  .last .line {
    grid-template-columns: 24px minmax(0, 1fr) auto;
  }
  .none,
  .more {
    padding-top: 5px;
    font-size: var(--t-small);
    color: var(--ink2);
    white-space: normal;
  }
  .held {
    stroke: var(--ink);
    stroke-width: 2.2;
  }
  .lack {
    stroke: var(--ink);
  }
  @media (max-width: 45em) {
    .four {
      grid-template-columns: minmax(0, 1fr);
    }
    .line {
      min-height: 44px;
      align-items: center;
    }
  }
</style>
