<script lang="ts">
  import { chosen } from '$lib/api/chosen.svelte';
  import type { Evidence as Case, Holding, LoadInfo } from '$lib/api/client';
  import { watts } from '$lib/format';
  import { nextChoice } from './columns';
  import type { PlanState } from './plan.svelte';

  /** How each radio of the plan holds the channel, and what this one does with it. */
  interface Props {
    plan: PlanState;
    found: Case;
    loads: readonly LoadInfo[];
    holdings: readonly Holding[];
  }
  let { plan, found, loads, holdings }: Props = $props();
  const row = $derived(plan.ledger?.rows.find((r) => r.slot === found.slot));
  const list = $derived(
    loads.flatMap((l) => {
      const h = holdings.find((x) => x.load === l.id && x.channel === row?.id);
      return h ? [{ l, h }] : [];
    }),
  );
  /** What is stepped through, as in the cells of the slots. */
  const steps = $derived(
    row
      ? ([
          {
            column: 'power',
            value: row.channel.power,
            says: row.watts === null ? row.channel.power : `${row.channel.power}, ${watts(row.watts)}`,
          },
          { column: 'scan', value: row.scan, says: row.scan },
        ] as const)
      : [],
  );
</script>

{#if row}
  <p class="flex flex-wrap items-baseline gap-x-4 gap-y-1 py-1.5 text-small">
    {#each steps as x (x.column)}
      <span class="whitespace-nowrap"
        ><span class="text-ink2">{x.column}</span>
        <button
          type="button"
          class="link max-desk:min-h-11"
          aria-label="{x.column}: {x.says}; change"
          onclick={() => void plan.update(found.slot, { [x.column]: nextChoice(x.column, x.value) })}>{x.says}</button
        ></span
      >
    {/each}
    <span class="whitespace-nowrap"
      ><span class="text-ink2">short name</span> <span class="font-figs">{row.short_name}</span></span
    >
  </p>
{/if}
{#if list.length > 1}
  <table class="mb-1 w-full border-t border-rule2 text-small">
    <thead class="text-left text-label text-ink2"
      ><tr
        ><th class="font-normal">radio</th><th class="font-normal">slot</th><th class="font-normal">standing</th><th
          class="font-normal">holds it</th
        ></tr
      ></thead
    >
    <tbody>
      {#each list as { l, h } (l.id)}
        <tr class="border-t border-rule align-baseline">
          <th scope="row" class="py-0.5 pr-2 text-left {l.id === chosen.load ? 'font-strong' : 'font-normal'}"
            >{l.unit.name}</th
          >
          <td class="pr-2 font-figs">{h.slot ?? '–'}</td>
          <td class="pr-2 text-ink2">{h.state}</td>
          <td class="text-ink2"
            >{#if h.slot !== null}{h.losses.length > 0 ? `with a change: ${h.losses.join('; ')}` : 'as planned'}
            {:else if h.can}<button
                type="button"
                class="link max-desk:min-h-11"
                aria-label="Add it to {l.unit.name}"
                onclick={() => void plan.copy(chosen.load, found.slot, l.id, l.unit.name)}>add</button
              >{:else}cannot: {h.losses[0] ?? 'it does not receive this frequency'}{/if}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
{/if}
