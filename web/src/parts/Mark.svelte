<script lang="ts" module>
  export type MarkKind = 'agrees' | 'unverified' | 'conflict' | 'stop' | 'writing' | 'checking';

  /** The mark for a severity of a finding. */
  export function severityMark(severity: string): MarkKind {
    if (severity === 'stop') return 'stop';
    return severity === 'fix' ? 'conflict' : 'unverified';
  }
</script>

<script lang="ts">
  let { kind, size = 12 }: { kind: MarkKind; size?: number } = $props();
  const colour = $derived(
    {
      agrees: 'text-ink',
      unverified: 'text-ink2',
      conflict: 'text-conflict',
      stop: 'text-stop',
      writing: 'text-accent',
      checking: 'text-ink3',
    }[kind],
  );
</script>

<svg class="inline-block flex-none {colour}" width={size} height={size} viewBox="0 0 12 12" aria-hidden="true">
  {#if kind === 'agrees'}
    <circle cx="6" cy="6" r="4.4" fill="currentColor" />
  {:else if kind === 'unverified'}
    <circle cx="6" cy="6" r="3.8" fill="none" stroke="currentColor" stroke-width="1.4" />
  {:else if kind === 'checking'}
    <circle cx="6" cy="6" r="3.8" fill="none" stroke="currentColor" stroke-width="1.4" stroke-dasharray="2 2" />
  {:else if kind === 'conflict'}
    <path d="M6,.2L11.8,6L6,11.8L.2,6Z" fill="currentColor" />
  {:else if kind === 'stop'}
    <path d="M1.4,1.4h9.2v9.2h-9.2z" fill="currentColor" />
  {:else}
    <path
      d="M2.2,9.8L3,7L8.6,1.4L10.6,3.4L5,9Z"
      fill="none"
      stroke="currentColor"
      stroke-width="1.3"
      stroke-linejoin="round"
    />
  {/if}
</svg>
