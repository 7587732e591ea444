<script lang="ts">
  import Frequency from '$parts/Frequency.svelte';
  import Tone from '$parts/Tone.svelte';
  import type { Reading } from '$lib/api/client';

  /** The sentence that says what the radio will do with the line. */
  let { reading, trouble }: { reading: Reading | null; trouble: string } = $props();
  const problem = $derived(reading?.words.find((w) => w.problem !== undefined)?.problem);
</script>

<p id="say" class="min-h-[30px] py-[5px] pl-10 text-[15px] max-desk:pl-0" aria-live="polite">
  {#if trouble}
    <span class="font-strong text-stop">{trouble}</span>
  {:else if !reading}
    <span class="text-ink2"
      >Type what the listing says: output, shift, tone, name. What you leave out is filled in and says from where.</span
    >
  {:else}
    {#each reading.sentence as p, i (i)}{#if p.kind === 'frequency'}<Frequency
          text={p.text}
        />{:else if p.kind === 'tone'}<Tone text={p.text.replace(/ Hz.*/, '')} />{:else if p.origin}<span
          class="origin text-ink2"
          title={p.origin === 'calculated' ? 'calculated from the input' : `from the ${p.origin}`}>{p.text}</span
        >{:else}<span>{p.text}</span>{/if}{/each}
    {#if problem}<span class="font-medium text-conflict">
        {problem.charAt(0).toUpperCase() + problem.slice(1)}{problem.endsWith('?') ? '' : '.'}</span
      >{/if}
  {/if}
</p>
