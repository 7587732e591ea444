<script lang="ts">
  import type { Preview } from '$lib/api/client';

  /** The window of names with three of the plan in it, and the characters that it has. */
  let { preview, length, characters }: { preview: Preview; length: number; characters: string } = $props();
  /** Those that lose the most come first: they show what the window does. */
  const three = $derived(
    preview.rows
      .filter((r) => r.lost === '' && r.channel.name !== '')
      .map((r) => ({ r, over: r.channel.name.length - r.short_name.length }))
      .sort((a, b) => b.over - a.over)
      .slice(0, 3)
      .map(({ r }) => r),
  );
  const small = $derived(/[a-z]/.test(characters));
  const lacks = $derived([...'/.+'].filter((c) => !characters.includes(c)));
</script>

{#if length > 0}
  <p class="window">
    {#each three as r, nth (nth)}
      <span
        >{r.channel.name}<span class="cells" role="img" aria-label="shown as {r.short_name}"
          >{#each [...r.short_name.padEnd(length)].slice(0, 16) as c, i (i)}<span aria-hidden="true"
              >{c === ' ' ? ' ' : c}</span
            >{/each}</span
        ></span
      >
    {/each}
  </p>
  <p class="characters">
    {characters}<span
      >{[small ? '' : 'no small letters', lacks.length > 0 ? `no ${lacks.join(' ')}` : '']
        .filter(Boolean)
        .join(', ')}</span
    >
  </p>
{/if}

<style>
  .window {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 26px;
    align-items: center;
    margin: 5px 0 6px;
    font-size: var(--t-label);
    color: var(--ink2);
  }
  .cells {
    display: inline-flex;
    margin-left: 6px;
    vertical-align: middle;
    border: 1px solid var(--ink2);
  }
  .cells span {
    width: 15px;
    height: 20px;
    font: var(--w-medium) 14px/20px var(--figs);
    text-align: center;
    color: var(--ink);
    border-left: var(--hair);
  }
  .cells span:first-child {
    border-left: 0;
  }
  .characters {
    font: var(--w-normal) 13px/18px var(--figs);
    letter-spacing: 0.5px;
    overflow-wrap: anywhere;
  }
  .characters span {
    margin-left: 10px;
    font: var(--w-normal) var(--t-label) var(--text);
    letter-spacing: 0;
    color: var(--ink3);
  }
</style>
