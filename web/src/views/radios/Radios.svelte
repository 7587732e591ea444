<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import Button from '$parts/Button.svelte';
  import Field from '$parts/Field.svelte';
  import { api, must } from '$lib/api/client';
  import { chosen } from '$lib/api/chosen.svelte';
  import { commands } from '$session/commands.svelte';
  import { writes } from '$session/session';
  import { navigate, route } from '../../router';
  import Bring from './Bring.svelte';
  import Holds from './Holds.svelte';
  import RadioList from './RadioList.svelte';
  import { RadiosState } from './radios.svelte';

  const radio = new RadiosState(useQueryClient(), writes);
  let bringing = $state(false);
  const radios = createQuery(() => ({
    queryKey: ['radios'],
    queryFn: async () => must(await api.GET('/api/radios')).radios,
  }));
  const shown = $derived(chosen.load); // the radio that the plan shows
  const loaded = $derived(
    (radios.data ?? []).filter((r) => r.load !== null).sort((a, b) => Number(a.load) - Number(b.load)),
  );
  const wanted = $derived(route.params.radio ?? (loaded.find((r) => r.load === shown) ?? loaded[0])?.id);
  $effect(() => {
    if (wanted) void radio.open(wanted);
  });
  const groups = $derived([...new Set(radio.form?.fields.map((f) => f.group))]);
  const file = $derived(`data:text/yaml;charset=utf-8,${encodeURIComponent(radio.preview?.yaml ?? '')}`);

  const go = (id: string | undefined) => {
    if (id) void navigate('/radios/:radio', { params: { radio: id } });
  };
  const copy = async () => {
    go(await radio.copy());
  };
  const bring = async (yaml: string) => {
    const id = await radio.bring(yaml);
    go(id);
    return id !== undefined;
  };
  const remove = async () => {
    if (await radio.remove()) void navigate('/radios');
  };

  $effect(() =>
    untrack(() =>
      commands.add({
        id: 'radio-save',
        says: 'Save the radio',
        scope: 'Radios',
        keys: ['$mod+s'],
        writing: true,
        run: () => void radio.save(),
      }),
    ),
  );
</script>

<svelte:head><title>{radio.form ? `${radio.form.name} · ` : ''}Radios · Mnemos</title></svelte:head>

<main
  class="mx-auto grid max-w-[1320px] grid-cols-[220px_minmax(0,1fr)_minmax(0,400px)] gap-8 px-6 py-6 max-wide:block max-desk:px-4 max-desk:pb-20"
>
  <div class="max-wide:mb-6">
    {#if radios.data}<RadioList radios={radios.data} current={radio.form?.id ?? ''} {go} />{/if}
    <button type="button" class="link mt-3 max-desk:min-h-11" onclick={() => (bringing = true)}
      >Import a profile…</button
    >
  </div>
  <div>
    <div class="flex flex-wrap items-center gap-x-3 gap-y-2 border-b border-bold pb-2">
      <h1 class="mr-auto text-head font-strong">{radio.form?.name ?? 'Radios'}</h1>
      {#if radio.form}
        {#if radio.form.own}
          <Button
            key={commands.key('radio-save')}
            fix={radio.dirty ? 'live' : undefined}
            disabled={!radio.dirty}
            onclick={() => void radio.save()}>Save</Button
          >
        {/if}
        <Button onclick={() => void copy()}>{radio.form.own ? 'Copy' : 'Copy to change'}</Button>
        {#if radio.form.load === null}
          <Button onclick={() => void radio.use()} disabled={radio.dirty}>Add to plan</Button>
        {:else}
          <Button onclick={() => void radio.leave()}>Remove from plan</Button>
        {/if}
        {#if radio.form.own && radio.form.load === null}<Button onclick={() => void remove()}>Delete</Button>{/if}
      {/if}
    </div>
    <div class="flex items-baseline justify-between gap-3 py-1 text-label text-ink2">
      <p role="status">
        {radio.message}
        {#if radio.gone}
          <button type="button" class="link" onclick={() => void bring(radio.gone)}>Restore</button>
        {/if}
      </p>
      {#if radio.form}<a class="link" href={file} download="{radio.form.id}.yaml">Save as a YAML file</a>{/if}
    </div>
    {#if radio.trouble}<p role="alert" class="pb-2 text-stop">{radio.trouble}</p>{/if}
    {#if radio.form}
      {#if !radio.form.own}
        <p class="pb-2 text-ink2">An invented, generic radio. Copy it, and make the copy match the one in your hand.</p>
      {/if}
      <div class="groups">
        {#each groups as group (group)}
          <section aria-label={group}>
            <h2 class="border-b border-rule2 pt-3 pb-1 font-strong">
              {group === 'crib' ? 'what to press, printed on the keypad sheet' : group}
            </h2>
            {#each radio.form.fields.filter((f) => f.group === group) as f (f.key)}
              <Field
                name={f.key}
                label={f.label}
                hint={f.hint}
                options={f.options?.map((o, i) => ({ value: o, label: (f.says?.[i] ?? o) || 'none' }))}
                disabled={!radio.form.own}
                fault={radio.faults[f.key]}
                typed={() => {
                  radio.typed();
                }}
                bind:value={
                  () => radio.texts[f.key] ?? '',
                  (v) => {
                    radio.texts[f.key] = v;
                  }
                }
              />
            {/each}
          </section>
        {/each}
      </div>
    {/if}
  </div>
  <div class="holds max-wide:mt-8">
    {#if radio.preview}<Holds preview={radio.preview} old={Object.keys(radio.faults).length > 0} />{/if}
  </div>
</main>
<Bring bind:open={bringing} trouble={radio.trouble} {bring} />

<style>
  .groups {
    columns: 2 340px;
    column-gap: 32px;
  }
  .groups section {
    break-inside: avoid;
  }
  .holds {
    position: sticky;
    top: 62px;
    align-self: start;
    max-height: calc(var(--screen) - 80px);
    overflow-y: auto;
  }
  @media (max-width: 79.375em) {
    .holds {
      position: static;
      max-height: none;
    }
  }
</style>
