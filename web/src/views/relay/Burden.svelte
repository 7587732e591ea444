<script lang="ts">
  import Mark from '$parts/Mark.svelte';
  import type { RelayView } from '$lib/api/client';
  import { mhz } from '$lib/format';
  import { fieldValue } from '$lib/field.svelte';
  import type { Report } from './relay.svelte';

  /** What a relay asks of the radio, the battery and people; and what that is reckoned from. */
  interface Props {
    r: Report;
    s: RelayView['settings'];
    faults: Record<string, string>;
    set: (form: Record<string, unknown>) => void;
  }
  let { r, s, faults, set }: Props = $props();
  let editing = $state(false);
  const l = $derived(r.load);
  const on = $derived(Math.round(100 * (l.a + l.b)));
  const people = $derived(Math.max(0, ...r.people.map((x) => x.public)));
  const worst = $derived(r.people.find((x) => x.public === people));
  const known = $derived(Math.max(0, ...r.people.map((x) => x.own)));
  const up = (m: number) => (Math.ceil(m * 10) / 10).toFixed(1);
  const fields = $derived([
    { id: 'mine', says: 'your overs', unit: 'in 10 min', value: s.mine },
    { id: 'theirs', says: 'their overs', unit: 'in 10 min', value: s.theirs },
    { id: 'over', says: 'of', unit: 's each', value: s.over },
    { id: 'amp_hours', says: 'battery', unit: 'Ah', value: s.amp_hours },
    { id: 'usable', says: 'of which usable', unit: 'of 1', value: s.usable },
    { id: 'hours', says: 'needed for', unit: 'h', value: s.hours },
    { id: 'standby', says: 'current, waiting', unit: 'A, measured', value: s.standby },
    { id: 'amps_a', says: 'side A sending', unit: 'A, measured', value: s.amps_a },
    { id: 'amps_b', says: 'side B sending', unit: 'A, measured', value: s.amps_b },
    { id: 'gain', says: 'aerial less cable', unit: 'dBi', value: s.gain },
    { id: 'timeout', says: 'time-out', unit: 'min', value: s.timeout },
  ]);
</script>

<section aria-label="Duty, heat, battery, people">
  <h3>
    <Mark kind={l.fits ? 'agrees' : 'conflict'} /> On the air {on} % of the time{l.fits ? ', within its rating' : ''}
  </h3>
  <dl>
    <dt>duty</dt>
    <dd>
      A {Math.round(100 * l.a)} %, B {Math.round(100 * l.b)} %, with {s.mine + s.theirs} overs of {s.over} s in 10 min{l.overtime
        ? ', which do not fit'
        : ''}
    </dd>
    <dt>heat</dt>
    <dd>{l.mean.toFixed(1)} W in the mean; rated for {l.rated} W without a pause (half of high power)</dd>
    <dt>battery</dt>
    <dd>
      {l.amps.toFixed(1)} A in the mean{l.guessed ? ', reckoned from the power' : ', measured'}{#if l.hours > 0}; {s.amp_hours}
        Ah last {l.hours.toFixed(1)} h, down to {Math.round(100 * (1 - s.usable))} %{#if s.hours > 0}; needed for {s.hours}
          h{/if}{:else}; say which battery{/if}
    </dd>
    <dt>people</dt>
    <dd>
      {#if worst}
        Nobody nearer to the aerial than {up(people)} m: {mhz(worst.hz)} MHz, {worst.by}, averaged over {worst.minutes} min
        of this traffic, with ground reflection. Who knows of it and can leave: {up(known)} m. {#if worst.exempt > 0}Exempt
          beyond {up(Math.max(...r.people.map((x) => x.exempt)))} m ({worst.exempt_by}).{/if} Nothing is said within λ/2π
        ({up(Math.max(...r.people.map((x) => x.nearest)))} m), and never for a handheld at the head. Limits from memory: confirm.
      {:else}Nothing is sent.{/if}
    </dd>
  </dl>
  <button type="button" class="link" aria-expanded={editing} onclick={() => (editing = !editing)}
    >{editing ? 'done' : 'change what this rests on'}</button
  >
  {#if editing}
    <div class="form">
      {#each fields as f (f.id)}
        <label for="relay-{f.id}">{f.says}</label>
        <span
          ><input
            id="relay-{f.id}"
            inputmode="decimal"
            {@attach fieldValue(() => f.value)}
            aria-invalid={!!faults[f.id]}
            onchange={(e) => {
              const text = e.currentTarget.value.trim().replace(',', '.');
              const n = Number(text);
              if (text === '' || Number.isNaN(n)) e.currentTarget.value = String(f.value);
              else set({ [f.id]: ['mine', 'theirs', 'timeout'].includes(f.id) ? Math.round(n) : n });
            }}
          />
          {f.unit}{#if faults[f.id]}<em>{faults[f.id]}</em>{/if}</span
        >
      {/each}
      <label for="relay-control">shut off by</label>
      <span
        ><input
          id="relay-control"
          class="long"
          {@attach fieldValue(() => s.control)}
          placeholder="QX9ABC at the vehicle"
          maxlength="200"
          onchange={(e) => {
            set({ control: e.currentTarget.value });
          }}
        /></span
      >
      <span class="all"
        ><label
          ><input
            type="checkbox"
            checked={s.starting}
            onchange={(e) => {
              set({ starting: e.currentTarget.checked });
            }}
          /> it is the battery that starts the engine</label
        ></span
      >
      <label for="relay-mic">microphone while relaying</label>
      <span
        ><select
          id="relay-mic"
          value={s.microphone}
          onchange={(e) => {
            set({ microphone: e.currentTarget.value });
          }}
          ><option value="">not known</option><option value="live">stays live</option><option value="dead">dead</option
          ></select
        ></span
      >
    </div>
  {/if}
</section>

<style>
  section {
    border-bottom: 1px solid var(--rule);
    padding: 8px 0;
  }
  h3 {
    font-size: 15px;
    font-weight: var(--w-strong);
  }
  dl {
    display: grid;
    grid-template-columns: 62px minmax(0, 1fr);
    gap: 2px 0;
    padding: 4px 0 4px 20px;
    font-size: 13px;
  }
  dt {
    color: var(--ink2);
  }
  .link {
    margin-left: 20px;
  }
  .form {
    display: grid;
    grid-template-columns: 150px minmax(0, 1fr);
    gap: 4px 8px;
    padding: 6px 0 4px 20px;
    font-size: 13px;
    align-items: center;
    color: var(--ink2);
  }
  .form input:not([type='checkbox']),
  select {
    width: 70px;
    height: 28px;
    border: 1px solid var(--rule2);
    border-radius: 2px;
    background: var(--sheet);
    padding: 0 6px;
    color: var(--ink);
    font-family: var(--figs);
  }
  .form .long {
    width: 100%;
    font-family: var(--text);
  }
  select {
    width: auto;
    font-family: var(--text);
  }
  .all {
    grid-column: 1 / -1;
  }
  em {
    display: block;
    font-style: normal;
    color: var(--stop);
  }
  @media (max-width: 45em) {
    .form input:not([type='checkbox']),
    select,
    .link {
      height: 44px;
    }
  }
</style>
