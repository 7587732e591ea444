<script lang="ts">
  import Button from '$parts/Button.svelte';
  import Dialog from '$parts/Dialog.svelte';
  import type { Evidence as Case } from '$lib/api/client';
  import type { PlanState } from './plan.svelte';

  /** Every fix of the line, or of the selected slot: Tab or a digit chooses one. */
  let { plan, found, close }: { plan: PlanState; found: Case | undefined; close: () => void } = $props();
  const line = $derived(plan.line.trim() !== '');
  const list = $derived.by(() => {
    if (!line)
      return (found?.findings ?? []).flatMap((f) =>
        f.fixes.map((fix) => ({
          label: fix.label,
          title: f.title,
          run: () => void (found && plan.fix(found.slot, fix)),
        })),
      );
    let n = 0;
    return (plan.reading?.findings ?? []).flatMap((f) =>
      f.fixes.map((fix) => {
        const at = n++;
        return { label: fix.label, title: f.title, run: () => void plan.fixLine(at) };
      }),
    );
  });
  function run(n: number) {
    const fix = list[n];
    if (!fix) return;
    close();
    fix.run();
  }
</script>

<svelte:window
  onkeydown={(e) => {
    if (/^[1-9]$/.test(e.key)) run(Number(e.key) - 1);
  }}
/>
<Dialog
  bind:open={
    () => true,
    (o) => {
      if (!o) close();
    }
  }
  title={line ? 'Fixes for the line' : `Fixes for slot ${String(found?.slot ?? plan.selected ?? '')}`}
  says="Press the digit of one, or choose it."
  wide="narrow"
  close="Cancel"
>
  <ol>
    {#each list as fix, n (n)}
      <li class="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-1.5">
        <Button
          fix={n === 0 ? 'live' : 'idle'}
          key={n < 9 ? String(n + 1) : ''}
          onclick={() => {
            run(n);
          }}>{fix.label}</Button
        >
        <span class="text-ink2">{fix.title}</span>
      </li>
    {:else}
      <li class="py-2 text-ink2">There is nothing to fix here.</li>
    {/each}
  </ol>
</Dialog>
