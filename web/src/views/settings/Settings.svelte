<script lang="ts">
  import { untrack } from 'svelte';
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import Field from '$parts/Field.svelte';
  import { api, must } from '$lib/api/client';
  import { chosen } from '$lib/api/chosen.svelte';
  import { writes } from '$session/session';
  import Checks from './Checks.svelte';
  import Position from '$parts/Position.svelte';
  import RegionFacts from './RegionFacts.svelte';
  import { SettingsState } from './settings.svelte';

  const own = new SettingsState(useQueryClient(), writes);
  const settings = createQuery(() => ({
    queryKey: ['settings', chosen.plan, chosen.person],
    queryFn: async () => must(await api.GET('/api/settings')),
  }));
  $effect(() => {
    const now = settings.data;
    if (now)
      untrack(() => {
        own.follow(now);
      });
  });
  const region = $derived(settings.data?.regions.find((r) => r.id === own.form?.region));
  const save = () => void own.save();
  const tone_policies: Record<string, string> = {
    'encode first': 'You hear idents, courtesy tones and weak users, and can tell a dead repeater from a wrong tone.',
    'tone squelch first': 'Only the repeater is heard, where its tone is published.',
  };
</script>

<svelte:head><title>Settings · Mnemos</title></svelte:head>

<main
  class="mx-auto grid max-w-[1320px] grid-cols-[1fr_480px] gap-10 px-6 py-6 max-wide:block max-desk:px-4 max-desk:pb-20"
>
  <div>
    <div class="flex items-baseline gap-4 border-b border-bold pb-1">
      <h1 class="text-head font-strong">Settings</h1>
      <p role="status" class="text-label text-ink2">{own.message}</p>
      {#if own.before}
        <button type="button" class="link" onclick={() => void own.back()}>Undo</button>
      {/if}
    </div>
    {#if own.form && settings.data}
      <Field
        name="region"
        label="region"
        options={settings.data.regions.map((r) => ({ value: r.id, label: r.title }))}
        fault={own.faults.region}
        changed={save}
        bind:value={own.form.region}
      />
      <Field
        name="person"
        label="operator"
        hint="your name or callsign"
        fault={own.faults.person}
        changed={save}
        bind:value={own.form.person}
      />
      <Field
        name="place"
        label="place"
        hint="41.02, -55.31 or a locator such as GN21ia"
        fault={own.faults.place}
        changed={save}
        bind:value={own.form.place}
      />
      <Position take={(place) => own.place(place)} />
      {#if settings.data.locator}
        <p class="py-1 text-label text-ink2">
          Locator <span class="font-figs">{settings.data.locator}</span>. Distances, bearings and what may be heard are
          calculated from here; without a place every record counts.
        </p>
      {/if}
      <Field
        name="height"
        label="aerial above the surroundings, m"
        hint="1.5"
        fault={own.faults.height_m}
        changed={save}
        bind:value={own.form.height_m}
      />
      <Field
        name="radius"
        label="published records count within, km"
        hint="150"
        fault={own.faults.radius_km}
        changed={save}
        bind:value={own.form.radius_km}
      />
      <fieldset class="border-b border-rule py-2">
        <legend class="float-left w-full pb-1 text-ink2">Tone policy</legend>
        <div class="clear-both">
          {#each settings.data.tone_policies as tone_policy (tone_policy)}
            <label class="flex min-h-7 items-baseline gap-2 py-1">
              <input
                type="radio"
                name="tone_policy"
                value={tone_policy}
                bind:group={own.form.tone_policy}
                onchange={save}
              />
              <span
                ><b class="font-strong">{tone_policy}</b>
                <span class="text-ink2">{tone_policies[tone_policy] ?? ''}</span></span
              >
            </label>
          {/each}
          <p class="text-label text-ink2">
            Where another repeater on the output may be heard and yours sends a tone, both use tone squelch; where it
            sends none, neither does.
          </p>
        </div>
      </fieldset>
      <label class="flex min-h-8 items-center gap-2 border-b border-rule py-1 max-desk:min-h-11">
        <input type="checkbox" bind:checked={own.form.unlicensed} onchange={save} />
        no licence yet <span class="text-label text-ink2">you listen: sheets leave the transmitter locked</span>
      </label>
      {#if region}
        <Checks
          legend="your licence permits"
          note="none ticked: every band of the region"
          options={region.bands.map((b) => ({ value: b.name, label: b.name }))}
          changed={save}
          bind:chosen={own.form.bands}
        />
        {#if region.services.length > 0}
          <Checks
            legend="other services you use"
            note="with the licence and the equipment that they ask for"
            options={region.services.map((s) => ({ value: s.id, label: s.name, detail: s.licence }))}
            changed={save}
            bind:chosen={own.form.services}
          />
        {/if}
      {/if}
      <Field
        name="licence"
        label="your licence, in your words"
        hint="class, number, until when"
        fault={own.faults.licence}
        changed={save}
        bind:value={own.form.licence}
      />
    {/if}
  </div>
  {#if region}<div class="max-wide:mt-8"><RegionFacts {region} /></div>{/if}
</main>
