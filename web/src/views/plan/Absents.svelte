<script lang="ts">
  import Frequency from '$parts/Frequency.svelte';
  import ToArrow from '$parts/ToArrow.svelte';
  import Tone from '$parts/Tone.svelte';
  import type { Absent, LoadInfo } from '$lib/api/client';
  import type { PlanState } from './plan.svelte';

  /** The channels of the plan that this radio does not have. */
  let { plan, absent, load }: { plan: PlanState; absent: readonly Absent[]; load: LoadInfo } = $props();
  const can = $derived(absent.filter((a) => a.can));
  const few = 12;
  let all = $state(false);
  const list = $derived(all ? absent : absent.slice(0, few));
</script>

<section aria-label="Not in {load.unit.name}" class="mt-3 border-t border-rule2 pb-4">
  <h3 class="flex items-baseline gap-3 py-1 pl-10 max-desk:pl-0">
    <span class="font-strong">Not in {load.unit.name}</span>
    <span class="text-label text-ink2"
      >{absent.length} of the plan's channels{can.length < absent.length
        ? `; it cannot have ${String(absent.length - can.length)}`
        : ''}</span
    >
  </h3>
  <ul>
    {#each list as a (a.id)}
      {@const c = a.channel}
      <li class="row">
        <span class="pl-1 font-figs text-ink3">{a.number ?? ''}</span>
        <span class="truncate pr-2 text-ink2">{c.name || 'no name'}</span>
        <span class="text-fig"><Frequency hz={c.receive_hz} pad={3} same /></span>
        <span class="text-fig text-ink3 max-desk:hidden"
          >{#if c.transmit_hz === null}<span class="text-label">blocked</span>
          {:else if c.transmit_hz === c.receive_hz}<span class="text-label">simplex</span>
          {:else}<Frequency hz={c.transmit_hz - c.receive_hz} signed />{/if}</span
        >
        <span class="flex items-baseline gap-2 max-desk:hidden"
          >{#if c.transmit_tone}<Tone text={c.transmit_tone} quiet />{:else}<span class="text-label text-ink3"
              >no tone</span
            >{/if}<ToArrow />{#if c.receive_tone}<Tone text={c.receive_tone} quiet />{:else}<span
              class="text-label text-ink3">open</span
            >{/if}</span
        >
        <span class="text-right">
          {#if a.can}
            <button
              type="button"
              class="link max-desk:min-h-11"
              aria-label="Add {c.name || 'it'} to {load.unit.name}"
              onclick={() => void plan.copy(a.load, a.slot, load.id, load.unit.name)}>add</button
            >
          {:else}<span class="text-label text-ink3" title={a.losses[0]}>cannot</span>{/if}
        </span>
      </li>
    {/each}
  </ul>
  {#if absent.length > few}
    <button
      type="button"
      class="link ml-10 max-desk:ml-0 max-desk:min-h-11"
      aria-expanded={all}
      onclick={() => (all = !all)}>{all ? 'fewer' : `${String(absent.length - few)} more`}</button
    >
  {/if}
</section>

<style>
  .row {
    display: grid;
    grid-template-columns: 40px 164fr 86fr 64fr 220fr 60px;
    align-items: baseline;
    min-height: 24px;
    line-height: 22px;
    white-space: nowrap;
  }
  @media (max-width: 45em) {
    .row {
      grid-template-columns: 32px 1fr 84px 52px;
      min-height: 44px;
      line-height: 42px;
    }
  }
</style>
