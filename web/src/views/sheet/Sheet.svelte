<script lang="ts">
  import { Printer } from '@lucide/svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import { commands } from '$session/commands.svelte';
  import Button from '$parts/Button.svelte';
  import { api, must } from '$lib/api/client';
  import { navigate, route } from '../../router';
  import { HandsetState } from './handset.svelte';
  import Head from './Head.svelte';
  import Looks from './Looks.svelte';
  import Steps from './Steps.svelte';
  import Try from './Try.svelte';

  const load = $derived(Number(route.params.load));
  const slot = $derived(Number(route.params.slot));
  const sheet = createQuery(() => ({
    queryKey: ['keypad', load, slot],
    queryFn: async () =>
      must(await api.GET('/api/loads/{load}/entries/{slot}/keypad', { params: { path: { load, slot } } })),
    staleTime: 0,
    retry: 0,
  }));
  let handset = $state<HandsetState>();

  const back = () => void navigate('/');
  const print = () => {
    window.print();
  };
  const open = () => {
    const still = matchMedia('(prefers-reduced-motion: reduce)').matches;
    handset = new HandsetState(load, slot, (sheet.data?.sheet.steps.length ?? 0) + 2, still);
    void handset.start();
  };
  const close = () => {
    handset?.stop();
    handset = undefined;
  };
  $effect(() =>
    untrack(() =>
      commands.add({
        id: 'back',
        says: 'Back to the plan',
        scope: 'Sheet',
        keys: ['Escape'],
        run: () => {
          if (handset) close();
          else back();
        },
      }),
    ),
  );
  const today = new Date().toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
</script>

<svelte:head><title>Keypad sheet, slot {slot} · Mnemos</title></svelte:head>

{#snippet icon()}<Printer size={14} aria-hidden="true" />{/snippet}

<main class="page" class:trying={handset}>
  <div class="min-w-0">
    <nav aria-label="Sheet" class="mb-4 flex flex-wrap gap-3 print:hidden">
      <Button key={commands.key('back')} onclick={back}>Back to the plan</Button>
      <Button key={icon} onclick={print}>Print</Button>
      {#if sheet.data?.sheet.steps.length}
        <Button disabled={sheet.data.untried !== '' || handset !== undefined} onclick={open}
          >Try it on a simulated handset</Button
        >
      {/if}
    </nav>
    {#if sheet.isError}
      <p role="alert">{sheet.error.message}. Go back to the plan and choose a slot that holds a channel.</p>
    {:else if sheet.data}
      {@const k = sheet.data}
      {#if k.untried}
        <p class="mb-3 text-ink2 print:hidden">It cannot be tried on a simulated handset: {k.untried}.</p>
      {/if}
      <Head sheet={k} />
      {#if k.sheet.reason}
        <p role="alert" class="my-4 border-2 border-bold px-4 py-3 text-[18px] font-strong">{k.sheet.reason}</p>
      {:else}
        <Steps sheet={k.sheet} at={handset?.at} skipped={handset?.skipped} failed={Boolean(handset?.trouble)} />
        <Looks sheet={k.sheet} slot={k.slot} />
      {/if}
      <footer class="mt-3 border-t border-rule pt-1.5 text-label text-ink3">
        Mnemos, {today}. Keyed in by ____________________ date ______________
      </footer>
    {/if}
  </div>
  {#if handset && sheet.data}<Try {handset} radio={sheet.data.radio.name} {slot} {close} />{/if}
</main>

<style>
  .page {
    max-width: 860px;
    margin: 0 auto;
    padding: 20px 24px;
  }
  .trying {
    display: grid;
    max-width: 1320px;
    grid-template-columns: minmax(0, 1fr) 440px;
    gap: 32px;
    align-items: start;
  }
  .trying > :global(.handset) {
    position: sticky;
    top: 20px;
    max-height: calc(var(--screen) - 40px);
    overflow-y: auto;
  }
  @media (max-width: 62.5em) {
    .trying {
      display: flex;
      flex-direction: column;
    }
    .trying > :global(.handset) {
      top: auto;
      bottom: 0;
      width: 100%;
      max-height: 56vh;
      padding-bottom: 12px;
      border-top: 3px double var(--bold);
      background: var(--paper);
    }
  }
  @media (max-width: 45em) {
    .page {
      padding: 20px 16px;
    }
  }
  @media print {
    .page {
      display: block;
      max-width: none;
      padding: 0;
    }
  }
</style>
