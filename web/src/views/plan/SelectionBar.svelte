<script lang="ts">
  import Menu from '$parts/Menu.svelte';
  import { narrow } from '$lib/screen.svelte';
  import type { SetInfo } from '$lib/api/client';
  import { commands } from '$session/commands.svelte';
  import type { PlanState } from './plan.svelte';
  import { runs } from './runs';
  import { joined } from './sets.svelte';

  /** What can be done to the slots that are chosen together, and how the view is sorted. */
  interface Props {
    plan: PlanState;
    sets: readonly SetInfo[];
    /** There are other radios, which may do the same. */
    several: boolean;
    keep: () => void;
    back: () => void;
    moving: HTMLInputElement | undefined;
  }
  let { plan, sets, several: more, keep, back, moving = $bindable() }: Props = $props();
  const several = $derived(plan.several);
  let to = $state('');
  const n = $derived(several.held.length);
  const on = $derived(several.slots.size > 0 || (narrow.is && plan.choosing));
  let asking = $state(false);
  const ids = $derived(new Set(plan.ledger?.rows.filter((r) => several.held.includes(r.slot)).map((r) => r.id)));

  async function go() {
    const slot = Number(to.trim().replace('#', ''));
    if (!Number.isInteger(slot) || to.trim() === '') {
      plan.trouble = `"${to}" is not a slot: type its number, such as 30.`;
      return;
    }
    await several.move(slot);
    to = '';
    back();
  }
  const run = (id: string) => () => {
    commands.run(id);
    back();
  };
</script>

{#if plan.sort}
  <p class="bar" role="status">
    Sorted by {plan.sort.column
      .replace('_', ' ')
      .replace('transmit tone', 'tone out')
      .replace('receive tone', 'tone in')}. The slots are as they were.
    <button type="button" class="link" onclick={keep}>Keep as the new order</button>
    <button type="button" class="link" onclick={() => (plan.sort = null)}>Back to slots</button>
  </p>
{/if}
<div class="bar" class:sr-only={!on && !asking} role="group" aria-label="What is chosen">
  {#if on}<b class="font-strong">{n === 1 ? '1 channel' : `${String(n)} channels`}</b>
    <span class="text-ink2">{runs(several.held)}</span>{/if}
  <label class="flex items-baseline gap-1"
    >move to <input
      bind:this={moving}
      bind:value={to}
      inputmode="numeric"
      size="4"
      autocomplete="off"
      class="h-6 w-14 border border-rule2 bg-sheet px-1 font-figs max-desk:h-11"
      aria-label="Move what is chosen to slot"
      onfocus={() => (asking = true)}
      onblur={() => (asking = false)}
      onkeydown={(e) => {
        if (e.key === 'Enter') void go();
        else if (e.key === 'Escape') back();
        else return;
        e.preventDefault();
        e.stopPropagation();
      }}
    /></label
  >
  {#if on}
    {#if several.slots.size === 2}<button type="button" class="link" onclick={run('slot-swap')}>Swap</button>{/if}
    <button type="button" class="link" onclick={run('slot-duplicate')}>Duplicate</button>
    <button type="button" class="link" onclick={run('slot-copy')}>Copy</button>
    <button type="button" class="link" onclick={run('slot-empty')}>Delete</button>
    {#if sets.length > 0}
      <Menu label="Add to a set" acts={sets.map((s) => ({ label: s.name, run: () => void joined(plan, s, [...ids]) }))}
        >add to</Menu
      >
    {/if}
    {#if more}<label class="flex items-center gap-1"
        ><input
          type="checkbox"
          checked={several.everywhere}
          onchange={(e) => {
            several.setEverywhere(e.currentTarget.checked);
          }}
        /> in all radios</label
      >{/if}
    <button
      type="button"
      class="link ml-auto"
      onclick={() => {
        several.clear();
        plan.choosing = false;
        back();
      }}>Done</button
    >
  {/if}
</div>

<style>
  .bar {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    min-height: 32px;
    column-gap: 14px;
    padding: 3px 0 3px 40px;
    font-size: var(--t-small);
  }
  @media (max-width: 45em) {
    .bar {
      padding-left: 0;
      position: sticky;
      top: var(--bar);
      z-index: 4;
      background: var(--paper);
      border-bottom: 1px solid var(--rule2);
    }
    .bar button {
      min-height: 44px;
    }
  }
</style>
