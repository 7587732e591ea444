<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ApiError, must, type LoadInfo, type Workspace } from '$lib/api/client';
  import { chosen } from '$lib/api/chosen.svelte';
  import { holdingsQuery } from '$lib/queries';
  import Button from '$parts/Button.svelte';
  import Dialog from '$parts/Dialog.svelte';
  import Field from '$parts/Field.svelte';
  import { desk } from '$session/session';
  import { Act } from '$session/act.svelte';
  import { shell } from './shell.svelte';

  /** The radios that this plan is for: each is a real one, and two may be of one kind. */
  let { workspace }: { workspace: Workspace } = $props();
  const act = new Act();
  const start = createQuery(() => ({ queryKey: ['start'], queryFn: async () => must(await api.GET('/api/start')) }));
  const holdings = createQuery(() => holdingsQuery(workspace.plan.id, workspace.loads.length, chosen.load));
  let form = $state<{ load: LoadInfo | undefined; name: string; radio: string; holder: string }>();

  const held = (load: number) => holdings.data?.holdings.filter((h) => h.load === load && h.slot !== null).length;
  const holder = (id: number | null) => workspace.people.find((p) => p.id === id)?.name;
  const channels = $derived(new Set(holdings.data?.holdings.map((h) => h.channel)).size);
  async function save(e: SubmitEvent) {
    e.preventDefault();
    if (!form) return;
    const { load, name, radio, holder } = form;
    let added = 0;
    const done = await act.try(
      async () => {
        if (load) {
          const { error } = await api.PATCH('/api/units/{id}', {
            params: { path: { id: load.unit.id } },
            body: { name, holder: Number(holder), revision: load.unit.revision },
          });
          if (error) throw new ApiError(error);
          return;
        }
        const l = must(
          await api.POST('/api/plans/{id}/units', {
            params: { path: { id: workspace.plan.id } },
            body: { radio, name, ...(holder === '0' ? {} : { holder: Number(holder) }) },
          }),
        );
        desk.take(l);
        added = l.load;
      },
      load ? 'Saved' : 'Added, with every channel that it can hold',
    );
    if (!done) return;
    form = undefined;
    if (added !== 0) chosen.load = added;
  }
  async function remove(l: LoadInfo) {
    await act.try(async () => {
      const { error } = await api.DELETE('/api/loads/{load}', {
        params: { path: { load: l.id }, query: { revision: workspace.plan.revision } },
      });
      if (error) throw new ApiError(error);
    }, `${l.unit.name} is out of the plan; Undo restores it`);
  }
</script>

{#snippet fields()}
  {#if form}
    <form
      class="grid gap-1"
      onsubmit={(e) => void save(e)}
      aria-label={form.load ? `Change ${form.load.unit.name}` : 'Add a radio'}
    >
      {#if !form.load}
        <Field
          name="unit-radio"
          label="kind of radio"
          options={start.data?.radios.map((r) => ({ value: r.id, label: r.name, detail: `${r.form}; ${r.entry}` })) ??
            []}
          fault={act.faults.radio}
          bind:value={form.radio}
        />
      {/if}
      <Field
        name="unit-name"
        label="its name"
        hint="what is written on it"
        fault={act.faults.name}
        bind:value={form.name}
      />
      <Field
        name="unit-holder"
        label="held by"
        options={[
          { value: '0', label: 'nobody in particular' },
          ...workspace.people.map((p) => ({ value: String(p.id), label: p.name })),
        ]}
        fault={act.faults.holder}
        bind:value={form.holder}
      />
      <p class="text-label text-ink2">
        The holder's licence decides what the radio may transmit; without one, that of whoever looks.
      </p>
      <p class="flex gap-3 pt-1">
        <Button type="submit" kind="main" disabled={act.busy}>{form.load ? 'Save' : 'Add it to the plan'}</Button>
        <Button onclick={() => (form = undefined)}>Cancel</Button>
      </p>
    </form>
  {/if}
{/snippet}

<Dialog
  bind:open={
    () => true,
    (o) => {
      if (!o) shell.open = '';
    }
  }
  title="Radios of {workspace.plan.name}"
  says="A radio that you add gets every channel that it can hold, in the slots that the others use."
>
  {#if act.trouble}<p role="alert" class="pb-2 font-strong text-stop">{act.faults.load ?? act.trouble}</p>{/if}
  <ul>
    {#each workspace.loads as l (l.id)}
      <li class="border-b border-rule py-1.5">
        {#if form?.load?.id === l.id}{@render fields()}
        {:else}
          <div class="flex flex-wrap items-baseline gap-x-3 gap-y-1">
            <button
              type="button"
              class="font-strong hover:underline max-desk:min-h-11"
              onclick={() => {
                chosen.load = l.id;
                shell.open = '';
              }}>{l.unit.name}</button
            >
            <span class="mr-auto text-label text-ink2"
              >{l.radio.name}, {l.radio.form}{holder(l.unit.holder)
                ? `; held by ${holder(l.unit.holder) ?? ''}`
                : ''}{held(l.id) === undefined ? '' : `; ${String(held(l.id))} of ${String(channels)} channels`}</span
            >
            <button
              type="button"
              class="link"
              aria-label="Rename {l.unit.name}"
              onclick={() =>
                (form = { load: l, name: l.unit.name, radio: l.unit.profile, holder: String(l.unit.holder ?? 0) })}
              >rename</button
            >
            <button
              type="button"
              class="link"
              aria-label="Remove {l.unit.name}"
              disabled={act.busy}
              onclick={() => void remove(l)}>remove</button
            >
          </div>
        {/if}
      </li>
    {/each}
  </ul>
  <div class="pt-3">
    {#if form && !form.load}{@render fields()}
    {:else}
      <Button
        kind="main"
        onclick={() =>
          (form = { load: undefined, name: '', radio: workspace.loads[0]?.unit.profile ?? 'trail', holder: '0' })}
        >Add a radio</Button
      >
    {/if}
  </div>
</Dialog>
