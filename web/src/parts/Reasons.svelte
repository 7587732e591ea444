<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, must, type Finding } from '$lib/api/client';

  /** What each witness says about a finding, and the rule itself on demand. */
  let { finding }: { finding: Finding } = $props();
  let open = $state(false);
  const rule = createQuery(() => ({
    queryKey: ['rule', finding.rule],
    queryFn: async () => must(await api.GET('/api/rules/{rule}', { params: { path: { rule: finding.rule } } })),
    enabled: open,
  }));
</script>

<dl class="mt-1.5 grid grid-cols-[66px_1fr] text-label leading-[1.35] text-ink2">
  {#each finding.why as line, i (i)}
    <dt>{line.witness}</dt>
    <dd>{line.text}</dd>
  {/each}
  <dt>rule</dt>
  <dd>
    <button
      type="button"
      class="underline decoration-dotted underline-offset-3"
      aria-expanded={open}
      onclick={() => (open = !open)}>{finding.rule}</button
    >; source: {finding.source}
    {#if open && rule.data}
      <span class="mt-1 block text-ink"><b class="font-strong">{rule.data.title}.</b> {rule.data.doc}</span>
      <span class="block">such as <span class="font-figs">{rule.data.example}</span></span>
    {/if}
  </dd>
</dl>
