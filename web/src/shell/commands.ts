import { chosen } from '$lib/api/chosen.svelte';
import { client } from '$lib/client';
import type { Workspace } from '$lib/api/client';
import { theme } from '$lib/theme.svelte';
import { views } from '$lib/views';
import { field, type Command } from '$session/commands.svelte';
import { desk } from '$session/session';
import { navigate } from '../router';
import { shell } from './shell.svelte';

/** A field with something in it takes what is typed back itself. */
const unwritten = () => !field()?.value;

const workspace = () => client.getQueryData<Workspace>(['workspace', chosen.plan, chosen.person]);

/** The next of several, round and round. */
function next(ids: readonly number[], now: number, by: 1 | -1): number | undefined {
  return ids[(ids.indexOf(now) + by + ids.length) % ids.length];
}

function plan(by: 1 | -1): void {
  const w = workspace();
  const id =
    w &&
    next(
      w.plans.filter((p) => !p.archived).map((p) => p.id),
      w.plan.id,
      by,
    );
  if (id !== undefined) chosen.plan = id;
}

function radio(by: 1 | -1): void {
  const id = next(workspace()?.loads.map((l) => l.id) ?? [], chosen.load, by);
  if (id !== undefined) chosen.load = id;
}

/** The commands that every view has. */
export function everywhere(): Command[] {
  const scope = 'Everywhere';
  const open = (o: typeof shell.open) => () => {
    shell.open = o;
  };
  return [
    ...views.map((v): Command => ({
      id: `go-${v.name}`,
      says: `Go to ${v.name}`,
      scope,
      keys: [`Alt+Digit${String(v.digit)}`],
      writing: true,
      run: () => void navigate(v.path),
    })),
    {
      id: 'palette',
      says: 'All commands',
      scope,
      keys: ['$mod+k'],
      writing: true,
      listed: false,
      run: open('palette'),
    },
    { id: 'help', says: 'Keys', scope, keys: ['F1'], writing: true, run: open('help') },
    {
      id: 'undo',
      says: 'Undo',
      scope,
      keys: ['$mod+z'],
      writing: true,
      can: unwritten,
      run: () => void desk.undo(chosen.load),
    },
    {
      id: 'redo',
      says: 'Redo',
      scope,
      keys: ['$mod+Shift+z', '$mod+y'],
      writing: true,
      can: unwritten,
      run: () => void desk.undo(chosen.load, true),
    },
    {
      id: 'plan-next',
      says: 'Next plan',
      scope,
      keys: ['Alt+PageDown'],
      writing: true,
      run: () => {
        plan(1);
      },
    },
    {
      id: 'plan-before',
      says: 'Previous plan',
      scope,
      keys: ['Alt+PageUp'],
      writing: true,
      run: () => {
        plan(-1);
      },
    },
    {
      id: 'radio-next',
      says: 'Next radio',
      scope,
      keys: ['Alt+Shift+PageDown'],
      writing: true,
      run: () => {
        radio(1);
      },
    },
    {
      id: 'radio-before',
      says: 'Previous radio',
      scope,
      keys: ['Alt+Shift+PageUp'],
      writing: true,
      run: () => {
        radio(-1);
      },
    },
    { id: 'plan-new', says: 'New plan', scope, run: open('new plan') },
    { id: 'plans', says: 'Plans: rename, duplicate, archive, remove', scope, run: open('plans') },
    { id: 'people', says: 'People: who you are, colours', scope, run: open('people') },
    { id: 'units', says: 'Radios of this plan: add, rename, remove', scope, run: open('units') },
    {
      id: 'theme',
      says: 'Theme: day, night, red',
      scope,
      keys: ['Alt+KeyT'],
      writing: true,
      run: () => {
        theme.next();
      },
    },
  ];
}
