<script lang="ts">
  import type { Finding } from '$lib/api/client';

  /** What each witness says about a finding. */
  let { finding }: { finding: Finding } = $props();
  const lines = $derived([...finding.why, { witness: 'rule', text: `${finding.rule}; source: ${finding.source}` }]);
</script>

<dl class="mt-1.5 grid grid-cols-[66px_1fr] text-label leading-[1.35] text-ink2">
  {#each lines as line, i (i)}
    <dt>{line.witness}</dt>
    <dd>{line.text}</dd>
  {/each}
</dl>
