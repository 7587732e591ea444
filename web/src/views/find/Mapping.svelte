<script lang="ts">
  import Select from '$parts/Select.svelte';
  import Wide from '$parts/Wide.svelte';
  import type { ImportPreview } from '$lib/api/client';
  import { mhz, toneText } from '$lib/format';
  import type { BringState } from './bring.svelte';
  import Viewpoint from './Viewpoint.svelte';

  let { bring, preview }: { bring: BringState; preview: ImportPreview } = $props();

  const names: Record<string, string> = {
    '': 'ignore this column',
    output: 'output frequency',
    input: 'input frequency',
    shift: 'shift',
    size: 'size of the shift',
    uplink_tone: 'uplink tone (you send it)',
    downlink_tone: 'downlink tone (it sends it)',
    callsign: 'callsign',
    locality: 'place',
    latitude: 'latitude',
    longitude: 'longitude',
    position: 'position or locator',
    height: 'height of the aerial',
    mode: 'mode',
    width: 'width',
    status: 'status',
    access: 'access',
    updated: 'date',
    note: 'note',
    key: 'number in the listing',
  };
  const measured = ['output', 'input', 'shift', 'size'];
  const tone = (t: string | null | undefined) => (t == null ? '' : t === 'none' ? 'none' : toneText(t));
</script>

<div class="my-3 flex flex-wrap items-center gap-x-5 gap-y-2">
  <label class="flex items-center gap-2"
    ><span class="text-ink2">name of the listing</span>
    <input
      bind:value={bring.source}
      class="h-[30px] w-[220px] rounded-[2px] border bg-sheet px-2 max-desk:h-11 {bring.faults.source
        ? 'border-stop'
        : 'border-rule2'}"
      aria-invalid={bring.faults.source !== undefined}
    /></label
  >
  <span class="text-ink2"
    >{preview.file}: {preview.info.format}{preview.info.sheet ? `, sheet ${preview.info.sheet}` : ''}{preview.info
      .encoding
      ? `, ${preview.info.encoding}`
      : ''}{preview.info.delimiter
      ? `, ${{ '\t': 'tab', ';': 'semicolon', ',': 'comma' }[preview.info.delimiter] ?? preview.info.delimiter}-separated`
      : ''}</span
  >
  {#if preview.info.format === 'text' || preview.prose}
    <label class="flex items-center gap-1.5"
      ><input
        type="checkbox"
        checked={preview.prose}
        onchange={(e) => {
          preview.prose = e.currentTarget.checked;
          void bring.look();
        }}
      />each line is read as words</label
    >
  {/if}
  {#if preview.remembered}<span class="text-ink2">Read as the last time.</span>{/if}
</div>
<p role="status">
  Of the first {preview.good + preview.bad} rows <b class="font-strong">{preview.good}</b> can be read{#if preview.bad > 0},
    <b class="font-strong text-stop">{preview.bad}</b> cannot: they are shown with what is wrong{/if}{#if preview.channels > 0};
    <b class="font-strong">{preview.channels}</b>
    {preview.channels === 1 ? 'is a channel' : 'are channels'} to use, not {preview.channels === 1
      ? 'a repeater'
      : 'repeaters'}{/if}.{#if preview.aside > 0}<span class="ml-1"
      >{preview.aside === 1 ? 'One more is' : `${String(preview.aside)} more are`} set aside: notes, totals or headings.</span
    >{/if}
</p>
{#if !preview.prose && preview.view.sentence}<Viewpoint {bring} view={preview.view} />{/if}
{#if !preview.prose}
  <Wide label="Columns">
    <table class="text-left">
      <thead class="border-b border-bold align-bottom">
        <tr>
          <th class="sticky left-0 z-10 bg-paper pr-2 text-label font-normal text-ink2">line</th>
          {#each preview.columns as c, i (i)}
            <th class="min-w-[128px] pr-3 pb-1 font-normal">
              <span class="block truncate font-strong">{c.heading || `column ${String(i + 1)}`}</span>
              <Select
                label="{c.heading || `column ${String(i + 1)}`} is"
                options={preview.roles.map((r) => ({ value: r, label: names[r] ?? r }))}
                bind:value={
                  () => c.role,
                  (v) => {
                    c.role = v;
                    c.side = ''; // said by hand, it no longer turns with the others
                    void bring.look();
                  }
                }
              />
              {#if measured.includes(c.role)}
                <Select
                  label="unit of {c.heading || `column ${String(i + 1)}`}"
                  options={['MHz', 'kHz', 'Hz'].map((u) => ({ value: u, label: u }))}
                  bind:value={
                    () => c.unit || 'MHz',
                    (v) => {
                      c.unit = v;
                      void bring.look();
                    }
                  }
                />
              {:else if c.role === 'updated'}
                <Select
                  label="order of {c.heading || `column ${String(i + 1)}`}"
                  options={[
                    { value: 'dmy', label: 'day month year' },
                    { value: 'mdy', label: 'month day year' },
                    { value: 'ymd', label: 'year month day' },
                  ]}
                  bind:value={
                    () => c.order || 'dmy',
                    (v) => {
                      c.order = v;
                      void bring.look();
                    }
                  }
                />
              {/if}
            </th>
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each preview.rows as r (r.line)}
          <tr
            class="align-baseline {r.faults.length > 0 || r.aside ? '' : 'border-b border-rule'} {r.aside
              ? 'text-ink3'
              : ''}"
          >
            <td class="sticky left-0 z-10 bg-paper pr-2 font-figs text-label text-ink2">{r.line}</td>
            {#each preview.columns as c, i (i)}
              <td
                class="max-w-[220px] truncate pr-3 text-small {c.role ? '' : 'text-ink3'} {r.faults.some(
                  (f) => f.column === i,
                )
                  ? 'font-strong text-stop'
                  : ''}">{r.cells[i] ?? ''}</td
              >
            {/each}
          </tr>
          {#if r.aside}
            <tr class="border-b border-rule"
              ><td></td><td colspan={preview.columns.length} class="pb-1 text-label text-ink2"
                ><span class="why">set aside: {r.aside}</span></td
              ></tr
            >
          {/if}
          {#if r.faults.length > 0}
            <tr class="border-b border-rule"
              ><td></td><td colspan={preview.columns.length} class="pb-1 text-label text-stop"
                ><span class="why">{r.faults.map((f) => f.message).join('; ')}</span></td
              ></tr
            >
          {/if}
        {/each}
      </tbody>
    </table>
  </Wide>
{/if}
<h3 class="mt-4 border-b border-bold font-strong">As understood</h3>
<Wide label="Rows as understood">
  <table class="w-full text-left">
    <thead class="text-label text-ink2">
      <tr>
        {#each ['line', 'output', 'input', 'uplink tone', 'downlink tone', 'callsign', 'place', 'position', 'mode', 'access', 'date'] as h (h)}<th
            class="pr-3 font-normal">{h}</th
          >{/each}
      </tr>
    </thead>
    <tbody>
      {#each preview.rows.filter((x) => !x.aside) as r (r.line)}
        <tr class="border-b border-rule align-baseline text-small">
          <td class="sticky left-0 z-10 bg-paper pr-2 font-figs text-label text-ink2">{r.line}</td>
          {#if r.record}
            {@const x = r.record}
            <td class="pr-3 font-figs">{mhz(x.output_hz)}</td>
            <td class="pr-3 font-figs"
              >{#if x.kind}<span class="font-text text-ink2"
                  >{x.kind === 'listen' ? 'listen only' : 'simplex channel'}</span
                >{:else}{x.input_hz ? mhz(x.input_hz) : ''}{/if}</td
            >
            <td class="pr-3">{tone(x.uplink_tone)}</td>
            <td class="pr-3">{tone(x.downlink_tone)}</td>
            <td class="pr-3 font-figs">{x.callsign}</td>
            <td class="max-w-[200px] truncate pr-3">{x.locality}</td>
            <td class="pr-3 font-figs"
              >{x.lat == null || x.lon == null ? '' : `${x.lat.toFixed(3)}, ${x.lon.toFixed(3)}`}</td
            >
            <td class="pr-3">{x.mode}</td>
            <td class="pr-3">{x.access}</td>
            <td class="pr-3 font-figs">{x.updated ?? ''}</td>
          {:else}
            <td colspan="10" class="text-label text-stop"
              ><span class="why">{preview.prose ? r.cells.join(' ') : ''} {r.faults[0]?.message ?? ''}</span></td
            >
          {/if}
        </tr>
      {/each}
    </tbody>
  </table>
</Wide>

<style>
  /* A reason is read whole on a phone too, while its table scrolls. */
  .why {
    position: sticky;
    left: 2rem;
    display: inline-block;
    max-width: min(44rem, calc(100vw - 6rem));
  }
</style>
