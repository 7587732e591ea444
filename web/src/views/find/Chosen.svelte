<script lang="ts">
  import Button from '$parts/Button.svelte';
  import Evidence from '$parts/Evidence.svelte';
  import Frequency from '$parts/Frequency.svelte';
  import Mark from '$parts/Mark.svelte';
  import PathStrip from '$parts/PathStrip.svelte';
  import Tone from '$parts/Tone.svelte';
  import Vector from '$parts/Vector.svelte';
  import Wide from '$parts/Wide.svelte';
  import type { FoundLook, LoadInfo, PublishedRecord } from '$lib/api/client';
  import { bearing, distance, fieldWords, mhz, toneText } from '$lib/format';
  import { commands } from '$session/commands.svelte';
  import { dateWords } from './age';
  import GoesInto from '$parts/GoesInto.svelte';
  import Correct from './Correct.svelte';
  import { idText, type FindState } from './find.svelte';

  interface Props {
    find: FindState;
    look: FoundLook;
    load: LoadInfo | undefined;
    today: string;
    vacant: number | undefined;
    others: readonly LoadInfo[];
    act: () => void;
  }
  let { find, look, load, today, vacant, others, act }: Props = $props();
  const r = $derived(look.repeater);
  const slot = $derived(r.slots[0]);
  const radio = $derived(load?.unit.name ?? 'your radio');

  /** A field with what each listing says; shown where anybody says anything. */
  interface Field {
    name: string;
    label: string;
    /** Its row in the evidence. */
    row?: string;
    kind: 'frequency' | 'shift' | 'tone' | 'word';
    of: (s: PublishedRecord) => string;
    raw: (s: PublishedRecord) => string;
  }
  const shift = (s: PublishedRecord) => (s.input_hz === null ? '' : String(s.input_hz - s.output_hz));
  const word = (name: 'mode' | 'width' | 'status' | 'access'): Field => ({
    name,
    label: name,
    kind: 'word',
    of: (s) => s[name],
    raw: (s) => s[name],
    ...(name === 'width' ? { row: 'bandwidth' } : {}),
  });
  const fields: Field[] = [
    {
      name: 'output',
      label: 'receive',
      row: 'receive',
      kind: 'frequency',
      of: (s) => String(s.output_hz),
      raw: () => '',
    },
    {
      name: 'input',
      label: 'shift',
      row: 'shift',
      kind: 'shift',
      of: shift,
      raw: (s) => (s.input_hz ? mhz(s.input_hz) : ''),
    },
    {
      name: 'uplink_tone',
      label: 'tone out',
      row: 'transmit_tone',
      kind: 'tone',
      of: (s) => s.uplink_tone ?? '',
      raw: (s) => s.uplink_tone ?? '',
    },
    {
      name: 'downlink_tone',
      label: 'tone in',
      row: 'receive_tone',
      kind: 'tone',
      of: (s) => s.downlink_tone ?? '',
      raw: (s) => s.downlink_tone ?? '',
    },
    word('mode'),
    word('width'),
    word('status'),
    word('access'),
  ];
  const conflict = (name: string) => r.conflicts.some((c) => c.field === name);
  const settled = (name: string) => r.corrected.some((c) => c.field === name);
  const shown = $derived(
    fields.filter((f) => f.row !== undefined || settled(f.name) || r.statements.some((s) => f.of(s) !== '')),
  );
  const rowOf = (f: Field) => look.evidence?.rows.find((x) => x.field === f.row);
  const first = $derived(r.statements[0]);
  const fix = $derived(look.stored ? look.evidence?.findings.flatMap((f) => f.fixes)[0] : undefined);
  const finding = $derived(look.evidence?.findings.find((f) => f.severity === 'stop' || f.severity === 'fix'));

  /** Two lists that have the two tones the other way round. */
  const exchanged = $derived.by(() => {
    const [a, b] = r.statements;
    return (
      conflict('uplink_tone') &&
      conflict('downlink_tone') &&
      r.statements.length === 2 &&
      a?.uplink_tone === b?.downlink_tone &&
      a?.downlink_tone === b?.uplink_tone
    );
  });
  const where = $derived.by(() => {
    if (r.distance_km === null) return 'its position is not published';
    const reach = `${r.reach_km.toFixed(0)} km`;
    if (!r.horizon) return `its height is not published: it is taken to reach ${reach}`;
    return r.distance_km <= r.reach_km
      ? `inside its horizon (${reach} from your aerial)`
      : `past its horizon (${reach}); your aerial would have to be ${look.needed_m === null ? 'higher' : `${look.needed_m.toFixed(0)} m up`}`;
  });
</script>

{#snippet value(f: Field, text: string, hot: boolean, same: boolean)}
  {#if text === ''}<span class="text-ink3">–<span class="sr-only">not stated</span></span>
  {:else if f.kind === 'frequency'}<span class:text-conflict={hot}
      ><Frequency hz={Number(text)} same={same && !hot} /></span
    >
  {:else if f.kind === 'shift'}{#if Number(text) === 0}<span class="text-small">simplex</span>{:else}<span
        class:text-conflict={hot}><Frequency hz={Number(text)} signed same={same && !hot} /></span
      >{/if}
  {:else if f.kind === 'tone'}{#if text === 'none'}<span
        class="text-small {hot ? 'font-strong text-conflict' : 'text-ink2'}">no tone</span
      >{:else}<Tone {text} {hot} />{/if}
  {:else}<span class="text-small {hot ? 'font-strong text-conflict' : 'text-ink2'}">{text}</span>{/if}
{/snippet}

<section aria-label="What the listings say" class="[overflow-wrap:anywhere]">
  <h2 class="mt-2 flex flex-wrap items-baseline gap-x-2.5 text-head font-strong">
    {#if slot !== undefined}<span class="font-figs text-ink2">{slot}</span>{/if}
    <span class="mr-auto">{r.title}</span>
    <span class="text-[15px] font-normal"
      ><Evidence
        kind={r.trust.verdict}
        word={r.conflicts.length > 0 ? 'listings differ' : r.trust.says}
        size={14}
      /></span
    >
  </h2>
  <p class="text-small text-ink2">
    <span class="font-figs">{r.best.callsign}</span>{r.best.callsign
      ? ', '
      : ''}{#if r.distance_km !== null && r.bearing_deg !== null}{distance(r.distance_km)}
      <span class="text-ink"
        ><Vector degrees={r.bearing_deg} km={r.distance_km} past={r.distance_km > r.reach_km} /></span
      >
      {`${bearing(r.bearing_deg)}, `}{/if}{where}.
  </p>
  {#if r.remark}<p class="text-small font-medium">{r.remark[0]?.toUpperCase()}{r.remark.slice(1)}.</p>{/if}
  {#if r.best.note}<p class="text-small text-ink2">Note in the listing: {r.best.note}</p>{/if}
  {#if look.evidence}<PathStrip path={look.evidence.path} />{/if}

  <div class="flex min-h-11 flex-wrap items-center gap-x-3.5 gap-y-2 py-1">
    <p class="mr-auto min-w-0 flex-1 text-[13.5px]">
      {#if exchanged}<b class="font-strong">The lists exchange its tones.</b> Test it on the air, or ask the owner.
      {:else if r.conflicts.length > 0}<b class="font-strong">The lists differ.</b> The newest is taken first: check on the
        air, or ask the owner, before you rely on it.
      {:else if finding}<Mark kind={finding.severity === 'stop' ? 'stop' : 'conflict'} />
        <b class="font-strong">{finding.title}</b>
      {:else if !look.stored && r.cannot}{radio}: {r.cannot}.{/if}
    </p>
    {#if look.stored && fix}
      <Button key={commands.key('find-fix')} fix="live" onclick={act}>{fix.label}</Button>
    {:else if !look.stored && look.evidence && vacant !== undefined}
      <Button key={commands.key('find-fix')} fix="live" onclick={act}>Add to slot {vacant}</Button>
    {/if}
  </div>
  {#if others.length > 0 && !look.stored && look.evidence}<GoesInto {others} />{/if}

  <Wide label="The listings side by side">
    <table class="wit">
      <caption class="sr-only">Who says what, field by field</caption>
      <thead>
        <tr>
          <th scope="col" class="w-[64px]"><span class="sr-only">field</span></th>
          {#each r.statements as s (idText(s))}
            <th scope="col">{s.source}<small>{s.updated === null ? 'undated' : dateWords(s.updated, today)}</small></th>
          {/each}
          <th scope="col" class="whitespace-nowrap">band plan<small>{look.evidence?.band || '–'}</small></th>
          {#if look.stored}<th scope="col">in {radio}<small>slot {slot}</small></th>{/if}
          <th scope="col"><span class="sr-only">yours</span></th>
        </tr>
      </thead>
      <tbody>
        {#each shown as f, nth (nth)}
          {@const row = rowOf(f)}
          {@const hot = conflict(f.name)}
          <tr>
            <th scope="row">{f.label}</th>
            {#each r.statements as s (idText(s))}
              {@const text = f.of(s)}
              <td
                >{@render value(f, text, hot, true)}{#if hot && text}<button
                    type="button"
                    class="link use"
                    aria-label="Use this value: {s.source}: {fieldWords(f.name)} {f.kind === 'tone' && text !== 'none'
                      ? toneText(text)
                      : f.raw(s)}"
                    onclick={() => void find.correct(r.id, f.name, f.raw(s), `as ${s.source} has it`)}>use</button
                  >{/if}</td
              >
            {/each}
            <td
              >{#if row && row.plan.kind === 'offset'}<Frequency
                  text={row.plan.text}
                  signed
                  same
                />{:else if row?.plan.text}<span class="text-small text-ink2">{row.plan.text}</span>{:else}<span
                  class="text-ink3">–</span
                >{/if}</td
            >
            {#if look.stored}
              <td
                >{#if row?.entered.kind === 'frequency'}<Frequency
                    text={row.entered.text}
                    same={row.mark !== 'differs'}
                  />{:else if row?.entered.kind === 'offset'}<Frequency
                    text={row.entered.text}
                    signed
                    same={row.mark !== 'differs'}
                  />{:else if row?.entered.kind === 'tone'}<Tone
                    text={row.entered.text}
                    hot={row.mark === 'differs'}
                  />{:else if row?.entered.text}<span class="text-small text-ink2">{row.entered.text}</span>{:else}<span
                    class="text-ink3">–</span
                  >{/if}</td
              >
            {/if}
            <td class="text-small"
              >{#if hot}<Evidence
                  kind="conflict"
                  word="differ"
                />{:else if row && look.stored && row.mark !== 'no evidence'}<Evidence
                  kind={row.mark === 'agrees' ? 'agrees' : 'conflict'}
                  word={row.mark}
                />{/if}
              {#if f.name !== 'output'}<Correct {find} repeater={r} field={f.name} />{/if}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </Wide>

  {#if first && r.statements.length > 1}
    <p class="flex flex-wrap gap-x-4 pt-1">
      {#each r.statements.slice(1) as s (idText(s))}
        <button
          type="button"
          class="link max-desk:min-h-11"
          onclick={() =>
            void find.decide({ source: first.source, key: first.key }, { source: s.source, key: s.key }, false)}
          >Not the same repeater{r.statements.length > 2 ? ` as in ${s.source}` : ''}</button
        >
      {/each}
    </p>
  {/if}
</section>

<style>
  .wit {
    width: 100%;
    border-collapse: collapse;
    margin-top: 4px;
  }
  th {
    font-weight: var(--w-normal);
    text-align: left;
    vertical-align: top;
    color: var(--ink2);
    font-size: var(--t-label);
    padding: 0 8px 0 0;
    line-height: 1.2;
  }
  th small {
    display: block;
    font-size: var(--t-note);
    color: var(--ink3);
    white-space: nowrap;
  }
  thead th {
    padding-bottom: 3px;
    border-bottom: 1px solid var(--bold);
  }
  tbody td,
  tbody th {
    padding: 0 8px 0 0;
    min-height: 22px;
    line-height: 23px;
    white-space: nowrap;
    vertical-align: baseline;
    border-bottom: var(--hair);
    font-size: 13.5px;
  }
  tr > :last-child {
    padding-right: 0;
    white-space: normal;
  }
  .use {
    margin-left: 6px;
    min-height: 24px;
    min-width: 24px;
    font-size: var(--t-label);
  }
  @media (max-width: 45em) {
    .use {
      min-height: 44px;
      min-width: 44px;
    }
  }
</style>
