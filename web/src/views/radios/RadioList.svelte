<script lang="ts">
  import Select from '$parts/Select.svelte';
  import type { RadioInfo } from '$lib/api/client';

  interface Props {
    radios: RadioInfo[];
    current: string;
    go: (id: string) => void;
  }
  /** The profiles there are: a list, or one box where the screen is narrow. */
  let { radios, current, go }: Props = $props();
  const groups = $derived([
    { name: 'yours', list: radios.filter((r) => r.own) },
    { name: 'shipped, to copy', list: radios.filter((r) => !r.own) },
  ]);
  const none = 'None yet. Open the shipped one that is most like yours, and copy it.';
</script>

<div class="wide:hidden">
  <Select
    label="radio"
    options={groups.flatMap((g) =>
      g.list.map((r) => ({ value: r.id, label: r.name, detail: `${r.form}${r.load === null ? '' : ', in the plan'}` })),
    )}
    bind:value={() => current, go}
  />
</div>
<nav aria-label="Radios" class="max-wide:hidden">
  {#each groups as g (g.name)}
    <h2 class="border-b border-bold pt-3 pb-1 text-label text-ink2 first:pt-0">{g.name}</h2>
    {#if g.list.length === 0}<p class="py-2 text-ink2">{none}</p>{/if}
    <ul>
      {#each g.list as r (r.id)}
        <li class="border-b border-rule">
          <a
            href="/radios/{r.id}"
            aria-current={r.id === current ? 'true' : undefined}
            class="grid grid-cols-[1fr_auto] items-baseline px-1.5 py-1 no-underline hover:bg-hover {r.id === current
              ? 'bg-water'
              : ''}"
          >
            <b class="truncate font-strong">{r.name}</b>
            <span class="text-label text-ink2">{r.load === null ? '' : 'in the plan'}</span>
            <span class="col-span-2 text-label text-ink2">{r.form}; {r.entry}</span>
          </a>
        </li>
      {/each}
    </ul>
  {/each}
</nav>
