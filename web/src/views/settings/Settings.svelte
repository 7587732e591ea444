<script lang="ts">
  import { untrack } from 'svelte';
  import { createQuery, keepPreviousData, useQueryClient } from '@tanstack/svelte-query';
  import Field from '$parts/Field.svelte';
  import { api, must } from '$lib/api/client';
  import { chosen } from '$lib/api/chosen.svelte';
  import { writes } from '$session/session';
  import Checks from './Checks.svelte';
  import Position from '$parts/Position.svelte';
  import About from './About.svelte';
  import Scale, { type Row } from './Scale.svelte';
  import Tones from './Tones.svelte';
  import Button from '$parts/Button.svelte';
  import Select from '$parts/Select.svelte';
  import Swatch from '$parts/Swatch.svelte';
  import { workspaceQuery } from '$lib/queries';
  import { theme } from '$lib/theme.svelte';
  import KeyList from '../../shell/KeyList.svelte';
  import { shell } from '../../shell/shell.svelte';
  import { SettingsState } from './settings.svelte';

  const own = new SettingsState(useQueryClient(), writes);
  const settings = createQuery(() => ({
    queryKey: ['settings', chosen.plan, chosen.person],
    queryFn: async () => must(await api.GET('/api/settings')),
  }));
  const follows = createQuery(() => ({
    queryKey: ['follows', chosen.plan, chosen.person, chosen.load],
    queryFn: async () => must(await api.GET('/api/settings/follows', { params: { query: { load: chosen.load } } })),
    placeholderData: keepPreviousData,
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
  const names = $derived(follows.data?.bands.map((b) => b.name) ?? []);
  const workspace = createQuery(workspaceQuery);
  const loads = $derived(workspace.data?.loads ?? []);
  const permits = [
    { value: 'all', label: 'everything in the band plan', says: '' },
    { value: 'some', label: 'the bands I choose', says: 'press the bands' },
    { value: 'none', label: 'none yet', says: 'you listen: no sheet lets the radio transmit' },
  ] as const;
  const themes = [
    { value: 'day', label: 'day', says: 'the chart table' },
    { value: 'night', label: 'night', says: 'dark, little blue' },
    { value: 'red', label: 'red', says: 'keeps your eyes used to the dark' },
  ] as const;
  const licenceOf = (p: { unlicensed: boolean; bands: string[] }) =>
    p.unlicensed ? 'listens' : p.bands.length > 0 ? p.bands.join(', ') : 'every band';
</script>

<svelte:head><title>Settings · Mnemos</title></svelte:head>

{#snippet scale(row: Row)}
  {#if follows.data}<Scale
      follows={follows.data}
      {row}
      talks={(b) => own.talks(b)}
      toggle={(b) => {
        own.toggle(b, names);
      }}
    />{/if}
{/snippet}

<main class="page">
  <div class="flex flex-wrap items-baseline gap-4 pb-2">
    <h1 class="text-head font-strong">Settings</h1>
    <p role="status" class="text-label text-ink2">{own.message}</p>
    {#if own.before}
      <button type="button" class="link" onclick={() => void own.back()}>Undo</button>
    {/if}
  </div>
  {#if own.form && settings.data}
    {@const f = follows.data}
    <section class="question" aria-labelledby="where">
      <div>
        <h2 id="where"><span>1</span>Where are you, and who?</h2>
        <div class="answers">
          <Field
            name="place"
            label="place"
            hint="41.02, -55.31 or a locator such as GN21ia"
            fault={own.faults.place}
            changed={save}
            bind:value={own.form.place}
          />
          <Position take={(place) => own.place(place)} />
          <Field
            name="region"
            label="band plan"
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
            name="marks"
            label="places you name, for near …"
            hint="hut GN21ia; pier 41.1,-55.4"
            fault={own.faults.marks}
            changed={save}
            bind:value={own.form.marks}
          />
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
        </div>
      </div>
      <div class="follows">
        {@render scale('published')}
        <p>
          {#if settings.data.locator}Locator <span class="font-figs">{settings.data.locator}</span>.{/if}
          {#if f?.placed}<b>{f.near} repeaters</b> are published within {f.within_km} km. Distances, bearings and what may
            be heard are calculated from here.{:else}Without a place every record counts, and nothing has a distance.{/if}
        </p>
      </div>
    </section>

    <section class="question" aria-labelledby="permits">
      <div>
        <h2 id="permits"><span>2</span>What does your licence permit?</h2>
        <fieldset class="answers">
          <legend class="sr-only">What your licence permits</legend>
          {#each permits as x (x.value)}
            <label class="flex min-h-7 items-baseline gap-2 max-desk:min-h-11">
              <input
                type="radio"
                name="permits"
                value={x.value}
                checked={own.permits === x.value}
                onchange={() => {
                  own.permit(x.value, names);
                }}
              />
              <span
                ><span class={own.permits === x.value ? 'font-strong' : ''}>{x.label}</span>
                <span class="text-label text-ink2">{x.says}</span></span
              >
            </label>
          {/each}
          <Field
            name="licence"
            label="in your words"
            hint="class, number, until when"
            fault={own.faults.licence}
            changed={save}
            bind:value={own.form.licence}
          />
        </fieldset>
      </div>
      <div class="follows">
        {@render scale('licence')}
        <p>
          What is struck out can be stored to listen; its transmitter is blocked on the way to the radio. Follow your
          local rules and your licence.
        </p>
      </div>
    </section>

    <section class="question" aria-labelledby="radio">
      <div>
        <h2 id="radio"><span>3</span>Which radio is in your hand?</h2>
        <div class="answers">
          {#if loads.length > 0}
            <Select
              label="radio in your hand"
              options={loads.map((l) => ({
                value: String(l.id),
                label: l.unit.name,
                detail: l.radio.name === l.unit.name ? l.radio.form : l.radio.name,
              }))}
              bind:value={
                () => String(chosen.load),
                (v) => {
                  chosen.load = Number(v);
                }
              }
            />
          {/if}
          <p class="pt-2 text-small text-ink2">
            <a class="link" href="/radios">Radios</a> says what it can do; copy the nearest one and make it match yours.
          </p>
        </div>
      </div>
      <div class="follows">
        {@render scale('radio')}
        {#if f}
          <p class="leaves">
            That leaves <b>{f.talk} repeaters</b> to talk through{#if f.ask > 0}, {f.ask} to ask about first{/if}{#if f.out > 0},
              {f.out}
              out of the licence, of {f.radio || 'the radio'} or of use{/if}.
          </p>
          {@render scale('left')}
        {/if}
      </div>
    </section>

    <div class="more">
      <section aria-labelledby="tones">
        <h2 id="tones">Tone policy</h2>
        <Tones policies={settings.data.tone_policies} follows={f} changed={save} bind:value={own.form.tone_policy} />
      </section>
      {#if region && region.services.length > 0}
        <section aria-labelledby="services">
          <h2 id="services">Other services</h2>
          <Checks
            legend="that you use"
            note="with the licence and the equipment that they ask for"
            options={region.services.map((s) => ({ value: s.id, label: s.name, detail: s.licence }))}
            changed={save}
            bind:chosen={own.form.services}
          />
        </section>
      {/if}
      <section aria-labelledby="people">
        <h2 id="people">People</h2>
        <ul>
          {#each workspace.data?.people ?? [] as p (p.id)}
            <li class="flex min-h-7 items-center gap-2 border-b border-rule">
              <Swatch colour={p.colour} /><span>{p.name}</span><span class="ml-auto text-label text-ink2"
                >{licenceOf(p)}</span
              >
            </li>
          {/each}
        </ul>
        <p class="pt-2"><Button onclick={() => (shell.open = 'people')}>Add or change people…</Button></p>
      </section>
      <section aria-labelledby="theme">
        <h2 id="theme">Theme</h2>
        <fieldset>
          <legend class="sr-only">Theme</legend>
          {#each themes as t (t.value)}
            <label class="flex min-h-7 items-baseline gap-2 max-desk:min-h-11">
              <input
                type="radio"
                name="theme"
                value={t.value}
                checked={!theme.follows && theme.current === t.value}
                onchange={() => {
                  theme.set(t.value);
                }}
              />
              <span>{t.label} <span class="text-label text-ink2">{t.says}</span></span>
            </label>
          {/each}
          <label class="flex min-h-7 items-baseline gap-2 max-desk:min-h-11">
            <input
              type="radio"
              name="theme"
              value="system"
              checked={theme.follows}
              onchange={() => {
                theme.follow();
              }}
            />
            <span>as the system has it</span>
          </label>
        </fieldset>
      </section>
      <section aria-labelledby="keys" class="wide">
        <h2 id="keys">Keys</h2>
        <KeyList />
        <p class="pt-1 text-label text-ink2">
          F1 lists the keys of the view that you are in; each can be changed there too.
        </p>
      </section>
      <About {region} />
    </div>
  {/if}
</main>

<style>
  .page {
    max-width: 1320px;
    margin: 0 auto;
    padding: 16px var(--margin) 40px;
  }
  .question {
    display: grid;
    grid-template-columns: 392px minmax(0, 1fr);
    gap: 0 32px;
    padding: 12px 0;
    border-bottom: var(--line);
  }
  .question h2 {
    display: flex;
    gap: 16px;
    align-items: baseline;
    padding-bottom: 6px;
    font-size: 20px;
    font-weight: var(--w-strong);
  }
  .question h2 span {
    width: 24px;
    padding-left: 4px;
    color: var(--ink2);
    font-family: var(--figs);
  }
  .answers {
    padding-left: 40px;
  }
  .follows p {
    padding-top: 8px;
    font-size: var(--t-small);
    color: var(--ink2);
  }
  .follows b {
    font-weight: var(--w-strong);
    color: var(--ink);
  }
  .follows .leaves {
    padding: 8px 0 6px;
    font-size: var(--t-lead);
    color: var(--ink);
  }
  .more {
    columns: 2;
    column-gap: 40px;
    padding-top: 20px;
  }
  .more > section {
    break-inside: avoid;
    padding-bottom: 20px;
  }
  .more > section > h2 {
    margin-bottom: 4px;
    padding-bottom: 3px;
    border-bottom: 1px solid var(--bold);
    font-weight: var(--w-strong);
  }
  @media (max-width: 79.375em) {
    .question {
      display: block;
    }
    .follows {
      padding-top: 12px;
    }
  }
  @media (max-width: 56em) {
    .more {
      columns: 1;
    }
  }
  @media (max-width: 45em) {
    .page {
      padding-bottom: 80px;
    }
    .answers {
      padding-left: 0;
    }
  }
</style>
