<script lang="ts">
  import Frequency from '$parts/Frequency.svelte';
  import type { Row } from '$lib/api/client';

  /** Which channel to test: those that are in the radio and not proven come first. */
  let { rows, choose }: { rows: readonly Row[]; choose: (slot: number) => void } = $props();
  let find = $state('');
  const rank = { keyed: 0, stored: 1, planned: 2, proven: 3 } as const;
  const list = $derived(
    rows
      .filter((r) => `${String(r.slot)} ${r.channel.name}`.toLowerCase().includes(find.trim().toLowerCase()))
      .toSorted((a, b) => rank[a.standing.now] - rank[b.standing.now] || a.slot - b.slot),
  );
</script>

<h2>Test a channel on the air</h2>
<p class="text-ink2">
  Listen first. Then call, and note what comes back: a tail, an ident, a reply, or nothing. One change a try. {#if rows.length === 0}This
    radio holds no channels yet: add some in Plan or Find.{/if}
</p>
{#if rows.length > 8}
  <p class="py-1.5">
    <label class="mr-2" for="pick-find">which</label><input
      id="pick-find"
      class="box"
      autocomplete="off"
      bind:value={find}
      placeholder="a name or a slot"
    />
  </p>
{/if}
<ul>
  {#each list as r (r.slot)}
    <li>
      <button
        type="button"
        onclick={() => {
          choose(r.slot);
        }}
        ><span class="n">{r.slot}</span><span class="name">{r.channel.name}</span><Frequency
          hz={r.channel.receive_hz}
          pad={3}
        /><span class="state">{r.standing.now}</span></button
      >
    </li>
  {/each}
</ul>

<style>
  h2 {
    font-size: var(--t-head);
    font-weight: var(--w-strong);
    line-height: 30px;
  }
  .box {
    height: 30px;
    border: 1px solid var(--rule2);
    border-radius: 2px;
    background: var(--sheet);
    padding: 0 8px;
  }
  ul {
    columns: 2 340px;
    column-gap: 24px;
    margin-top: 6px;
  }
  li {
    break-inside: avoid;
  }
  button {
    display: grid;
    grid-template-columns: 32px minmax(0, 1fr) 80px 64px;
    width: 100%;
    min-height: 26px;
    align-items: baseline;
    text-align: left;
    border-bottom: 1px solid var(--rule);
  }
  button:hover {
    background: var(--hover);
  }
  .n {
    font-family: var(--figs);
    color: var(--ink2);
  }
  .name {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .state {
    color: var(--ink2);
    font-size: 13px;
    text-align: right;
  }
  @media (max-width: 45em) {
    button {
      min-height: 44px;
      align-items: center;
    }
    .box {
      height: 44px;
    }
  }
</style>
