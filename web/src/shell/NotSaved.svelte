<script lang="ts">
  import Button from '$parts/Button.svelte';
  import Mark from '$parts/Mark.svelte';
  import { chosen } from '$lib/api/chosen.svelte';
  import { link } from '$lib/api/link.svelte';
  import { browser, tab } from '$lib/storage.svelte';
  import { writes } from '$session/session';

  /** What is not saved, why, and what happens next; nothing while all is well. */
  const waiting = $derived(writes.trouble || !link.up ? writes.queue : []);
  const why = $derived(writes.trouble || 'The application does not answer. Start it again.');

  /** Puts a line that was refused back where it can be mended. */
  function back(key: string) {
    const x = writes.refused.find((r) => r.write.key === key);
    if (x?.write.line !== undefined) browser.keep(`line-${String(chosen.load)}`, x.write.line);
    forget(key);
  }
  const forget = (key: string) => {
    writes.refused = writes.refused.filter((r) => r.write.key !== key);
  };
</script>

{#if writes.trouble || !link.up || writes.refused.length > 0}
  <section
    role="alert"
    aria-label="Not saved"
    class="border-b-2 border-stop bg-sheet px-6 py-2 max-desk:px-4 print:hidden"
  >
    {#if writes.trouble || !link.up}
      <p class="flex flex-wrap items-center gap-x-3 gap-y-1">
        <Mark kind="stop" />
        <b class="font-strong text-stop">{waiting.length > 0 ? 'Not saved.' : 'No answer.'}</b>
        <span
          >{why}
          {waiting.length > 0
            ? tab.lasting
              ? 'What you typed is kept here and will be saved automatically.'
              : 'What you typed will be saved automatically, but only while this page stays open: this browser has no room for it.'
            : 'What you type is kept; it is tried again every second.'}</span
        >
        {#if waiting.length > 0}
          <Button
            onclick={() => {
              writes.now();
            }}>Try now</Button
          >
        {/if}
      </p>
      {#if waiting.length > 0}
        <ol class="pt-1 pl-6" aria-label="Waiting to be saved">
          {#each waiting as w (w.key)}
            <li class="flex items-baseline gap-3">
              <span class="font-figs text-small">{w.line ?? w.says}</span>
              <button
                type="button"
                class="link"
                aria-label="Discard {w.line ?? w.says}"
                onclick={() => {
                  writes.discard(w.key);
                }}>Discard</button
              >
            </li>
          {/each}
        </ol>
      {/if}
    {/if}
    {#each writes.refused as r (r.write.key)}
      <p class="flex flex-wrap items-baseline gap-x-3">
        <span><b class="font-strong text-stop">Not saved:</b> {r.write.line ?? r.write.says}. {r.why}</span>
        {#if r.write.line !== undefined}
          <button
            type="button"
            class="link"
            onclick={() => {
              back(r.write.key);
            }}>Put it on the line</button
          >
        {/if}
        <button
          type="button"
          class="link"
          onclick={() => {
            forget(r.write.key);
          }}>Discard</button
        >
      </p>
    {/each}
  </section>
{/if}
