<script lang="ts">
  import Button from '$parts/Button.svelte';
  import type { SheetStep } from '$lib/api/client';
  import { commands } from '$session/commands.svelte';
  import { narrow } from '$lib/screen.svelte';
  import Caps from './Caps.svelte';
  import Ladder from './Ladder.svelte';
  import type { WalkState } from './walk.svelte';
  import { large, menu } from './words';

  /** The step that is done now, large. */
  let { walk, step, characters }: { walk: WalkState; step: SheetStep; characters: string } = $props();
  const v = $derived(large(step));
</script>

<div class="now">
  <div class="title">
    <span class="no">{step.number}</span>
    <h3>{step.do}{step.again ? ' again' : ''}</h3>
    <span class="menu">{menu(step)}</span>
  </div>
  {#if v.strong}
    <p class="huge" class:word={v.word} class:long={v.strong.length + v.rest.length > 6}>
      <b>{v.strong}</b>{v.rest}{#if v.unit}<span class="unit">{v.unit}</span>{/if}
    </p>
  {/if}
  <Caps {step} {characters} />
  {#if step.passes.length > 2}<Ladder {step} width={narrow.is ? 356 : 436} />{/if}
  {#if step.note}<p class="note">{step.note}</p>{/if}
  {#if !narrow.is}
    <p class="acts">
      <Button
        fix="live"
        key={commands.key('walk-done')}
        onclick={() => {
          walk.done();
        }}>Done, next step</Button
      >
      <Button
        key={commands.key('walk-back')}
        onclick={() => {
          walk.back();
        }}>Back</Button
      >
      <button
        type="button"
        class="link ml-auto"
        onclick={() => {
          walk.leave();
        }}>stop here</button
      >
    </p>
  {/if}
</div>

<style>
  .now {
    position: relative;
    margin: 0 -14px 0 -24px;
    padding: 12px 14px 14px 24px;
    background: var(--water);
  }
  .now::before {
    content: '';
    position: absolute;
    inset: 0 auto 0 0;
    width: 4px;
    background: var(--accent);
  }
  .title {
    display: flex;
    align-items: baseline;
  }
  .no {
    flex: none;
    width: 28px;
    color: var(--accent);
    font: var(--w-strong) 15px var(--figs);
  }
  h3 {
    flex: 1;
    font-size: 20px;
    font-weight: var(--w-strong);
  }
  .menu {
    color: var(--ink2);
    font-size: 15px;
  }
  .huge {
    margin: 2px 0 8px 25px;
    font: var(--w-normal) 80px/84px var(--figs);
    letter-spacing: -0.01em;
    white-space: nowrap;
  }
  .huge b {
    font-weight: var(--w-strong);
  }
  .huge.word {
    font: var(--w-strong) 46px/60px var(--text);
  }
  .unit {
    margin-left: 10px;
    color: var(--ink2);
    font: 20px var(--text);
  }
  .note {
    margin: 8px 0 0 28px;
    color: var(--ink2);
    font-size: var(--t-small);
  }
  .acts {
    display: flex;
    align-items: center;
    gap: 8px;
    margin: 14px 0 0 28px;
  }
  @media (max-width: 45em) {
    .now {
      margin: 0 -16px;
      padding: 14px 16px 18px;
      border-top: var(--line);
      border-bottom: var(--line);
      background: var(--sheet);
    }
    h3 {
      font-size: 24px;
    }
    .menu {
      font-size: 18px;
    }
    .huge {
      margin: 6px 0 12px -4px;
      font-size: 104px;
      line-height: 112px;
    }
    .huge.long {
      font-size: 76px;
    }
    .huge.word {
      font-size: 52px;
      line-height: 70px;
    }
    .unit {
      font-size: 26px;
    }
    .note {
      margin-left: 0;
      font-size: 16px;
    }
  }
</style>
