<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import Button from '$parts/Button.svelte';
  import Position from '$parts/Position.svelte';
  import Field from '$parts/Field.svelte';
  import { api, must } from '$lib/api/client';
  import { theme } from '$lib/theme.svelte';
  import BandScale from './BandScale.svelte';
  import { FirstState, type Permits } from './first.svelte';

  /** An empty folder: three questions, then an empty plan. */
  let { opened }: { opened: () => void } = $props();
  const first = new FirstState();
  const start = createQuery(() => ({
    queryKey: ['start'],
    queryFn: async () => must(await api.GET('/api/start')),
  }));
  const region = $derived(start.data?.regions.find((r) => r.id === first.region));
  const names = $derived(region?.bands.map((b) => b.name) ?? []);
  const radios = $derived(start.data?.radios ?? []);
  const chosen = $derived(radios.find((r) => r.id === first.radio));
  const permits: { value: Permits; label: string; says: string }[] = [
    { value: 'all', label: 'everything in the band plan', says: '' },
    { value: 'some', label: 'the bands I choose', says: 'press the bands' },
    { value: 'none', label: 'none yet', says: 'you listen: no sheet lets the radio transmit' },
  ];
  const question = 'flex items-baseline gap-4 pb-2 text-head font-strong before:w-6 before:text-ink2';
  const open = async () => {
    if (await first.begin()) opened();
  };
</script>

<svelte:head><title>A new folder · Mnemos</title></svelte:head>

<header
  class="flex h-[46px] items-center gap-4 border-b-2 border-bold px-6 max-desk:h-auto max-desk:flex-wrap max-desk:px-4 max-desk:py-2"
>
  <span class="text-[19px] font-[760] tracking-tight">Mnemos</span>
  <p class="ml-auto max-desk:ml-0">
    <b class="font-strong">A new folder</b>
    <span class="text-label text-ink2">three answers, then your plan; each can be changed later</span>
  </p>
  <button
    type="button"
    class="px-1.5 py-1.5 text-label text-ink2 hover:bg-hover"
    aria-label="Theme: {theme.current}"
    onclick={() => {
      theme.next();
    }}>{theme.current}</button
  >
  <Button
    disabled={first.busy}
    onclick={() =>
      void first.demo().then((done) => {
        if (done) opened();
      })}>Open the demonstration <span class="text-label text-ink2">invented islands</span></Button
  >
</header>

{#if start.isError}
  <p role="alert" class="p-6">
    The application does not answer. Start it again, then
    <button type="button" class="link" onclick={() => void start.refetch()}>try again</button>.
  </p>
{:else if start.data}
  <main>
    <form
      class="mx-auto max-w-[1320px] px-6 pb-10 max-desk:px-4"
      onsubmit={(e) => {
        e.preventDefault();
        void open();
      }}
    >
      <section class="grid grid-cols-[392px_1fr] gap-x-8 border-b border-rule2 py-4 max-wide:block">
        <div>
          <h1 class="{question} before:content-['1']">Where are you, and who?</h1>
          <div class="pl-10 max-desk:pl-0">
            <Field
              name="place"
              label="place"
              hint="GN21ia or 41.02, -55.31"
              fault={first.faults.place}
              bind:value={first.place}
            />
            <Position take={(place) => (first.place = place)} />
            <Field
              name="region"
              label="band plan"
              options={start.data.regions.map((r) => ({ value: r.id, label: r.title }))}
              fault={first.faults.region}
              bind:value={first.region}
            />
            <Field
              name="person"
              label="you"
              hint="your name or callsign"
              fault={first.faults.person}
              bind:value={first.name}
            />
            <Field
              name="plan"
              label="your plan"
              hint="a name for it"
              fault={first.faults.name}
              bind:value={first.plan}
            />
          </div>
        </div>
        <p class="pt-11 text-ink2 max-wide:pt-3">
          A locator of four or six characters, or latitude and longitude in degrees, north and east positive. Distances
          and what may be heard are calculated from there; without it every published record counts. Changes are noted
          under your name.
          {#if region}<span class="block pt-2 text-label"
              >{region.title}: {region.authority}. {region.firm
                ? ''
                : 'Its tables are written from memory: confirm them with your co-ordinator.'}</span
            >{/if}
        </p>
      </section>

      <section class="grid grid-cols-[392px_1fr] gap-x-8 border-b border-rule2 py-4 max-wide:block">
        <fieldset>
          <legend class="{question} before:content-['2']">What does your licence permit?</legend>
          <div class="pl-10 max-desk:pl-0">
            {#each permits as x (x.value)}
              <label class="flex min-h-7 items-baseline gap-2 max-desk:min-h-11">
                <input type="radio" name="permits" value={x.value} bind:group={first.permits} />
                <span
                  ><span class={first.permits === x.value ? 'font-strong' : ''}>{x.label}</span>
                  <span class="text-label text-ink2">{x.says}</span></span
                >
              </label>
            {/each}
            {#if first.faults.bands}<p class="text-label text-stop" role="alert">{first.faults.bands}</p>{/if}
          </div>
        </fieldset>
        <div class="pt-1 max-wide:pt-3">
          {#if region}<BandScale
              {region}
              talks={(b) => first.talks(b)}
              toggle={(b) => {
                first.toggle(b, names);
              }}
            />{/if}
          <p class="pt-3 text-label text-ink2">
            What is struck out can be stored to listen to. Follow your local rules and your licence.
          </p>
        </div>
      </section>

      <section class="grid grid-cols-[392px_1fr] gap-x-8 py-4 max-wide:block">
        <fieldset>
          <legend class="{question} before:content-['3']">Which radio is nearest to yours?</legend>
          <div class="pl-10 max-desk:pl-0">
            <div class="grid grid-cols-2 gap-x-4">
              {#each ['handheld', 'mobile'] as form (form)}
                <div role="group" aria-label={form}>
                  <p class="border-b border-rule2 text-label text-ink2">{form}</p>
                  {#each radios.filter((r) => r.form === form) as r (r.id)}
                    <label class="flex min-h-7 items-baseline gap-2 max-desk:min-h-11 max-desk:items-center">
                      <input type="radio" name="radio" value={r.id} bind:group={first.radio} />
                      <span class={first.radio === r.id ? 'font-strong' : ''}>{r.name}</span>
                    </label>
                  {/each}
                </div>
              {/each}
            </div>
            {#if first.faults.radio}<p class="text-label text-stop" role="alert">{first.faults.radio}</p>{/if}
          </div>
        </fieldset>
        <p class="pt-11 text-ink2 max-wide:pt-3">
          {#if chosen}<b class="font-strong text-ink">{chosen.name}</b>, a generic {chosen.form}: {chosen.entry}.{/if}
          <span class="block pt-2"
            >These are kinds of radios, none of a brand: choose the one whose keys work like yours. In
            <b class="font-strong">Radios</b> you can copy it and change what is different on yours, and add others later.</span
          >
        </p>
      </section>

      <div class="flex items-center gap-4 border-l-4 border-accent bg-sheet px-4 py-3">
        <p class="text-ink2" role="status">
          {#if first.trouble}<span class="font-strong text-stop">{first.trouble}</span>
          {:else if Object.keys(first.faults).length > 0}<span class="font-strong text-stop"
              >Check the marked fields.</span
            >
          {:else}Your plan will be empty, with the line ready.{/if}
        </p>
        <button
          type="submit"
          disabled={first.busy}
          class="ml-auto h-9 rounded-[2px] bg-accent px-4 font-medium text-onaccent max-desk:h-11">Open the plan</button
        >
      </div>
    </form>
  </main>
{/if}
