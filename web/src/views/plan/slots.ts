import type { Command } from '$session/commands.svelte';
import { editText } from './columns';
import type { Cells } from './cells.svelte';
import type { PlanState } from './plan.svelte';

interface Acts {
  plan: PlanState;
  cells: Cells;
  /** The slots as they are shown. */
  shown: () => readonly number[];
  /** How many rows a page has. */
  page: () => number;
  /** Asks where what is chosen is to go. */
  whither: () => void;
}

/** The commands of the slots. Their keys act while the slots have the focus; the list of all commands has them too. */
export function slotCommands({ plan, cells, shown, page, whither }: Acts): Command[] {
  const { several } = plan;
  const hidden = (id: string, says: string, keys: string[], run: () => void): Command => ({
    id,
    says,
    scope: 'In the slots',
    keys,
    listed: false,
    run,
  });
  const act = (
    id: string,
    says: string,
    keys: string[],
    run: () => unknown,
    can = () => several.held.length > 0,
  ): Command => ({
    id,
    says,
    scope: 'In the slots',
    keys,
    can,
    run: () => void run(),
  });
  const both = (id: string, says: string, key: string, by: () => number): Command[] => [
    hidden(id, says, [key], () => {
      cells.step(by());
    }),
    hidden(`${id}-too`, `${says}, and choose all on the way`, [`Shift+${key}`], () => {
      cells.step(by(), true);
    }),
  ];
  const all = 100_000;
  const movable = () => several.held.length > 0 && several.movable;
  const fill = () => {
    const first = plan.ledger?.rows.find((r) => r.slot === several.held[0]);
    const { at } = cells;
    if (!first || typeof at === 'number') return;
    if (at === 'slot' || at === 'name' || at === 'short_name')
      plan.trouble = 'Slot and name are those of one channel. Go to another column to fill it down.';
    else void several.fill(at, editText(first, at));
  };
  return [
    ...both('slot-down', 'Next slot', 'ArrowDown', () => 1),
    ...both('slot-up', 'Previous slot', 'ArrowUp', () => -1),
    ...both('slot-page-down', 'A page down', 'PageDown', page),
    ...both('slot-page-up', 'A page up', 'PageUp', () => -page()),
    hidden('slot-right', 'Next cell', ['ArrowRight'], () => {
      cells.across(1);
    }),
    hidden('slot-left', 'Previous cell', ['ArrowLeft'], () => {
      cells.across(-1);
    }),
    hidden('slot-row-start', 'First cell', ['Home', '$mod+ArrowLeft'], () => {
      cells.across(-all);
    }),
    hidden('slot-row-end', 'Last cell', ['End', '$mod+ArrowRight'], () => {
      cells.across(all);
    }),
    hidden('slot-first', 'First slot', ['$mod+Home'], () => {
      cells.step(-all);
    }),
    hidden('slot-last', 'Last slot', ['$mod+End'], () => {
      cells.step(all);
    }),
    hidden('slot-first-too', 'Choose all up to the first slot', ['$mod+Shift+Home'], () => {
      cells.step(-all, true);
    }),
    hidden('slot-last-too', 'Choose all down to the last slot', ['$mod+Shift+End'], () => {
      cells.step(all, true);
    }),
    hidden('slot-leap-down', 'Down to the next gap or channel', ['$mod+ArrowDown'], () => {
      cells.leap(1);
    }),
    hidden('slot-leap-up', 'Up to the next gap or channel', ['$mod+ArrowUp'], () => {
      cells.leap(-1);
    }),
    hidden(
      'slot-enter',
      'Edit the cell; write into an empty slot; add to the radio of the column',
      ['Enter', 'F2'],
      () => {
        cells.enter();
      },
    ),
    hidden('slot-take', 'Take the slot into the choice, or out of it', [' '], () => {
      if (plan.selected !== null) several.toggle(plan.selected);
    }),
    hidden('slot-none', 'Choose nothing', ['Escape'], () => {
      several.clear();
      several.cut = null;
    }),
    act(
      'slot-all',
      'Choose all slots',
      ['$mod+a'],
      () => {
        several.all(shown());
      },
      () => true,
    ),
    act('slot-copy', 'Copy channels', ['$mod+c'], () => several.copy()),
    act('slot-cut', 'Cut channels', ['$mod+x'], () => several.copy(true)),
    act(
      'slot-paste',
      'Paste channels into empty slots',
      ['$mod+v'],
      () => fromClipboard(plan, false),
      () => true,
    ),
    act(
      'slot-paste-over',
      'Paste channels over what is there',
      ['$mod+Shift+v'],
      () => fromClipboard(plan, true),
      () => true,
    ),
    act('slot-fill', 'Fill the column down', ['$mod+d'], fill),
    act('slot-duplicate', 'Duplicate', ['$mod+Shift+d'], () => several.duplicate()),
    act('slot-empty', 'Empty the slots', ['Delete'], () => several.remove()),
    act('slot-move-up', 'Move up', ['Alt+ArrowUp'], () => several.step(-1), movable),
    act('slot-move-down', 'Move down', ['Alt+ArrowDown'], () => several.step(1), movable),
    act('slot-move', 'Move to a slot…', ['Alt+KeyM'], whither, movable),
    act(
      'slot-swap',
      'Swap the two that are chosen',
      ['Alt+KeyX'],
      () => several.swap(),
      () => several.slots.size === 2 && several.movable,
    ),
    act(
      'slot-insert',
      'Make room here: an empty slot',
      ['Insert'],
      () => several.arrange('insert', { slots: [], to: plan.selected ?? 0, count: 1 }),
      () => plan.selected !== null && several.movable,
    ),
    act(
      'slot-close',
      'Close gaps, of what is chosen or of all',
      [],
      () => several.arrange('close', { slots: several.slots.size > 1 ? [...several.slots] : [] }),
      () => several.movable,
    ),
    act(
      'slot-align',
      "Move to the team's slots",
      [],
      () => several.arrange('align', { slots: [] }),
      () => true,
    ),
    act(
      'slot-order',
      'Keep the sorted view as the new order',
      [],
      () => keepOrder(plan, shown()),
      () => plan.sort !== null,
    ),
    act(
      'slot-names',
      'Work short names out again',
      [],
      () => several.rename(),
      () => true,
    ),
    ...(['planned', 'stored', 'keyed', 'proven'] as const).map((state) =>
      act(`slot-${state}`, `Mark as ${state} in the radio`, [], () => several.stand(state)),
    ),
    act('slot-pin', 'Pin the short name, or unpin it', ['Alt+KeyP'], () => {
      const row = plan.ledger?.rows.find((r) => r.slot === plan.selected);
      if (row) return plan.update(row.slot, { pinned: !row.pinned });
    }),
  ];
}

/** Puts the channels into the order in which they are shown. */
export async function keepOrder(plan: PlanState, shown: readonly number[]): Promise<void> {
  if (await plan.several.arrange('order', { slots: [...shown] })) plan.sort = null;
}

async function fromClipboard(plan: PlanState, over: boolean): Promise<void> {
  try {
    await plan.several.paste(await navigator.clipboard.readText(), over);
  } catch {
    plan.trouble = 'The browser does not let this page read the clipboard. Go to the slots and press Ctrl+V.';
  }
}
