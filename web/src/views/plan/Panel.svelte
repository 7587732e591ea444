<script lang="ts">
  import Button from '$parts/Button.svelte';
  import Evidence from '$parts/Evidence.svelte';
  import Mark, { severityMark } from '$parts/Mark.svelte';
  import PathStrip from '$parts/PathStrip.svelte';
  import StandingRule from '$parts/StandingRule.svelte';
  import Reasons from '$parts/Reasons.svelte';
  import Why from '$parts/Why.svelte';
  import type { Evidence as Case, Holding, LoadInfo, Person, SetInfo } from '$lib/api/client';
  import { handed } from '$lib/handed';
  import { commands } from '$session/commands.svelte';
  import { navigate } from '../../router';
  import type { PlanState } from './plan.svelte';
  import Heading from './Heading.svelte';
  import InRadios from './InRadios.svelte';
  import Witnesses from './Witnesses.svelte';

  interface Props {
    plan: PlanState;
    found: Case;
    sheet: (slot: number) => void;
    loads: readonly LoadInfo[];
    holdings: readonly Holding[];
    sets: readonly SetInfo[];
    people: readonly Person[];
  }
  let { plan, found, sheet, loads, holdings, sets, people }: Props = $props();
  const row = $derived(plan.ledger?.rows.find((r) => r.slot === found.slot));
  /** The sets that the channel is in. */
  const within = $derived.by(() => {
    const id = row?.id;
    return sets.flatMap((s) => {
      const m = s.members.find((x) => x.channel === id);
      return m ? [{ set: s, priority: m.priority }] : [];
    });
  });
  let open = $state<string[]>([]);
  /** Fixes are numbered over all findings; the first has a key. */
  const numbered = $derived(
    found.findings.map((finding, i) => ({
      finding,
      first: found.findings.slice(0, i).reduce((n, f) => n + f.fixes.length, 0),
    })),
  );
  let notes = $state(false);
  /** What there is something to do about; of notes, that a record wants correcting. */
  const grave = $derived(numbered.filter((x) => x.finding.severity !== 'note' || x.finding.rule === 'heard-otherwise'));
  const shown = $derived(notes ? numbered : grave);
  const hidden = $derived(numbered.length - grave.length);
  /** The key works here only while no line is written. */
  const keyOf = (n: number) => (n === 0 && !plan.line.trim() ? commands.key('fix') : '');
  /** What was heard goes to the record that says otherwise. */
  const correct = () => {
    const heard = found.rows.find((r) => r.field === 'transmit_tone')?.heard.text ?? '';
    if (!found.published) return;
    const { source, key } = found.published;
    const value = /\d/.test(heard) ? heard : 'none';
    handed.give({ id: { source, key }, field: 'uplink_tone', value, note: 'heard on the air' });
    void navigate('/find');
  };
</script>

<Heading {found}><span class="text-[16px]"><Evidence kind={found.verdict} size={16} /></span></Heading>
{#if row}<StandingRule
    standing={row.standing}
    person={people.find((x) => x.id === row.standing.person)?.name ?? ''}
    radio={loads.find((l) => l.id === plan.load)?.unit.name ?? ''}
    set={(s) => void plan.several.stand(s, [found.slot])}
  />{/if}
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
            <Button key={keyOf(first + n)} fix="idle" onclick={() => void plan.fix(found.slot, fix)}>{fix.label}</Button
            >
          {/each}
          {#if finding.rule === 'heard-otherwise' && finding.fixes.length === 0 && found.published}
            <Button onclick={correct}>Correct the record</Button>
          {/if}
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
{#if within.length > 0}
  <p class="flex flex-wrap gap-x-3 border-t border-rule py-1.5">
    <span class="text-ink2">sets</span>
    {#each within as w (w.set.id)}<button
        type="button"
        class="link max-desk:min-h-11"
        onclick={() => (plan.set = plan.set === w.set.id ? 0 : w.set.id)}
        >{w.set.name}{w.priority ? ', priority' : ''}</button
      >{/each}
  </p>
{/if}
<InRadios {plan} {found} {loads} {holdings} />
<div class="flex flex-wrap gap-3 border-t border-rule py-3">
  <Button
    key={commands.key('sheet')}
    onclick={() => {
      sheet(found.slot);
    }}>Keypad sheet</Button
  >
  <Button key={commands.key('slot-empty')} onclick={() => void plan.remove(found.slot)}>Empty slot {found.slot}</Button>
</div>
