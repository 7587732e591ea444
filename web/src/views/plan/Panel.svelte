<script lang="ts">
  import Action from '$parts/Action.svelte';
  import Evidence from '$parts/Evidence.svelte';
  import Mark, { severityMark } from '$parts/Mark.svelte';
  import Needle from '$parts/Needle.svelte';
  import PathStrip from '$parts/PathStrip.svelte';
  import Reasons from '$parts/Reasons.svelte';
  import Why from '$parts/Why.svelte';
  import type { Evidence as Case } from '$lib/api/client';
  import { distance } from '$lib/format';
  import type { PlanState } from './plan.svelte';
  import Witnesses from './Witnesses.svelte';

  interface Props {
    plan: PlanState;
    found: Case;
    sheet: (slot: number) => void;
  }
  let { plan, found, sheet }: Props = $props();
  let open = $state<string[]>([]);
  /** Fixes are numbered over all findings; the first has the key "." */
  const numbered = $derived(
    found.findings.map((finding, i) => ({
      finding,
      first: found.findings.slice(0, i).reduce((n, f) => n + f.fixes.length, 0),
    })),
  );
  let notes = $state(false);
  const grave = $derived(numbered.filter((x) => x.finding.severity !== 'note'));
  const shown = $derived(notes ? numbered : grave);
  const hidden = $derived(numbered.length - grave.length);
  const keyOf = (n: number) => (n === 0 ? '.' : `Alt ${String(n + 1)}`);
</script>

<header>
  <div class="flex items-baseline gap-3">
    <span class="font-figs text-head leading-none font-strong text-ink2">{found.slot}</span>
    <h2 class="flex-1 text-head leading-[26px] font-strong">{found.name || found.short_name || 'no name'}</h2>
    <span class="text-[16px]"><Evidence kind={found.verdict} size={16} /></span>
  </div>
  <p class="mt-0.5 text-small text-ink2">
    {#if found.published}
      {@const m = found.published}
      <span class="font-figs">{m.callsign}</span>{#if m.distance_km !== null && m.bearing_deg !== null},
        {distance(m.distance_km)}
        <Needle degrees={m.bearing_deg} />,
        {#if m.horizon_km !== null}{m.within ? 'inside' : 'past'} your horizon ({Math.round(m.horizon_km)} km){:else}{m.within
            ? 'in'
            : 'out of'} the usual reach{/if}{/if}
      <span class="block">listed {m.age} ago, {m.source}</span>
    {:else}
      nothing is published that may be meant
    {/if}
  </p>
</header>
<PathStrip path={found.path} />
<Witnesses {found} />
{#if found.losses.length > 0}
  <p class="mt-2 text-small text-ink2">
    This radio would hold {#each found.losses as l, i (i)}{i > 0 ? ', ' : ''}<b class="font-strong">{l.held}</b>
      for {l.wanted}{/each}.
  </p>
{/if}
<section aria-label="Findings" aria-live="polite">
  {#each shown as { finding, first }, at (at)}
    <div class="flex border-b border-rule py-2 last:border-0">
      <span class="w-5 flex-none pt-px"><Mark kind={severityMark(finding.severity)} /></span>
      <div class="flex-1">
        <h3 class="text-[15px] leading-tight font-strong">{finding.title}</h3>
        <p class="mt-px">{finding.message}</p>
        <div class="mt-1.5 flex flex-wrap items-center gap-x-3.5 gap-y-1.5">
          {#each finding.fixes as fix, n (n)}
            <Action key={keyOf(first + n)} fix="idle" onclick={() => void plan.fix(found.slot, fix)}>{fix.label}</Action
            >
          {/each}
          <Why
            bind:open={
              () => open.includes(finding.rule),
              (v) => (open = v ? [...open, finding.rule] : open.filter((x) => x !== finding.rule))
            }
          />
        </div>
        {#if open.includes(finding.rule)}<Reasons {finding} />{/if}
      </div>
    </div>
  {/each}
  {#if hidden > 0}
    <button
      type="button"
      class="link my-1.5 ml-5 max-desk:min-h-11"
      aria-expanded={notes}
      onclick={() => (notes = !notes)}
    >
      {notes ? 'without the notes' : hidden === 1 ? '1 note' : `${String(hidden)} notes`}
    </button>
  {/if}
</section>
<div class="flex flex-wrap gap-3 border-t border-rule py-3">
  <Action
    key="k"
    onclick={() => {
      sheet(found.slot);
    }}>Keypad sheet</Action
  >
  <Action key="Del" onclick={() => void plan.remove(found.slot)}>Empty slot {found.slot}</Action>
</div>
