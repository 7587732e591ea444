<script lang="ts">
  import { useQueryClient } from '@tanstack/svelte-query';
  import { Dialog } from 'bits-ui';
  import { tick } from 'svelte';
  import { RejectedState, type RejectedRow } from './rejected.svelte';

  /** Rows of a listing that could not be read, each with its headings and what is wrong beside the cell. */
  let { source, close }: { source: string; close: () => void } = $props();
  const rejected = new RejectedState(() => source, useQueryClient());
  void rejected.open();

  let discarded = $state(false);
  const shown = $derived(
    rejected.rows
      .filter((r) => discarded === (r.state === 'discarded'))
      .toSorted((a, b) => Number(a.state === 'later') - Number(b.state === 'later')),
  );
  const thrown = $derived(rejected.rows.filter((r) => r.state === 'discarded').length);
  const cellId = (row: number, column: number) => `reject-${String(row)}-${String(column)}`;

  /** Puts the cursor where the next thing is wrong, so that it is never lost. */
  async function focusRow(row: RejectedRow | undefined) {
    await tick();
    const column = Math.max(0, Math.min(...Object.keys(rejected.wrong[row?.id ?? 0] ?? {}).map(Number)));
    const cell = row && document.getElementById(cellId(row.id, Number.isFinite(column) ? column : 0));
    (cell ?? document.getElementById('rejected-head'))?.focus();
  }
  async function check(row: RejectedRow) {
    const next = shown[shown.indexOf(row) + 1] ?? shown[shown.indexOf(row) - 1];
    const done = await rejected.check(row.id);
    await focusRow(done ? next : row);
  }
  async function set(row: RejectedRow, state: RejectedRow['state']) {
    const next = shown[shown.indexOf(row) + 1] ?? shown[shown.indexOf(row) - 1];
    await rejected.set(row.id, state);
    await focusRow(state === 'later' ? row : next);
  }
  const button = 'h-[28px] rounded-[2px] border border-rule2 bg-sheet px-2 whitespace-nowrap max-desk:h-11';
</script>

<Dialog.Root open onOpenChange={(o) => !o && close()}>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-30 bg-[color-mix(in_srgb,var(--paper)_70%,transparent)]" />
    <Dialog.Content
      class="fixed top-1/2 left-1/2 z-40 flex max-h-[92vh] w-[min(1180px,96vw)] -translate-x-1/2 -translate-y-1/2 flex-col border-2 border-bold bg-paper p-6 max-desk:p-4"
    >
      <Dialog.Title class="text-head font-strong"
        ><span id="rejected-head" tabindex="-1">Rows of {source} that could not be read</span></Dialog.Title
      >
      <Dialog.Description class="pb-2 text-ink2"
        >Correct a cell and press Enter: the row joins the listing, and is corrected by itself when it comes again.</Dialog.Description
      >
      <p role="status" class="min-h-5 text-label text-ink2">{rejected.message}</p>
      {#if rejected.trouble}<p role="alert" class="pb-1 text-stop">{rejected.trouble}</p>{/if}
      <div class="min-h-0 flex-1 overflow-auto" role="region" aria-label="Rows" tabindex="-1">
        <table class="text-left">
          <thead class="sticky top-0 z-20 bg-paper align-bottom">
            <tr class="border-b border-bold">
              <th class="first text-label font-normal text-ink2">line</th>
              {#each rejected.columns as c, i (i)}<th class="pr-2 text-label font-strong"
                  >{c || `column ${String(i + 1)}`}</th
                >{/each}
              {#if rejected.columns.length === 0}<th class="pr-2 text-label font-strong">the line as it came</th>{/if}
            </tr>
          </thead>
          <tbody>
            {#each shown as r (r.id)}
              {@const wrong = rejected.wrong[r.id] ?? {}}
              <tr class="align-top">
                <td class="first pt-1.5 font-figs text-label text-ink2"
                  >{r.line}{#if r.state === 'later'}<span class="block text-ink2">later</span>{/if}</td
                >
                {#each rejected.typed[r.id] ?? [] as cell, i (i)}
                  <td class="py-1 pr-2">
                    <input
                      id={cellId(r.id, i)}
                      value={cell}
                      aria-label="{rejected.columns[i] || `column ${String(i + 1)}`}, line {r.line}"
                      aria-invalid={wrong[i] !== undefined}
                      aria-describedby={wrong[i] ? `${cellId(r.id, i)}-wrong` : undefined}
                      autocomplete="off"
                      spellcheck="false"
                      class="h-[28px] rounded-[2px] border bg-sheet px-1.5 text-small max-desk:h-11 {rejected.columns
                        .length === 0
                        ? 'w-[min(560px,70vw)]'
                        : 'w-[118px]'} {wrong[i] ? 'border-2 border-stop' : 'border-rule2'}"
                      oninput={(e) => {
                        const cells = rejected.typed[r.id];
                        if (cells) cells[i] = e.currentTarget.value;
                      }}
                      onkeydown={(e) => {
                        if (e.key === 'Enter') void check(r);
                      }}
                    />
                    {#if wrong[i]}<p
                        id="{cellId(r.id, i)}-wrong"
                        class="max-w-[240px] text-label leading-tight text-stop"
                      >
                        {wrong[i]}
                      </p>{/if}
                  </td>
                {/each}
              </tr>
              <tr class="border-b border-rule">
                <td class="first"></td>
                <td colspan={Math.max(1, rejected.columns.length)} class="pb-1.5">
                  {#if wrong[-1]}<p class="text-label text-stop">{wrong[-1]}</p>{/if}
                  <span class="flex flex-wrap gap-2">
                    {#if r.state === 'discarded'}
                      <button type="button" class={button} onclick={() => void set(r, '')}>Take back</button>
                    {:else}
                      <button type="button" class={button} onclick={() => void check(r)}>Check this row</button>
                      <button
                        type="button"
                        class={button}
                        onclick={() => void set(r, r.state === 'later' ? '' : 'later')}
                        >{r.state === 'later' ? 'Not later' : 'Later'}</button
                      >
                      <button type="button" class={button} onclick={() => void set(r, 'discarded')}>Discard</button>
                    {/if}
                  </span>
                </td>
              </tr>
            {:else}
              <tr
                ><td colspan="9" class="py-3">{discarded ? 'Nothing is discarded.' : 'Every row is in the listing.'}</td
                ></tr
              >
            {/each}
          </tbody>
        </table>
      </div>
      <div class="mt-3 flex flex-wrap items-center gap-3">
        <a class="link" href="/api/sources/{encodeURIComponent(source)}/rejects.csv" download="{source}, not read.csv"
          >Save them as CSV, with the reasons</a
        >
        {#if thrown > 0 || discarded}
          <button type="button" class="link" onclick={() => (discarded = !discarded)}
            >{discarded ? 'Back to the others' : `${String(thrown)} discarded`}</button
          >
        {/if}
        {#if rejected.more}<span class="text-label text-ink2">More follow when these are done.</span>{/if}
        <Dialog.Close class="{button} ml-auto">Close</Dialog.Close>
      </div>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>

<style>
  .first {
    position: sticky;
    left: 0;
    z-index: 10;
    min-width: 44px;
    padding-right: 8px;
    background: var(--paper);
  }
</style>
