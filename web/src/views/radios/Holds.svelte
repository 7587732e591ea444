<script lang="ts">
  import Frequency from '$parts/Frequency.svelte';
  import type { Loss, Preview } from '$lib/api/client';

  /** What the profile would hold of the plan, and what it would lose, channel by channel. */
  let { preview, old }: { preview: Preview; old: boolean } = $props();
  let all = $state(false);
  const total = $derived(preview.rows.length);
  const troubled = $derived(preview.rows.filter((r) => !r.held || r.losses.length > 0));
  const rows = $derived(all ? preview.rows : troubled);
  /** A tone that is lost in both directions is said once. */
  const once = (losses: Loss[]) =>
    losses.filter((l, i) => losses.findIndex((o) => o.wanted === l.wanted && o.why === l.why) === i);
  const parts = $derived([
    { n: preview.fit, word: 'as they are', ground: 'bg-ink' },
    { n: preview.lose, word: 'in part', ground: 'bg-conflict' },
    { n: preview.cannot, word: 'not at all', ground: 'bg-stop' },
  ]);
</script>

<section aria-label="What it holds of the plan" aria-live="polite">
  <h2 class="border-b border-bold pb-1 text-head font-strong">How much of the plan fits</h2>
  <div class="mt-2 flex h-3 gap-px" aria-hidden="true">
    {#each parts as p (p.word)}
      {#if p.n > 0}<span class={p.ground} style:flex-grow={p.n}></span>{/if}
    {/each}
  </div>
  {#if old}<p class="pt-1.5 text-label text-stop">Fix the marked field first; this is the profile before it.</p>{/if}
  <p class="py-1.5">
    {#each parts as p, i (p.word)}{i > 0 ? ', ' : ''}<b class="font-figs font-strong">{p.n}</b> {p.word}{/each}, of {total}
    channels.
  </p>
  {#if rows.length > 0}
    <table class="w-full border-t border-rule2 text-left">
      <thead class="text-label text-ink2">
        <tr
          ><th class="w-9 py-1 font-normal">slot</th><th class="font-normal">channel</th><th class="font-normal"
            >what is lost</th
          ></tr
        >
      </thead>
      <tbody>
        {#each rows as r (r.slot)}
          <tr class="border-t border-rule align-baseline">
            <td class="py-1 font-figs text-ink2">{r.slot}</td>
            <td class="pr-2">
              <Frequency hz={r.channel.receive_hz} />
              <span class="block text-label text-ink2">{r.channel.name || 'no name'}</span>
            </td>
            <td>
              {#if !r.held && r.losses.length === 0}the slot: it has no {r.slot}{/if}
              {#each once(r.losses) as l, i (i)}
                <span class="block"
                  ><b class="font-strong">{l.wanted}</b>: {l.held === 'nothing' ? 'cannot be held' : `holds ${l.held}`}
                  <span class="block text-label text-ink2">{l.why}</span></span
                >
              {/each}
              {#if r.held && r.losses.length === 0}<span class="text-ink3">nothing</span>{/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  {:else}
    <p class="text-ink2">Nothing of the plan is lost in it.</p>
  {/if}
  {#if total > troubled.length}
    <button type="button" class="link mt-2" aria-expanded={all} onclick={() => (all = !all)}>
      {all ? 'only what is lost' : `and the ${String(total - troubled.length)} that fit`}
    </button>
  {/if}
</section>
