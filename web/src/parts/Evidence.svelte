<script lang="ts">
  import Mark, { type MarkKind } from './Mark.svelte';

  /** A mark and its word, which never part. */
  let { kind, word = kind, size = 12 }: { kind: MarkKind; word?: string; size?: number } = $props();
  const colour = $derived(
    {
      agrees: 'text-ink2',
      unverified: 'text-ink2',
      conflict: 'text-conflict font-strong',
      stop: 'text-stop font-strong',
      writing: 'text-accent',
      checking: 'text-ink3',
    }[kind],
  );
</script>

<span class="inline-flex items-baseline gap-1.5 whitespace-nowrap {colour}"
  ><span class="self-center"><Mark {kind} {size} /></span>{word}</span
>
