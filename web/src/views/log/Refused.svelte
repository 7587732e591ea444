<script lang="ts">
  import Button from '$parts/Button.svelte';
  import Mark from '$parts/Mark.svelte';
  import type { TestCard } from '$lib/api/client';

  /** Why a channel gets no card; for a closed repeater, what its owner said. */
  let {
    c,
    permit,
    search,
    back,
  }: { c: TestCard; permit: (note: string) => void; search: () => void; back: () => void } = $props();
  let note = $state('');
</script>

<div class="card">
  <p><button type="button" class="link" onclick={back}>← another channel</button></p>
  <h2><span>{c.slot}</span> {c.name}</h2>
  <p><Mark kind="stop" /> {c.refused}</p>
  {#if c.closed && c.refused.includes('owner')}
    <form
      onsubmit={(e) => {
        e.preventDefault();
        permit(note);
      }}
    >
      <p class="text-ink2">{c.owner}. Ask, and if you are asked to stop, stop.</p>
      <label for="permission">what the owner said</label>
      <input id="permission" bind:value={note} placeholder="who said it, when, and what" maxlength="400" />
      <Button type="submit">Keep this note</Button>
    </form>
  {/if}
  {#if !c.search.refused}<p>
      Listening is free: <button type="button" class="link" onclick={search}
        >search for the tone that others send</button
      >
    </p>{/if}
</div>

<style>
  h2 {
    font-size: var(--t-head);
    font-weight: var(--w-strong);
  }
  h2 span {
    font-family: var(--figs);
    color: var(--ink2);
  }
  .card > p {
    padding: 4px 0;
  }
  form {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: center;
    padding: 6px 0;
  }
  form p {
    width: 100%;
  }
  input {
    flex: 1;
    min-width: 200px;
    height: 32px;
    border: 1px solid var(--rule2);
    border-radius: 2px;
    background: var(--sheet);
    padding: 0 8px;
  }
  @media (max-width: 45em) {
    input {
      height: 44px;
    }
  }
</style>
