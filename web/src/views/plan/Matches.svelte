<script lang="ts">
  import Frequency from '$parts/Frequency.svelte';
  import Needle from '$parts/Needle.svelte';
  import ToArrow from '$parts/ToArrow.svelte';
  import Tone from '$parts/Tone.svelte';
  import { distance, mhz } from '$lib/format';
  import type { Match, Reading } from '$lib/api/client';

  /** The published records on the output that is being typed. */
  let { reading }: { reading: Reading } = $props();
  const shown = 4;
  const heading = $derived(
    reading.channel.receive_hz === 0
      ? 'published under this name, nearest first'
      : `published on ${mhz(reading.channel.receive_hz)}, likeliest first`,
  );
  let all = $state(false);

  /** Listings that say the same of one repeater share a row. */
  const groups = $derived.by(() => {
    const out: { first: Match; listings: string[] }[] = [];
    for (const m of reading.matches) {
      const same = out.find(
        ({ first: f }) =>
          f.repeater === m.repeater &&
          f.output_hz === m.output_hz &&
          f.input_hz === m.input_hz &&
          f.uplink_tone === m.uplink_tone &&
          f.downlink_tone === m.downlink_tone,
      );
      const listing = `${m.source}, ${m.updated}`;
      if (same) same.listings.push(listing);
      else out.push({ first: m, listings: [listing] });
    }
    return out;
  });
  const list = $derived(all ? groups : groups.slice(0, shown));
  const differs = (m: Match, field: string) => m.differences.some((d) => d.field === field);
</script>

{#snippet ne()}
  <svg class="inline-block text-conflict" width="11" height="11" viewBox="0 0 12 12" role="img" aria-label="differs">
    <path d="M1.5,4.2H10.5M1.5,7.8H10.5M8.6,1L3.4,11" fill="none" stroke="currentColor" stroke-width="1.4" />
  </svg>
{/snippet}

{#snippet stated(tone: string | null, hot: boolean, open: string)}
  {#if tone === null}<span class="text-label text-ink3">unknown</span>
  {:else if tone === 'none'}<span class="text-label" class:text-ink3={!hot} class:text-conflict={hot}>{open}</span>
  {:else}<Tone text={tone} {hot} quiet={!hot} pad />{/if}
{/snippet}

{#if reading.matches.length > 0}
  <div class="pub" role="table" aria-label={heading}>
    <div class="row head text-label text-ink2" role="row">
      <span role="columnheader" class="title">{heading}</span>
      <span role="columnheader">away</span>
      <span role="columnheader">bearing</span>
      <span role="columnheader" class="text-right">listed</span>
    </div>
    {#each list as { first: m, listings }, nth (nth)}
      <div class="row match border-t border-rule" role="row">
        <span role="cell" class="name truncate" class:font-strong={m.meant} title={listings.join('; ')}
          >{m.locality || m.callsign}</span
        >
        <span role="cell" class="call font-figs text-[12px] text-ink3">{m.callsign}</span>
        <span role="cell" class="rx">
          {#if differs(m, 'receive')}{@render ne()}{/if}<Frequency hz={m.output_hz} same={!differs(m, 'receive')} />
        </span>
        <span role="cell" class="sh" class:text-conflict={differs(m, 'shift')} class:text-ink3={!differs(m, 'shift')}>
          {#if m.input_hz === null}<span class="text-label">unknown</span>
          {:else if m.input_hz === m.output_hz}<span class="text-label">simplex</span>
          {:else}<Frequency hz={m.input_hz - m.output_hz} signed />{/if}
        </span>
        <span role="cell" class="tx">
          {#if m.input_hz !== null}<Frequency hz={m.input_hz} same={!differs(m, 'transmit')} />{/if}
        </span>
        <span role="cell" class="t">
          <span class="to">
            {#if differs(m, 'transmit_tone')}<span class="mr-1 -ml-[15px]">{@render ne()}</span>{/if}{@render stated(
              m.uplink_tone,
              differs(m, 'transmit_tone'),
              'no tone',
            )}
          </span>
          <span class="arr"><ToArrow /></span>
          <span>{@render stated(m.downlink_tone, differs(m, 'receive_tone'), 'no tone')}</span>
        </span>
        <span role="cell" class="km text-small text-ink2"
          >{m.distance_km === null ? 'unknown' : distance(m.distance_km)}</span
        >
        <span role="cell" class="brg text-small text-ink2"
          >{#if m.bearing_deg !== null}<Needle degrees={m.bearing_deg} />{/if}</span
        >
        <span role="cell" class="age text-right text-small text-ink2" title={listings.join('; ')}
          ><span class="max-desk:hidden">{m.age === 'undated' ? m.age : `${m.age} ago`}</span><span class="desk:hidden"
            >{m.age}</span
          ></span
        >
      </div>
    {/each}
    {#if groups.length > shown}
      <button type="button" class="link ml-10 py-1 max-desk:ml-0" onclick={() => (all = !all)}>
        {all ? 'the likeliest only' : `${String(groups.length - shown)} more`}
      </button>
    {/if}
  </div>
{/if}

<style>
  .row {
    display: grid;
    grid-template-columns: 40px 106fr 58fr 86fr 64fr 88fr 166fr 58fr 50fr 92fr;
    align-items: baseline;
    min-height: 24px;
    line-height: 22px;
  }
  .row > * {
    min-width: 0;
    white-space: nowrap;
  }
  .head {
    min-height: 20px;
    line-height: 20px;
  }
  .title {
    grid-column: 1 / 8;
    padding-left: 40px;
  }
  .name {
    grid-column: 2;
    padding-right: 6px;
  }
  .rx,
  .sh,
  .tx {
    font-size: var(--t-fig);
  }
  .t {
    display: flex;
    align-items: baseline;
  }
  .to {
    width: 62px;
  }
  @media (max-width: 45em) {
    .head,
    .call,
    .rx,
    .sh,
    .tx,
    .t > :not(.to) {
      display: none;
    }
    .row.match {
      min-height: 34px;
      grid-template-columns: minmax(0, 1fr) 84px 62px 54px 66px;
      line-height: 33px;
    }
    .name {
      grid-column: 1;
    }
    .to {
      width: auto;
      padding-left: 15px;
    }
  }
</style>
