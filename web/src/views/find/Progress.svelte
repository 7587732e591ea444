<script lang="ts">
  import type { ImportState } from '$lib/api/client';
  import Progress from '$parts/Progress.svelte';
  import Changes from './Changes.svelte';

  let { state: s }: { state: ImportState } = $props();
  const share = $derived(
    ['done', 'held'].includes(s.state) ? 1 : s.total_bytes > 0 ? Math.min(1, s.bytes / s.total_bytes) : 0,
  );
  const number = (n: number) => Math.round(n).toLocaleString('en');
  const head = $derived(
    {
      shown: '',
      waiting: 'Another listing is being read; this one is next.',
      reading: `Reading into ${s.source}`,
      done: `${s.source} is imported.`,
      failed: `It failed: ${s.error}. Nothing was changed.`,
      cancelled: 'Cancelled. Nothing was changed.',
      held: `${s.source} is there already. Nothing has changed yet.`,
      doubted: `Is this the right file? ${s.error}.`,
    }[s.state],
  );
</script>

<div class="py-4" role="status" aria-live="polite">
  <p class="text-fig font-strong">{head}</p>
  <Progress label="How far it is" {share} />
  <p>
    <b class="font-figs font-strong">{number(s.good)}</b> rows {s.state === 'done'
      ? 'imported'
      : 'read'}{#if s.bad > 0}, <b class="font-figs font-strong">{number(s.bad)}</b> could not be read{s.state ===
      'done'
        ? ' and are kept to be corrected'
        : ''}{/if}{#if s.aside > 0}; {number(s.aside)} set aside (notes, totals, headings){/if}{#if s.seconds_left !== null && s.state === 'reading'};
      about {number(s.seconds_left + 0.5)} s left{/if}.
  </p>
  {#if s.changes && (s.state === 'held' || s.state === 'done')}<Changes
      changes={s.changes}
      done={s.state === 'done'}
    />{/if}
</div>
