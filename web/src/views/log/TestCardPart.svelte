<script lang="ts">
  import Button from '$parts/Button.svelte';
  import LineGround from '$parts/LineGround.svelte';
  import Mark from '$parts/Mark.svelte';
  import type { TestCard } from '$lib/api/client';
  import { figures, sentTone, watts } from '$lib/format';
  import Clock from './Clock.svelte';
  import type { Act, LogState, Setting } from './log.svelte';

  /** What to set, what to say, and what came back. */
  interface Props {
    log: LogState;
    c: TestCard;
    act: Act | undefined;
    setting: Setting;
    time: number;
    worked: boolean;
    answer: (what: { answer?: string; yes?: boolean }) => void;
    keep: () => void;
    call: (callsign: string) => void;
    back: () => void;
  }
  let { log, c, act, setting, time, worked, answer, keep, call, back }: Props = $props();
  let callsign = $state('');
  const f = (hz: number) => {
    const x = figures(hz);
    return `${x.mhz}.${x.khz}${x.rest}`;
  };
  const shift = $derived(figures(setting.offset_hz));
  const kind = $derived(log.negative ? 'key' : (act?.kind ?? 'key'));
  const first = $derived(!c.tries.some((t) => t.kind === 'key'));
  const changed = $derived(first ? '' : log.negative ? 'tone' : (act?.change ?? ''));
  const place = $derived(c.places.find((p) => p.id === setting.where)?.says ?? setting.where);
  const aerial = $derived(c.aerials.find((a) => a.id === setting.aerial)?.says ?? setting.aerial);
  const number = $derived(c.tries.filter((t) => t.kind === 'key').length + 1);
  const asks = $derived(
    kind === 'look'
      ? { says: 'Does the display show the mark of a tone?', no: 'yes, it shows it', yes: 'no: I set it again' }
      : kind === 'listen'
        ? { says: 'Did its ident come in ten minutes?', yes: 'yes, I heard it', no: 'no' }
        : { says: 'Does somebody else hear it?', yes: 'yes', no: 'no' },
  );
</script>

{#snippet value(text: string, label: string, name: string, was = '')}
  <span class="value" class:hot={changed === name}
    ><b>{text}</b><i></i><em>{label}{changed === name && was ? `, was ${was}` : ''}</em></span
  >
{/snippet}

<p class="back"><button type="button" class="link" onclick={back}>← another channel</button></p>
<LineGround number={String(c.slot)}>
  <div class="values">
    {@render value(f(c.channel.receive_hz), 'receive', 'receive')}
    {@render value(
      setting.offset_hz === 0 ? 'simplex' : `${shift.sign}${shift.mhz}.${shift.khz}`,
      'shift',
      'shift',
      'stored otherwise',
    )}
    {@render value(f(c.channel.receive_hz + setting.offset_hz), 'transmit', 'transmit')}
    {@render value(sentTone(setting.tone), 'tone out', 'tone', sentTone(c.setting.tone))}
    {@render value(setting.width, 'width', 'width')}
    {@render value(watts(c.watts), setting.power ? 'power, looked at' : 'power', 'power')}
  </div>
</LineGround>

{#if c.callsign === ''}
  <form
    class="say"
    onsubmit={(e) => {
      e.preventDefault();
      call(callsign);
    }}
  >
    <label for="callsign">Your callsign, which every test begins and ends with</label>
    <input id="callsign" bind:value={callsign} placeholder="QX9ABC" autocapitalize="characters" autocomplete="off" />
    <Button type="submit" kind="main">That is mine</Button>
    {#if log.trouble}<p role="alert" class="w-full text-stop">{log.trouble}</p>{/if}
  </form>
{:else}
  <div class="say">
    {#if kind === 'key'}
      <p class="words">“{c.callsign} testing.”</p>
      <p class="how">
        <b>Listen first.</b> Key, wait a second, say it, let go, listen for the tail.{#if log.negative}
          It must stay silent.{/if}
      </p>
    {:else}<p class="words">{act?.says}</p>
      <p class="how">Nothing is sent.</p>{/if}
  </div>
  {#if kind === 'key' || c.first !== ''}<Clock first={c.first} minutes={c.minutes} source={c.source} {time} />{/if}
  {#if first}
    <p class="where">
      <span>you stand</span>
      {#each c.places as p (p.id)}<button
          type="button"
          aria-pressed={setting.where === p.id}
          onclick={() => (log.where = p.id)}>{p.says}</button
        >{/each}
      <span>with</span>
      {#each c.aerials as a (a.id)}<button
          type="button"
          aria-pressed={setting.aerial === a.id}
          onclick={() => (log.aerial = a.id)}>{a.says}</button
        >{/each}
    </p>
  {:else}<p class="where">
      <span
        >{place}, {aerial}{#if changed === 'where' || changed === 'aerial'}: <b>the one change</b>{/if}</span
      >
    </p>{/if}
  <p class="fields">
    <label for="spot">where that is</label><input
      id="spot"
      bind:value={log.spot}
      placeholder="harbour road"
      maxlength="200"
    />
    <label for="station">who answered</label><input
      id="station"
      bind:value={log.station}
      placeholder="for a reply"
      maxlength="200"
      autocapitalize="characters"
    />
    <label for="note">note</label><input id="note" bind:value={log.note} maxlength="200" />
  </p>
  {#if kind === 'key'}
    <div class="answers" role="group" aria-label="What came back?">
      <span class="ask">What came back?</span>
      {#each c.answers as a (a.id)}<button
          type="button"
          class:nothing={a.id === 'nothing'}
          onclick={() => {
            answer({ answer: a.id });
          }}><b>{a.id}</b><small>{a.says}</small></button
        >{/each}
    </div>
  {:else}
    <div class="answers two" role="group" aria-label={asks.says}>
      <span class="ask">{asks.says}</span>
      <button
        type="button"
        onclick={() => {
          answer({ yes: true });
        }}><b>{asks.yes}</b></button
      >
      <button
        type="button"
        onclick={() => {
          answer({ yes: false });
        }}><b>{asks.no}</b></button
      >
    </div>
  {/if}
  {#if log.waiting > 0}<p class="note">Kept here, {log.waiting} to send.</p>{/if}
  {#if log.trouble}<p class="note text-stop" role="alert">{log.trouble}</p>{/if}
  {#if worked}<p class="note">
      <Mark kind="conflict" /> What worked is not what is stored. <Button fix="idle" onclick={keep}
        >Keep what worked</Button
      >
    </p>{/if}
  {#if kind === 'key'}<p class="note">try {number}{changed ? ', one change' : ''}</p>{/if}
{/if}

<style>
  .back {
    padding-bottom: 4px;
  }
  .values {
    display: flex;
    flex-wrap: wrap;
    gap: 0 28px;
    padding-top: 4px;
    min-width: 0;
    overflow: hidden;
    height: 62px;
  }
  .value {
    display: inline-flex;
    flex-direction: column;
    align-items: center;
  }
  .value b {
    font: var(--w-strong) 22px/36px var(--figs);
    white-space: nowrap;
  }
  .value i {
    width: 100%;
    height: 5px;
    border: 1px solid var(--ink2);
    border-top: 0;
  }
  .value em {
    font: var(--w-normal) var(--t-label) / 1.2 var(--text);
    color: var(--ink2);
    white-space: nowrap;
  }
  .hot b,
  .hot em {
    color: var(--accent);
  }
  .hot i {
    border-color: var(--accent);
    border-width: 0 2px 2px;
  }
  .say {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 16px;
    align-items: baseline;
    padding: 8px 0 6px 40px;
  }
  .words {
    font-size: 22px;
    font-weight: var(--w-strong);
  }
  .how {
    margin-left: auto;
    color: var(--ink2);
  }
  .how b,
  .where b {
    font-weight: var(--w-strong);
    color: var(--ink);
  }
  input {
    height: 30px;
    border: 1px solid var(--rule2);
    border-radius: 2px;
    background: var(--sheet);
    padding: 0 8px;
    min-width: 0;
  }
  .where,
  .fields {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
    align-items: center;
    padding: 4px 0 4px 40px;
    font-size: 13px;
    color: var(--ink2);
  }
  .where button {
    min-height: 28px;
    padding: 0 8px;
    border: 1px solid var(--rule2);
    border-radius: 2px;
    color: var(--ink2);
  }
  .where [aria-pressed='true'] {
    color: var(--ink);
    font-weight: var(--w-strong);
    border-color: var(--ink);
    background: var(--sheet);
  }
  .fields input {
    flex: 1 1 110px;
  }
  .answers {
    display: grid;
    grid-template-columns: 116px repeat(5, minmax(0, 1fr));
    gap: 8px;
    align-items: center;
    padding: 6px 0 6px 40px;
  }
  .two {
    grid-template-columns: minmax(0, 1.4fr) 1fr 1fr;
  }
  .ask {
    color: var(--ink2);
  }
  .answers button {
    min-height: 44px;
    padding: 3px 10px;
    border: 1px solid var(--rule2);
    border-radius: 2px;
    background: var(--sheet);
    text-align: left;
    display: flex;
    flex-direction: column;
    justify-content: center;
  }
  .answers button:hover {
    background: var(--hover);
  }
  .answers b {
    font-weight: var(--w-strong);
  }
  .answers small {
    color: var(--ink2);
    font-size: 12.5px;
  }
  .note {
    padding: 2px 0 4px 40px;
    color: var(--ink2);
    font-size: 13px;
  }
  @media (max-width: 45em) {
    .say,
    .where,
    .fields,
    .answers,
    .note {
      padding-left: 0;
    }
    .values {
      height: auto;
      gap: 6px 18px;
    }
    .how {
      margin-left: 0;
    }
    input,
    .where button {
      min-height: 44px;
    }
    .answers {
      grid-template-columns: repeat(4, minmax(0, 1fr));
    }
    .two {
      grid-template-columns: 1fr 1fr;
    }
    .ask {
      grid-column: 1 / -1;
    }
    .answers button {
      min-height: 54px;
      align-items: center;
      text-align: center;
    }
    .answers small {
      display: none;
    }
    .answers .nothing {
      grid-column: 1 / -1;
    }
  }
</style>
