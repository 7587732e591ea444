<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, must, type Found } from '$lib/api/client';
  import type { FindState } from './find.svelte';

  /** The words that a line may hold, for those who look before they type. */
  let { find, found, load }: { find: FindState; found: Found | undefined; load: number } = $props();
  const menu = createQuery(() => ({
    queryKey: ['find', 'menu', load],
    queryFn: async () => must(await api.GET('/api/find/menu', { params: { query: { load } } })).groups,
  }));
  const words = $derived(found?.words ?? []);
  const on = (word: string, group: string) =>
    words.some((w) => w.menu === group && w.text.toLowerCase().replaceAll('"', '') === word.toLowerCase());
</script>

<div
  id="find-menu"
  class="menu border-b border-rule2 py-2 pl-10 max-desk:pl-0"
  role="group"
  aria-label="Words for the line"
>
  {#each menu.data ?? [] as g (g.name)}
    <div class="group">
      <span class="pt-1 text-label text-ink2">{g.name}</span>
      <span class="flex flex-wrap gap-1">
        {#each g.choices as c, nth (nth)}
          {@const is = on(c.word, g.name)}
          <button
            type="button"
            class="min-h-6 border px-1.5 font-figs text-small max-desk:min-h-11 max-desk:px-3 {is
              ? 'border-bold bg-sheet font-strong'
              : 'border-rule2'}"
            aria-pressed={is}
            aria-label="{c.word}: {c.says}"
            title={c.says}
            onclick={() => {
              find.choose(c.word, g, words);
            }}>{c.word}</button
          >
        {/each}
      </span>
    </div>
  {/each}
</div>

<style>
  .menu {
    columns: 2;
    column-gap: 20px;
    flex: none;
    max-height: 60vh;
    overflow-y: auto;
  }
  .group {
    display: grid;
    grid-template-columns: 70px minmax(0, 1fr);
    gap: 8px;
    padding-bottom: 5px;
    break-inside: avoid;
  }
  @media (max-width: 45em) {
    .menu {
      columns: 1;
    }
  }
</style>
