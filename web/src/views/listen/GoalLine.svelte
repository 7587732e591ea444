<script lang="ts">
  import Button from '$parts/Button.svelte';
  import LineGround from '$parts/LineGround.svelte';
  import PaintedLine from '$parts/PaintedLine.svelte';
  import Why from '$parts/Why.svelte';
  import type { ListenReport } from '$lib/api/client';
  import { desk } from '$session/session';
  import type { ListenState } from './listen.svelte';

  /** What is wanted, as a line, and what comes of it in a sentence. */
  interface Props {
    state: ListenState;
    r: ListenReport;
    input?: HTMLInputElement | undefined;
    keep: () => void;
  }
  let { state: listen, r, input = $bindable(), keep }: Props = $props();
  let why = $state(false);
  const text = $derived(listen.line ?? r.goal.line);
  /** The words are those of what stands there now. */
  const settled = $derived(text.trim() === r.goal.line.trim());
  const words = $derived(
    settled ? r.goal.words.map((w) => ({ start: w.from, end: w.to, as: w.as, doubt: w.doubt, strong: !w.doubt })) : [],
  );
</script>

<LineGround number={r.goal.slot >= 0 ? String(r.goal.slot) : '–'}>
  <label class="sr-only" for="goal">What you want to hear</label>
  <PaintedLine
    id="goal"
    bind:input
    value={text}
    {words}
    such="9 of 10 overs of 5 s on Calling"
    typed={(t) => {
      listen.line = t;
      listen.slot = -1;
    }}
    onkeydown={(e) => {
      if (e.key === 'Enter') keep();
      else if (e.key === 'Escape' && listen.line !== undefined) listen.line = undefined;
      else if (listen.line === undefined && (e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'z')
        void desk.undo(r.load, e.shiftKey); // nothing was typed that it could mean
      else return;
      e.preventDefault();
    }}
    maxlength={200}
    aria-describedby="goal-says"
    aria-invalid={r.goal.trouble !== ''}
  />
  {#if !r.goal.kept && r.goal.trouble === ''}
    <span class="mt-4 ml-2 flex-none max-desk:hidden"><Button key="Enter" onclick={keep}>Keep this goal</Button></span>
  {/if}
</LineGround>
<div id="goal-says" class="says" role="status">
  {#if r.goal.trouble !== ''}<span class="text-conflict">{r.goal.trouble}</span>
  {:else}{#each r.says.split(/(\d+\.\d of 10)/) as part, i (i)}{#if i % 2 === 1}<b>{part}</b>{:else}{part}{/if}{/each}
    {#if r.why.length > 0}<Why bind:open={why} />{/if}
  {/if}
</div>
{#if why && r.goal.trouble === ''}
  <dl class="why">
    {#each r.why as l, nth (nth)}<dt>{l.term}</dt>
      <dd>{l.says}</dd>{/each}
  </dl>
{/if}

<style>
  .says {
    padding: 5px 0 5px 40px;
    font-size: var(--t-lead, 15px);
    line-height: 1.35;
  }
  .says b {
    font-weight: var(--w-strong);
  }
  .why {
    display: grid;
    grid-template-columns: 62px 1fr;
    margin: 0 0 6px 40px;
    font-size: 12.5px;
    line-height: 1.4;
    color: var(--ink2);
  }
  @media (max-width: 45em) {
    .says {
      padding-left: 0;
    }
    .why {
      margin-left: 0;
    }
  }
</style>
