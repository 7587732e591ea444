<script lang="ts">
  import { ChevronDown, Redo2, Undo2 } from '@lucide/svelte';
  import { Select } from 'bits-ui';
  import type { Ledger, Workspace } from '$lib/api/client';
  import Masthead from '$parts/Masthead.svelte';
  import { clock } from '$lib/format';
  import { theme } from '$lib/theme.svelte';

  interface Props {
    workspace: Workspace;
    ledger: Ledger | undefined;
    load: number;
    choose: (load: number) => void;
    /** Opens another plan. */
    plan: (id: number) => void;
    undo: (redo: boolean) => void;
    help: () => void;
  }
  let { workspace, ledger, load, choose, plan, undo, help }: Props = $props();
  const plans = $derived(workspace.plans.filter((x) => !x.archived || x.id === workspace.plan.id));
  const radio = $derived(workspace.loads.find((l) => l.id === load)?.radio);
</script>

<Masthead current="Plan">
  <p class="ml-auto flex min-w-0 items-baseline gap-2.5 self-center max-desk:flex-1">
    {#if plans.length > 1}
      <select
        aria-label="plan"
        class="h-[30px] min-w-0 truncate rounded-[2px] border border-rule2 bg-sheet px-2 font-strong max-desk:h-9"
        value={String(workspace.plan.id)}
        onchange={(e) => {
          plan(Number(e.currentTarget.value));
        }}
      >
        {#each plans as x (x.id)}<option value={String(x.id)}>{x.name}{x.demo ? ' (invented)' : ''}</option>{/each}
      </select>
    {:else}
      <span class="truncate font-strong max-desk:font-normal max-desk:text-ink2">{workspace.plan.name}</span>
    {/if}
    {#if workspace.plan.demo}<span
        class="text-label whitespace-nowrap text-ink2"
        title="The demonstration: its islands, repeaters and callsigns are invented">invented</span
      >{/if}
    {#if ledger}
      <span class="text-label whitespace-nowrap text-ink3 max-desk:hidden"
        >{ledger.rows.length} channels, saved {clock(ledger.saved_at)}</span
      >
    {/if}
  </p>
  <div class="flex items-center gap-1">
    <button
      type="button"
      class="p-1.5 hover:bg-hover disabled:text-rule2"
      disabled={!ledger?.undo}
      title={ledger?.undo ? `Undo: ${ledger.undo} (Ctrl+Z)` : 'Nothing to undo'}
      aria-label="Undo"
      onclick={() => {
        undo(false);
      }}><Undo2 size={16} aria-hidden="true" /></button
    >
    <button
      type="button"
      class="p-1.5 hover:bg-hover disabled:text-rule2"
      disabled={!ledger?.redo}
      title={ledger?.redo ? `Redo: ${ledger.redo} (Ctrl+Shift+Z)` : 'Nothing to redo'}
      aria-label="Redo"
      onclick={() => {
        undo(true);
      }}><Redo2 size={16} aria-hidden="true" /></button
    >
    <button
      type="button"
      class="px-1.5 py-1.5 text-label text-ink2 hover:bg-hover"
      aria-label="Theme: {theme.current}"
      title="Change between day, night and red"
      onclick={() => {
        theme.next();
      }}>{theme.current}</button
    >
    <button
      type="button"
      class="px-1.5 py-1.5 text-label text-ink2 hover:bg-hover max-desk:hidden"
      title="Keys (?)"
      onclick={help}>keys</button
    >
  </div>
  <Select.Root
    type="single"
    value={String(load)}
    onValueChange={(v) => {
      choose(Number(v));
    }}
  >
    <Select.Trigger
      aria-label="radio {radio?.name ?? ''} {radio?.form ?? ''}, {radio?.slots.first ?? ''}–{radio?.slots.last ?? ''}"
      class="flex h-[30px] items-center gap-2 self-center rounded-[2px] border border-rule2 bg-sheet pr-2 pl-2.5 whitespace-nowrap max-desk:h-9"
    >
      <span class="text-label text-ink3 max-desk:hidden">radio</span>
      <b class="font-strong">{radio?.name}</b>
      <span class="text-label text-ink3 max-desk:hidden">{radio?.form}, {radio?.slots.first}–{radio?.slots.last}</span>
      <ChevronDown size={16} aria-hidden="true" />
    </Select.Trigger>
    <Select.Portal>
      <Select.Content class="z-20 border border-rule2 bg-sheet py-1" align="end" sideOffset={2}>
        {#each workspace.loads as l (l.id)}
          <Select.Item
            value={String(l.id)}
            label={l.radio.name}
            class="flex h-8 cursor-pointer items-center gap-3 px-3 data-highlighted:bg-water"
          >
            <b class="w-20 font-strong">{l.radio.name}</b>
            <span class="text-label text-ink2">{l.radio.form}, {l.radio.slots.first}–{l.radio.slots.last}</span>
          </Select.Item>
        {/each}
      </Select.Content>
    </Select.Portal>
  </Select.Root>
</Masthead>
