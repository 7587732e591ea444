<script lang="ts">
  import { useQueryClient } from '@tanstack/svelte-query';
  import Button from '$parts/Button.svelte';
  import Dialog from '$parts/Dialog.svelte';
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
    if (bring.progress) bring.followed();
  });
  $effect(() => {
    if (!open) bring.again();
  });
</script>

<Dialog bind:open title="Import a listing" wide="full">
  {#if bring.progress}
    <Progress state={bring.progress} />
  {:else if bring.preview}
    <p class="text-ink2">
      See what each column was taken for, and change it where that is wrong. Nothing changes until you import.
    </p>
    <Mapping {bring} preview={bring.preview} />
  {:else}
    <p class="mb-3 text-ink2">
      A table (CSV or any other delimiter), a workbook (XLSX), GeoJSON, a listing in JSON; or paste the text, also lines
      such as
      <span class="font-figs">147.240+ PL 100 Beacon Hill</span>.
    </p>
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
  {#snippet acts()}
    {#if bring.progress}
      {#if bring.progress.state === 'doubted'}
        <Button kind="grave" disabled={bring.busy} onclick={() => void bring.run(true)}>Import it all the same</Button>
      {/if}
      {#if bring.progress.state === 'done' && bring.progress.bad > 0}
        <Button
          kind="main"
          onclick={() => {
            mending = bring.progress?.source ?? '';
            open = false;
          }}>Correct the rows that could not be read</Button
        >
      {/if}
      {#if bring.progress.state === 'held'}
        <Button kind="main" disabled={bring.busy} onclick={() => void bring.run()}>Import these changes</Button>
      {/if}
      {#if bring.over}
        <Button
          onclick={() => {
            bring.again();
          }}>Import another</Button
        >
      {:else}
        <Button onclick={() => void bring.cancel()}>Cancel</Button>
      {/if}
    {:else if bring.preview}
      <Button
        kind="main"
        disabled={bring.busy ||
          bring.preview.good === 0 ||
          (!bring.preview.prose && bring.preview.view.sentence !== '' && !bring.preview.view.settled)}
        onclick={() => void bring.run()}>Import the readable rows</Button
      >
      <Button
        onclick={() => {
          bring.again();
        }}>Another file</Button
      >
    {:else}
      <Button
        kind="main"
        disabled={!pasted.trim() || bring.busy}
        onclick={() => void bring.take(new Blob([pasted]), 'pasted text')}>Read the text</Button
      >
    {/if}
  {/snippet}
</Dialog>
{#if mending}<Rejected source={mending} close={() => (mending = '')} />{/if}
