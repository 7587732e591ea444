<script lang="ts">
  import Button from '$parts/Button.svelte';
  import type { RelayView } from '$lib/api/client';
  import { when } from '$lib/format';

  /** The run card: what to do, in which order; ticks are kept. */
  interface Props {
    v: RelayView;
    who: string;
    tick: (step: string, done: boolean) => void;
    rehearsed: (yes: boolean) => void;
    back: () => void;
  }
  let { v, who, tick, rehearsed, back }: Props = $props();
  const parts = $derived(
    (v.report?.parts ?? []).map((p) => ({ ...p, steps: (v.report?.card ?? []).filter((s) => s.part === p.id) })),
  );
  const done = $derived((v.report?.card ?? []).filter((s) => v.ticks[s.id]).length);
</script>

<article class="card">
  <nav class="nav" aria-label="Run card">
    <button type="button" class="link" onclick={back}>← back to the relay</button>
    <Button
      onclick={() => {
        print();
      }}>Print</Button
    >
    <span>{done} of {v.report?.card.length} done</span>
  </nav>
  <h2>{v.report?.title}: run card</h2>
  <p class="quiet">{v.vehicle}. Follow your local rules and your licence.</p>
  {#if !v.kept}<p class="text-conflict">What is written is not kept yet: press Enter in a side first.</p>{/if}
  {#each parts as p (p.id)}
    <section aria-label={p.says}>
      <h3>{p.says}</h3>
      {#each p.steps as s (s.id)}
        <label class="step">
          <input
            type="checkbox"
            checked={!!v.ticks[s.id]}
            onchange={(e) => {
              tick(s.id, e.currentTarget.checked);
            }}
          />
          <span
            >{s.says}{#if s.why}<small>{s.why}</small>{/if}</span
          >
          {#if v.ticks[s.id]}<time>{when(v.ticks[s.id] ?? '')}</time>{/if}
        </label>
      {/each}
      {#if p.id === 'rehearse'}
        <p class="rehearsed">
          {#if v.rehearsed}Rehearsed {when(v.rehearsed)}{who ? ` by ${who}` : ''}, as it is set up now.
            <button
              type="button"
              class="link"
              onclick={() => {
                rehearsed(false);
              }}>take it back</button
            >{:else}<Button
              disabled={!v.kept}
              onclick={() => {
                rehearsed(true);
              }}>It was rehearsed, and worked</Button
            >{/if}
        </p>
      {/if}
    </section>
  {/each}
</article>

<style>
  .nav {
    display: flex;
    gap: 16px;
    align-items: center;
    padding: 4px 0 8px;
    color: var(--ink2);
    font-size: 13px;
  }
  h2 {
    font-size: var(--t-head);
    font-weight: var(--w-strong);
  }
  h3 {
    font-weight: var(--w-strong);
    border-bottom: 1px solid var(--bold);
    padding: 12px 0 2px;
  }
  .quiet,
  small,
  time {
    color: var(--ink2);
    font-size: 12.5px;
  }
  small {
    display: block;
  }
  .step {
    display: grid;
    grid-template-columns: 24px minmax(0, 1fr) auto;
    align-items: baseline;
    min-height: 28px;
    padding: 3px 0;
    border-bottom: 1px solid var(--rule);
  }
  .rehearsed {
    padding: 8px 0 0 24px;
  }
  @media (max-width: 45em) {
    .card {
      padding: 8px var(--margin) 72px;
    }
    .step {
      min-height: 44px;
      align-items: center;
    }
    .step input {
      width: 20px;
      height: 20px;
    }
    .nav .link {
      min-height: 44px;
    }
  }
  @media print {
    .nav,
    .rehearsed button {
      display: none;
    }
    .card {
      color: #000;
      font-size: 10pt;
    }
    .step {
      break-inside: avoid;
    }
  }
</style>
