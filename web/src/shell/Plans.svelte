<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, must, type PlanInfo, type Workspace } from '$lib/api/client';
  import { chosen } from '$lib/api/chosen.svelte';
  import Button from '$parts/Button.svelte';
  import Dialog from '$parts/Dialog.svelte';
  import Field from '$parts/Field.svelte';
  import { PlansState } from './plans.svelte';
  import { shell } from './shell.svelte';

  /** All plans, and a new one. */
  let { workspace }: { workspace: Workspace } = $props();
  const plans = new PlansState();
  const start = createQuery(() => ({ queryKey: ['start'], queryFn: async () => must(await api.GET('/api/start')) }));
  // svelte-ignore state_referenced_locally
  let form = $state({
    name: '',
    season: '',
    region: workspace.plan.region,
    place: workspace.operator.locator,
    radio: workspace.loads[0]?.unit.profile ?? 'trail',
  });
  let naming = $state<{ plan: PlanInfo; name: string; season: string }>();
  const making = $derived(shell.open === 'new plan');
  const others = $derived(workspace.plans.filter((p) => !p.archived));
  const away = $derived(workspace.plans.filter((p) => p.archived));
  const close = () => {
    shell.open = '';
  };
  const free = (name: string) => {
    const taken = (n: string) => workspace.plans.some((p) => p.name === n);
    for (let n = 2; ; n++) if (!taken(`${name} ${String(n)}`)) return `${name} ${String(n)}`;
  };
  async function make(e: SubmitEvent) {
    e.preventDefault();
    if (await plans.make(form)) close();
  }
  async function rename(e: SubmitEvent) {
    e.preventDefault();
    if (naming && (await plans.change(naming.plan, { name: naming.name, season: naming.season }, 'Saved')))
      naming = undefined;
  }
</script>

{#snippet row(p: PlanInfo)}
  {@const here = p.id === workspace.plan.id}
  <li class="border-b border-rule py-1.5">
    {#if naming?.plan.id === p.id}
      <form class="grid gap-1" onsubmit={(e) => void rename(e)} aria-label="Rename {p.name}">
        <Field name="plan-name" label="name" fault={plans.faults.name} bind:value={naming.name} />
        <Field
          name="plan-season"
          label="season, or what it is for"
          fault={plans.faults.season}
          bind:value={naming.season}
        />
        <p class="flex gap-3 pt-1">
          <Button type="submit" kind="main" disabled={plans.busy}>Save</Button>
          <Button onclick={() => (naming = undefined)}>Cancel</Button>
        </p>
      </form>
    {:else}
      <div class="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <button
          type="button"
          class="font-strong hover:underline max-desk:min-h-11"
          aria-current={here ? 'true' : undefined}
          onclick={() => {
            chosen.plan = p.id;
            close();
          }}>{p.name}</button
        >
        <span class="mr-auto text-label text-ink2"
          >{[here ? 'open' : '', p.season, p.demo ? 'invented: the demonstration' : '']
            .filter(Boolean)
            .join(', ')}</span
        >
        <button
          type="button"
          class="link"
          aria-label="Rename {p.name}"
          onclick={() => (naming = { plan: p, name: p.name, season: p.season })}>rename</button
        >
        {#if !p.demo}
          <button
            type="button"
            class="link"
            aria-label="Duplicate {p.name}"
            disabled={plans.busy}
            onclick={() =>
              void plans.copy(p, free(p.name)).then((done) => {
                if (done) close();
              })}>duplicate</button
          >
        {/if}
        <button
          type="button"
          class="link"
          aria-label="{p.archived ? 'Restore' : 'Archive'} {p.name}"
          disabled={plans.busy}
          onclick={() =>
            void plans.change(
              p,
              { archived: !p.archived },
              p.archived ? `${p.name} is restored` : `${p.name} is archived; Undo restores it`,
            )}>{p.archived ? 'restore' : 'archive'}</button
        >
        <button
          type="button"
          class="link"
          aria-label="Remove {p.name}"
          disabled={plans.busy}
          onclick={() => void plans.remove(p)}>remove</button
        >
      </div>
    {/if}
  </li>
{/snippet}

<Dialog
  bind:open={
    () => true,
    (o) => {
      if (!o) close();
    }
  }
  title={making ? 'New plan' : 'Plans'}
  says={making
    ? 'An empty plan with one radio. Listings are shared by all your plans.'
    : 'Press a name to open it. What you remove can be undone.'}
  wide={making ? 'narrow' : 'middle'}
>
  {#if plans.trouble}<p role="alert" class="pb-2 font-strong text-stop">
      {naming || making ? plans.trouble : Object.values(plans.faults).join(' ') || plans.trouble}
    </p>{/if}
  {#if making}
    <form onsubmit={(e) => void make(e)}>
      <Field name="plan-name" label="name" hint="Winter, Relay race" fault={plans.faults.name} bind:value={form.name} />
      <Field
        name="plan-season"
        label="season, or what it is for"
        fault={plans.faults.season}
        bind:value={form.season}
      />
      <Field
        name="plan-place"
        label="place"
        hint="GN21ia or 41.02, -55.31"
        fault={plans.faults.place}
        bind:value={form.place}
      />
      <Field
        name="plan-region"
        label="band plan"
        options={start.data?.regions.map((r) => ({ value: r.id, label: r.title })) ?? []}
        fault={plans.faults.region}
        bind:value={form.region}
      />
      <Field
        name="plan-radio"
        label="first radio"
        options={start.data?.radios.map((r) => ({ value: r.id, label: r.name, detail: r.form })) ?? []}
        fault={plans.faults.radio}
        bind:value={form.radio}
      />
      <p class="flex items-center gap-4 pt-3">
        <Button type="submit" kind="main" disabled={plans.busy}>Open the plan</Button>
        <button type="button" class="link" onclick={() => (shell.open = 'plans')}>All plans</button>
      </p>
    </form>
  {:else}
    <ul>
      {#each others as p (p.id)}{@render row(p)}{/each}
    </ul>
    {#if away.length > 0}
      <h3 class="pt-4 font-strong">Archived</h3>
      <ul>
        {#each away as p (p.id)}{@render row(p)}{/each}
      </ul>
    {/if}
    <p class="flex flex-wrap gap-3 pt-4">
      <Button kind="main" onclick={() => (shell.open = 'new plan')}>New plan</Button>
      {#if !workspace.plans.some((p) => p.demo)}
        <Button
          disabled={plans.busy}
          onclick={() =>
            void plans.demo().then((done) => {
              if (done) close();
            })}>Open the demonstration (invented)</Button
        >
      {/if}
    </p>
  {/if}
</Dialog>
