<script lang="ts">
  import Mark from '$parts/Mark.svelte';
  import StandingRule from '$parts/StandingRule.svelte';
  import type { TestCard } from '$lib/api/client';
  import { bearing, distance } from '$lib/format';

  /** Why nothing came back, and which single change would tell most. */
  interface Props {
    c: TestCard;
    chosen: number;
    choose: (act: number) => void;
    negative: () => void;
    searching: boolean;
    search: () => void;
  }
  let { c, chosen, choose, negative, searching, search }: Props = $props();
  const most = $derived(Math.max(0.2, ...c.causes.map((x) => Math.max(x.now, x.was))));
  const best = $derived(Math.max(0.05, ...c.acts.map((a) => a.worth)));
  const act = $derived(c.acts[chosen]);
  const silent = $derived(c.tries.length > 0 && !c.answered);
</script>

<div class="flex items-baseline gap-3">
  <span class="font-figs text-head font-strong text-ink2">{c.slot}</span>
  <h2 class="min-w-0 flex-1 truncate text-head leading-[26px] font-strong">{c.name}</h2>
  <span class="text-[16px]"
    >{#if c.standing.now === 'proven'}<Mark kind="agrees" size={16} /> proven{:else}<Mark kind="unverified" size={16} /> unproven{/if}</span
  >
</div>
{#if c.distance_km !== null}
  <p class="quiet">
    {distance(c.distance_km)}{#if c.bearing !== null}, {bearing(c.bearing)}{/if}{#if c.reach_km !== null}, {c.distance_km <=
      c.reach_km
        ? 'inside'
        : 'past'} its horizon ({distance(c.reach_km)}){/if}
  </p>
{/if}
<StandingRule standing={c.standing} person="" radio={c.unit} />
{#if c.permission}<p class="quiet">The owner: {c.permission}</p>{/if}
{#if silent}
  <section aria-label="Why nothing came back">
    <h3>
      Why nothing came back <span
        >after {c.tries.length === 1 ? 'one try' : `${String(c.tries.length)} tries`}; tick: before them</span
      >
    </h3>
    {#each c.causes.slice(0, 8) as x, i (i)}
      <p class="cause" class:first={i === 0}>
        <span>{x.says}</span>
        <svg width="92" height="8" viewBox="0 0 92 8" aria-hidden="true"
          ><path class="all" d="M0,4H92" /><path class="now" d="M0,4H{(92 * x.now) / most}" /><path
            class="was"
            d="M{(92 * x.was) / most},0V8"
          /></svg
        >
        <span class="r">{x.in_ten}</span>
      </p>
    {/each}
    <p class="quiet">
      Weights: {c.basis}.{#if c.found}
        Nothing that is left to do would tell more.{/if}
    </p>
  </section>
{/if}
{#if c.acts.length > 0 && !c.answered && !searching}
  <section aria-label="Next">
    <h3>
      {silent ? 'Next, change one thing' : 'First'}
      {#if silent}<span>how far it would bring you</span>{/if}
    </h3>
    {#each c.acts.slice(0, 7) as a, i (i)}
      <p class="act" class:chosen={i === chosen}>
        <span
          >{a.says}{#if a.why}<small>{a.why}</small>{/if}</span
        >
        {#if silent}<svg width="92" height="8" viewBox="0 0 92 8" aria-hidden="true"
            ><path class="all" d="M0,4H92" /><path class="now" d="M0,4H{(92 * a.worth) / best}" /></svg
          >{/if}
        {#if i === chosen}<span class="r">in the card</span>{:else}<button
            type="button"
            class="link r"
            onclick={() => {
              choose(i);
            }}>this instead</button
          >{/if}
      </p>
      {#if i === chosen && silent && act}
        <p class="quiet">
          {#if a.yes}If {a.kind === 'key' ? 'it answers' : 'so'}: {a.yes}.{/if}
          {#if a.no}If not: {a.no}.{/if}
        </p>
      {/if}
    {/each}
  </section>
{/if}
{#if c.answered && !c.closed}
  <section aria-label="Negative test">
    <h3>Is it the tone that opens it?</h3>
    <p class="quiet">
      Only a call that fails tells: without the tone it must stay silent. If it answers all the same, it needs none, or
      somebody else had opened it.
      <button type="button" class="link" onclick={negative}>Call without the tone</button>
    </p>
  </section>
{/if}
{#if !searching && !c.answered && c.search.input}
  <section aria-label="Tone search">
    <h3>Or find out what others send</h3>
    <p class="quiet">
      {#if c.search.hits.length > 0}{c.search.hits.length === 1
          ? 'One search'
          : `${String(c.search.hits.length)} searches`} so far.{:else}A search on the input needs somebody near you who
        uses it, and sends nothing.{/if}
      <button type="button" class="link" onclick={search}>Search for the tone</button>
    </p>
  </section>
{/if}

<style>
  h3 {
    font-size: 16px;
    font-weight: var(--w-strong);
    display: flex;
    align-items: baseline;
    gap: 10px;
    border-bottom: 1px solid var(--rule2);
    padding: 14px 0 4px;
  }
  h3 span {
    margin-left: auto;
    font-size: 12.5px;
    font-weight: var(--w-normal);
    color: var(--ink2);
    text-align: right;
  }
  .quiet {
    font-size: 13px;
    color: var(--ink2);
    padding: 3px 0;
  }
  .cause,
  .act {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 92px 88px;
    gap: 10px;
    align-items: baseline;
    border-bottom: 1px solid var(--rule);
    padding: 3px 0;
  }
  .first {
    font-weight: var(--w-strong);
  }
  .r {
    grid-column: 3;
    text-align: right;
    font-size: 13px;
    font-weight: var(--w-normal);
    color: var(--ink2);
  }
  .link.r {
    color: var(--accent);
  }
  .all {
    stroke: var(--rule);
  }
  .now {
    stroke: var(--ink);
    stroke-width: 3;
  }
  .was {
    stroke: var(--ink2);
  }
  .act small {
    display: block;
    color: var(--ink2);
    font-size: 12.5px;
    font-weight: var(--w-normal);
  }
  .chosen {
    font-weight: var(--w-strong);
  }
  .chosen .now {
    stroke: var(--accent);
  }
  @media (max-width: 45em) {
    .act .link {
      min-height: 44px;
    }
  }
</style>
