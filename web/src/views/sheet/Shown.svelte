<script lang="ts">
  import type { KeypadSheet } from '$lib/api/client';

  /** What a display must show: the marks, then the figures. */
  let { title, shown }: { title: string; shown: KeypadSheet['sheet']['rest'] } = $props();
</script>

<div class="break-inside-avoid">
  <h2 class="border-b border-bold font-strong">{title}</h2>
  <p
    class="mt-2 flex items-baseline gap-5 border border-rule2 px-4 py-2 font-figs text-[34px] leading-tight print:py-1 print:text-[26px]"
  >
    {#if shown.shift}<span aria-label="shift mark {shown.shift}">{shown.shift}</span>{/if}
    {#if shown.tone}<span class="text-[22px]" aria-label="tone mark {shown.tone}">{shown.tone}</span>{/if}
    {#if shown.lock}<span class="text-[22px]" aria-label="lock mark {shown.lock}">{shown.lock}</span>{/if}
    <b class="ml-auto font-strong">{shown.figures}</b>
  </p>
  {#if !shown.shift || !shown.tone}
    <p class="mt-1 text-label text-ink2">
      {#if !shown.shift}No shift mark.{/if}
      {#if !shown.tone}No tone mark.{/if}
    </p>
  {/if}
  {#if shown.note}<p class="mt-1 text-label text-ink2">{shown.note}</p>{/if}
</div>
