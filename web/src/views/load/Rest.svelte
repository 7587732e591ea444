<script lang="ts">
  import type { WalkStop } from '$lib/api/client';
  import Must from './Must.svelte';

  /** What the display must show once a channel is in, and how its transmit side is made sure of. */
  let { stop, after }: { stop: WalkStop; after: number } = $props();
  const hidden = $derived(new Intl.ListFormat('en-GB', { type: 'disjunction' }).format(stop.sheet.hidden));
</script>

<h3>After step {after}, at rest it must show</h3>
<Must shown={stop.sheet.rest} />
{#if stop.sheet.rest.note}<p class="note">{stop.sheet.rest.note}.</p>{/if}
{#if hidden}<p class="note">It cannot show {hidden}.</p>{/if}
{#if stop.sheet.keyed && stop.sheet.read_out}
  <div class="part">
    <h3>{stop.sheet.read_out.replace(/^./, (c) => c.toUpperCase())}: it must show</h3>
    <Must shown={stop.sheet.keyed} what="transmit" big figuresOnly />
    <p class="note">Nothing is sent; it proves sign and size of the shift.</p>
  </div>
{:else if stop.sure === 'dummy load'}
  <div class="part">
    <p class="note">This radio has no read-out: the transmit side is looked at next, into a dummy load.</p>
  </div>
{/if}
{#if stop.why_not}<p class="note part">{stop.why_not}</p>{/if}
{#each stop.sheet.notes as n, nth (nth)}<p class="note part">{n}</p>{/each}

<style>
  h3 {
    font-size: var(--t-lead, 15px);
    font-weight: var(--w-strong);
  }
  .note {
    margin-top: 2px;
    color: var(--ink2);
    font-size: var(--t-small);
  }
  .part {
    margin-top: 8px;
    padding-top: 8px;
    border-top: var(--line);
  }
  @media (max-width: 45em) {
    h3 {
      font-size: 19px;
    }
    .note {
      font-size: 15px;
    }
    .part {
      margin-top: 16px;
      padding-top: 14px;
    }
  }
</style>
