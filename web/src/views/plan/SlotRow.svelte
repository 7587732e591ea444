<script lang="ts">
  import Action from '$parts/Action.svelte';
  import Evidence from '$parts/Evidence.svelte';
  import Frequency from '$parts/Frequency.svelte';
  import ToArrow from '$parts/ToArrow.svelte';
  import Tone from '$parts/Tone.svelte';
  import type { Row } from '$lib/api/client';
  import { watts } from '$lib/format';
  import CellEditor from './CellEditor.svelte';
  import { editText, type Column } from './columns';

  interface Props {
    row: Row;
    /** The row shows the line being typed rather than a stored channel. */
    draft?: boolean;
    selected?: boolean;
    /** The cell that the arrow keys have reached, and whether it is edited. */
    active?: Column | undefined;
    editing?: boolean;
    save: (column: Column, text: string) => Promise<string | undefined>;
    done: (direction: -1 | 0 | 1) => void;
    fix: () => void;
  }
  let { row, draft = false, selected = false, active, editing = false, save, done, fix }: Props = $props();
  const c = $derived(row.channel);
  const flag = (field: string) => row.flags[field];
  const fifth = $derived(row.slot % 5 === 0);
</script>

{#snippet cell(column: Column)}
  {#if editing && active === column}
    <CellEditor {column} slot={row.slot} text={editText(row, column)} save={(t) => save(column, t)} {done} />
  {:else if column === 'slot'}{row.slot}
  {:else if column === 'name'}{c.name}
  {:else if column === 'short_name'}{row.short_name}
  {:else if column === 'receive'}<Frequency hz={c.receive_hz} pad={3} />
  {:else if column === 'shift'}
    {#if c.transmit.kind === 'none'}<span class="sr-only">none</span>
    {:else if c.transmit_hz === c.receive_hz}<span class="text-label text-ink3">simplex</span>
    {:else}<Frequency hz={(c.transmit_hz ?? 0) - c.receive_hz} signed />{/if}
  {:else if column === 'transmit_tone'}
    {#if c.transmit_hz === null}<span class="sr-only">none</span>
    {:else if c.transmit_tone}<Tone text={c.transmit_tone} hot={flag('transmit_tone') !== undefined} pad />
    {:else}<span class="text-label {flag('transmit_tone') ? 'font-strong text-conflict' : 'text-ink3'}">no tone</span
      >{/if}
  {:else if column === 'receive_tone'}
    {#if c.receive_tone}<Tone text={c.receive_tone} hot={flag('receive_tone') !== undefined} pad />
    {:else}<span class="text-label text-ink3">open</span>{/if}
  {:else if column === 'power'}
    {#if row.watts !== null}<span class:text-ink2={c.power === 'high' && !draft}>{watts(row.watts)}</span>{/if}
  {:else}<span class:text-ink2={row.scan === 'yes' && !draft}>{row.scan}</span>{/if}
{/snippet}

<!-- The grid that holds the rows handles keys and clicks for all of them. -->
{#snippet box(column: Column, classes: string)}
  <span
    role="gridcell"
    tabindex="-1"
    class="{classes} {active === column && !editing ? 'shadow-[0_2px_0_var(--accent)]' : ''}"
    data-column={column}>{@render cell(column)}</span
  >
{/snippet}

<div
  role="row"
  id="slot-{row.slot}"
  tabindex={selected ? 0 : -1}
  aria-selected={selected}
  aria-label={draft ? `slot ${String(row.slot)}, being written` : undefined}
  class="row"
  class:selected
  class:draft
  class:fifth
>
  {@render box('slot', 'n font-figs')}
  {@render box('name', 'name truncate pr-1.5')}
  {@render box('short_name', 'short font-figs')}
  {@render box('receive', 'rx')}
  {@render box('shift', flag('shift') === 'stop' ? 'sh text-stop' : flag('shift') ? 'sh text-conflict' : 'sh')}
  <span role="gridcell" class="tx" class:text-stop={flag('transmit') === 'stop'}>
    {#if c.transmit_hz === null}<span class="text-label text-ink3">blocked</span>
    {:else}<Frequency hz={c.transmit_hz} same={c.transmit_hz === c.receive_hz} pad={3} />{/if}
  </span>
  {@render box('transmit_tone', 'out')}
  <span role="gridcell" class="arrow"
    >{#if c.transmit_hz !== null && (c.transmit_tone ?? c.receive_tone)}<ToArrow />{/if}</span
  >
  {@render box('receive_tone', c.transmit_hz !== null && (c.transmit_tone ?? c.receive_tone) ? 'in' : 'in invisible')}
  {@render box('power', 'pw text-small')}
  {@render box('scan', 'sc text-small')}
  <span role="gridcell" class="ev text-small"><Evidence kind={draft ? 'writing' : row.verdict} /></span>
</div>
{#if selected && row.top?.fixes[0] && !draft}
  <div class="phone-fix" role="row">
    <span role="gridcell" class="flex items-center justify-between gap-3">
      <a href="#evidence" class="underline underline-offset-3">{row.top.title}</a>
      <Action key="." fix="idle" onclick={fix}>{row.top.fixes[0].label}</Action>
    </span>
  </div>
{/if}

<style>
  .row {
    display: grid;
    grid-template-columns: 40px 106fr 58fr 86fr 64fr 88fr 62px 28px 76fr 44fr 58fr 98fr;
    align-items: baseline;
    height: var(--row);
    line-height: 22px;
    border-top: 1px solid transparent;
    border-bottom: 1px solid transparent;
    position: relative;
    scroll-margin: 40px 0;
  }
  .row > * {
    min-width: 0;
    white-space: nowrap;
    outline: 0;
  }
  .row:hover:not(.selected, .draft) {
    background: var(--hover);
  }
  .fifth:not(.selected, .draft) {
    border-bottom-color: var(--rule);
  }
  .n {
    color: var(--ink2);
    padding-left: 4px;
  }
  .short {
    font-size: 12px;
    color: var(--ink3);
  }
  .rx,
  .sh,
  .tx {
    font-size: var(--t-fig);
  }
  .selected,
  .draft {
    margin-left: -10px;
    padding-left: 10px;
  }
  .selected::before,
  .draft::before {
    content: '';
    position: absolute;
    left: 0;
    top: -1px;
    bottom: -1px;
    width: 4px;
    background: var(--ink);
  }
  .selected {
    background: var(--sheet);
    border-color: var(--rule2);
  }
  /* joined to the evidence panel: same ground, open edge */
  .selected::after {
    content: '';
    position: absolute;
    left: calc(100% - 1px);
    width: 14px;
    top: -1px;
    bottom: -1px;
    background: var(--sheet);
    border: solid var(--rule2);
    border-width: 1px 0;
    z-index: 2;
  }
  .selected .name {
    font-weight: var(--w-strong);
  }
  .row:focus-visible {
    outline: 2px solid var(--accent);
    outline-offset: -2px;
  }
  .selected:focus::before,
  .selected:focus-within::before,
  .draft::before {
    background: var(--accent);
  }
  .draft {
    background: var(--water);
    color: var(--accent);
  }
  .draft .n,
  .draft .short {
    color: var(--accent);
  }
  .phone-fix {
    display: none;
  }
  @media (min-width: 721px) and (max-width: 1270px) {
    .selected::after {
      display: none;
    }
  }
  @media (max-width: 720px) {
    .row {
      height: var(--row-touch);
      grid-template-columns: 32px 84px 74px 1fr auto auto;
      grid-template-rows: 22px 22px;
      align-content: center;
      grid-template-areas: 'n name name short ev ev' 'n rx sh out arrow in';
      border-top: 0;
      border-bottom: 1px solid var(--rule);
      column-gap: 2px;
    }
    .n {
      grid-area: n;
      padding: 0;
    }
    .name {
      grid-area: name;
    }
    .short {
      grid-area: short;
      padding-left: 6px;
    }
    .ev {
      grid-area: ev;
      justify-self: end;
    }
    .rx {
      grid-area: rx;
      font-size: 16px;
    }
    .sh {
      grid-area: sh;
    }
    .out {
      grid-area: out;
      justify-self: end;
    }
    .arrow {
      grid-area: arrow;
    }
    .in {
      grid-area: in;
    }
    .tx,
    .pw,
    .sc {
      display: none;
    }
    .selected,
    .draft {
      margin: 0 calc(-1 * var(--margin));
      padding: 0 var(--margin);
    }
    .selected::after {
      display: none;
    }
    .phone-fix {
      display: block;
      background: var(--sheet);
      border-bottom: 1px solid var(--rule2);
      margin: 0 calc(-1 * var(--margin));
      padding: 8px var(--margin) 8px 48px;
      line-height: 1.25;
    }
  }
</style>
