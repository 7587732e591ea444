import { browser, isTexts } from '$lib/storage.svelte';
import { keyWords, pressed, prints } from './keys';

/** Where a command acts: everywhere, in a view, or while something in it has the focus. */
export type Scope =
  | 'Everywhere'
  | 'Plan'
  | 'On the line'
  | 'In the slots'
  | 'Find'
  | 'In the list'
  | 'Importing'
  | 'Radios'
  | 'Sheet'
  | 'Load'
  | 'Listen'
  | 'Relay'
  | 'Beacon'
  | 'Log'
  | 'In the scan';

export interface Command {
  id: string;
  /** What it does, as a person would say it: "Undo". */
  says: string;
  scope: Scope;
  /** Its keys, the one that is shown first; see tinykeys for how they are written. */
  keys?: readonly string[];
  /** False where it cannot be done now: its key is left alone. */
  can?: () => boolean;
  run: (e?: KeyboardEvent) => void;
  /** Its key acts also while somebody writes in a field. */
  writing?: boolean;
  /** It is in the list of all commands, unless a key is all that makes sense. */
  listed?: false;
}

/** Scopes whose keys act only where the focus is: whatever holds it asks for them. */
const local: readonly Scope[] = ['On the line', 'In the slots', 'In the list', 'Importing', 'In the scan'];

const fields = 'input:not([type=checkbox], [type=radio], [type=file], [type=button]), textarea, select';

/** The text field that has the focus. */
export function field(): HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement | null {
  const e = document.activeElement;
  return e instanceof HTMLElement && e.matches(fields) ? (e as HTMLInputElement) : null;
}

const dialog = () => document.querySelector('[role=dialog], [role=menu], [role=listbox][data-state=open]') !== null;

/**
 * The one registry of commands and keys. Keys, help and the list of all
 * commands come from here, and a key can be changed.
 */
export class Commands {
  #list = $state.raw<readonly Command[]>([]);
  #own = $state<Record<string, string>>(browser.read('keys', isTexts, {}));
  /** Whether keys that are a sign alone act (WCAG 2.1.4). */
  signs = $state(browser.text('single-keys') !== 'off');
  /** Where what is typed goes while nothing has the focus that takes it. */
  #catcher: (() => HTMLElement | undefined) | undefined;

  get list(): readonly Command[] {
    return this.#list;
  }

  /** Adds commands, and returns how to take them away again. */
  add(...commands: Command[]): () => void {
    this.#list = [...this.#list.filter((c) => !commands.some((n) => n.id === c.id)), ...commands];
    return () => {
      this.#list = this.#list.filter((c) => !commands.includes(c));
    };
  }

  /** Says where typing goes in this view, and returns how to take that back. */
  catch(where: () => HTMLElement | undefined): () => void {
    this.#catcher = where;
    return () => {
      if (this.#catcher === where) this.#catcher = undefined;
    };
  }

  keys(c: Command): readonly string[] {
    const own = this.#own[c.id];
    return own === undefined ? (c.keys ?? []) : own === '' ? [] : [own];
  }

  /** The first key of a command, as it is written; empty for none. */
  key(id: string): string {
    const c = this.#list.find((x) => x.id === id);
    return (c && this.keys(c)[0]) ?? '';
  }

  /** The first key of a command, as it is shown. */
  shown(id: string): string {
    return keyWords(this.key(id));
  }

  changed(id: string): boolean {
    return this.#own[id] !== undefined;
  }

  /** Gives a command another key, none (''), or its first one again (undefined). Whoever had the key loses it. */
  remap(id: string, key: string | undefined): void {
    const next = Object.fromEntries(Object.entries(this.#own).filter(([k]) => k !== id));
    if (key !== undefined) {
      const mine = this.#list.find((c) => c.id === id)?.scope;
      for (const c of this.#list)
        if (key !== '' && c.id !== id && c.scope === mine && this.keys(c).includes(key)) next[c.id] = '';
      next[id] = key;
    }
    this.#own = next;
    browser.write('keys', next);
  }

  setSigns(on: boolean): void {
    this.signs = on;
    browser.keep('single-keys', on ? 'on' : 'off');
  }

  run(id: string): void {
    const c = this.#list.find((x) => x.id === id);
    if (c && (c.can?.() ?? true)) c.run();
  }

  /** Acts on a key in a scope that has the focus; false if it is none of its keys. */
  act(scope: Scope, e: KeyboardEvent): boolean {
    const c = this.#list.find(
      (x) => x.scope === scope && this.keys(x).some((k) => pressed(e, k)) && (x.can?.() ?? true),
    );
    if (!c) return false;
    e.preventDefault();
    e.stopPropagation();
    c.run(e);
    return true;
  }

  /** Acts on a key that was pressed anywhere. */
  press(e: KeyboardEvent): void {
    if (e.defaultPrevented || e.isComposing || dialog()) return;
    const writing = field() !== null;
    for (const c of this.#list) {
      if (local.includes(c.scope) || (writing && !c.writing)) continue;
      const key = this.keys(c).find((k) => pressed(e, k));
      if (key === undefined || (key.length === 1 && !this.signs) || !(c.can?.() ?? true)) continue;
      e.preventDefault();
      c.run(e);
      return;
    }
    if (!writing && prints(e) && !this.#taken(e)) this.#catcher?.()?.focus(); // the browser writes the key there
  }

  /** Whether what has the focus takes the key for itself. */
  #taken(e: KeyboardEvent): boolean {
    const at = document.activeElement;
    return e.key === ' ' && at !== null && at !== document.body && at !== document.documentElement;
  }
}

export const commands = new Commands();
