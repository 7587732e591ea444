<script lang="ts">
  import Button from '$parts/Button.svelte';
  import LineGround from '$parts/LineGround.svelte';
  import Mark from '$parts/Mark.svelte';
  import type { TestCard } from '$lib/api/client';
  import { figures, when } from '$lib/format';
  import type { LogState } from './log.svelte';

  /** Leads through the search for the tone that others send. */
  interface Props {
    log: LogState;
    c: TestCard;
    take: (field: string, tone: string, says: string) => void;
    note: (what: { side: string; system: string; tone: string }) => Promise<boolean>;
    back: () => void;
  }
  let { log, c, take, note, back }: Props = $props();
  let side = $state<'input' | 'output'>('input');
  let system = $state('');
  let tone = $state('');
  const at = $derived(side === 'input' && c.search.input ? 'input' : c.search.output ? 'output' : 'input');
  const seat = $derived(at === 'input' ? c.search.input : c.search.output);
  const searched = $derived(system || (seat?.system ?? 'ctcss'));
  const f = (hz: number) => {
    const x = figures(hz);
    return `${x.mhz}.${x.khz}${x.rest}`;
  };
  const words = { ctcss: 'CTCSS', dcs: 'DCS' } as Record<string, string>;
  const send = async (found: string) => {
    if (await note({ side: at, system: searched, tone: found })) {
      tone = '';
      system = '';
    }
  };
</script>

<p class="back"><button type="button" class="link" onclick={back}>← back to the test</button></p>
{#if c.search.refused}
  <h2><span>{c.slot}</span> {c.name}</h2>
  <p class="py-1"><Mark kind="stop" /> {c.search.refused}</p>
{:else if seat}
  <LineGround number={String(c.slot)}>
    <div class="values">
      <span class="value hot"><b>{f(seat.sit_hz)}</b><i></i><em>sit here, the {at}</em></span>
      <span class="value"><b>{words[searched]}</b><i></i><em>search for</em></span>
      <span class="value"><b>{f(c.search.back_hz)}</b><i></i><em>back to it afterwards</em></span>
    </div>
  </LineGround>
  <ol>
    <li>
      {#if at === 'input'}
        <b>Sit on the input</b>, near enough to hear somebody who uses it directly: with your radio’s reverse key, or
        with the frequency in its VFO. What opens a repeater is sent there; its output carries the repeater’s own tone,
        another one or none.
      {:else}
        <b>Sit on the output</b> while the repeater is up. What is found there is what you can wait for; it says nothing of
        what opens it.
      {/if}
      {#if c.search.input && c.search.output}<span class="pair" role="group" aria-label="Where you sit">
          <button type="button" aria-pressed={at === 'input'} onclick={() => (side = 'input')}>the input</button>
          <button type="button" aria-pressed={at === 'output'} onclick={() => (side = 'output')}>the output</button>
        </span>{/if}
    </li>
    <li>
      <b>Search {words[searched]}</b> in the menu of the receive tone, while somebody speaks. It takes several overs. {seat.why}
      <span class="pair" role="group" aria-label="What is searched">
        {#each ['ctcss', 'dcs'] as s (s)}<button
            type="button"
            aria-pressed={searched === s}
            onclick={() => (system = s)}>{words[s]}</button
          >{/each}
      </span>
    </li>
    <li>
      <form
        onsubmit={(e) => {
          e.preventDefault();
          if (tone.trim()) void send(tone);
        }}
      >
        <label for="search-tone">It stopped at</label>
        <input
          id="search-tone"
          bind:value={tone}
          placeholder={searched === 'dcs' ? '023' : '88.5'}
          autocomplete="off"
          aria-invalid={log.faults.tone !== undefined}
        />
        <Button type="submit" kind="main" disabled={!tone.trim()}>Note this</Button>
        <Button onclick={() => void send('')}>It found no {words[searched]}</Button>
      </form>
      <p class="fields">
        <label for="search-who">who was sending</label><input
          id="search-who"
          bind:value={log.station}
          maxlength="200"
        />
        <label for="search-spot">where you are</label><input id="search-spot" bind:value={log.spot} maxlength="200" />
      </p>
      {#if log.trouble}<p class="text-stop" role="alert">{log.trouble}</p>{/if}
      {#if log.waiting > 0}<p class="quiet">Kept here, {log.waiting} to send.</p>{/if}
    </li>
  </ol>
  <div role="status">
    {#each [c.search.input, c.search.output] as s, i (i)}
      {#if s?.doubt}<p class="found"><Mark kind="conflict" /> {s.doubt}</p>{/if}
      {#if s?.offer}
        <p class="found">
          <Mark kind={s.offer.same ? 'agrees' : 'conflict'} />
          <b>On the {i === 0 ? 'input' : 'output'}:</b>
          {s.offer.why}
          {#if s.offer.same}It is what is stored.{:else}<Button
              fix="idle"
              onclick={() => {
                if (s.offer) take(s.offer.field, s.offer.tone, s.offer.says);
              }}>{s.offer.says}</Button
            >{/if}
        </p>
      {/if}
    {/each}
  </div>
  <p class="found">
    <b>At the end</b> put the VFO back on {f(c.search.back_hz)}, and switch the search off: a radio that is left on the
    input hears the repeater no more.
  </p>
  {#if c.search.hits.length > 0}
    <h2 class="hits">Searches on slot {c.slot}</h2>
    <ul>
      {#each c.search.hits.toReversed() as h (h.id)}
        <li>
          <span class="n">{when(h.at)}</span><span>{h.says}</span><span class="quiet"
            >{[h.station, h.spot].filter((x) => x).join(', ')}</span
          >
        </li>
      {/each}
    </ul>
  {/if}
{/if}

<style>
  .back {
    padding-bottom: 4px;
  }
  h2 {
    font-size: var(--t-head);
    font-weight: var(--w-strong);
  }
  h2 span {
    font-family: var(--figs);
    color: var(--ink2);
  }
  .values {
    display: flex;
    gap: 0 34px;
    padding-top: 4px;
    min-width: 0;
    overflow: hidden;
    height: 62px;
  }
  .value {
    display: inline-flex;
    flex-direction: column;
    align-items: center;
  }
  .value b {
    font: var(--w-strong) 22px/36px var(--figs);
  }
  .value i {
    width: 100%;
    height: 5px;
    border: 1px solid var(--ink2);
    border-top: 0;
  }
  .value em {
    font: var(--w-normal) var(--t-label) / 1.2 var(--text);
    color: var(--ink2);
    white-space: nowrap;
  }
  .hot b,
  .hot em {
    color: var(--accent);
  }
  .hot i {
    border-color: var(--accent);
    border-width: 0 2px 2px;
  }
  ol {
    padding: 6px 0 0 40px;
    counter-reset: step;
  }
  ol li {
    counter-increment: step;
    position: relative;
    padding: 6px 0;
    border-bottom: 1px solid var(--rule);
  }
  ol li::before {
    content: counter(step);
    position: absolute;
    left: -26px;
    font-family: var(--figs);
    color: var(--ink2);
  }
  b {
    font-weight: var(--w-strong);
  }
  .pair {
    display: flex;
    width: fit-content;
    margin-top: 6px;
    border: 1px solid var(--rule2);
    border-radius: 2px;
  }
  .pair button {
    padding: 0 10px;
    min-height: 26px;
    color: var(--ink2);
  }
  .pair [aria-pressed='true'] {
    background: var(--ink);
    color: var(--paper);
  }
  form,
  .fields {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 12px;
    align-items: center;
  }
  .fields {
    padding-top: 6px;
    color: var(--ink2);
    font-size: 13px;
  }
  input {
    height: 30px;
    width: 110px;
    border: 1px solid var(--rule2);
    border-radius: 2px;
    background: var(--sheet);
    padding: 0 8px;
  }
  .fields input {
    width: 160px;
  }
  #search-tone {
    font-family: var(--figs);
  }
  .found {
    padding: 6px 0 2px 40px;
  }
  .quiet {
    color: var(--ink2);
    font-size: 13px;
  }
  .hits {
    font-size: var(--t-body);
    padding: 8px 0 2px 40px;
    border-top: 1px solid var(--rule2);
    margin-top: 8px;
  }
  ul li {
    display: grid;
    grid-template-columns: 130px minmax(0, 1fr) minmax(0, 1fr);
    padding-left: 40px;
    min-height: 24px;
    align-items: baseline;
  }
  .n {
    font-family: var(--figs);
    color: var(--ink2);
  }
  @media (max-width: 45em) {
    .found,
    .hits,
    ul li {
      padding-left: 0;
    }
    .values {
      gap: 0 18px;
    }
    .value b {
      font-size: 18px;
    }
    ol {
      padding-left: 24px;
    }
    .pair {
      width: auto;
    }
    .pair button {
      flex: 1;
      min-height: 44px;
    }
    input {
      height: 44px;
    }
  }
</style>
