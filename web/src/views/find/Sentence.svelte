<script lang="ts">
  import Mark from '$parts/Mark.svelte';
  import type { Found } from '$lib/api/client';
  import type { FindState } from './find.svelte';

  /** What was found, in a sentence: how much of it the radio holds, and what each word leaves out. */
  interface Props {
    find: FindState;
    found: Found;
    /** Words that cannot be used, or may be meant otherwise. */
    doubts: Found['words'];
    /** What the radio is called; nothing where the plan has none. */
    radio: string | undefined;
  }
  let { find, found: f, doubts, radio }: Props = $props();
  const left = $derived(f.words.filter((w) => w.left_out > 0));
  const number = (n: number) => n.toLocaleString('en');
  /** How much of what was found the radio lacks, after how much it holds. */
  const wordsOf = (f: { found: number; missing: number; cannot: number }) => {
    const missing = f.missing > 0 ? ` and is missing ${number(f.missing)}` : '';
    const cannot = f.cannot > 0 ? `; it cannot use ${f.cannot < f.found ? 'the other ' : ''}${number(f.cannot)}` : '';
    return `of ${number(f.found)}${missing}${cannot}`;
  };
</script>

<p class="say" aria-live="polite">
  {#each doubts as d, nth (nth)}<span class="font-strong text-conflict"
      ><Mark kind={d.state === 'doubt' ? 'conflict' : 'unverified'} /> {d.says}.</span
    >
  {/each}
  {#if f.records === 0}Nothing is published here yet.
  {:else if f.found === 0}Nothing published here matches.
  {:else if radio}{radio} holds <b>{number(f.held)}</b> {wordsOf(f)}.
  {:else}{number(f.found)} found; the plan has no radio yet.{/if}
  {#if left.length > 0}<span class="text-ink2"
      >Left out: {left.map((w) => `${number(w.left_out)} ${w.rest}`).join(', ')}.</span
    >{/if}
  {#if f.nowhere > 0 && f.nowhere < f.found}<button
      type="button"
      class="link ml-1"
      onclick={() => (find.line = `${find.line} no-place`.trim())}>{number(f.nowhere)} without a position</button
    >{/if}
  {#if !f.place && f.records > 0}<span class="text-ink2"
      >Nobody has said where you are: <a class="link" href="/settings">say it in Settings</a>, or name a place, such as
      near {f.repeaters[0]?.title ?? 'Low Haven'}.</span
    >{/if}
</p>

<style>
  .say {
    padding: 5px 0 5px 40px;
    font-size: 14.5px;
  }
  .say > :global(span) {
    margin-left: 0.25em;
  }
  .say b {
    font-weight: var(--w-strong);
  }
  @media (max-width: 45em) {
    .say {
      padding-left: 0;
      font-size: var(--t-body);
    }
  }
</style>
