<script lang="ts">
  import Button from '$parts/Button.svelte';
  import Select from '$parts/Select.svelte';
  import { api, must, type LoadInfo, type Row, type SetInfo, type Sets } from '$lib/api/client';
  import { Act } from '$session/act.svelte';
  import type { PlanState } from './plan.svelte';
  import { joined } from './sets.svelte';

  /** The sets of the plan: what is in them, what is chosen put into them, and what the radios hold of them. */
  interface Props {
    plan: PlanState;
    id: number;
    sets: Sets | undefined;
    loads: readonly LoadInfo[];
    rows: readonly Row[];
  }
  let { plan, id, sets, loads, rows }: Props = $props();
  const act = new Act();
  const several = $derived(plan.several);
  const chosen = $derived(rows.filter((r) => several.held.includes(r.slot)));
  let kind = $state('purpose');
  let name = $state('');
  let renaming = $state<number>();
  let next = $state('');
  const kinds = $derived(sets?.kinds ?? []);
  const says = $derived(kinds.find((k) => k.id === kind)?.says ?? '');
  const unit = (load: number) => loads.find((l) => l.id === load)?.unit.name ?? '';
  const has = (s: SetInfo) => chosen.filter((r) => s.members.some((m) => m.channel === r.id)).length;
  const prior = (s: SetInfo) => s.members.find((m) => chosen.length === 1 && m.channel === chosen[0]?.id)?.priority;
  const what = $derived(chosen.length === 1 ? (chosen[0]?.channel.name ?? '') : `${String(chosen.length)} channels`);

  async function make() {
    const made = await act.try(async () => {
      must(
        await api.POST('/api/plans/{id}/sets', {
          params: { path: { id } },
          body: { kind, name, channels: several.slots.size > 0 ? chosen.map((r) => r.id) : [] },
        }),
      );
    }, 'Set made');
    if (made) name = '';
  }
  const rename = (s: SetInfo) =>
    act.try(async () => {
      must(
        await api.PATCH('/api/plans/{id}/sets/{set}', {
          params: { path: { id, set: s.id } },
          body: { name: next, revision: s.revision },
        }),
      );
      renaming = undefined;
    }, 'Renamed');
  const drop = (s: SetInfo) =>
    act.try(async () => {
      must(
        await api.DELETE('/api/plans/{id}/sets/{set}', {
          params: { path: { id, set: s.id }, query: { revision: s.revision } },
        }),
      );
      if (plan.set === s.id) plan.set = 0;
    }, `${s.name} is removed; its channels stay. Ctrl+Z undoes it`);
</script>

<h2 class="text-head font-strong">Sets</h2>
<p class="text-ink2">Channels that belong together. One channel may be in several.</p>
<form
  class="flex flex-wrap items-baseline gap-2 border-b border-rule py-2"
  onsubmit={(e) => {
    e.preventDefault();
    void make();
  }}
>
  <span class="w-36"
    ><Select
      bind:value={kind}
      label="Kind of set"
      options={kinds.map((k) => ({ value: k.id, label: k.title }))}
    /></span
  >
  <input
    bind:value={name}
    aria-label="Name of the set"
    placeholder="name, such as: the way to work"
    maxlength="40"
    autocomplete="off"
    aria-invalid={act.faults.name !== undefined}
    class="h-7 min-w-0 flex-1 border border-rule2 bg-sheet px-2 max-desk:h-11"
  />
  <p class="w-full text-small text-ink2">{says}</p>
  <Button type="submit">Make{several.slots.size > 0 ? ` with ${what}` : ''}</Button>
</form>
{#if act.faults.name ?? act.trouble}<p role="alert" class="text-small text-stop">
    {act.faults.name ?? act.trouble}
  </p>{/if}
{#each sets?.sets ?? [] as s (s.id)}
  <section class="border-b border-rule py-2 last:border-0" aria-label={s.name}>
    <div class="flex flex-wrap items-baseline gap-x-3">
      {#if renaming === s.id}
        <input
          bind:value={next}
          aria-label="New name of {s.name}"
          class="h-7 border border-rule2 bg-sheet px-2"
          onkeydown={(e) => {
            if (e.key === 'Enter') void rename(s);
            if (e.key === 'Escape') renaming = undefined;
          }}
        />
        <button type="button" class="link" onclick={() => void rename(s)}>Save</button>
      {:else}
        <h3 class="text-[15px] font-strong">{s.name}</h3>
        <span class="text-small text-ink2"
          >{kinds.find((k) => k.id === s.kind)?.title}, {s.members.length === 1
            ? '1 channel'
            : `${String(s.members.length)} channels`}</span
        >
      {/if}
      <span class="ml-auto flex gap-x-3 text-small">
        <button
          type="button"
          class="link"
          aria-pressed={plan.set === s.id}
          onclick={() => (plan.set = plan.set === s.id ? 0 : s.id)}>{plan.set === s.id ? 'Show all' : 'Show'}</button
        >
        <button
          type="button"
          class="link"
          onclick={() => {
            renaming = s.id;
            next = s.name;
          }}>Rename</button
        >
        <button type="button" class="link" onclick={() => void drop(s)}>Remove</button>
      </span>
    </div>
    <p class="flex flex-wrap gap-x-4 py-1">
      {#if chosen.length > 0}
        {#if has(s) < chosen.length}<button
            type="button"
            class="link"
            onclick={() =>
              void joined(
                plan,
                s,
                chosen.map((r) => r.id),
              )}>Add {what}</button
          >{/if}
        {#if has(s) > 0}<button
            type="button"
            class="link"
            onclick={() =>
              void joined(
                plan,
                s,
                chosen.map((r) => r.id),
                { out: true },
              )}>Take {what} out</button
          >{/if}
        {#if s.kind === 'scan' && prior(s) !== undefined}
          <label class="flex items-center gap-1"
            ><input
              type="checkbox"
              checked={prior(s)}
              onchange={(e) =>
                void joined(
                  plan,
                  s,
                  chosen.map((r) => r.id),
                  { priority: e.currentTarget.checked },
                )}
            /> priority</label
          >
        {/if}
      {/if}
    </p>
    {#if s.members.length > 0}
      <table class="text-small">
        <tbody>
          {#each s.units as u (u.load)}
            <tr>
              <th class="pr-3 text-left font-normal text-ink2">{unit(u.load)}</th>
              <td class="pr-3"
                ><b class="font-strong">{u.held}</b> of {s.members.length}{u.could > 0
                  ? `, lacks ${String(u.could)}`
                  : ''}{u.cannot > 0 ? `, cannot receive ${String(u.cannot)}` : ''}</td
              >
              <td class="text-ink2">{u.says}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
  </section>
{:else}
  <p class="pt-2 text-ink2">
    None yet. Choose channels with Shift and the arrows, name the set, and press Make: for a walk, for the way to work,
    for a scan list.
  </p>
{/each}
