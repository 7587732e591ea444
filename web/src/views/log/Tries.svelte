<script lang="ts">
  import Mark from '$parts/Mark.svelte';
  import type { TestCard } from '$lib/api/client';
  import { clock, figures, sentTone } from '$lib/format';
  import type { Act, Setting } from './log.svelte';

  /** The tries of this evening, each with its one change. */
  interface Props {
    c: TestCard;
    act: Act | undefined;
    setting: Setting;
    negative: boolean;
  }
  let { c, act, setting, negative }: Props = $props();
  const shift = (hz: number) => {
    if (hz === 0) return 'simplex';
    const f = figures(hz);
    return `${f.sign}${f.mhz}.${f.khz}`;
  };
  const cells = (s: Setting) => [
    sentTone(s.tone),
    shift(s.offset_hz),
    s.width,
    c.places.find((p) => p.id === s.where)?.says ?? s.where,
    c.aerials.find((a) => a.id === s.aerial)?.says ?? s.aerial,
  ];
  const rows = $derived([
    ...c.tries.map((t) => ({
      key: t.id,
      time: clock(t.at),
      kind: t.kind,
      setting: t.setting,
      says: t.says,
      back: t.answer !== 'nothing' && (t.kind === 'key' || t.yes),
      now: false,
    })),
    ...(c.answered && !negative
      ? []
      : [
          {
            key: 0,
            time: 'next',
            kind: negative ? 'key' : (act?.kind ?? 'key'),
            setting,
            says: negative ? 'must stay silent' : (act?.says ?? ''),
            back: false,
            now: true,
          },
        ]),
  ]);
  /** What the call before was set to. */
  const before = (i: number) => rows.slice(0, i).findLast((r) => r.kind === 'key')?.setting;
</script>

{#if c.tries.length > 0}
  <h2>Tries on slot {c.slot}, each with one change</h2>
  <div role="table" aria-label="Tries">
    <div class="row heads" role="row">
      <span role="columnheader">try</span><span role="columnheader">time</span><span role="columnheader">tone out</span
      ><span role="columnheader">shift</span><span role="columnheader">width</span><span role="columnheader">where</span
      ><span role="columnheader">aerial</span><span role="columnheader">came back</span>
    </div>
    {#each rows as r, i (r.key)}
      {@const was = before(i)}
      <div class="row" class:now={r.now} role="row">
        <span role="cell" class="n">{i + 1}</span><span role="cell" class="n">{r.time}</span>
        {#if r.kind === 'key'}
          {#each cells(r.setting) as x, k (k)}<span
              role="cell"
              class:same={was && cells(was)[k] === x}
              class:changed={was && cells(was)[k] !== x}>{x}</span
            >{/each}
        {:else}<span role="cell" class="wide">without a call</span>{/if}
        <span role="cell" class="came"
          >{#if r.now}<Mark kind="writing" />{:else}<Mark kind={r.back ? 'agrees' : 'unverified'} />{/if}
          {r.says}</span
        >
      </div>
    {/each}
  </div>
{/if}

<style>
  h2 {
    font-size: var(--t-body);
    font-weight: var(--w-strong);
    border-top: 1px solid var(--rule2);
    padding: 8px 0 2px 40px;
    margin-top: 6px;
  }
  .row {
    display: grid;
    grid-template-columns: 40px 62px 90px 70px 60px 116px 100px minmax(0, 1fr);
    align-items: baseline;
    min-height: 24px;
    padding-left: 4px;
  }
  .heads {
    font-size: var(--t-label);
    color: var(--ink2);
    border-bottom: 1px solid var(--bold);
  }
  .n {
    font-family: var(--figs);
    color: var(--ink2);
  }
  .same {
    color: var(--ink3);
  }
  .changed {
    font-weight: var(--w-strong);
    box-shadow: inset 0 -2px 0 var(--ink);
    justify-self: start;
  }
  .wide {
    grid-column: 3 / 8;
    color: var(--ink2);
  }
  .now {
    background: var(--water);
    color: var(--accent);
    border-left: 4px solid var(--accent);
    padding-left: 0;
  }
  .now .changed {
    box-shadow: inset 0 -2px 0 var(--accent);
  }
  .came {
    min-width: 0;
  }
  @media (max-width: 45em) {
    h2 {
      padding-left: 0;
    }
    .heads {
      display: none;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 0 10px;
      padding: 4px 0;
      border-bottom: 1px solid var(--rule);
    }
    .same {
      display: none;
    }
    .came {
      margin-left: auto;
    }
  }
</style>
