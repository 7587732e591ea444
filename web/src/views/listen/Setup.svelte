<script lang="ts">
  import { untrack } from 'svelte';
  import Button from '$parts/Button.svelte';
  import type { ListenReport } from '$lib/api/client';
  import { goes } from './words';

  /** What the radio scans and how, in place under the words that say so. */
  interface Props {
    r: ListenReport;
    what: 'lists' | 'rate' | 'resume' | 'priority';
    faults: Record<string, string>;
    close: () => void;
    set: (form: object) => Promise<boolean>;
  }
  let { r, what, faults, close, set }: Props = $props();
  let lists = $state<number[]>([]);
  let channels = $state('');
  let seconds = $state('');
  let resume = $state('');
  let stay = $state('');
  let every = $state('');
  $effect(() => {
    if (what)
      untrack(() => {
        lists = r.lists.filter((l) => l.chosen).map((l) => l.id);
        channels = r.rate.timed ? String(r.rate.channels) : '';
        seconds = r.rate.timed ? String(r.rate.seconds) : '';
        resume = r.resume;
        stay = String(Math.round(r.stay * 10) / 10);
        every = String(r.every);
      });
  });
  const modes = $derived([...new Set(r.modes.map((m) => m.resume))]);
  const number = (t: string) => Number(t.trim().replace(',', '.') || 0);
  const fault = $derived(faults.lists ?? faults.timed ?? faults.resume ?? faults.stay ?? faults.every ?? '');
  const rate = $derived(number(seconds) > 0 ? number(channels) / number(seconds) : 0);
  const send = async (form: object) => {
    if (await set(form)) close();
  };
  async function save(e: SubmitEvent) {
    e.preventDefault();
    if (what === 'lists') await send({ lists });
    else if (what === 'rate')
      await send({ timed: { channels: Math.round(number(channels)), seconds: number(seconds) } });
    else if (what === 'resume') await send({ resume, stay: number(stay) });
    else await send({ every: Math.round(number(every)) });
  }
</script>

<svelte:window
  onkeydown={(e) => {
    if (e.key === 'Escape' && document.activeElement?.closest('#scan-setup')) close();
  }}
/>
<form id="scan-setup" class="setup" aria-label="How it scans" onsubmit={(e) => void save(e)}>
  {#if what === 'lists'}
    {#if r.lists.length === 0}
      <p>
        {r.unit} scans every channel that is not set to be skipped. To scan a part, make a scan list in Plan, under sets.
      </p>
    {:else}
      <fieldset>
        <legend class="sr-only">What is scanned</legend>
        <label
          ><input type="radio" name="all" checked={lists.length === 0} onchange={() => (lists = [])} /> every channel that
          is not skipped</label
        >
        {#each r.lists as l (l.id)}
          <label
            ><input
              type="checkbox"
              checked={lists.includes(l.id)}
              onchange={(e) => (lists = e.currentTarget.checked ? [...lists, l.id] : lists.filter((x) => x !== l.id))}
            />
            {l.name} <span class="text-ink3">{l.channels}</span>{#if lists.length > 1 && lists.includes(l.id)}<span
                class="text-ink3">, {lists.indexOf(l.id) + 1}.</span
              >{/if}</label
          >
        {/each}
      </fieldset>
      <p>
        Several lists are scanned one after another.{#if r.has_lists < r.lists.length}
          {r.unit} has {r.has_lists === 0 ? 'no scan lists' : `${String(r.has_lists)} of them`}: set the others to be
          skipped on the radio.{/if}
      </p>
    {/if}
  {:else if what === 'rate'}
    <p>
      <b>Time it yourself.</b> Start the scan with nothing on the air, count how many channels go by, and stop the time.
    </p>
    <span class="fields">
      <input id="timed-channels" class="box" inputmode="numeric" placeholder="30" bind:value={channels} />
      <label for="timed-channels">channels in</label>
      <input id="timed-seconds" class="box" inputmode="decimal" placeholder="7" bind:value={seconds} />
      <label for="timed-seconds">s</label>
      {#if rate > 0}<span class="text-ink2">→ {rate.toFixed(1)} a second; a look takes {(1 / rate).toFixed(2)} s</span>
      {:else}<span class="text-ink2">the profile says {r.rate.profile.toFixed(1)} a second</span>{/if}
    </span>
  {:else if what === 'resume'}
    <fieldset>
      <legend class="sr-only">How the scan goes on</legend>
      {#each modes as m (m)}
        <label
          ><input
            type="radio"
            name="resume"
            value={m}
            checked={resume === m}
            onchange={() => {
              resume = m;
              stay = String(Math.round((r.modes.find((x) => x.resume === m)?.stay ?? 5) * 10) / 10);
            }}
          />
          {m === 'time' ? 'after a time' : m === 'carrier' ? 'when the signal has gone' : 'when I press a key'}</label
        >
      {/each}
    </fieldset>
    <span class="fields">
      <label for="stay">{resume === 'time' ? 'stays' : resume === 'carrier' ? 'and then' : 'I press after about'}</label
      >
      <input id="stay" class="box" inputmode="decimal" bind:value={stay} /> s
      <span class="text-ink2">{goes(resume, number(stay))}</span>
    </span>
  {:else}
    <span class="fields">
      <label for="every">a look at the priority channel after</label>
      <input id="every" class="box" inputmode="numeric" bind:value={every} /> others
    </span>
  {/if}
  {#if fault}<p class="text-stop" role="alert">{fault}</p>{/if}
  <p class="flex gap-3">
    {#if what !== 'lists' || r.lists.length > 0}<Button type="submit" kind="main">Set</Button>{/if}
    {#if what === 'rate' && r.rate.timed}<Button onclick={() => void send({ timed: { channels: 0, seconds: 0 } })}
        >As the profile says</Button
      >{/if}
    <Button onclick={close}>Close</Button>
  </p>
</form>

<style>
  .setup {
    margin: 2px calc(var(--panel) - 12px) 8px 40px;
    padding: 8px 12px;
    background: var(--sheet);
    border: 1px solid var(--rule2);
    border-radius: 2px;
    display: flex;
    flex-direction: column;
    gap: 6px;
  }
  fieldset {
    border: 0;
    padding: 0;
    margin: 0;
    display: flex;
    flex-wrap: wrap;
    gap: 2px 18px;
  }
  label {
    display: inline-flex;
    align-items: center;
    gap: 6px;
    min-height: 26px;
  }
  .fields {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 4px 8px;
  }
  .box {
    height: 28px;
    width: 64px;
    border: 1px solid var(--rule2);
    border-radius: 2px;
    background: var(--paper);
    padding: 0 6px;
  }
  @media (max-width: 79.4375em) {
    .setup {
      margin: 4px 0 8px;
    }
  }
  @media (max-width: 45em) {
    label {
      min-height: 44px;
    }
    .box {
      height: 44px;
    }
  }
</style>
