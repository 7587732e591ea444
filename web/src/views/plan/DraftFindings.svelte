<script lang="ts">
  import Button from '$parts/Button.svelte';
  import Mark, { severityMark } from '$parts/Mark.svelte';
  import Reasons from '$parts/Reasons.svelte';
  import Why from '$parts/Why.svelte';
  import type { Reading } from '$lib/api/client';
  import { commands } from '$session/commands.svelte';
  import type { PlanState } from './plan.svelte';
  import StoreButton from './StoreButton.svelte';

  interface Props {
    plan: PlanState;
    reading: Reading;
    store: (replace: boolean) => void;
  }
  let { plan, reading, store }: Props = $props();
  let open = $state<string[]>([]);
  let notes = $state(false);

  const list = $derived(
    reading.findings
      .map((finding, i) => ({
        finding,
        // where the finding's fixes begin in the count over all of them
        first: reading.lines.slice(0, i).flat().length,
      }))
      .filter(({ finding }) => finding.rule !== 'entry-word' && finding.rule !== 'entry-lines'),
  );
  const asks = $derived(list.filter((x) => x.finding.severity !== 'note'));
  const rest = $derived(list.filter((x) => x.finding.severity === 'note'));
  const shown = $derived(notes || asks.length === 0 ? [...asks, ...rest] : asks);
</script>

<div aria-live="polite" class="flex flex-col">
  {#each shown as { finding, first }, at (at)}
    <div class="finding border-t border-rule py-1">
      <div class="flex min-h-7 flex-wrap items-center gap-x-2 gap-y-2 max-desk:items-start">
        <span class="w-8 flex-none pl-1 max-desk:w-5"><Mark kind={severityMark(finding.severity)} /></span>
        <p class="min-w-0 flex-[1_1_420px] max-desk:basis-[80%]">
          <b class="font-strong">{finding.title}{finding.title.endsWith('?') ? '' : '.'}</b>
          {finding.message}
          <Why
            bind:open={
              () => open.includes(finding.rule),
              (v) => (open = v ? [...open, finding.rule] : open.filter((x) => x !== finding.rule))
            }
          />
        </p>
        <span class="ml-auto flex flex-wrap justify-end gap-2 max-desk:ml-0">
          {#each finding.fixes as fix, n (n)}
            <Button
              key={first + n === 0 ? commands.key('line-fix') : ''}
              fix={first + n === 0 && fix.confidence === 'very likely' ? 'live' : 'idle'}
              onclick={() => void plan.fixLine(first + n)}>{fix.label}</Button
            >
          {/each}
        </span>
      </div>
      {#if open.includes(finding.rule)}
        <div class="pb-1 pl-10 max-desk:pl-5"><Reasons {finding} /></div>
      {/if}
    </div>
  {/each}
  <div class="flex items-center gap-3 pb-1">
    {#if asks.length > 0 && rest.length > 0}
      <button type="button" class="link ml-10 max-desk:ml-0" aria-expanded={notes} onclick={() => (notes = !notes)}>
        {notes ? 'without the notes' : rest.length === 1 ? 'and 1 note' : `and ${String(rest.length)} notes`}
      </button>
    {/if}
    <span class="ml-auto desk:hidden"><StoreButton {reading} {store} /></span>
  </div>
</div>
