<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, must, type Person, type Workspace } from '$lib/api/client';
  import Button from '$parts/Button.svelte';
  import Dialog from '$parts/Dialog.svelte';
  import Field from '$parts/Field.svelte';
  import Swatch from '$parts/Swatch.svelte';
  import { Act } from '$session/act.svelte';
  import { shell } from './shell.svelte';

  /** Everybody who works with the plans, and who sits here. */
  let { workspace }: { workspace: Workspace } = $props();
  const act = new Act();
  const start = createQuery(() => ({ queryKey: ['start'], queryFn: async () => must(await api.GET('/api/start')) }));
  let form = $state<{ person: Person | undefined; name: string; colour: string }>();

  const licence = (p: Person) =>
    p.unlicensed
      ? 'no licence yet, listens'
      : p.bands.length > 0
        ? `licence: ${p.bands.join(', ')}`
        : 'licence: every band';
  async function save(e: SubmitEvent) {
    e.preventDefault();
    const { person, name, colour } = form ?? {};
    const done = await act.try(async () => {
      const body = { name: name ?? '', ...(colour ? { colour } : {}) };
      if (person)
        must(
          await api.PATCH('/api/people/{id}', {
            params: { path: { id: person.id } },
            body: { ...body, revision: person.revision },
          }),
        );
      else shell.be(must(await api.POST('/api/people', { body })).id);
    }, 'Saved');
    if (done) form = undefined;
  }
</script>

{#snippet fields()}
  {#if form}
    <form
      class="grid gap-1"
      onsubmit={(e) => void save(e)}
      aria-label={form.person ? `Change ${form.person.name}` : 'Add a person'}
    >
      <Field
        name="person-name"
        label="name or callsign"
        fault={act.faults.person ?? act.faults.name}
        bind:value={form.name}
      />
      <Field
        name="person-colour"
        label="colour"
        options={[
          ...(form.colour ? [] : [{ value: '', label: 'one that is free' }]),
          ...(start.data?.colours ?? []).map((c) => ({ value: c, label: c })),
        ]}
        fault={act.faults.colour}
        bind:value={form.colour}
      />
      <p class="flex gap-3 pt-1">
        <Button type="submit" kind="main" disabled={act.busy}>Save</Button>
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
  title="People"
  says="Changes are noted under the name of whoever sits here, and undo takes back only your own. The licence is in Settings."
>
  {#if act.trouble}<p role="alert" class="pb-2 font-strong text-stop">{act.trouble}</p>{/if}
  <ul>
    {#each workspace.people as p (p.id)}
      {@const me = p.id === workspace.me.id}
      <li class="border-b border-rule py-1.5">
        {#if form?.person?.id === p.id}{@render fields()}
        {:else}
          <div class="flex flex-wrap items-baseline gap-x-3 gap-y-1">
            <label class="inline-flex min-h-7 items-center gap-2 max-desk:min-h-11">
              <input
                type="radio"
                name="me"
                checked={me}
                onchange={() => {
                  shell.be(p.id);
                }}
              />
              <Swatch colour={p.colour} /><span class={me ? 'font-strong' : ''}>{p.name}</span>
            </label>
            <span class="mr-auto text-label text-ink2">{[me ? 'you' : '', licence(p)].filter(Boolean).join('; ')}</span>
            <button
              type="button"
              class="link"
              aria-label="Change {p.name}"
              onclick={() => (form = { person: p, name: p.name, colour: p.colour })}>change</button
            >
          </div>
        {/if}
      </li>
    {/each}
  </ul>
  <div class="pt-3">
    {#if form && !form.person}{@render fields()}
    {:else}<Button onclick={() => (form = { person: undefined, name: '', colour: '' })}>Add a person</Button>{/if}
  </div>
</Dialog>
