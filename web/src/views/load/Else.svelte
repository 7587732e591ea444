<script lang="ts">
  import type { WalkStop, WrongShown } from '$lib/api/client';

  /** Displays that are not as they must be, each with the slips that lead to it. */
  interface Props {
    stop: WalkStop;
    wrong: readonly WrongShown[] | null;
    to: (step: number) => void;
  }
  let { stop, wrong, to }: Props = $props();
  const right = $derived([stop.sheet.rest.shift, stop.sheet.rest.tone, stop.sheet.rest.lock].filter(Boolean).join(' '));
  /** Without figures the slot is empty. */
  const shows = (w: WrongShown) => w.figures || (w.slot ? `slot ${w.slot} is empty` : 'nothing');
  const readsOut = $derived(stop.sheet.keyed && stop.sheet.read_out ? stop.sheet.keyed.figures : '');
  const go = (step: number) => (step === 0 ? 'from step 1' : `step ${String(step)}`);
</script>

<h3>Mine shows something else</h3>
{#if wrong === null}<p class="note">Trying slips out on a simulated radio …</p>
{:else if wrong.length === 0}<p class="note">
    No single slip could be tried out here. Key the channel in again from step 1.
  </p>
  <p class="mt-2">
    <button
      type="button"
      class="link max-desk:min-h-11"
      onclick={() => {
        to(1);
      }}>from step 1</button
    >
  </p>
{:else}
  <p class="note">Find the row that your radio shows. Bold is what differs.</p>
  <ul>
    {#each wrong as w, i (i)}
      {@const first = w.mistakes[0]}
      <li>
        <span class="figs"
          >{#if w.marks}<span class="marks" class:bold={w.marks !== right}>{w.marks}</span>{:else if right}<b
              class="none marks">no mark</b
            >{/if}<span class:bold={w.figures !== stop.sheet.rest.figures}>{shows(w)}</span
          >{#if readsOut && w.read_out !== readsOut && w.read_out}<span class="line"
              ><span class="out">read-out</span> <span class="bold">{w.read_out}</span></span
            >{/if}</span
        >
        <span class="why"
          >{w.mistakes
            .slice(0, 2)
            .map((m) => m.says)
            .join('; or ')}</span
        >
        <button
          type="button"
          class="link"
          onclick={() => {
            to(first?.step ?? 1);
          }}>{go(first?.step ?? 0)}</button
        >
      </li>
    {/each}
  </ul>
  <p class="note mt-1">Then store slot {stop.slot} again.</p>
{/if}

<style>
  h3 {
    font-size: var(--t-lead, 15px);
    font-weight: var(--w-strong);
  }
  .note {
    color: var(--ink2);
    font-size: var(--t-small);
  }
  ul {
    margin-top: 4px;
    border-top: 1px solid var(--bold);
    font-size: var(--t-small);
  }
  li {
    display: grid;
    grid-template-columns: 230px minmax(0, 1fr) auto;
    gap: 2px 14px;
    align-items: baseline;
    padding: 3px 0;
    border-bottom: var(--hair);
  }
  .line {
    display: block;
  }
  .figs {
    color: var(--ink2);
    font: 14px/1.4 var(--figs);
    white-space: nowrap;
  }
  .figs .bold,
  .none {
    color: var(--ink);
    font-weight: var(--w-strong);
  }
  .none,
  .out {
    font: var(--t-label) var(--text);
  }
  .marks {
    margin-right: 0.7em;
  }
  @media (max-width: 45em) {
    h3 {
      font-size: 19px;
    }
    .note,
    ul {
      font-size: 15px;
    }
    li {
      grid-template-columns: minmax(0, 1fr) auto;
    }
    .figs {
      font-size: 18px;
    }
    .why {
      grid-row: 2;
      grid-column: 1 / 3;
    }
    li button {
      min-height: 44px;
    }
  }
</style>
