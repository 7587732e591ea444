<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import Button from '$parts/Button.svelte';
  import Dialog from '$parts/Dialog.svelte';
  import { api, must, type Channel, type Kind } from '$lib/api/client';
  import { mhz } from '$lib/format';
  import type { PlanState } from './plan.svelte';
  import { runs } from './runs';

  /** What fixing everything of one kind would change, channel by channel, before it does. */
  interface Props {
    plan: PlanState;
    kind: Kind;
    close: () => void;
  }
  let { plan, kind, close }: Props = $props();
  const found = createQuery(() => ({
    queryKey: ['kinds', plan.load, kind.rule, plan.ledger?.revision],
    queryFn: async () =>
      must(
        await api.GET('/api/loads/{load}/kinds', {
          params: { path: { load: plan.load }, query: { rule: kind.rule } },
        }),
      ),
  }));
  let without = $state<number[]>([]);
  const fixes = $derived(found.data?.fixes ?? []);
  const wanted = $derived(fixes.filter((f) => !without.includes(f.slot)));
  const side = (c: Channel) => (c.transmit_hz === null ? 'blocked' : mhz(c.transmit_hz));
  const of: [string, (c: Channel) => string][] = [
    ['name', (c) => c.name],
    ['receive', (c) => mhz(c.receive_hz)],
    ['transmit', side],
    ['tone out', (c) => c.transmit_tone ?? 'no tone'],
    ['tone in', (c) => c.receive_tone ?? 'open'],
    ['width', (c) => c.bandwidth],
    ['power', (c) => c.power],
  ];
  async function apply() {
    if (
      await plan.several.fixAll(
        kind.rule,
        wanted.map(({ slot, id }) => ({ slot, id })),
      )
    ) {
      plan.rule = '';
      close();
    }
  }
</script>

<Dialog
  bind:open={
    () => true,
    (o) => {
      if (!o) close();
    }
  }
  title={kind.title}
  says="What would change. Untick what is to stay; the rest is one step that undo takes back."
  close="Cancel"
>
  {#if found.isError}<p role="alert">It cannot be read: {found.error.message}.</p>{/if}
  <ul>
    {#each fixes as f, nth (nth)}
      <li class="border-b border-rule py-1">
        <label class="flex items-baseline gap-3 max-desk:min-h-11">
          <input
            type="checkbox"
            checked={!without.includes(f.slot)}
            onchange={() =>
              (without = without.includes(f.slot) ? without.filter((s) => s !== f.slot) : [...without, f.slot])}
          />
          <span class="w-8 font-figs text-ink2">{f.slot}</span>
          <span class="w-40 truncate font-strong">{f.name}</span>
          <span
            >{#each of.filter(([, g]) => g(f.was) !== g(f.is)) as [what, g], i (what)}{i > 0 ? '; ' : ''}{what}
              <span class="text-ink2 line-through">{g(f.was)}</span>
              <b class="font-figs font-strong">{g(f.is)}</b>{/each}</span
          >
        </label>
      </li>
    {/each}
  </ul>
  {#if (found.data?.look.length ?? 0) > 0}<p class="pt-2 text-ink2">
      Look at {runs(found.data?.look ?? [])} one by one: there is no fix that is surely what was meant.
    </p>{/if}
  {#if found.data && fixes.length === 0}<p class="pt-2">
      None of these has a fix that is surely what was meant. Look at them one by one.
    </p>{/if}
  {#if plan.trouble}<p role="alert" class="pt-2 text-stop">{plan.trouble}</p>{/if}
  {#snippet acts()}
    {#if fixes.length > 0}<Button fix="live" disabled={wanted.length === 0} onclick={() => void apply()}
        >Fix {wanted.length === 1 ? '1 channel' : `${String(wanted.length)} channels`}</Button
      >{/if}
  {/snippet}
</Dialog>
