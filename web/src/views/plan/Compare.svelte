<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import Dialog from '$parts/Dialog.svelte';
  import Select from '$parts/Select.svelte';
  import { api, must, type LoadInfo, type PlanInfo, type Snapshot } from '$lib/api/client';
  import { when } from '$lib/format';
  import Differences from './Differences.svelte';

  /** How two plans, radios or times differ, channel by channel. */
  interface Props {
    id: number;
    plans: readonly PlanInfo[];
    loads: readonly LoadInfo[];
    snapshots: readonly Snapshot[];
    /** The radio on show. */
    load: number;
    /** The change after which the first is looked at; 0 for now. */
    since: number;
    close: () => void;
  }
  let { id, plans, loads, snapshots, load, since, close }: Props = $props();
  interface Side {
    id: string;
    says: string;
    plan: number;
    event?: number;
    load?: number;
  }
  /** Of now and of the snapshots: one radio, or with 0 the numbers that everybody uses. */
  // svelte-ignore state_referenced_locally
  let of = $state(String(load));
  const part = $derived(of === '0' ? {} : { load: Number(of) });
  const sides = $derived<Side[]>([
    { id: 'now', says: 'now', plan: id, ...part },
    ...snapshots.map((s) => ({
      id: `s${String(s.id)}`,
      says: `${s.name}, ${when(s.at)}`,
      plan: id,
      event: s.event,
      ...part,
    })),
    ...loads.map((l) => ({ id: `l${String(l.id)}`, says: `the radio ${l.unit.name}`, plan: id, load: l.id })),
    ...plans
      .filter((p) => p.id !== id)
      .map((p) => ({ id: `p${String(p.id)}`, says: `the plan ${p.name}`, plan: p.id })),
  ]);
  const options = $derived(sides.map((s) => ({ value: s.id, label: s.says })));
  // svelte-ignore state_referenced_locally
  let was = $state(
    snapshots.find((s) => s.event === since)
      ? `s${String(snapshots.find((s) => s.event === since)?.id)}`
      : loads[0]
        ? `l${String(loads[0].id)}`
        : 'now',
  );
  // svelte-ignore state_referenced_locally
  let is = $state(was.startsWith('l') && loads[1] ? `l${String(loads[1].id)}` : 'now');
  const one = $derived(sides.find((s) => s.id === was));
  const other = $derived(sides.find((s) => s.id === is));
  const found = createQuery(() => ({
    queryKey: ['history', 'compare', id, was, is, of],
    queryFn: async () =>
      must(
        await api.GET('/api/plans/{id}/compare', {
          params: {
            path: { id: one?.plan ?? id },
            query: {
              ...(one?.event ? { event: one.event } : {}),
              ...(one?.load ? { load: one.load } : {}),
              with: other?.plan ?? id,
              ...(other?.event ? { with_event: other.event } : {}),
              ...(other?.load ? { with_load: other.load } : {}),
            },
          },
        }),
      ),
  }));
</script>

<Dialog
  bind:open={
    () => true,
    (o) => {
      if (!o) close();
    }
  }
  title="Compare"
  wide="middle"
>
  <div class="flex flex-wrap items-baseline gap-x-4 gap-y-2">
    <span class="flex items-center gap-2"
      >from <span class="w-72"><Select bind:value={was} label="From" {options} /></span></span
    >
    <span class="flex items-center gap-2"
      >to <span class="w-72"><Select bind:value={is} label="To" {options} /></span></span
    >
  </div>
  {#if found.isError}<p role="alert" class="pt-3">They cannot be compared: {found.error.message}.</p>
  {:else if found.data}<Differences found={found.data} />{/if}
</Dialog>
