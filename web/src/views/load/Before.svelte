<script lang="ts">
  import Button from '$parts/Button.svelte';
  import type { FitReport, Fix } from '$lib/api/client';
  import { commands } from '$session/commands.svelte';
  import FitGroup from './FitGroup.svelte';
  import { beats, minutes } from './pace';
  import Paper from './Paper.svelte';
  import PressRibbon from './PressRibbon.svelte';
  import type { WalkState } from './walk.svelte';
  import { when } from '$lib/format';

  /** What a radio will hold, with choices; and what the walk through it costs. */
  interface Props {
    fit: FitReport;
    walk: WalkState;
    time: number;
    apply: (slot: number, fix: Fix) => void;
    listen: (slot: number) => void;
    leave: (slot: number) => void;
    look: (slot: number) => void;
    scan: (slot: number) => void;
    start: () => void;
  }
  let { fit, walk, time, apply, listen, leave, look, scan, start }: Props = $props();
  const w = $derived(walk.walk);
  const kept = $derived(walk.kept);
  const count = (n: number, one: string, many: string) =>
    n === 0 ? '' : n === 1 ? `one ${one}` : `${String(n)} ${many}`;
  const sum = $derived(
    [
      count(fit.held.length, 'is held back', 'are held back'),
      count(fit.decide.length, 'needs a decision', 'need a decision'),
      count(fit.changed.length, 'changes', 'change'),
      count(fit.out.length, 'does not fit', 'do not fit'),
    ]
      .filter(Boolean)
      .join(', ')
      .replace(/^./, (c) => c.toUpperCase())
      .replace(/.$/, '$&.'),
  );
  const ways = $derived(
    w
      ? [
          { says: 'each channel from the start', n: w.apart, now: false },
          { says: 'in slot order, keeping what stands', n: w.in_slot_order, now: false },
          { says: 'in an order that saves presses', n: w.effort, now: true },
          ...(w.names && w.nameless.presses < w.effort.presses
            ? [{ says: 'the same, names left for later', n: w.nameless, now: false }]
            : []),
        ]
      : [],
  );
  const most = $derived(Math.max(1, ...ways.map((x) => beats(x.n))));
  const first = $derived(walk.stops[0]);
  const done = $derived(walk.phase === 'done');
</script>

<main class="fit" class:alone={!(w && !w.by_cable && walk.stops.length > 0)}>
  <div class="left">
    <h1>What {fit.unit} will hold</h1>
    <p class="sum">
      <b>{fit.channels - fit.out.length} of {fit.channels} channels</b>, {fit.whole} of them as planned. {sum}
    </p>
    {#if fit.channels === 0}
      <p class="sum">
        Nothing is planned for this radio yet. Type a line in Plan, such as <b class="font-figs">147.24 + 100 Beacon</b
        >, or add repeaters in Find.
      </p>
    {/if}
    <FitGroup
      title="Held back"
      says="must not go on the air as it is"
      items={fit.held}
      {apply}
      {listen}
      {leave}
      {look}
      {scan}
    />
    <FitGroup
      title="Decide first"
      says="keyed as planned if you leave it"
      items={fit.decide}
      {apply}
      {listen}
      {leave}
      {look}
      {scan}
    />
    <FitGroup
      title="Changed"
      says="what {fit.radio.name} cannot do as planned"
      items={fit.changed}
      {apply}
      {listen}
      {leave}
      {look}
      {scan}
    />
    <FitGroup
      title="Does not fit"
      says="stays in the plan, not in this radio"
      items={fit.out}
      {apply}
      {listen}
      {leave}
      {look}
      {scan}
    />
    {#if fit.names.length > 0}
      <div class="group">
        <h2>Names, {fit.radio.names.length} characters</h2>
        <p>{fit.names.length} shortened, none twice{fit.names_by ? `. ${fit.names_by}` : ''}</p>
      </div>
      <dl class="names">
        {#each fit.names as n, nth (nth)}<div>
            <dt>{n.long}</dt>
            <dd>{n.name}</dd>
          </div>{/each}
      </dl>
    {/if}
  </div>
  <aside class="panel" aria-label="The walk">
    {#if done}
      <h2>{fit.unit} is filled</h2>
      <p class="note">
        Every channel of the walk is stored. Switch the radio off and on, and look through the slots once more.
      </p>
      {#if w && w.asides.some((a) => a.kind !== 'stored')}<p class="note">
          Not in it: {w.asides
            .filter((a) => a.kind !== 'stored')
            .map((a) => `${String(a.slot)} ${a.name}`)
            .join(', ')}.
        </p>{/if}
      <p class="acts">
        <Button
          onclick={() => {
            walk.phase = 'before';
            void walk.ask();
          }}>Back to the report</Button
        >
      </p>
    {:else}
      <h2>The walk</h2>
      {#if walk.trouble}<p role="alert" class="text-stop">{walk.trouble}</p>{/if}
      {#if kept}
        {@const at = kept.walk.stops[kept.at]}
        <div class="kept">
          <p>
            <b>You stopped {when(new Date(kept.time).toISOString())}</b>{#if at}, at slot {at.slot}
              {at.name}, step {Math.min(kept.step + 1, at.sheet.steps.length)} of {at.sheet.steps.length}{:else}, while
              putting the radio back{/if}.
          </p>
          <p class="acts">
            <Button fix="live" key={commands.key('walk-start')} onclick={() => void walk.anew()}
              >{at ? `Start slot ${String(at.slot)} again` : 'Start again'}</Button
            >
            <Button
              onclick={() => {
                walk.goOn();
              }}>Go on: the radio is untouched</Button
            >
            <button
              type="button"
              class="link max-desk:min-h-11"
              onclick={() => {
                walk.forget();
              }}>forget it</button
            >
          </p>
          <p class="note">
            When it was put down, switched off or used, begin again from the stated state: nobody knows what stands
            there.
          </p>
        </div>
      {/if}
      {#if w?.by_cable}<p class="note">{w.by_cable}</p>
      {:else if w && walk.stops.length === 0}
        <p class="note">
          {w.done > 0
            ? `All ${String(w.done)} channels that can be keyed are in this radio.`
            : 'There is nothing to key in.'}
        </p>
      {:else if w}
        {#if w.done > 0 && !walk.again}<p class="note">{w.done} of {w.all} are stored already and left out.</p>{/if}
        <table class="costs">
          <caption class="sr-only">What the walk costs in presses and minutes</caption>
          <tbody>
            {#each ways as x, nth (nth)}
              <tr class:this={x.now}
                ><th scope="row">{x.says}</th><td
                  >{x.n.presses.toLocaleString('en-GB')} · {minutes(beats(x.n) * walk.secondsAPress)}</td
                ></tr
              >
              <tr class="bar" aria-hidden="true"
                ><td colspan="2"><i style:width="{(100 * beats(x.n)) / most}%"></i></td></tr
              >
            {/each}
          </tbody>
        </table>
      {/if}
      {#if w && !w.by_cable}
        <p class="options">
          {#if fit.radio.names.keypad}
            <label
              ><input
                type="checkbox"
                bind:checked={
                  () => walk.names,
                  (v) => {
                    walk.names = v;
                    void walk.ask();
                  }
                }
              /> key the names</label
            >
          {/if}
          <label
            ><input
              type="checkbox"
              bind:checked={
                () => walk.again,
                (v) => {
                  walk.again = v;
                  void walk.ask();
                }
              }
            /> also what is stored already</label
          >
        </p>
      {/if}
      {#if first}
        <h3>Set {fit.unit} like this first</h3>
        <p class="note">After a pause or a power-off the walk begins here again.</p>
        <ul class="ticks">
          {#each first.sheet.start as s, nth (nth)}<li><label><input type="checkbox" /> {s}</label></li>{/each}
        </ul>
        <h3>At the end</h3>
        <p class="note">
          It is left with {w?.end.leave.join(', ')}. Switch scan{first.sheet.start.includes('dual watch off')
            ? ' and dual watch'
            : ''} on again if you had them on.
        </p>
        {#if !kept}<p class="acts big">
            <Button fix="live" key={commands.key('walk-start')} onclick={start}
              >Start with slot {first.slot}, {first.name || first.short_name}</Button
            >
          </p>{/if}
      {/if}
    {/if}
    <h3>On paper instead</h3>
    <Paper load={walk.load} />
  </aside>
</main>
{#if w && !w.by_cable && walk.stops.length > 0}<PressRibbon {walk} {time} />{/if}

<style>
  .fit {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 436px;
    min-height: calc(var(--screen) - var(--bar) - 100px);
    padding-top: 5px;
  }
  .alone {
    min-height: calc(var(--screen) - var(--bar));
  }
  .left {
    min-width: 0;
    padding: 10px 12px 12px var(--margin);
  }
  h1,
  .panel > h2 {
    font-size: var(--t-head);
    font-weight: var(--w-strong);
    line-height: 28px;
  }
  h1,
  .sum,
  .group {
    padding-left: 40px;
  }
  .sum {
    padding-bottom: 6px;
    color: var(--ink2);
  }
  b {
    color: var(--ink);
    font-weight: var(--w-strong);
  }
  .group {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0 10px;
    margin-top: 3px;
    padding-top: 4px;
    border-top: 1px solid var(--bold);
  }
  .group h2 {
    font-weight: var(--w-strong);
  }
  .group p {
    color: var(--ink2);
    font-size: var(--t-small);
  }
  .names {
    padding: 2px 0 4px 40px;
    columns: 4;
    column-gap: 20px;
    font-size: var(--t-small);
    line-height: 20px;
  }
  .names div {
    display: flex;
    justify-content: space-between;
    gap: 6px;
    border-bottom: var(--hair);
    break-inside: avoid;
  }
  dt {
    overflow: hidden;
    color: var(--ink2);
    white-space: nowrap;
    text-overflow: ellipsis;
  }
  dd {
    font-family: var(--figs);
    white-space: pre;
  }
  .panel {
    min-width: 0;
    padding: 14px var(--margin) 12px 20px;
    border-left: var(--line);
    background: var(--sheet);
  }
  .costs {
    width: 100%;
    margin-top: 8px;
    border-top: 1px solid var(--bold);
    font-size: 13.5px;
  }
  th {
    padding-top: 5px;
    font-weight: var(--w-normal);
    text-align: left;
  }
  .costs th,
  .costs td {
    vertical-align: baseline;
  }
  .costs td {
    text-align: right;
    font-family: var(--figs);
    white-space: nowrap;
  }
  .this th,
  .this td {
    font-weight: var(--w-strong);
  }
  .bar td {
    height: 8px;
    padding-bottom: 4px;
    border-bottom: var(--hair);
    line-height: 0;
  }
  .bar i {
    display: block;
    height: 3px;
    background: var(--ink);
  }
  .options {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 18px;
    margin-top: 8px;
    font-size: 13.5px;
  }
  label {
    display: inline-flex;
    align-items: center;
    gap: 7px;
  }
  h3 {
    margin-top: 14px;
    padding-top: 9px;
    border-top: var(--line);
    font-size: var(--t-lead, 15px);
    font-weight: var(--w-strong);
  }
  .note {
    color: var(--ink2);
    font-size: var(--t-small);
  }
  .ticks {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 2px 16px;
    margin-top: 6px;
    font-size: 13.5px;
  }
  .ticks label {
    min-height: 24px;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px;
    margin-top: 12px;
  }
  .kept {
    margin: 8px 0;
    padding: 8px 12px;
    border-left: 4px solid var(--accent);
    background: var(--water);
  }
  @media (max-width: 73.75em) {
    .fit {
      display: block;
    }
    .panel {
      border: 0;
      border-top: var(--heavy);
    }
    .panel > :global(*) {
      max-width: 520px;
    }
    .names {
      columns: 3;
    }
  }
  @media (max-width: 45em) {
    .left {
      padding: 10px 16px;
    }
    h1,
    .sum,
    .group,
    .names {
      padding-left: 0;
    }
    .names {
      columns: 2;
    }
    .panel {
      padding: 14px 16px 90px;
    }
    .ticks label,
    .options label {
      min-height: 44px;
    }
  }
</style>
