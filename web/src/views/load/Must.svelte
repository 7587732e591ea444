<script lang="ts">
  import type { WalkStop } from '$lib/api/client';

  /** What a display must show, each part named by a bracket below it. */
  interface Props {
    shown: WalkStop['sheet']['rest'];
    /** What the figures are. */
    what?: 'receive' | 'transmit';
    big?: boolean;
    figuresOnly?: boolean;
  }
  let { shown, what = 'receive', big = false, figuresOnly = false }: Props = $props();
  const parts = $derived(
    [
      { text: figuresOnly ? '' : shown.shift, name: 'shift' },
      { text: figuresOnly ? '' : shown.tone, name: 'tone' },
      { text: figuresOnly ? '' : shown.lock, name: 'lock' },
    ].filter((x) => x.text !== ''),
  );
  const figures = $derived(shown.figures.split('.'));
  const words = $derived([...parts.map((x) => `${x.name} ${x.text}`), `${what} ${shown.figures}`].join(', '));
</script>

<p class="must" class:big role="img" aria-label={words}>
  {#each parts as x, nth (nth)}<span class="part">{x.text}<span class="name">{x.name}</span></span>{/each}
  <span class="part"
    ><b>{figures[0]}</b>{#if figures[1]}.{figures[1]}{/if}<span class="name">{what}</span></span
  >
</p>

<style>
  .must {
    display: flex;
    gap: 0.9em;
    margin: 6px 0 8px;
    font: 30px/36px var(--figs);
    white-space: pre;
  }
  .part {
    display: inline-block;
  }
  .name {
    display: block;
    padding-top: 3px;
    border: 1px solid var(--ink2);
    border-width: 0;
    background:
      linear-gradient(var(--ink2), var(--ink2)) 0 4px / 100% 1px no-repeat,
      linear-gradient(var(--ink2), var(--ink2)) 0 0 / 1px 5px no-repeat,
      linear-gradient(var(--ink2), var(--ink2)) 100% 0 / 1px 5px no-repeat;
    color: var(--ink2);
    font: var(--t-label) / 1.3 var(--text);
    text-align: center;
  }
  b {
    font-weight: var(--w-strong);
  }
  @media (max-width: 45em) {
    .must {
      gap: 0.6em;
      font-size: 42px;
      line-height: 50px;
    }
    .big {
      font-size: 70px;
      line-height: 80px;
    }
    .name {
      font-size: 14px;
    }
  }
</style>
