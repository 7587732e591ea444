<script lang="ts">
  import { useQueryClient } from '@tanstack/svelte-query';
  import { Dialog } from 'bits-ui';
  import { BringState } from './bring.svelte';
  import Mapping from './Mapping.svelte';
  import Rejected from './Rejected.svelte';
  import Progress from './Progress.svelte';

  let { open = $bindable(), file }: { open: boolean; file: File | undefined } = $props();
  const bring = new BringState(useQueryClient());
  let pasted = $state('');
  let mending = $state('');

  $effect(() => {
    if (open && file) void bring.take(file, file.name);
  });
  $effect(() => {
    if (!open) bring.again();
  });
  const button = 'rounded-[2px] border px-3 py-1 disabled:border-dashed disabled:text-ink3 max-desk:min-h-11';
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-30 bg-[color-mix(in_srgb,var(--paper)_70%,transparent)]" />
    <Dialog.Content
      class="fixed top-1/2 left-1/2 z-40 flex max-h-[92vh] w-[min(1180px,96vw)] -translate-x-1/2 -translate-y-1/2 flex-col overflow-y-auto border-2 border-bold bg-paper p-6 *:shrink-0 max-desk:p-4"
    >
      <Dialog.Title class="text-head font-strong">Import a listing</Dialog.Title>
      {#if bring.progress}
        <Dialog.Description class="sr-only">How far the import is</Dialog.Description>
        <Progress state={bring.progress} />
      {:else if bring.preview}
        <Dialog.Description class="text-ink2"
          >See what each column was taken for, and change it where that is wrong. Nothing changes until you import.</Dialog.Description
        >
        <Mapping {bring} preview={bring.preview} />
      {:else}
        <Dialog.Description class="mb-3 text-ink2"
          >A table (CSV or any other delimiter), a workbook (XLSX), GeoJSON, a listing in JSON; or paste the text, also
          lines such as
          <span class="font-figs">147.240+ PL 100 Beacon Hill</span>.</Dialog.Description
        >
        <input
          type="file"
          aria-label="Listing file"
          class="mb-2 block max-desk:min-h-11"
          onchange={(e) => {
            const f = e.currentTarget.files?.[0];
            if (f) void bring.take(f, f.name);
          }}
        />
        <textarea
          bind:value={pasted}
          aria-label="Listing as text"
          rows="10"
          spellcheck="false"
          class="w-full rounded-[2px] border border-rule2 bg-sheet p-2 font-figs text-small"></textarea>
      {/if}
      {#if bring.trouble}<p role="alert" class="pt-2 text-stop">{bring.trouble}</p>{/if}
      <div class="mt-4 flex flex-wrap gap-3">
        {#if bring.progress}
          {#if bring.progress.state === 'doubted'}
            <button
              type="button"
              class="{button} border-conflict text-conflict"
              disabled={bring.busy}
              onclick={() => void bring.run(true)}>Import it all the same</button
            >
          {/if}
          {#if bring.progress.state === 'done' && bring.progress.bad > 0}
            <button
              type="button"
              class="{button} border-accent font-medium text-accent"
              onclick={() => {
                mending = bring.progress?.source ?? '';
                open = false;
              }}>Correct the rows that could not be read</button
            >
          {/if}
          {#if bring.progress.state === 'held'}
            <button
              type="button"
              class="{button} border-accent font-medium text-accent"
              disabled={bring.busy}
              onclick={() => void bring.run()}>Import these changes</button
            >
          {/if}
          {#if bring.over}
            <button
              type="button"
              class="{button} border-rule2"
              onclick={() => {
                bring.again();
              }}>Import another</button
            >
          {:else}
            <button type="button" class="{button} border-rule2" onclick={() => void bring.cancel()}>Cancel</button>
          {/if}
        {:else if bring.preview}
          <button
            type="button"
            class="{button} border-accent font-medium text-accent"
            disabled={bring.busy ||
              bring.preview.good === 0 ||
              (!bring.preview.prose && bring.preview.view.sentence !== '' && !bring.preview.view.settled)}
            onclick={() => void bring.run()}>Import the readable rows</button
          >
          <button
            type="button"
            class="{button} border-rule2"
            onclick={() => {
              bring.again();
            }}>Another file</button
          >
        {:else}
          <button
            type="button"
            class="{button} border-accent font-medium text-accent"
            disabled={!pasted.trim() || bring.busy}
            onclick={() => void bring.take(new Blob([pasted]), 'pasted text')}>Read the text</button
          >
        {/if}
        <Dialog.Close class="{button} border-rule2">Close</Dialog.Close>
      </div>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
{#if mending}<Rejected source={mending} close={() => (mending = '')} />{/if}
