<script lang="ts">
  import Evidence from '$parts/Evidence.svelte';
  import Findings from '$parts/Findings.svelte';
  import Frequency from '$parts/Frequency.svelte';
  import type { BeaconView } from '$lib/api/client';
  import { fieldValue } from '$lib/field.svelte';
  import { commands } from '$session/commands.svelte';

  /** What the station does to the channel, and what is wrong with it. */
  interface Props {
    v: BeaconView;
    stations: number;
    set: (set: Record<string, unknown>, says: string) => void;
  }
  let { v, stations, set }: Props = $props();
  const hit = $derived(v.minute.filter((b) => b.collides).length);
  const most = $derived(Math.max(0.6, ...v.cases.map((c) => c.busy)));
  const pct = (x: number) => `${(100 * x).toFixed(0)} %`;
</script>

<header>
  <span class="text-head"
    >{#if v.channel_hz > 0}<Frequency hz={v.channel_hz} />{:else}no frequency{/if}</span
  >
  <span class="quiet">{v.slot >= 0 ? `slot ${String(v.slot)}` : 'in no slot'}</span>
  <span class="ml-auto text-[16px]"><Evidence kind={v.verdict} size={16} /></span>
</header>
{#if v.minute.length > 0}
  <p class="quiet">
    <label
      >One minute: <input
        aria-label="stations like yours"
        {@attach fieldValue(() => stations)}
        inputmode="numeric"
        size="3"
        onchange={(e) => {
          const n = Math.round(Number(e.currentTarget.value));
          if (Number.isFinite(n) && n > 0) set({ stations: n }, 'how many stations there are');
          else e.currentTarget.value = String(stations);
        }}
      /> stations like yours</label
    >, each repeated {v.repeats === 0 ? 'never' : v.repeats === 1 ? 'once' : `${String(v.repeats)} times`}
  </p>
  <svg
    viewBox="0 0 392 66"
    class="minute"
    role="img"
    aria-label="{hit} of {v.minute.length} transmissions collide in a minute"
  >
    {#each v.minute as b, i (i)}<rect
        class:collides={b.collides}
        class:mine={b.station === 0}
        x={(b.from / 60) * 392}
        y={b.collides ? 8 + 7 * (i % 3) : 36}
        width={Math.max(1.5, ((b.to - b.from) / 60) * 392)}
        height={b.collides ? 6 : 10}
      />{/each}
    <path d="M0,33.5H392" class="line" />
    {#each [0, 10, 20, 30, 40, 50, 60] as t (t)}<text
        x={(t / 60) * 392}
        y="63"
        text-anchor={t === 0 ? 'start' : t === 60 ? 'end' : 'middle'}>{t}{t === 60 ? ' s' : ''}</text
      >{/each}
  </svg>
  <p class="quiet"><b class:text-conflict={hit > 0}>{hit}</b> of {v.minute.length} collide (above the line)</p>
{/if}
<Findings
  findings={v.findings}
  key={commands.key('beacon-fix')}
  fix={(x) => {
    set(x.set, x.label);
  }}
/>
{#if v.cases.length > 0}
  <section aria-label="What a change would do">
    <p class="case heads">
      <span>one change at a time</span><span class="half">half the time</span><span>busy</span><span>collide</span>
    </p>
    {#each v.cases as c, nth (nth)}
      <p class="case" class:now={c.now}>
        <span>{c.says}</span>
        <svg viewBox="0 0 120 10" preserveAspectRatio="none" aria-hidden="true"
          ><rect class:floods={c.busy >= 0.5} x="0" y="2" width={(c.busy / most) * 120} height="6" /><path
            class="turn"
            d="M{(0.5 / most) * 120},0V10"
          /></svg
        >
        <span class="r">{pct(c.busy)}</span><span class="r">{pct(c.collides)}</span>
      </p>
    {/each}
    <p class="small">
      Stations that beacon in periods and do not listen first: 1 − (1 − ((k+1)τ + (k−1)g)/T)<sup>N−1</sup>, with k = {v.repeats +
        1} transmissions a beacon, g = 0.35 s between them (a guess). If packets came at random: {pct(v.busy)} offered,
      {pct(v.random)} carried (S = G e<sup>−2G</sup>; endless many stations, no capture), most at a half.
    </p>
  </section>
{/if}

<style>
  header {
    display: flex;
    gap: 12px;
    align-items: baseline;
  }
  .quiet,
  .small {
    color: var(--ink2);
    font-size: 13px;
  }
  .small {
    font-size: 12px;
    padding: 4px 0;
  }
  .quiet input {
    width: 44px;
    border: 0;
    border-bottom: 1px solid var(--ink2);
    background: transparent;
    font: var(--w-normal) 14px var(--figs);
    color: var(--ink);
    text-align: center;
  }
  .minute {
    width: 100%;
    display: block;
  }
  rect {
    fill: var(--ink3);
  }
  .collides {
    fill: var(--conflict);
  }
  .mine:not(.collides) {
    fill: var(--ink);
  }
  .line {
    stroke: var(--bold);
  }
  text {
    font: var(--w-normal) 11px var(--figs);
    fill: var(--ink2);
  }
  .case {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 120px 48px 56px;
    gap: 8px;
    align-items: center;
    min-height: 22px;
    font-size: 13px;
  }
  .case svg {
    width: 120px;
    height: 10px;
  }
  .heads {
    color: var(--ink2);
    border-bottom: 1px solid var(--bold);
    font-size: var(--t-label);
    margin-top: 8px;
  }
  .half {
    text-align: center;
  }
  .now {
    font-weight: var(--w-strong);
  }
  .floods {
    fill: var(--conflict);
  }
  .turn {
    stroke: var(--ink2);
    stroke-dasharray: 2 2;
  }
  .r {
    text-align: right;
    font-family: var(--figs);
  }
  @media (max-width: 45em) {
    .quiet input {
      height: 44px;
    }
  }
</style>
