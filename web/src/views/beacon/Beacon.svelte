<script lang="ts">
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import Button from '$parts/Button.svelte';
  import { chosen as picks } from '$lib/api/chosen.svelte';
  import { client } from '$lib/client';
  import { ledgerQuery } from '$lib/queries';
  import { narrow } from '$lib/screen.svelte';
  import { fieldValue } from '$lib/field.svelte';
  import { commands, field } from '$session/commands.svelte';
  import { desk } from '$session/session';
  import { say } from '$session/say.svelte';
  import { BeaconState, type Station } from './beacon.svelte';
  import Bill from './Bill.svelte';
  import ChannelPart from './ChannelPart.svelte';
  import Flight from './Flight.svelte';
  import FrameLine from './FrameLine.svelte';
  import SymbolPick from './SymbolPick.svelte';
  import Trip from './Trip.svelte';

  const b = new BeaconState(desk);
  let picking = $state(false);
  const ledger = createQuery(() => ledgerQuery(client, picks.load));
  const look = createQuery(() => ({
    queryKey: ['beacon', picks.load, ledger.data?.revision, ledger.data?.checking],
    queryFn: () => b.ask(picks.load),
    enabled: picks.load !== 0 && ledger.data !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
  }));
  const v = $derived(look.data);
  const s = $derived(v ? (v.station as unknown as Station) : undefined);
  const frame = $derived(v?.shown[Math.min(b.kind, (v.shown.length || 1) - 1)]);
  const kinds: Record<string, string> = {
    position: 'Position frame',
    object: 'Object frame',
    status: 'status',
    message: 'message',
    item: 'item',
  };

  const set = (form: Record<string, unknown>, says: string) => void b.set(picks.load, form, says);
  const act = (what: string, value: string, says: string) => void b.act(picks.load, what, value, says);
  const live = $derived(v?.findings.filter((f) => f.severity !== 'note').flatMap((f) => f.fixes)[0]);
  const copy = async () => {
    if (!v?.own || !frame) return;
    await navigator.clipboard.writeText(frame.text);
    say.done('Copied as text');
  };
  const file = (as: string) => `/api/loads/${String(picks.load)}/beacon/file?as=${as}`;
  /** The field that is pointed at goes on by the arrows. */
  const step = (by: number) => {
    const list = frame?.parts ?? [];
    const i = list.findIndex((p) => p.id === b.at);
    b.at = list[Math.max(0, Math.min(list.length - 1, i < 0 ? (by > 0 ? 0 : list.length - 1) : i + by))]?.id ?? '';
  };
  $effect(() =>
    untrack(() =>
      commands.add(
        {
          id: 'beacon-fix',
          says: 'Do the first fix',
          scope: 'Beacon',
          keys: ['='],
          can: () => live !== undefined && field() === null,
          run: () => {
            if (live) set(live.set, live.label);
          },
        },
        {
          id: 'beacon-call',
          says: 'Write your callsign',
          scope: 'Beacon',
          keys: ['/'],
          can: () => field() === null,
          run: () => document.querySelector<HTMLElement>('[aria-label="callsign and number"]')?.focus(),
        },
      ),
    ),
  );
</script>

<svelte:head><title>Beacon · Mnemos</title></svelte:head>

<div class="beacon">
  {#if v && s && frame}
    <main class="contents">
      <section class="top" aria-label="The frame">
        <h1 class="sr-only">Beacon</h1>
        {#if frame.error}
          <p class="error" role="status">{frame.error[0]?.toUpperCase()}{frame.error.slice(1)}.</p>
          {#if s.from === ''}<p class="ghost" aria-hidden="true">
              APZ001 QX9ABC-7 WIDE1-1 WIDE2-1 !4101.20N/05518.60W[
            </p>{/if}
        {:else}
          <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
          <div
            tabindex="0"
            role="group"
            aria-label="Fields of the frame; move with the arrows"
            onkeydown={(e) => {
              if (e.key === 'ArrowRight' || e.key === 'ArrowLeft') {
                e.preventDefault();
                step(e.key === 'ArrowRight' ? 1 : -1);
              }
            }}
          >
            <FrameLine {b} {frame} phone={narrow.is} />
          </div>
        {/if}
        <div class="do">
          <span class="quiet">{v.sees}</span>
          {#if v.own && !frame.error}
            <Button onclick={() => void copy()}>Copy as text</Button>
            <a class="link" href={file('tnc2')} download="beacon.txt">TNC2 file</a>
            <a class="link" href={file('kiss')} download="beacon.kiss">KISS file</a>
          {:else if !v.own}<span class="quiet">{v.why_not}</span>{/if}
        </div>
      </section>
      <div class="left">
        <div class="tabs">
          <p role="group" aria-label="Which frame">
            {#each v.shown as x, i (x.kind)}<button
                type="button"
                aria-pressed={frame === x}
                onclick={() => {
                  b.kind = i;
                  b.at = '';
                }}>{kinds[x.kind] ?? x.kind}</button
              >{/each}
          </p>
          <p role="group" aria-label="What the station is for" class="ml-auto">
            {#each v.profiles.filter((p) => p.id !== 'space') as p (p.id)}<button
                type="button"
                aria-pressed={s.profile === p.id}
                onclick={() => {
                  act('profile', p.id, p.says);
                }}>{p.says}</button
              >{/each}
            <button
              type="button"
              aria-pressed={v.space}
              onclick={() => {
                act(v.space ? 'ground' : 'space', '', v.space ? 'back to the ground' : 'to space');
              }}>{v.space ? 'back to the ground' : 'to space'}</button
            >
          </p>
        </div>
        <Bill {b} {v} {s} {set} symbols={() => (picking = true)} />
        <p class="more">
          <label
            >status <input
              {@attach fieldValue(() => s.status)}
              maxlength="200"
              placeholder="a frame of its own"
              onchange={(e) => {
                set({ status: e.currentTarget.value.trim() }, 'the status');
              }}
            /></label
          >
          {#if s.profile === 'event'}<label
              >object <input
                {@attach fieldValue(() => s.object)}
                maxlength="40"
                onchange={(e) => {
                  set({ object: e.currentTarget.value }, 'the name of the object');
                }}
              /></label
            >{/if}
          <label
            >message to <input
              {@attach fieldValue(() => s.to)}
              maxlength="40"
              size="10"
              autocapitalize="characters"
              onchange={(e) => {
                set({ to: e.currentTarget.value.trim().toUpperCase() }, 'whom the message is for');
              }}
            /></label
          >
          {#if s.to}<label
              >text <input
                {@attach fieldValue(() => s.text)}
                maxlength="200"
                onchange={(e) => {
                  set({ text: e.currentTarget.value.trim() }, 'the message');
                }}
              /></label
            >{/if}
          <span
            >{s.circles.length === 0
              ? 'Sent everywhere.'
              : s.circles.length === 1
                ? 'Silent within a circle.'
                : `Silent within ${String(s.circles.length)} circles.`}
            {v.hidden ? 'You are in it.' : ''}
            <button
              type="button"
              class="link"
              onclick={() => {
                act('circle', '', 'keep silent around here');
              }}>keep silent around the place of the plan</button
            >{#if s.circles.length > 0}<button
                type="button"
                class="link ml-2"
                onclick={() => {
                  act('uncircle', '', 'take the circles out');
                }}>take them out</button
              >{/if}</span
          >
        </p>
        <Trip {b} {s} {set} drive={(text) => void b.drive(picks.load, text)} />
      </div>
    </main>
    <aside class="panel" aria-label="The channel">
      <ChannelPart {v} stations={s.stations} {set} />
      <Flight {v} {act} />
    </aside>
    <SymbolPick
      bind:open={picking}
      symbols={v.symbols}
      now={s.symbol}
      choose={(id) => {
        set({ symbol: id }, 'the symbol');
      }}
    />
  {:else if look.isError}<main>
      <h1 class="sr-only">Beacon</h1>
      <p role="alert" class="p-6 text-stop">{look.error.message}</p>
    </main>
  {:else}<p class="p-6 text-ink2" aria-busy="true">Working the beacon out …</p>{/if}
</div>

<style>
  .beacon {
    display: grid;
    grid-template-columns: minmax(0, 1fr) var(--panel);
    padding-top: 5px;
  }
  .top {
    grid-column: 1 / -1;
    background: var(--sheet);
    border-bottom: 1px solid var(--rule2);
    border-left: 4px solid var(--accent);
    margin: 8px var(--margin) 0 14px;
    padding: 10px 14px 6px 6px;
    min-width: 0;
  }
  .do {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 16px;
    align-items: center;
    padding: 0 0 4px 40px;
  }
  .quiet {
    color: var(--ink2);
    font-size: 13px;
  }
  .error {
    padding: 10px 0 4px 40px;
    font-size: 16px;
    color: var(--stop);
  }
  .ghost {
    padding: 0 0 8px 40px;
    font: var(--w-normal) 20px var(--figs);
    color: var(--ink3);
    overflow: hidden;
    white-space: nowrap;
  }
  .left {
    padding: 8px 12px 12px var(--margin);
    min-width: 0;
  }
  .panel {
    background: var(--sheet);
    border-left: 1px solid var(--rule2);
    padding: 14px var(--margin) 12px 21px;
    min-width: 0;
  }
  .tabs {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 24px;
    padding-left: 24px;
  }
  .tabs p {
    display: flex;
    flex-wrap: wrap;
    gap: 0 14px;
  }
  .tabs button {
    min-height: 26px;
    color: var(--ink2);
  }
  .tabs [aria-pressed='true'] {
    color: var(--ink);
    font-weight: var(--w-strong);
  }
  .more {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 18px;
    align-items: baseline;
    padding: 8px 0 0 24px;
    font-size: 13px;
    color: var(--ink2);
  }
  .more input {
    height: 24px;
    border: 0;
    border-bottom: 1px solid var(--ink2);
    background: transparent;
    color: var(--ink);
    padding: 0 2px;
  }
  @media (max-width: 79.4375em) {
    .beacon {
      display: flex;
      flex-direction: column;
    }
    .panel {
      border-left: 0;
      border-top: 1px solid var(--rule2);
      padding: 12px var(--margin);
    }
  }
  @media (max-width: 45em) {
    .top {
      margin: 0;
      padding: 8px var(--margin);
    }
    .do,
    .tabs,
    .more,
    .error,
    .ghost {
      padding-left: 0;
    }
    .left {
      padding: 8px var(--margin);
    }
    .panel {
      padding-bottom: 76px; /* the views stand below */
    }
    .tabs button,
    .more .link {
      min-height: 44px;
    }
    .more input {
      height: 44px;
    }
  }
  @media print {
    .top,
    .left {
      display: none;
    }
    .beacon {
      display: block;
    }
  }
</style>
