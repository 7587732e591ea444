<script lang="ts">
  import type { Preview } from '$lib/api/client';

  /** How a shift is keyed, as a channel of the plan keyed in: what to press, and what it must show. */
  let { example }: { example: NonNullable<Preview['drawing']['example']> } = $props();
  const sheet = $derived(example.sheet);
  /** What is about the shift; the whole sheet has more. */
  const heart = [
    'receive',
    'automatic shift',
    'shift direction',
    'shift size',
    'transmit',
    'store',
    'store the transmit side',
  ];
  let whole = $state(false);
  const about = $derived(sheet.steps.filter((s) => heart.some((h) => s.do === h || s.do.startsWith(`${h} in`))));
  const steps = $derived(whole ? sheet.steps : about);
  const said = (s: { shift: string; tone: string; lock: string; figures: string }) =>
    [s.shift, s.tone, s.lock, s.figures].filter(Boolean).join(' ');
  /** Keys are capitals in the words of the crib. */
  const pieces = (keys: string) =>
    keys.split(/(\b[A-Z][A-Z0-9/+-]*\b)/).map((text, i) => ({ text, key: i % 2 === 1 && text.length > 1 }));
</script>

{#if sheet.reason}
  <p class="py-1 text-small text-ink2">{sheet.reason}</p>
{:else}
  <ol class="py-1">
    {#each steps as s (s.number)}
      <li class="step">
        <span class="do">{s.do} <b>{s.value ?? ''}</b> {s.unit ?? ''}</span>
        <span
          >{#each pieces(s.keys) as p, i (i)}{#if p.key}<kbd>{p.text}</kbd>{:else}{p.text}{/if}{/each}</span
        >
      </li>
    {/each}
  </ol>
  <p class="text-small text-ink2">
    slot {example.slot}, {example.name}: at rest it shows <b class="shows">{said(sheet.rest)}</b>{#if sheet.keyed},
      keyed
      <b class="shows">{said(sheet.keyed)}</b>{/if}.
    <button type="button" class="link max-desk:min-h-11" aria-expanded={whole} onclick={() => (whole = !whole)}
      >{whole ? 'only the shift' : `all ${String(sheet.steps.length)} steps`}</button
    >
  </p>
{/if}

<style>
  .step {
    display: grid;
    grid-template-columns: 190px minmax(0, 1fr);
    gap: 8px;
    align-items: baseline;
    min-height: 22px;
    font-size: var(--t-small);
    color: var(--ink2);
  }
  .do {
    color: var(--ink);
  }
  .do b,
  .shows {
    font: var(--w-strong) 14px/1 var(--figs);
    color: var(--ink);
  }
  kbd {
    font: var(--w-medium) 12px/17px var(--figs);
    border: var(--line);
    border-radius: var(--radius);
    padding: 0 4px;
    margin: 0 1px;
    color: var(--ink);
    background: var(--paper);
  }
  @media (max-width: 45em) {
    .step {
      grid-template-columns: minmax(0, 1fr);
      gap: 0;
      padding: 3px 0;
    }
  }
</style>
