<script lang="ts">
  import type { ImportState } from '$lib/api/client';
  import { fieldWords, mhz } from '$lib/format';

  /** How a listing changes, or has changed: counted, and the first of each by name. */
  let { changes: c, done }: { changes: NonNullable<ImportState['changes']>; done: boolean } = $props();
  const kinds = $derived(
    (
      [
        ['gone', c.gone, 'no longer in it'],
        ['changed', c.changed, 'changed'],
        ['new', c.new, 'new'],
      ] as const
    ).filter(([, n]) => n > 0),
  );
  const number = (n: number) => n.toLocaleString('en');
</script>

<section aria-label="Changes" class="mt-3">
  <p class="text-[16px]">
    {#if kinds.length === 0}The listing {done ? 'stays' : 'would stay'} as it {done ? 'was' : 'is'}: all {number(
        c.same,
      )} records are the same.{:else}Against the listing {done ? 'before' : 'as it is'}:
      {#each kinds as [what, n, words], i (what)}{i > 0 ? ', ' : ''}<b class="font-strong">{number(n)}</b>
        {words}{/each}, {number(c.same)} the same.{/if}
  </p>
  {#each kinds as [what, n, words] (what)}
    {@const rows = c.rows.filter((r) => r.what === what)}
    <h3 class="mt-2 border-b border-rule2 text-label font-strong">{words}</h3>
    <ul class="columns-2 gap-6 max-desk:columns-1">
      {#each rows as r, i (i)}
        <li class="flex break-inside-avoid gap-3 py-0.5">
          <span class="font-figs">{mhz(r.output_hz)}</span>
          <span class="[overflow-wrap:anywhere]">{r.title}</span>
          {#if r.fields.length > 0}<span class="text-ink2">{r.fields.map(fieldWords).join(', ')}</span>{/if}
        </li>
      {/each}
      {#if n > rows.length}<li class="py-0.5 text-ink2">and {number(n - rows.length)} more</li>{/if}
    </ul>
  {/each}
</section>
