<script lang="ts">
  import Button from '$parts/Button.svelte';
  import Mark from '$parts/Mark.svelte';
  import type { ListenReport } from '$lib/api/client';
  import { commands } from '$session/commands.svelte';
  import Becomes from './Becomes.svelte';
  import type { ListenState } from './listen.svelte';
  import { round, ten } from './words';

  /** The smallest change that reaches the goal, and what each part of it does alone. */
  interface Props {
    state: ListenState;
    r: ListenReport;
    after: string;
    make: () => void;
  }
  let { r, make }: Props = $props();
  const best = $derived(r.goal.trouble === '' ? r.best : undefined);
  const unhurried = (says: string) => says.replace(/^./, (c) => c.toLowerCase());
</script>

{#if r.reached && r.goal.trouble === ''}
  <p class="line"><Mark kind="agrees" /> That is what you want: nothing has to change.</p>
{:else if best}
  <div role="table" aria-label="Changes" class="ways">
    <div class="way heads" role="row">
      <span class="what" role="columnheader"
        >{best.short > 0 ? 'out of reach; nearest to it' : 'smallest change that reaches it'}</span
      >
      <span role="columnheader">heard of 10</span><span role="columnheader" class="w2">all channels, an hour</span>
      <span role="columnheader" class="w3">loses most</span><span role="columnheader"
        ><span class="sr-only">do</span></span
      >
    </div>
    <div class="way best" role="row">
      <span class="what" role="cell"
        >{#each best.changes as c, i (i)}{#if i < 3}<span class="block">{c.says}</span>{:else if i === 3}<span
              class="block font-normal">and {best.changes.length - 3} more</span
            >{/if}{/each}</span
      >
      <span role="cell" class="f">{ten(r.chance)}<Becomes /><b class="new">{ten(best.chance)}</b></span>
      <span role="cell" class="f w2">{round(r.heard)}<Becomes /><b class="new">{round(best.heard)}</b></span>
      <span role="cell" class="w3"
        >{#if best.loses}{best.loses.name}
          <span class="f">{ten(best.loses.was)}<Becomes />{ten(best.loses.is)}</span>{:else}nothing{/if}</span
      >
      <span role="cell" class="do"
        ><Button fix="live" key={commands.key('listen-fix')} onclick={make}>{best.label}</Button></span
      >
    </div>
    {#if best.short > 0}<p class="line text-conflict">
        <Mark kind="conflict" /> Still {ten(best.short)} short. Ask for longer overs, or for fewer of them.
      </p>{/if}
    {#each r.parts as p, i (i)}
      <div class="way" role="row">
        <span class="what" role="cell"
          >{best.changes.length > 1 ? 'Only' : 'Or'} {unhurried(p.changes[0]?.says ?? '')}</span
        >
        <span role="cell" class="f">{ten(r.chance)}<Becomes />{ten(p.chance)}</span>
        <span role="cell" class="f w2">{round(r.heard)}<Becomes />{round(p.heard)}</span>
        <span role="cell" class="w3"
          >{#if p.loses}{p.loses.name}
            <span class="f">{ten(p.loses.was)}<Becomes />{ten(p.loses.is)}</span>{:else}nothing{/if}</span
        >
        <span role="cell" class="do">{p.short > 0.005 ? `${ten(p.short)} short` : 'reaches it'}</span>
      </div>
    {/each}
  </div>
{:else if r.goal.trouble === '' && r.goal.slot >= 0 && r.scanned > 0}
  <p class="line"><Mark kind="conflict" /> Nothing that this radio can do differently would hear more of it.</p>
{/if}

<style>
  .line {
    padding: 3px 0 8px 40px;
  }
  .way {
    display: grid;
    grid-template-columns: 40px minmax(0, 1fr) 100px 130px 176px 176px;
    align-items: baseline;
    min-height: 24px;
    line-height: 23px;
    border-top: 1px solid var(--rule);
    color: var(--ink2);
  }
  .what {
    grid-column: 2;
    min-width: 0;
  }
  .heads {
    border-top: 0;
    font-size: var(--t-label);
    line-height: 20px;
    min-height: 20px;
  }
  .best {
    align-items: center;
    padding: 4px 0;
    color: var(--ink);
  }
  .best .what {
    font-weight: var(--w-strong);
    line-height: 18px;
  }
  .f {
    font-family: var(--figs);
    font-size: 14px;
    white-space: nowrap;
  }
  .new {
    font-weight: var(--w-strong);
    color: var(--accent);
  }
  .w3 {
    font-size: 13px;
    color: var(--ink2);
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    padding-right: 8px;
  }
  .w3 .f {
    font-size: 13px;
  }
  .do {
    justify-self: end;
    font-size: 13px;
    white-space: nowrap;
  }
  @media (max-width: 45em) {
    .line {
      padding-left: 0;
    }
    .heads,
    .w2,
    .w3 {
      display: none;
    }
    .way {
      grid-template-columns: 1fr auto auto;
      column-gap: 14px;
    }
    .what {
      grid-column: 1;
    }
    .best {
      grid-template-columns: 1fr auto;
      row-gap: 7px;
      padding: 7px 0 9px;
    }
    .best .do {
      grid-column: 1 / 3;
      justify-self: stretch;
      display: grid;
    }
  }
</style>
