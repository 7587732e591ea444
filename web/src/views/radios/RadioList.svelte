<script lang="ts">
  import type { RadioInfo } from '$lib/api/client';

  let { radios, current }: { radios: RadioInfo[]; current: string } = $props();
  const groups = $derived([
    { name: 'yours', list: radios.filter((r) => r.own) },
    { name: 'shipped, to copy', list: radios.filter((r) => !r.own) },
  ]);
</script>

<nav aria-label="Radios">
  {#each groups as g (g.name)}
    <h2 class="border-b border-bold pt-3 pb-1 text-label text-ink2 first:pt-0">{g.name}</h2>
    {#if g.list.length === 0}
      <p class="py-2 text-ink2">None yet. Open the shipped one that is most like yours, and copy it.</p>
    {/if}
    <ul>
      {#each g.list as r (r.id)}
        <li class="border-b border-rule">
          <a
            href="/radios/{r.id}"
            aria-current={r.id === current ? 'true' : undefined}
            class="flex min-h-8 items-baseline gap-2 px-1.5 py-1 no-underline hover:bg-hover max-desk:min-h-11 max-desk:items-center {r.id ===
            current
              ? 'bg-water'
              : ''}"
          >
            <b class="font-strong">{r.name}</b>
            <span class="text-label text-ink2">{r.form}, {r.entry}</span>
            {#if r.load !== null}<span class="ml-auto text-label text-ink2">in the plan</span>{/if}
          </a>
        </li>
      {/each}
    </ul>
  {/each}
</nav>
