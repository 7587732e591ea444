<script lang="ts">
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { api, ApiError, must } from '$lib/api/client';
  import Frequency from '$parts/Frequency.svelte';
  import Mark from '$parts/Mark.svelte';
  import { seconds } from './words';

  /** A range gone through step by step: how long it takes, and what it meets. */
  interface Props {
    load: number;
    unit: string;
    diary: () => void;
  }
  let { load, unit, diary }: Props = $props();
  let lower = $state('');
  let upper = $state('');
  let step = $state('');
  let asked = $state({ lower: '', upper: '', step: '' });
  $effect(() => {
    const next = { lower: lower.trim(), upper: upper.trim(), step: step.trim() };
    const timer = window.setTimeout(() => (asked = next), 250);
    return () => {
      window.clearTimeout(timer);
    };
  });
  const sweep = createQuery(() => ({
    queryKey: ['sweep', load, asked],
    queryFn: async () => must(await api.GET('/api/loads/{load}/sweep', { params: { path: { load }, query: asked } })),
    placeholderData: keepPreviousData,
    retry: false,
  }));
  const w = $derived(sweep.data);
  const faults = $derived(
    sweep.error instanceof ApiError
      ? Object.fromEntries((sweep.error.problem?.errors ?? []).map((f) => [f.field, f.message]))
      : {},
  );
  const khz = (hz: number) => String(hz / 1000);
  const doubtful = $derived(w?.passes.filter((p) => p.meets !== 'on centre') ?? []);
  const typed = $derived(w?.passes.filter((p) => p.keyed && p.keyed.up > 0) ?? []);
  const mhz = (hz: number) => (hz / 1e6).toFixed(4).replace(/0$/, '');
</script>

<div class="flex items-baseline gap-3">
  <h2>Step scan <span>of a range, with {unit}</span></h2>
  <button type="button" class="link ml-auto" onclick={diary}>diary</button>
</div>
<p class="fields">
  <label for="sweep-lower">from</label>
  <input id="sweep-lower" class="box" inputmode="decimal" placeholder={w ? mhz(w.lower_hz) : ''} bind:value={lower} />
  <label for="sweep-upper">to</label>
  <input id="sweep-upper" class="box" inputmode="decimal" placeholder={w ? mhz(w.upper_hz) : ''} bind:value={upper} />
  MHz
  <label for="sweep-step">in steps of</label>
  <input
    id="sweep-step"
    class="box short"
    inputmode="decimal"
    list="sweep-steps"
    placeholder={w ? khz(w.step_hz) : ''}
    bind:value={step}
  />
  kHz
  <datalist id="sweep-steps"
    >{#each w?.steps ?? [] as s, nth (nth)}<option value={khz(s)}></option>{/each}</datalist
  >
</p>
{#each Object.values(faults) as f, nth (nth)}<p class="text-stop" role="alert">{f}</p>{/each}
{#if w && Object.keys(faults).length === 0}
  <p>
    <b>{w.count.toLocaleString('en')} steps, {seconds(w.seconds)}</b> a sweep at {w.per_second.toFixed(1)} a second. It meets
    <b>{w.met}</b> of {w.passes.length} channels on their centre{#if w.off > 0}, {w.off} off centre{/if}{#if w.passed > 0},
      and passes {w.passed} by{/if}.
    {#if w.passes.length > 0 && w.best_hz !== w.step_hz}
      <button type="button" class="link" onclick={() => (step = khz(w.best_hz))}
        >{khz(w.best_hz)} kHz {w.all ? 'meets all of them' : 'meets most'}</button
      >{:else if w.passes.length > 0 && w.all}That is the widest step of {unit} that meets all.{/if}
  </p>
  {#if doubtful.length > 0}
    <ul class="list">
      {#each doubtful.slice(0, 40) as p, nth (nth)}
        <li>
          <Mark kind={p.meets === 'passed by' ? 'conflict' : 'unverified'} />
          <Frequency hz={p.receive_hz} />
          {p.name} <span>{p.meets}, {khz(p.off_hz)} kHz from <Frequency hz={p.nearest_hz} same /></span>
        </li>
      {/each}
    </ul>
  {/if}
  {#if typed.length > 0}
    <p>Cannot be typed with {w.digits} figures:</p>
    <ul class="list">
      {#each typed.slice(0, 20) as p, nth (nth)}
        {#if p.keyed}<li>
            <Frequency hz={p.receive_hz} />
            {p.name}
            <span
              >set the step to {khz(p.keyed.step_hz)} kHz, type <Frequency hz={p.keyed.type_hz} />, press UP {p.keyed
                .up === 1
                ? 'once'
                : `${String(p.keyed.up)} times`}</span
            >
          </li>{/if}
      {/each}
    </ul>
  {:else if w.digits === 0}<p>{unit} has no keys for a frequency: turn to it with the steps.</p>{/if}
{/if}

<style>
  h2 {
    font-size: 15px;
    line-height: 20px;
    font-weight: var(--w-strong);
  }
  h2 span {
    font-weight: var(--w-normal);
    font-size: 13px;
    color: var(--ink2);
  }
  p {
    font-size: 13px;
    margin-top: 4px;
  }
  p b {
    font-weight: var(--w-strong);
  }
  .fields {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 8px;
    align-items: baseline;
  }
  .box {
    height: 26px;
    width: 92px;
    border: 1px solid var(--rule2);
    border-radius: 2px;
    background: var(--sheet);
    padding: 0 6px;
    font-family: var(--figs);
  }
  .short {
    width: 64px;
  }
  .list {
    font-size: 13px;
    columns: 2 320px;
    column-gap: 24px;
  }
  .list span {
    color: var(--ink2);
  }
  .list li {
    break-inside: avoid;
    padding: 1px 0;
  }
  @media (max-width: 45em) {
    .box {
      height: 44px;
    }
    .link {
      min-height: 44px;
    }
  }
</style>
