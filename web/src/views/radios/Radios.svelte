<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import Button from '$parts/Button.svelte';
  import { api, must } from '$lib/api/client';
  import { chosen } from '$lib/api/chosen.svelte';
  import { holdingsQuery, workspaceQuery } from '$lib/queries';
  import { commands } from '$session/commands.svelte';
  import { writes } from '$session/session';
  import { navigate, route } from '../../router';
  import Bring from './Bring.svelte';
  import Parts from './Parts.svelte';
  import Rest from './Rest.svelte';
  import RadioList from './RadioList.svelte';
  import { RadiosState } from './radios.svelte';

  const radio = new RadiosState(useQueryClient(), writes);
  let bringing = $state(false);
  const workspace = createQuery(workspaceQuery);
  const radios = createQuery(() => ({
    queryKey: ['radios', chosen.plan],
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
  const use = (fill: boolean) => void radio.use(fill);
  const done = $derived((radio.texts.checked ?? '').split(',').filter((x) => x.trim() !== '').length);
  /** The radios of this profile in the plan, and what they hold. */
  const units = $derived((workspace.data?.loads ?? []).filter((l) => l.radio.id === radio.form?.id));
  const holdings = createQuery(() =>
    holdingsQuery(workspace.data?.plan.id ?? 0, workspace.data?.loads.length ?? 0, chosen.load),
  );
  /** How many channels a radio of the plan has; nothing where the plan has only one radio. */
  const has = (load: number) => {
    const n = holdings.data?.holdings.filter((h) => h.load === load && h.slot !== null).length;
    return n === undefined ? '' : ` (${String(n)} channels)`;
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

<main class="page">
  <div class="list">
    {#if radios.data}<RadioList
        radios={radios.data}
        current={radio.form?.id ?? ''}
        {go}
        unsaved={(id) => radio.drafts.includes(id)}
      />{/if}
    <button type="button" class="link mt-3 max-desk:min-h-11" onclick={() => (bringing = true)}
      >Import a profile…</button
    >
  </div>
  <div class="sheet">
    <div class="top">
      {#if radio.form?.own}
        <h1 class="sr-only">{radio.form.name}</h1>
        <input
          id="name"
          aria-label="name"
          class="name"
          autocomplete="off"
          spellcheck="false"
          aria-invalid={radio.faults.name !== undefined}
          bind:value={
            () => radio.texts.name ?? '',
            (v) => {
              radio.texts.name = v;
            }
          }
          oninput={() => {
            radio.typed();
          }}
        />
      {:else}<h1>{radio.form?.name ?? 'Radios'}</h1>{/if}
      {#if radio.form}
        <p>
          {#if radio.form.own}{radio.texts.form}, yours. Check these five on the radio in your hand; <b>{done} of 5</b> done.
          {:else}{radio.form.form}, invented and generic. Copy it, and make the copy match the one in your hand.{/if}
        </p>
        {#if radio.form.own}
          {#if radio.dirty}<Button
              onclick={() => {
                radio.revert();
              }}>Put back</Button
            >{/if}
          <Button
            key={commands.key('radio-save')}
            fix={radio.dirty ? 'live' : undefined}
            disabled={!radio.dirty}
            onclick={() => void radio.save()}>Save</Button
          >
        {/if}
        <Button fix={radio.form.own ? undefined : 'idle'} onclick={() => void copy()}
          >{radio.form.own ? 'Copy' : 'Copy to change'}</Button
        >
        {#if radio.form.load === null}
          <Button
            onclick={() => {
              use(false);
            }}
            disabled={radio.dirty}>Add to plan</Button
          >
        {:else}
          <Button onclick={() => void radio.leave()}>Remove from plan</Button>
        {/if}
        {#if radio.form.own && radio.form.load === null}<Button onclick={() => void remove()}>Delete</Button>{/if}
      {/if}
    </div>
    {#if radio.faults.name}<p class="text-label text-stop">{radio.faults.name}</p>{/if}
    <div class="flex flex-wrap items-baseline justify-between gap-x-3 py-1 text-label text-ink2">
      <p role="status">
        {radio.message}
        {#if radio.gone}
          <button type="button" class="link" onclick={() => void bring(radio.gone)}>Restore</button>
        {/if}
        {#if Object.keys(radio.faults).length > 0}<span class="text-stop"
            >Fix the marked value first; the drawing is that of the profile before it.</span
          >{/if}
        {#if units.length > 0}In the plan as {units.map((l) => l.unit.name + has(l.id)).join(', ')}.{/if}
      </p>
      {#if radio.form}<a class="link max-desk:min-h-11" href={file} download="{radio.form.id}.yaml"
          >Save as a YAML file</a
        >{/if}
    </div>
    {#if radio.trouble}<p role="alert" class="pb-2 text-stop">{radio.trouble}</p>{/if}
    {#if radio.form && radio.preview}
      <Parts {radio} preview={radio.preview} {use} />
      <Rest {radio} />
    {/if}
  </div>
</main>
<Bring bind:open={bringing} trouble={radio.trouble} {bring} />

<style>
  .page {
    display: grid;
    grid-template-columns: 206px minmax(0, 1fr);
    min-height: calc(var(--screen) - var(--bar));
    padding-top: 5px;
  }
  .list {
    padding: 0 0 12px var(--margin);
    border-right: var(--line);
  }
  .sheet {
    min-width: 0;
    padding: 10px 20px 0 20px;
    background: var(--sheet);
  }
  .top {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 10px;
    min-height: 34px;
  }
  h1,
  .name {
    font-size: var(--t-head);
    font-weight: var(--w-strong);
    line-height: 26px;
  }
  .name {
    field-sizing: content;
    min-width: 6ch;
    max-width: 100%;
    padding: 0 2px;
    background: transparent;
    text-decoration: underline dotted;
    text-decoration-color: var(--rule2);
    text-decoration-thickness: 1px;
    text-underline-offset: 5px;
  }
  .name:focus {
    background: var(--water);
    text-decoration: none;
  }
  .top p {
    flex: 1 1 260px;
    font-size: var(--t-small);
    color: var(--ink2);
  }
  .top b {
    font-weight: var(--w-strong);
    color: var(--ink);
  }
  @media (max-width: 79.375em) {
    .page {
      display: block;
    }
    .list {
      padding: 8px var(--margin);
      border: 0;
    }
    .sheet {
      padding: 8px var(--margin) 72px;
    }
  }
</style>
