<script lang="ts">
  import type { Snippet } from 'svelte';
  import Evidence from '$parts/Evidence.svelte';
  import Frequency from '$parts/Frequency.svelte';
  import StandingBars from '$parts/StandingBars.svelte';
  import ToArrow from '$parts/ToArrow.svelte';
  import Tone from '$parts/Tone.svelte';
  import type { Holding, LoadInfo, Row, SetInfo } from '$lib/api/client';
  import { watts } from '$lib/format';
  import Beside from './Beside.svelte';
  import CellEditor from './CellEditor.svelte';
  import { editText, type Column } from './columns';
  import type { Typed } from './plan.svelte';
  import TypedCell from './TypedCell.svelte';

  interface InSet {
    set: SetInfo;
    priority: boolean;
  }

  interface Props {
    row: Row;
    /** Its place among all rows, counted with the heading. */
    index: number;
    /** The row shows the line being typed rather than a stored channel. */
    draft?: boolean;
    selected?: boolean;
    focused?: boolean;
    /** It is one of several that are chosen, or was cut. */
    among?: boolean;
    cut?: boolean;
    /** The cell that the arrow keys have reached, and whether it is edited. */
    active?: Column | number | undefined;
    editing?: boolean;
    /** What a key began the cell with. */
    begun?: string | undefined;
    others: readonly LoadInfo[];
    held: readonly Holding[];
    sets: readonly InSet[];
    /** What may be written into a cell instead, by what is published and by the display. */
    offers: (column: Column) => Promise<string[]>;
    typed: (column: Column) => Typed | undefined;
    theirs: (t: Typed) => void;
    mine: (t: Typed) => void;
    save: (column: Column, text: string) => Promise<string | undefined>;
    done: (direction: -1 | 0 | 1 | 'down') => void;
    beside: (load: number) => void;
    /** What is shown below it, on a phone, and how high that is. */
    opened?: Snippet | undefined;
    high: number;
  }
  let {
    row,
    index,
    draft = false,
    selected = false,
    focused = false,
    among = false,
    cut = false,
    active,
    editing = false,
    begun,
    others,
    held,
    sets,
    offers,
    typed,
    theirs,
    mine,
    save,
    done,
    beside,
    opened,
    high = $bindable(),
  }: Props = $props();
  const c = $derived(row.channel);
  const flag = (field: string) => row.flags[field];
  const fifth = $derived(row.slot % 5 === 0);
  const alone = $derived(others.length === 0);
  /** It has come into the radio, or had. */
  const marked = $derived(row.standing.now !== 'planned' || row.standing.was !== '');
</script>

{#snippet value(column: Column)}
  {#if column === 'slot'}{row.slot}
  {:else if column === 'name'}<span class="max-w-full truncate" class:shrink-0={!marked}>{c.name}</span
    >{#if c.bandwidth === 'narrow'}<span class="ml-1.5 flex-none text-note text-ink3">narrow</span
      >{/if}{#if sets.length > 0}<span class="ml-1.5 min-w-0 truncate text-note text-ink3"
        >{sets.map((s) => (s.priority ? `${s.set.name}, priority` : s.set.name)).join(' · ')}</span
      >{/if}{#if marked}<span class="ml-auto flex-none self-center pl-1.5"
        ><StandingBars now={row.standing.now} was={row.standing.was} /></span
      >{/if}
  {:else if column === 'short_name'}{row.short_name}{#if row.pinned}<span class="text-ink2" aria-hidden="true">·</span
      ><span class="sr-only">, pinned</span>{/if}
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
  {@const unsaved = draft ? undefined : typed(column)}
  <span
    role="gridcell"
    id="cell-{row.slot}-{column}"
    class="{classes} {active === column && !editing ? 'shadow-[0_2px_0_var(--accent)]' : ''}"
    data-column={column}
  >
    {#if editing && active === column}
      <CellEditor
        {column}
        slot={row.slot}
        text={editText(row, column)}
        begun={begun ?? unsaved?.text}
        typed={begun !== undefined}
        offers={() => offers(column)}
        save={(t) => save(column, t)}
        {done}
      />
    {:else if unsaved}<TypedCell
        typed={unsaved}
        theirs={() => {
          theirs(unsaved);
        }}
        mine={() => {
          mine(unsaved);
        }}>{@render value(column)}</TypedCell
      >
    {:else}{@render value(column)}{/if}
  </span>
{/snippet}

<div
  role="row"
  id="slot-{row.slot}"
  aria-rowindex={index}
  aria-selected={selected || among}
  aria-label={draft ? `slot ${String(row.slot)}, being written` : undefined}
  class="row"
  class:selected={selected && !among}
  class:among
  class:cut
  class:at={focused}
  class:draft
  class:fifth
>
  {@render box('slot', 'n font-figs')}
  {@render box('name', 'name flex items-baseline pr-1.5')}
  {#if alone}{@render box('short_name', 'short font-figs')}{/if}
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
  {#if alone}
    {@render box('power', 'pw text-small')}
    {@render box('scan', 'sc text-small')}
  {/if}
  <span role="gridcell" class="ev text-small"><Evidence kind={draft ? 'writing' : row.verdict} /></span>
  {#each others as l (l.id)}
    <span
      role="gridcell"
      id="cell-{row.slot}-other-{l.id}"
      data-column={l.id}
      class="other text-right font-figs text-small {active === l.id ? 'shadow-[0_2px_0_var(--accent)]' : ''}"
      >{#if !draft}<Beside
          held={held.find((h) => h.load === l.id)}
          slot={row.slot}
          name={l.unit.name}
          act={() => {
            beside(l.id);
          }}
        />{/if}</span
    >
  {/each}
</div>
{#if opened}<div class="opened" role="row" bind:clientHeight={high}>
    <div role="gridcell">{@render opened()}</div>
  </div>{/if}

<style>
  .row {
    display: grid;
    grid-template-columns: var(--grid);
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
    cursor: grab;
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
  .among {
    background: var(--hover);
  }
  .among::before {
    content: '';
    position: absolute;
    left: -10px;
    top: -1px;
    bottom: -1px;
    width: 4px;
    background: var(--ink3);
  }
  .cut > * {
    opacity: 0.55;
  }
  .at {
    outline: 2px solid var(--accent);
    outline-offset: -2px;
  }
  .at::before,
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
  .opened {
    background: var(--sheet);
    border-bottom: var(--line);
    margin: 0 calc(-1 * var(--margin));
    padding: 8px var(--margin) 4px;
  }
  @media (min-width: 45.0625em) and (max-width: 79.375em) {
    .selected::after {
      display: none;
    }
  }
  @media (max-width: 45em) {
    .row {
      height: var(--row-touch);
      grid-template-columns: 32px 82px 62px 82px 1fr auto;
      grid-template-rows: 22px 22px;
      align-content: center;
      grid-template-areas: 'n name name name ev ev' 'n rx sh tx out out';
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
    .tx {
      grid-area: tx;
    }
    .short,
    .arrow,
    .in,
    .pw,
    .sc,
    .other {
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
  }
</style>
