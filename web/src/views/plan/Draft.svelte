<script lang="ts">
  import Evidence from '$parts/Evidence.svelte';
  import PathStrip from '$parts/PathStrip.svelte';
  import type { Evidence as Case } from '$lib/api/client';
  import Heading from './Heading.svelte';
  import Witnesses from './Witnesses.svelte';

  /** What speaks about the line while it is written. */
  let { found }: { found: Case } = $props();
</script>

<Heading {found}>
  <span class="flex items-baseline gap-3 text-[16px]"
    ><Evidence kind="writing" size={16} /><Evidence kind={found.verdict} size={16} /></span
  >
</Heading>
<PathStrip path={found.path} />
<Witnesses {found} />
