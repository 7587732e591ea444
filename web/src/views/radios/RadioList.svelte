<script lang="ts">
  import Select from '$parts/Select.svelte';
  import type { RadioInfo } from '$lib/api/client';

  interface Props {
    radios: RadioInfo[];
    current: string;
    go: (id: string) => void;
    /** Profiles with edits that are not saved. */
    unsaved: (id: string) => boolean;
  }
  /** The profiles there are, each with how much of the plan it holds: a list, or one box where the screen is narrow. */
  let { radios, current, go, unsaved }: Props = $props();
  const groups = $derived(
    [
      { name: 'yours', list: radios.filter((r) => r.own) },
      { name: 'in the plan', list: radios.filter((r) => !r.own && r.load !== null) },
      { name: 'shipped, to copy', list: radios.filter((r) => !r.own && r.load === null) },
    ].filter((g) => g.list.length > 0 || g.name === 'yours'),
  );
  const of = $derived(radios[0]?.of ?? 0);
  const slots = (r: RadioInfo) => `${r.form}, ${String(r.last - r.first + 1)} slots`;
  const long = 52;
</script>

<div class="wide:hidden">
  <Select
    label="radio"
    options={groups.flatMap((g) =>
      g.list.map((r) => ({
        value: r.id,
        label: r.name,
        detail: `${g.name}: ${slots(r)}, holds ${String(r.whole)} of ${String(r.of)}`,
      })),
    )}
    bind:value={() => current, go}
  />
</div>
<nav aria-label="Radios" class="max-wide:hidden">
  {#each groups as g, i (g.name)}
    <h2>
      {g.name}{#if i === 0}<span>fits of {of}</span>{/if}
    </h2>
    {#if g.list.length === 0}<p class="none">None yet. Open the one that is most like yours, and copy it.</p>{/if}
    <ul>
      {#each g.list as r (r.id)}
        <li class:current={r.id === current}>
          <a href="/radios/{r.id}" aria-current={r.id === current ? 'true' : undefined}>
            <b class="truncate">{r.name}</b><span class="n">{r.whole}</span>
            <small>{unsaved(r.id) ? 'not saved yet' : slots(r)}</small>
            {#if of > 0}<svg width={long} height="4" viewBox="0 0 {long} 4" aria-hidden="true"
                ><path class="all" d="M0,2H{long}" /><path
                  class="whole"
                  d="M0,2h{(long * r.whole) / of}"
                />{#if r.part > 0}<path
                    class="part"
                    d="M{(long * r.whole) / of + 1},2h{Math.max(1, (long * r.part) / of - 1)}"
                  />{/if}</svg
              >{/if}
          </a>
        </li>
      {/each}
    </ul>
  {/each}
</nav>

<style>
  h2 {
    display: flex;
    justify-content: space-between;
    margin-right: 12px;
    padding: 12px 0 3px;
    border-bottom: 1px solid var(--bold);
    font-size: var(--t-label);
    font-weight: var(--w-normal);
    color: var(--ink2);
  }
  .none {
    margin-right: 12px;
    padding: 6px 0;
    font-size: var(--t-small);
    color: var(--ink2);
  }
  li {
    position: relative;
    margin-right: 12px;
    border-bottom: var(--hair);
  }
  a {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    align-content: center;
    min-height: 38px;
    line-height: 1.25;
    text-decoration: none;
  }
  a:hover {
    background: var(--hover);
  }
  b {
    font-weight: var(--w-normal);
  }
  small {
    font-size: var(--t-note);
    color: var(--ink3);
  }
  .n {
    text-align: right;
    font: var(--w-normal) 13px var(--figs);
    color: var(--ink2);
  }
  svg {
    align-self: center;
  }
  .all {
    stroke: var(--rule2);
  }
  .whole {
    stroke: var(--ink);
    stroke-width: 2;
  }
  .part {
    stroke: var(--conflict);
    stroke-width: 2;
  }
  .current {
    margin: 0 -1px 0 -10px;
    background: var(--sheet);
    border: solid var(--rule2);
    border-width: 1px 0;
    z-index: 1;
  }
  .current a {
    padding: 0 13px 0 10px;
  }
  .current::before {
    content: '';
    position: absolute;
    left: 0;
    top: -1px;
    bottom: -1px;
    width: 4px;
    background: var(--ink);
  }
  .current b {
    font-weight: var(--w-strong);
  }
</style>
