<script lang="ts">
  import { Pause, Play, RotateCcw, SkipForward } from '@lucide/svelte';
  import Button from '$parts/Button.svelte';
  import Display from './Display.svelte';
  import type { HandsetState } from './handset.svelte';

  interface Props {
    handset: HandsetState;
    radio: string;
    slot: number;
    close: () => void;
  }
  let { handset, radio, slot, close }: Props = $props();
  const figures = $derived(handset.view?.keys.filter((k) => /^\d$/.test(k)) ?? []);
  const others = $derived(handset.view?.keys.filter((k) => !/^\d$/.test(k)) ?? []);
  /** A knob has a sign behind its name. */
  const name = (key: string) =>
    key.endsWith('+') && key.length > 1 ? `${key.slice(0, -1)} ▸` : key.endsWith('-') ? `◂ ${key.slice(0, -1)}` : key;
  const spoken = (key: string) =>
    key.endsWith('+') && key.length > 1
      ? `turn ${key.slice(0, -1)} right`
      : key.endsWith('-')
        ? `turn ${key.slice(0, -1)} left`
        : key;
  let next = $state<HTMLElement>();
  $effect(() => {
    next?.querySelector('button')?.focus({ preventScroll: true });
  });
</script>

{#snippet play()}<Play size={14} aria-hidden="true" />{/snippet}
{#snippet halt()}<Pause size={14} aria-hidden="true" />{/snippet}
{#snippet over()}<RotateCcw size={14} aria-hidden="true" />{/snippet}
{#snippet skip()}<SkipForward size={14} aria-hidden="true" />{/snippet}

<section class="handset print:hidden" aria-label="Simulated handset">
  <div class="flex items-baseline justify-between border-b border-bold pb-1">
    <h2 class="text-[18px] font-strong">{radio}, simulated</h2>
    <button type="button" class="link" onclick={close}>Close</button>
  </div>
  <p class="my-1.5 text-label text-ink2">
    It starts with leftovers of another channel in every setting, and something old in slot {slot}. Nothing is sent.
  </p>
  {#if handset.display}<Display display={handset.display} />{/if}
  <p class="min-h-6 font-figs text-[13px] text-ink2" aria-label="Keys pressed last">{handset.pressed}</p>
  {#if handset.trouble}<p role="alert" class="my-1 text-stop">Stopped: {handset.trouble}.</p>{/if}
  <div class="flex flex-wrap gap-2 py-1.5" bind:this={next}>
    <Button fix="live" disabled={handset.over} onclick={() => void handset.step()}>
      {handset.at === 0 ? 'Check the start' : handset.over ? 'All steps done' : 'Do the next step'}
    </Button>
    {#if handset.playing}
      <Button
        key={halt}
        onclick={() => {
          handset.stop();
        }}>Pause</Button
      >
    {:else}
      <Button key={play} disabled={handset.over} onclick={() => void handset.play()}>By itself</Button>
    {/if}
    <Button
      key={skip}
      disabled={handset.over}
      onclick={() => {
        handset.skip();
      }}>Leave it out</Button
    >
    <Button key={over} onclick={() => void handset.start()}>Start over</Button>
  </div>
  {#if handset.view && handset.at > 1}
    <p class="border-t border-rule py-1.5">
      {#if handset.view.differs.length === 0}
        <b class="font-strong">Slot {slot} is as planned.</b> {handset.view.slot}
      {:else if handset.over || handset.skipped.length > 0}
        <b class="font-strong text-conflict">Slot {slot} is not as planned:</b> {handset.view.differs.join('; ')}.
      {:else}
        <span class="text-ink2">Slot {slot} still holds what was there before.</span>
      {/if}
    </p>
  {/if}
  <h3 class="mt-2 border-t border-rule pt-1.5 text-ink2">Or press the keys yourself</h3>
  <div class="mt-1.5 flex gap-4 max-desk:flex-col">
    <div class="flex flex-1 flex-wrap content-start gap-1.5">
      {#each others as k (k)}
        <button type="button" class="cap" aria-label={spoken(k)} onclick={() => void handset.press(k)}>{name(k)}</button
        >
      {/each}
    </div>
    <div class="grid grid-cols-3 content-start gap-1.5">
      {#each figures as k (k)}
        <button type="button" class="cap figure" class:zero={k === '0'} onclick={() => void handset.press(k)}
          >{k}</button
        >
      {/each}
    </div>
  </div>
</section>

<style>
  .cap {
    min-width: 40px;
    height: 30px;
    padding: 0 8px;
    border: 1px solid var(--rule2);
    border-radius: 2px;
    background: var(--sheet);
    font-family: var(--figs);
    font-size: 13.5px;
  }
  .cap:hover {
    background: var(--hover);
  }
  .figure {
    font-size: 16px;
  }
  .zero {
    grid-column: 2;
  }
  @media (max-width: 45em) {
    .cap {
      min-width: 44px;
      height: 44px;
    }
  }
</style>
