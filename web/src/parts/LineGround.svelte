<script lang="ts">
  import type { Snippet } from 'svelte';

  /** The ground of a line: a row writ large, with a number where the rows have theirs. */
  let { number, children }: { number: string; children: Snippet } = $props();
</script>

<div class="line">
  <span class="slot" aria-hidden="true">{number}</span>
  {@render children()}
</div>

<style>
  .line {
    display: flex;
    align-items: flex-start;
    height: 64px;
    background: var(--sheet);
    border: 1px solid var(--rule);
    border-left: 0;
    margin-left: -10px;
    padding: 0 10px;
    position: relative;
  }
  .line::before {
    content: '';
    position: absolute;
    left: 0;
    top: -1px;
    bottom: -1px;
    width: 4px;
    background: var(--rule2);
  }
  .line:focus-within::before {
    background: var(--accent);
  }
  .slot {
    width: 40px;
    flex: none;
    padding-left: 4px;
    font: var(--w-strong) 20px/46px var(--figs);
    color: var(--accent);
  }
  @media (max-width: 45em) {
    .line {
      height: auto; /* what is in it may want two rows */
      min-height: 64px;
      margin: 0 calc(-1 * var(--margin));
      padding: 0 var(--margin);
      border-width: 0 0 1px;
    }
    .slot {
      width: 32px;
      font-size: 17px;
      padding: 0;
    }
  }
</style>
