<script lang="ts">
  import type { PlanState } from './plan.svelte';

  /** The lines that were pasted together and are still to be stored. */
  let { plan }: { plan: PlanState } = $props();
  const shown = 4;
  const more = $derived(plan.pasted.length - shown);
</script>

{#if plan.pasted.length > 0}
  <section class="border-t border-rule py-1 pl-10 text-small max-desk:pl-0" aria-label="Pasted lines">
    <p class="flex flex-wrap items-baseline gap-x-3 text-ink2">
      {plan.pasted.length === 1 ? 'One more pasted line' : `${String(plan.pasted.length)} more pasted lines`}, each a
      channel of its own. The next one comes when this one is stored.
      <button type="button" class="link" onclick={() => (plan.pasted = [])}>Discard them</button>
    </p>
    <ul>
      {#each plan.pasted.slice(0, shown) as line, n (n)}
        <li>
          <button
            type="button"
            class="max-w-full truncate text-left font-figs hover:underline max-desk:min-h-11"
            onclick={() => {
              plan.next(n);
            }}>{line}</button
          >
        </li>
      {/each}
    </ul>
    {#if more > 0}<p class="text-ink2">and {more} more</p>{/if}
  </section>
{/if}
