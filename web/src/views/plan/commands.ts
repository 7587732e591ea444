import type { Command } from '$session/commands.svelte';
import { field } from '$session/commands.svelte';
import type { PlanState } from './plan.svelte';

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
  return [
    { id: 'line', says: 'Write on the line', scope: 'Plan', keys: ['/'], run: line },
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
