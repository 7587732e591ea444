import type { Command } from '$session/commands.svelte';
import { field } from '$session/commands.svelte';
import type { PlanState, SideView } from './plan.svelte';

interface Acts {
  plan: PlanState;
  line: () => void;
  fix: () => void;
  fixes: () => void;
  store: (replace: boolean) => void;
  sheet: () => void;
}

/** The commands of Plan, but for those of the slots. */
export function commandsOf({ plan, line, fix, fixes, store, sheet }: Acts): Command[] {
  const keys: Record<SideView, string[]> = { channel: [], work: ['Alt+KeyW'], sets: [], history: ['Alt+KeyH'] };
  const side = (view: SideView, says: string): Command => ({
    id: `side-${view}`,
    says,
    scope: 'Plan',
    keys: keys[view],
    writing: true,
    run: () => {
      plan.side = plan.side === view ? 'channel' : view;
    },
  });
  return [
    { id: 'line', says: 'Write on the line', scope: 'Plan', keys: ['/'], run: line },
    {
      id: 'seek',
      says: 'Find in the plan',
      scope: 'Plan',
      keys: ['$mod+f'],
      writing: true,
      run: () => {
        const e = document.querySelector<HTMLInputElement>('#seek');
        e?.focus();
        e?.select();
      },
    },
    side('channel', 'What speaks for the channel'),
    side('work', 'What to do next'),
    side('sets', 'Sets: banks, scan lists, purposes'),
    side('history', 'History and snapshots'),
    {
      id: 'matrix',
      says: 'What fits into which radio',
      scope: 'Plan',
      keys: ['Alt+KeyF'],
      writing: true,
      run: () => {
        plan.matrix = true;
      },
    },
    {
      id: 'files',
      says: 'Files: save the plan or a radio, import, compare',
      scope: 'Plan',
      keys: ['$mod+s'],
      writing: true,
      run: () => {
        plan.files = true;
      },
    },
    {
      id: 'columns',
      says: 'Columns of your own: files for other tools',
      scope: 'Plan',
      run: () => {
        plan.columns = true;
      },
    },
    {
      id: 'fix-kind',
      says: 'Fix all of the kind that is shown',
      scope: 'Plan',
      can: () => plan.rule !== '',
      run: () => {
        plan.fixing = plan.rule;
      },
    },
    { id: 'fix', says: 'Apply the first fix', scope: 'Plan', keys: ['='], run: fix },
    { id: 'fixes', says: 'All fixes', scope: 'Plan', keys: ['$mod+.'], writing: true, run: fixes },
    {
      id: 'sheet',
      says: 'Keypad sheet of the slot',
      scope: 'Plan',
      keys: ['$mod+Enter'],
      writing: true,
      can: () => !field()?.value,
      run: sheet,
    },
    {
      id: 'store',
      says: 'Store in the slot shown',
      scope: 'On the line',
      keys: ['Enter'],
      listed: false,
      run: () => {
        store(false);
      },
    },
    {
      id: 'store-over',
      says: 'Store over what is in the slot',
      scope: 'On the line',
      keys: ['Shift+Enter'],
      listed: false,
      run: () => {
        store(true);
      },
    },
    {
      id: 'line-fix',
      says: 'Apply the first fix of the line',
      scope: 'On the line',
      keys: ['='],
      listed: false,
      run: fix,
    },
    {
      id: 'clear',
      says: 'Clear the line',
      scope: 'On the line',
      keys: ['Escape'],
      listed: false,
      run: () => {
        plan.type('');
        plan.place = null;
      },
    },
  ];
}
