<script lang="ts">
  import Button from '$parts/Button.svelte';
  import Evidence from '$parts/Evidence.svelte';
  import type { FitItem, Fix } from '$lib/api/client';

  /** Channels of which the same is to be said, each with what can be chosen. */
  interface Props {
    title: string;
    says: string;
    items: readonly FitItem[];
    apply: (slot: number, fix: Fix) => void;
    listen: (slot: number) => void;
    leave: (slot: number) => void;
    look: (slot: number) => void;
    scan: (slot: number) => void;
  }
  let { title, says, items, apply, listen, leave, look, scan }: Props = $props();
  const few = 8;
  let all = $state(false);
</script>

{#if items.length > 0}
  <section aria-label={title}>
    <div class="group">
      <h2>{title}</h2>
      <p>{says}</p>
    </div>
    {#each all ? items : items.slice(0, few) as x, i (`${String(x.slot)} ${String(i)}`)}
      <div class="item">
        <span class="slot">{x.slot}</span>
        <button
          type="button"
          class="name"
          onclick={() => {
            look(x.slot);
          }}>{x.name || '–'}</button
        >
        <span class="what"
          >{x.title}{#if title === 'Held back' || title === 'Decide first'}&nbsp; <Evidence
              kind={x.verdict}
            />{/if}<span class="why">{x.why}</span></span
        >
        <span class="acts">
          {#each x.fixes as f (f.id)}<Button
              fix="idle"
              onclick={() => {
                apply(x.slot, f);
              }}>{f.label}</Button
            >{/each}
          {#if x.listen}<Button
              label="Receive only: {x.name}"
              onclick={() => {
                listen(x.slot);
              }}>Receive only</Button
            >{/if}
          {#if x.scan}<Button
              label="Scan as the others: {x.name}"
              onclick={() => {
                scan(x.slot);
              }}>Scan as the others</Button
            >{/if}
          {#if x.leave}<Button
              label="Take out: {x.name}"
              onclick={() => {
                leave(x.slot);
              }}>Take out</Button
            >{/if}
        </span>
      </div>
    {/each}
    {#if items.length > few && !all}<p class="more">
        <button type="button" class="link max-desk:min-h-11" onclick={() => (all = true)}
          >{items.length - few} more</button
        >
      </p>{/if}
  </section>
{/if}

<style>
  .group {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0 10px;
    margin-top: 3px;
    padding: 4px 0 1px 40px;
    border-top: 1px solid var(--bold);
  }
  h2 {
    font-weight: var(--w-strong);
  }
  .group p {
    color: var(--ink2);
    font-size: var(--t-small);
  }
  .item {
    display: grid;
    grid-template-columns: 40px 132px minmax(0, 1fr) auto;
    align-items: baseline;
    min-height: 38px;
    padding: 3px 0;
    border-top: var(--hair);
  }
  .group + .item {
    border-top: 0;
  }
  .slot {
    padding-left: 4px;
    color: var(--ink2);
    font-family: var(--figs);
  }
  .name {
    font-weight: var(--w-strong);
    text-align: left;
  }
  .name:hover {
    text-decoration: underline;
  }
  .what {
    padding-right: 12px;
    line-height: 1.35;
  }
  .why {
    display: block;
    color: var(--ink2);
    font-size: var(--t-small);
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    justify-content: flex-end;
    align-self: center;
    max-width: 320px;
  }
  .more {
    padding-left: 40px;
  }
  @media (max-width: 45em) {
    .group,
    .more {
      padding-left: 0;
    }
    .item {
      grid-template-columns: 32px minmax(0, 1fr);
    }
    .name {
      min-height: 44px;
    }
    .what,
    .acts {
      grid-column: 2;
    }
    .acts {
      justify-content: flex-start;
      padding: 4px 0;
    }
  }
</style>
