<script lang="ts">
  import type { BeaconView } from '$lib/api/client';
  import { when } from '$lib/format';

  /** What to see on the radio before the first beacon; and what was switched for space. */
  interface Props {
    v: BeaconView;
    act: (act: string, value: string, says: string) => void;
  }
  let { v, act }: Props = $props();
  let all = $state(false);
  const main = $derived(v.flight.filter((c) => c.main));
  const others = $derived(v.flight.filter((c) => !c.main));
</script>

{#snippet line(c: BeaconView['flight'][number])}
  <label class="check">
    <input
      type="checkbox"
      checked={c.done !== ''}
      onchange={(e) => {
        act(e.currentTarget.checked ? 'tick' : 'untick', c.id, c.says);
      }}
    />
    <span
      ><b>{c.says}</b>{#if c.why}<small>{c.why}</small>{/if}</span
    >
    <span class="how">{c.how}</span>
    <span class="sees">{c.sees}</span>
    {#if c.done}<time>{when(c.done)}</time>{/if}
  </label>
{/snippet}

<section aria-label="Pre-flight" class="flight">
  <div class="head">
    <h3>Four things to see first</h3>
    <button type="button" class="link" aria-expanded={all} onclick={() => (all = !all)}
      >{others.length} often forgotten</button
    >
    <button
      type="button"
      class="link"
      onclick={() => {
        all = true;
        setTimeout(() => {
          print();
        }, 50);
      }}>print the card</button
    >
  </div>
  {#each main as c (c.id)}{@render line(c)}{/each}
  {#if all}{#each others as c (c.id)}{@render line(c)}{/each}{/if}
  <p class="quiet">You key the radio. Follow your local rules and your licence.</p>
</section>
{#if v.space || v.switch.length > 0}
  <section aria-label="Ground and space" class="flight">
    <div class="head">
      <h3>{v.space ? 'In space: what goes back afterwards' : 'Put back on the radio what space changed'}</h3>
    </div>
    {#each v.switch as c (c.id)}
      <label class="check">
        <input
          type="checkbox"
          checked={c.done}
          disabled={v.space || c.done}
          onchange={() => {
            act('restored', c.id, `${c.says} is put back`);
          }}
        />
        <span><b>{c.says}</b></span><span class="how">in space: {c.space}</span><span class="sees"
          >on the ground: {c.ground}</span
        >
      </label>
    {/each}
    {#if !v.space && v.switch.some((c) => !c.done)}<p class="text-conflict">
        The list stays until each line was seen on the radio.
      </p>{/if}
  </section>
{/if}

<style>
  .flight {
    border-top: 1px solid var(--rule2);
    padding: 8px 0;
    margin-top: 8px;
  }
  .head {
    display: flex;
    flex-wrap: wrap;
    gap: 12px;
    align-items: baseline;
  }
  h3 {
    font-weight: var(--w-strong);
    flex: 1;
  }
  .check {
    display: grid;
    grid-template-columns: 22px minmax(0, 1.1fr) minmax(0, 0.8fr) minmax(0, 1.1fr);
    gap: 0 6px;
    align-items: baseline;
    min-height: 26px;
    border-bottom: 1px solid var(--rule);
    font-size: 13px;
  }
  b {
    font-weight: var(--w-normal);
    font-size: 14px;
  }
  small {
    display: block;
    color: var(--ink2);
    font-size: 12px;
  }
  .how,
  .quiet,
  time {
    color: var(--ink2);
    font-size: 12.5px;
  }
  .sees {
    font-size: 12.5px;
    text-align: right;
  }
  time {
    grid-column: 2 / -1;
  }
  @media (max-width: 45em) {
    .check {
      grid-template-columns: 28px minmax(0, 1fr);
      min-height: 44px;
      align-items: center;
    }
    .check input {
      width: 20px;
      height: 20px;
    }
    .how,
    .sees {
      grid-column: 2;
      text-align: left;
    }
    .link {
      min-height: 44px;
    }
  }
</style>
