<script lang="ts">
  import { Printer } from '@lucide/svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { tinykeys } from 'tinykeys';
  import Action from '$parts/Action.svelte';
  import Evidence from '$parts/Evidence.svelte';
  import Shown from './Shown.svelte';
  import { api, must } from '$lib/api/client';
  import { mhz } from '$lib/format';
  import { navigate, route } from '../../router';

  const load = $derived(Number(route.params.load));
  const slot = $derived(Number(route.params.slot));
  const sheet = createQuery(() => ({
    queryKey: ['keypad', load, slot],
    queryFn: async () =>
      must(await api.GET('/api/loads/{load}/entries/{slot}/keypad', { params: { path: { load, slot } } })),
    staleTime: 0,
    retry: 0,
  }));

  const back = () => void navigate('/');
  const print = () => {
    window.print();
  };
  $effect(() => tinykeys(window, { Escape: back, p: print }));
  const today = new Date().toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
</script>

<svelte:head><title>Keypad sheet, slot {slot} · Mnemos</title></svelte:head>

{#snippet icon()}<Printer size={14} aria-hidden="true" />{/snippet}

<main class="mx-auto max-w-[860px] px-6 py-5 max-desk:px-4 print:p-0">
  <nav aria-label="Sheet" class="mb-5 flex gap-3 print:hidden">
    <Action key="Esc" onclick={back}>Back to the plan</Action>
    <Action key={icon} onclick={print}>Print</Action>
  </nav>
  {#if sheet.isError}
    <p role="alert">{sheet.error.message}. Go back to the plan and choose a slot that holds a channel.</p>
  {:else if sheet.data}
    {@const k = sheet.data}
    <header class="flex items-end gap-x-5 gap-y-1 border-b-2 border-bold pb-2 max-desk:flex-wrap">
      <span class="font-figs text-[44px] leading-none font-strong">{k.slot}</span>
      <div class="flex-1">
        <h1 class="text-[26px] leading-tight font-strong">{k.name || k.short_name || mhz(k.channel.receive_hz)}</h1>
        <p class="text-ink2">{k.plan}, for {k.radio.name} ({k.radio.form})</p>
      </div>
      <p class="text-right text-[16px]">
        <Evidence kind={k.verdict} size={16} /><span class="block text-label text-ink2">{k.source || 'no listing'}</span
        >
      </p>
    </header>

    {#each k.stops as stop, i (i)}
      <p role="alert" class="my-3 border-2 border-stop px-3 py-2 text-[15px] font-strong text-stop">
        Do not key this channel. {stop}
      </p>
    {/each}
    {#each k.doubts as doubt, i (i)}
      <p class="my-3 border border-conflict px-3 py-2">
        <Evidence kind="conflict" word="Before you key this in:" />
        {doubt}
      </p>
    {/each}
    {#if k.sheet.losses.length > 0}
      <section class="my-3 border border-rule2 px-3 py-2">
        <h2 class="font-strong">What {k.radio.name} cannot hold</h2>
        <ul>
          {#each k.sheet.losses as l, i (i)}
            <li>{l.wanted}: {l.why}. The sheet has <b class="font-strong">{l.held}</b> instead.</li>
          {/each}
        </ul>
      </section>
    {/if}
    <p class="mt-3 text-ink2">
      First: {#each k.sheet.before as b, i (b)}{i > 0 ? ', ' : ''}<span class="whitespace-nowrap">☐ {b}</span>{/each}.
    </p>

    <ol class="mt-2">
      {#each k.sheet.steps as s (s.number)}
        <li class="step border-b border-rule">
          <span class="text-right font-figs text-ink2">{s.number}</span>
          <span>
            <b class="text-[16px] font-strong">{s.do}</b>
            <span class="block text-ink2">{s.where}</span>
          </span>
          <span class="text-right">
            <span
              class="font-figs text-[30px] leading-[34px] {s.value === 'off' || s.value === 'none'
                ? ''
                : 'font-strong'}">{s.value}</span
            >&nbsp;{#if s.unit}<span class="ml-0.5 inline-block w-9 text-left text-[15px] text-ink2">{s.unit}</span
              >{:else}<span class="ml-0.5 inline-block w-9"></span>{/if}
            {#if s.note}<span class="block pr-[42px] text-label text-ink2">{s.note}</span>{/if}
          </span>
          <span class="text-[20px] text-ink2" aria-hidden="true">☐</span>
        </li>
      {/each}
    </ol>

    <section class="mt-5 grid grid-cols-2 gap-5 max-desk:grid-cols-1" aria-label="What the display must show">
      <Shown title="At rest the display must show" shown={k.sheet.rest} />
      {#if k.sheet.keyed}
        <Shown title="Keyed, it must show" shown={k.sheet.keyed} />
      {:else}
        <div>
          <h2 class="border-b border-bold font-strong">Keyed</h2>
          <p class="pt-2">The channel is receive only. Nothing may happen when the key is pressed.</p>
        </div>
      {/if}
    </section>
    <p class="mt-4">
      These figures are calculated, so there is no need to transmit to find out. Key only when you mean to be heard:
      listen first, give your callsign, and follow your local rules and your licence. Never transmit without an aerial
      or a dummy load.
    </p>
    <p class="mt-1 text-ink2">
      Afterwards: {k.sheet.after.join('; ')}. Turn the radio off and on, recall slot {k.slot}, and compare once more.
    </p>
    <footer class="mt-4 border-t border-rule pt-1.5 text-label text-ink3">
      Mnemos, {today}. Keyed by ____________________ date ______________
    </footer>
  {/if}
</main>

<style>
  .step {
    display: grid;
    grid-template-columns: 28px 1fr minmax(220px, auto) 28px;
    gap: 14px;
    align-items: center;
    min-height: 50px;
    padding: 4px 0;
    break-inside: avoid;
  }
  @media (max-width: 720px) {
    .step {
      grid-template-columns: 20px 1fr auto;
      gap: 8px;
    }
    .step > :last-child {
      display: none;
    }
  }
  @media print {
    .step {
      min-height: 38px;
    }
  }
</style>
