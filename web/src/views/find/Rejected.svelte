<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, ApiError, must } from '$lib/api/client';

  /** Rows of a listing that could not be read, to be mended one by one. */
  let { source }: { source: string } = $props();
  const client = useQueryClient();
  let trouble = $state<Record<number, string>>({});
  const rejects = createQuery(() => ({
    queryKey: ['rejects', source],
    queryFn: async () => must(await api.GET('/api/sources/{source}/rejects', { params: { path: { source } } })),
  }));

  async function mend(id: number, form: HTMLFormElement) {
    const cells = [...form.querySelectorAll('input')].map((x) => x.value);
    try {
      must(
        await api.PUT('/api/sources/{source}/rejects/{reject}', {
          params: { path: { source, reject: id } },
          body: { cells },
        }),
      );
      await client.invalidateQueries();
    } catch (e) {
      trouble[id] = e instanceof ApiError ? e.message : 'The application does not answer. What you typed is kept here.';
    }
  }
</script>

{#if rejects.data}
  <ol class="mt-1 mb-3 border-l-2 border-rule2 pl-3">
    {#each rejects.data.rows as r (r.id)}
      <li class="border-b border-rule py-1.5">
        <form
          class="flex flex-wrap items-center gap-1"
          onsubmit={(e) => {
            e.preventDefault();
            void mend(r.id, e.currentTarget);
          }}
        >
          <span class="w-[64px] text-label text-ink2">line {r.line}</span>
          {#each r.cells as cell, i (i)}
            {@const wrong = r.faults.some((f) => f.column === i)}
            <input
              value={cell}
              aria-label={rejects.data.columns[i] ?? `column ${String(i + 1)}`}
              aria-invalid={wrong}
              class="h-[28px] w-[104px] rounded-[2px] border bg-sheet px-1.5 text-small max-desk:h-11 {wrong
                ? 'border-stop'
                : 'border-rule2'}"
            />
          {/each}
          <button type="submit" class="h-[28px] rounded-[2px] border border-rule2 bg-sheet px-2 max-desk:h-11"
            >Check this row</button
          >
        </form>
        <p class="text-label text-stop">{trouble[r.id] ?? r.faults.map((f) => f.message).join('; ')}</p>
      </li>
    {/each}
  </ol>
  <a class="link" href="/api/sources/{encodeURIComponent(source)}/rejects.csv" download="{source}, not read.csv"
    >Save them as CSV</a
  >
  {#if rejects.data.more}<p class="pb-2 text-label text-ink2">And more, which follow when these are done.</p>{/if}
{/if}
