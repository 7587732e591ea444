<script lang="ts">
  import { Dialog } from 'bits-ui';
  import type { Snippet } from 'svelte';

  interface Props {
    open: boolean;
    title: string;
    /** What it is for, below the title. */
    says?: Snippet | string;
    /** How wide it may become. */
    wide?: 'narrow' | 'middle' | 'full';
    children: Snippet;
    /** What it can do, in the last row; closing is there always. */
    acts?: Snippet;
    close?: string;
  }
  let { open = $bindable(), title, says = '', wide = 'middle', children, acts, close = 'Close' }: Props = $props();
  const width = { narrow: 'w-[min(560px,96vw)]', middle: 'w-[min(880px,96vw)]', full: 'w-[min(1180px,96vw)]' };
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-30 bg-[color-mix(in_srgb,var(--paper)_70%,transparent)]" />
    <Dialog.Content
      class="fixed top-1/2 left-1/2 z-40 flex max-h-[92vh] {width[
        wide
      ]} -translate-x-1/2 -translate-y-1/2 flex-col overflow-y-auto border-2 border-bold bg-paper p-6 *:shrink-0 max-desk:p-4"
    >
      <Dialog.Title class="text-head font-strong">{title}</Dialog.Title>
      <Dialog.Description class={says ? 'mb-3 text-ink2' : 'sr-only'}
        >{#if typeof says === 'string'}{says || title}{:else}{@render says()}{/if}</Dialog.Description
      >
      {@render children()}
      <div class="mt-4 flex flex-wrap gap-3">
        {@render acts?.()}
        <Dialog.Close class="min-h-7 rounded-[2px] border border-rule2 bg-sheet px-3 text-[13.5px] max-desk:min-h-11"
          >{close}</Dialog.Close
        >
      </div>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
