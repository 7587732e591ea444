<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, must } from '$lib/api/client';
  import { fieldWords } from '$lib/format';
  import type { FindState } from './find.svelte';

  /** What people know better than the listings: all of it, each with a way back. */
  let { find }: { find: FindState } = $props();
  let open = $state(false);
  const corrections = createQuery(() => ({
    queryKey: ['corrections'],
    queryFn: async () => must(await api.GET('/api/corrections')).corrections,
  }));
  const decisions = createQuery(() => ({
    queryKey: ['decisions'],
    queryFn: async () => must(await api.GET('/api/decisions')).decisions,
  }));
  /** One correction stands at each listing that speaks of the repeater; it is shown once. */
  const corrected = $derived(
    (corrections.data ?? []).filter(
      (c, i, all) => all.findIndex((x) => x.field === c.field && x.at === c.at && x.value === c.value) === i,
    ),
  );
  const number = $derived(corrected.length + (decisions.data?.length ?? 0));
</script>

{#if number > 0}
  <section aria-label="Changed by people" class="border-t border-rule py-1 pl-10 text-small max-desk:pl-0">
    <button type="button" class="link max-desk:min-h-11" aria-expanded={open} onclick={() => (open = !open)}
      >{number} changed by you {open ? '▴' : '▾'}</button
    >
    {#if open}
      <ul>
        {#each corrected as c (c.id)}
          <li class="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-1">
            <span class="font-figs">{c.of.key}</span>
            <span>{fieldWords(c.field)} is <b class="font-strong">{c.value}</b>, not {c.against || 'stated'}</span>
            <span class="text-ink2">{c.note ? `${c.note}, ` : ''}{c.person}, {c.at.slice(0, 10)}</span>
            <button
              type="button"
              class="link ml-auto max-desk:min-h-11"
              aria-label="Undo {fieldWords(c.field)} of {c.of.key}"
              onclick={() => void find.correct(c.of, c.field, '', '')}>Undo</button
            >
          </li>
        {/each}
        {#each decisions.data ?? [] as d (d.id)}
          <li class="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-1">
            <span
              ><span class="font-figs">{d.a.key}</span> and <span class="font-figs">{d.b.key}</span> are {d.same
                ? 'one repeater'
                : 'two repeaters'}</span
            >
            <span class="text-ink2">{d.person}, {d.at.slice(0, 10)}</span>
            <button
              type="button"
              class="link ml-auto max-desk:min-h-11"
              aria-label="Undo: {d.a.key} and {d.b.key}"
              onclick={() => void find.takeBack('decision', d.id, d.revision)}>Undo</button
            >
          </li>
        {/each}
      </ul>
    {/if}
  </section>
{/if}
