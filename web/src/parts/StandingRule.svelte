<script lang="ts">
  import { when } from '$lib/format';
  import type { Row } from '$lib/api/client';

  /** How far a channel has come into the radio: a rule in four parts, thick as far as reached. Each word says it has come so far. */
  interface Props {
    standing: Row['standing'];
    /** Who said so; empty for nobody. */
    person: string;
    radio: string;
    /** Says how far it has come; without it the rule is only looked at. */
    set?: (state: Row['standing']['now']) => void;
  }
  let { standing, person, radio, set }: Props = $props();
  const states = ['planned', 'stored', 'keyed', 'proven'] as const;
  const means = {
    planned: 'in the plan alone',
    stored: 'in the radio',
    keyed: 'the display showed the right transmit frequency',
    proven: 'it was answered on the air',
  };
  const at = $derived(states.indexOf(standing.now));
</script>

<div class="rule" role="group" aria-label="Standing in {radio}">
  {#each states as s, i (s)}
    {#if set}<button
        type="button"
        class:reached={i <= at}
        class:now={i === at}
        aria-pressed={i === at}
        title="{s}: {means[s]}"
        onclick={() => {
          if (i !== at) set(s);
        }}>{s}</button
      >{:else}<span class:reached={i <= at} class:now={i === at}>{s}</span>{/if}
  {/each}
</div>
{#if standing.was}
  <p class="mt-1 text-small">
    The radio still holds what it was before: {standing.was}{standing.at ? ` ${when(standing.at)}` : ''}{person
      ? ` by ${person}`
      : ''}, and changed since.
  </p>
{:else if at > 0}
  <p class="mt-0.5 text-note text-ink2">
    {standing.at ? when(standing.at) : ''}{person ? ` · ${person}` : ''}{standing.with ? ` · ${standing.with}` : ''}
  </p>
{/if}

<style>
  .rule {
    display: grid;
    grid-template-columns: repeat(4, 1fr);
    margin-top: 6px;
    font-size: var(--t-label);
    color: var(--ink2);
  }
  .rule button,
  .rule span {
    text-align: left;
    padding: 3px 0 1px;
    border-top: 1px solid var(--rule2);
  }
  .rule .reached {
    border-top: 3px solid var(--ink);
    padding-top: 1px;
  }
  .rule button:hover {
    color: var(--ink);
  }
  .rule .now {
    color: var(--ink);
    font-weight: var(--w-strong);
  }
  @media (max-width: 45em) {
    .rule button {
      min-height: 44px;
    }
  }
</style>
