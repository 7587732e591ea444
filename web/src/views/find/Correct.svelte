<script lang="ts">
  import type { FoundRepeater } from '$lib/api/client';
  import { untrack } from 'svelte';
  import { fieldWords } from '$lib/format';
  import { handed } from '$lib/handed';
  import type { FindState } from './find.svelte';

  /** What the person knows better than the listings about one field. */
  let { find, repeater, field }: { find: FindState; repeater: FoundRepeater; field: string } = $props();
  const known = $derived(repeater.corrected.find((c) => c.field === field));
  const given = untrack(() =>
    handed.take(
      repeater.statements.map((s) => ({ source: s.source, key: s.key })),
      field,
    ),
  );
  let editing = $state(given !== undefined);
  let value = $state(given?.value ?? '');
  let note = $state(given?.note ?? '');
  const hints: Record<string, string> = {
    input: '147.84',
    uplink_tone: '103.5, D023N, none',
    downlink_tone: '103.5, D023N, none',
    mode: 'fm, digital, mixed',
    width: 'wide, narrow',
    status: 'on-air, off-air',
    access: 'open, closed, private',
  };
  const box = 'h-[28px] w-[140px] rounded-[2px] border border-rule2 bg-sheet px-1.5 text-small max-desk:h-11';
</script>

{#if editing}
  <form
    class="flex flex-wrap items-center gap-1 py-0.5"
    onsubmit={(e) => {
      e.preventDefault();
      void find.correct(repeater.id, field, value, note).then((kept) => {
        if (kept) editing = false;
      });
    }}
  >
    <input bind:value class={box} aria-label="{fieldWords(field)}, as you know it" placeholder={hints[field]} />
    <input bind:value={note} class={box} aria-label="how you know" placeholder="how you know" />
    <button
      type="submit"
      class="h-[28px] rounded-[2px] border border-rule2 bg-sheet px-2 max-desk:h-11"
      disabled={!value.trim()}>Save</button
    >
    <button type="button" class="link" onclick={() => (editing = false)}>Cancel</button>
  </form>
{:else if known}
  <b class="font-strong">{known.value}</b>
  <span class="text-label text-ink2">{known.note}</span>
  {#if known.open}<span class="block text-label text-conflict">a newer edition says something else: look again</span
    >{/if}
  <button
    type="button"
    class="link"
    aria-label="Undo the correction of {fieldWords(field)}"
    onclick={() => void find.correct(repeater.id, field, '', '')}>Undo</button
  >
{:else}
  <button
    type="button"
    class="link text-label"
    aria-label="correct {fieldWords(field)}"
    onclick={() => {
      editing = true;
      value = note = '';
    }}>correct</button
  >
{/if}
