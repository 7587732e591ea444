<script lang="ts">
  import Button from '$parts/Button.svelte';
  import Evidence from '$parts/Evidence.svelte';
  import Findings from '$parts/Findings.svelte';
  import Mark from '$parts/Mark.svelte';
  import StandingRule from '$parts/StandingRule.svelte';
  import type { RelayView } from '$lib/api/client';
  import { when } from '$lib/format';
  import { commands } from '$session/commands.svelte';
  import Burden from './Burden.svelte';
  import Identify from './Identify.svelte';
  import Links from './Links.svelte';
  import type { Fix, RelayState, Report } from './relay.svelte';

  interface Props {
    v: RelayView;
    r: Report;
    relay: RelayState;
    load: number;
    set: (form: Record<string, unknown>) => void;
    fix: (fix: Fix) => void;
  }
  let { v, r, relay, load, set, fix }: Props = $props();

  /** Who agreed, as it is written; undefined for as it is kept. */
  let consent = $state<string>();
  const standing = $derived.by(() => {
    const order = ['planned', 'stored', 'keyed', 'proven'] as const;
    return order.indexOf(v.a.standing.now) <= order.indexOf(v.b.standing.now) ? v.a.standing : v.b.standing;
  });
  const tally = $derived({
    check: r.findings.filter((f) => f.severity === 'check').length,
    fix: r.findings.filter((f) => f.severity === 'fix').length,
    stop: r.findings.filter((f) => f.severity === 'stop').length,
  });
</script>

<aside class="panel" aria-label="Verdict">
  <header>
    <h2>{r.title}</h2>
    <span class="text-[16px]"><Evidence kind={r.verdict} size={16} /></span>
  </header>
  <p class="ends">
    {#each [...r.ends].reverse() as e, i (i)}<span class:text-conflict={e.passes === 'no'}
        ><Mark kind={e.passes === 'yes' ? 'agrees' : e.passes === 'no' ? 'conflict' : 'unverified'} />
        {e.outcome}</span
      >{/each}
  </p>
  <StandingRule {standing} person="" radio={v.vehicle} />
  <p class="quiet">
    {v.rehearsed ? `Rehearsed ${when(v.rehearsed)}.` : 'Not rehearsed as it is set up now.'}
    {v.taken ? 'Both sides are in the radios as they are.' : ''}
  </p>
  <p class="tally">
    {#if tally.stop > 0}<span class="text-stop"><Mark kind="stop" /> {tally.stop} to stop</span>{/if}
    {#if tally.fix > 0}<span class="text-conflict"><Mark kind="conflict" /> {tally.fix} in conflict</span>{/if}
    <span><Mark kind="unverified" /> {tally.check} to confirm</span>
  </p>
  {#if !v.taken && r.verdict !== 'stop' && v.kept}
    <p class="py-1">
      <Button kind="main" key={commands.key('relay-take')} onclick={() => void relay.take(load, v.revision)}
        >Take both sides into the plan and both radios</Button
      >
    </p>
  {/if}
  <Findings findings={r.findings} key={commands.key('relay-fix')} {fix} />
  {#if r.loop}
    <section class="loop" aria-label="The loop">
      {#if r.loop.does}
        <h3>What would end it?</h3>
        {#each r.loop.ends as e, nth (nth)}<p class="row">
            <span>{e.says}</span><span class:text-stop={e.quiet === 0}
              ><Mark kind={e.quiet === 0 ? 'stop' : 'agrees'} />
              {e.quiet === 0 ? 'never' : `quiet after ${e.quiet.toFixed(1)} s`}</span
            >
          </p>{/each}
      {/if}
      <h3>Both owners agree?</h3>
      <p class="quiet">Then this becomes a warning. Who agreed, and when, is printed on the run card.</p>
      <form
        onsubmit={(e) => {
          e.preventDefault();
          set({ consent: consent ?? v.settings.consent });
        }}
      >
        <label class="sr-only" for="consent">who agreed, when, and how</label>
        <input
          id="consent"
          value={consent ?? v.settings.consent}
          oninput={(e) => (consent = e.currentTarget.value)}
          placeholder="who agreed, when, and how"
          maxlength="400"
        />
        <Button type="submit">Keep this note</Button>
        {#if v.settings.consent}<button
            type="button"
            class="link"
            onclick={() => {
              consent = undefined;
              set({ consent: '' });
            }}>take it back</button
          >{/if}
      </form>
      {#if relay.faults.consent}<p role="alert" class="text-stop">{relay.faults.consent}</p>{/if}
    </section>
  {/if}
  <Links
    links={r.links}
    take={(line) => {
      if (r.link_side === 'A') relay.a = line;
      else relay.b = line;
      void relay.keep(v, load);
    }}
  />
  <Burden {r} s={v.settings} faults={relay.faults} {set} />
  <Identify {r} />
  <p class="card">
    <Button disabled={r.verdict === 'stop'} onclick={() => (relay.card = true)}>Open the run card</Button>
    <span class="quiet"
      >{r.verdict === 'stop' ? 'Not for a set-up that is refused.' : 'Follow your local rules and your licence.'}</span
    >
  </p>
</aside>

<style>
  .panel {
    background: var(--sheet);
    border-left: 1px solid var(--rule2);
    padding: 14px var(--margin) 12px 21px;
    min-width: 0;
  }
  .loop {
    border-bottom: 1px solid var(--rule);
    padding: 6px 0;
  }
  h3 {
    font-size: 15px;
    font-weight: var(--w-strong);
    padding-top: 4px;
  }
  .row {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    border-bottom: 1px solid var(--rule);
    padding: 2px 0;
    font-size: 13px;
  }
  form {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: center;
    padding: 4px 0;
  }
  form input {
    flex: 1;
    min-width: 180px;
    height: 30px;
    border: 1px solid var(--rule2);
    border-radius: 2px;
    background: var(--paper);
    padding: 0 8px;
  }
  .card {
    display: flex;
    flex-wrap: wrap;
    gap: 10px;
    align-items: center;
    border-top: 2px solid var(--bold);
    margin-top: 6px;
    padding-top: 10px;
  }
  .ends,
  .tally {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 16px;
    padding: 2px 0;
    font-size: 13.5px;
  }
  .quiet {
    color: var(--ink2);
    font-size: 12.5px;
  }
  h2 {
    flex: 1;
    min-width: 0;
    font-size: var(--t-head);
    line-height: 26px;
    font-weight: var(--w-strong);
  }
  header {
    display: flex;
    align-items: baseline;
    gap: 12px;
  }
  @media (max-width: 79.4375em) {
    .panel {
      border-left: 0;
      border-top: 1px solid var(--rule2);
      padding: 12px var(--margin);
    }
  }
  @media (max-width: 45em) {
    .panel {
      padding-bottom: 76px; /* the views stand below */
    }
    form input {
      height: 44px;
    }
  }
  @media print {
    .panel {
      display: none;
    }
  }
</style>
