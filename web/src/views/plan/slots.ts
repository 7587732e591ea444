import type { Command } from '$session/commands.svelte';

interface Acts {
  step: (by: number) => void;
  /** How many rows a page has. */
  page: () => number;
  across: (by: -1 | 1) => void;
  enter: () => void;
  remove: () => void;
  move: (by: -1 | 1) => void;
}

/** The keys of the slots, while they have the focus. */
export function slotCommands({ step, page, across, enter, remove, move }: Acts): Command[] {
  const of = (id: string, says: string, keys: string[], run: () => void): Command => ({
    id,
    says,
    scope: 'In the slots',
    keys,
    listed: false,
    run,
  });
  const all = 100_000;
  return [
    of('slot-down', 'Next slot', ['ArrowDown'], () => {
      step(1);
    }),
    of('slot-up', 'Previous slot', ['ArrowUp'], () => {
      step(-1);
    }),
    of('slot-right', 'Next cell', ['ArrowRight'], () => {
      across(1);
    }),
    of('slot-left', 'Previous cell', ['ArrowLeft'], () => {
      across(-1);
    }),
    of('slot-page-down', 'A page down', ['PageDown'], () => {
      step(page());
    }),
    of('slot-page-up', 'A page up', ['PageUp'], () => {
      step(-page());
    }),
    of('slot-first', 'First slot', ['Home', '$mod+Home'], () => {
      step(-all);
    }),
    of('slot-last', 'Last slot', ['End', '$mod+End'], () => {
      step(all);
    }),
    of('slot-enter', 'Edit the cell; write into an empty slot; add to the radio of the column', ['Enter', 'F2'], enter),
    of('slot-empty', 'Empty the slot', ['Delete'], remove),
    of('slot-move-up', 'Move the channel up', ['Alt+ArrowUp'], () => {
      move(-1);
    }),
    of('slot-move-down', 'Move the channel down', ['Alt+ArrowDown'], () => {
      move(1);
    }),
  ];
}
