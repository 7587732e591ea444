<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import Button from '$parts/Button.svelte';
  import Frequency from '$parts/Frequency.svelte';
  import { api, must } from '$lib/api/client';
  import { distance, toneText } from '$lib/format';
  import type { PlanState } from './plan.svelte';

  /** What an empty radio begins with: the five repeaters nearest to the plan's place, or how to import a listing. */
  let { plan, revision }: { plan: PlanState; revision: number } = $props();
  const found = createQuery(() => ({
    queryKey: ['nearby', plan.load, revision],
    queryFn: async () =>
      must(await api.GET('/api/find', { params: { query: { most: 5, sort: 'distance', only: ['new', 'on-air'] } } })),
  }));
  const near = $derived(found.data?.repeaters.filter((r) => r.fm) ?? []);
</script>

<section aria-label="To begin with" class="py-4 pl-10 max-desk:pl-0">
  <p class="text-[16px]">
    Your plan is empty and the line is ready. Type what a listing says, such as
    <span class="font-figs">146.94 -600 88.5 "Hill Top"</span>, or a calling channel.
  </p>
  {#if near.length > 0}
    <h2 class="pt-4 pb-1 font-strong">
      {near.length === 1 ? 'The repeater' : `The ${String(near.length)} repeaters`} nearest to you
    </h2>
    <table class="w-full max-w-[720px]">
      <tbody>
        {#each near as r, nth (nth)}
          <tr class="border-t border-rule">
            <th scope="row" class="py-1 pr-3 text-left font-normal">{r.title}</th>
            <td class="pr-3"><Frequency hz={r.best.output_hz} /></td>
            <td class="pr-3 text-ink2 max-desk:hidden">{r.shift}</td>
            <td class="pr-3 text-ink2"
              >{r.best.uplink_tone === null ? 'tone not stated' : toneText(r.best.uplink_tone)}</td
            >
            <td class="text-right text-ink2">{r.distance_km === null ? '' : distance(r.distance_km)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
    <p class="pt-3">
      <Button onclick={() => void plan.add(near.map((r) => r.id))}
        >{near.length === 1 ? 'Add it to the plan' : `Add all ${String(near.length)} to the plan`}</Button
      >
      <a class="link ml-4" href="/find">See all of them</a>
    </p>
  {:else if found.data}
    <p class="pt-2">
      {found.data.records === 0
        ? 'No listing is here yet. Import one, and every channel is checked against it:'
        : 'No listing covers this place: import one that does.'}
      <a class="link" href="/find">Import a listing</a>
    </p>
  {/if}
</section>
