// @vitest-environment happy-dom
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { Commands, type Command } from './commands.svelte';
import { keyShortcut, keyWords, written } from './keys';

const key = (k: string, more: KeyboardEventInit = {}) =>
  new KeyboardEvent('keydown', { key: k, cancelable: true, bubbles: true, ...more });

function registry() {
  const c = new Commands();
  const ran: string[] = [];
  const of = (id: string, more: Partial<Command>): Command => ({
    id,
    says: id,
    scope: 'Everywhere',
    run: () => ran.push(id),
    ...more,
  });
  c.add(
    of('undo', { keys: ['$mod+z'], writing: true }),
    of('fix', { keys: ['='], scope: 'Plan' }),
    of('store', { keys: ['Enter'], scope: 'On the line' }),
    of('view', { keys: ['Alt+Digit1'], writing: true }),
  );
  return { c, ran };
}

beforeEach(() => {
  localStorage.clear();
  document.body.innerHTML = '<input id="line"><input id="box" type="checkbox"><button id="b">x</button>';
  (document.activeElement as HTMLElement | null)?.blur();
});

describe('keys', () => {
  it('act from anywhere, but a sign not while somebody writes', () => {
    const { c, ran } = registry();
    c.press(key('='));
    c.press(key('z', { ctrlKey: true }));
    c.press(key('1', { altKey: true, code: 'Digit1' }));
    expect(ran).toEqual(['fix', 'undo', 'view']);
    document.getElementById('line')?.focus();
    c.press(key('='));
    c.press(key('z', { ctrlKey: true }));
    expect(ran).toEqual(['fix', 'undo', 'view', 'undo']);
    document.getElementById('box')?.focus();
    c.press(key('='));
    expect(ran.at(-1)).toBe('fix');
  });

  it('of the line act only when the line asks', () => {
    const { c, ran } = registry();
    c.press(key('Enter'));
    expect(ran).toEqual([]);
    expect(c.act('On the line', key('Enter'))).toBe(true);
    expect(c.act('On the line', key('x'))).toBe(false);
    expect(ran).toEqual(['store']);
  });

  it('never act on data by a letter: what is typed goes where typing goes', () => {
    const { c, ran } = registry();
    const line = document.getElementById('line') ?? undefined;
    c.catch(() => line);
    for (const letter of 'acikgpsfrn.?') {
      (document.activeElement as HTMLElement | null)?.blur();
      c.press(key(letter));
      expect(document.activeElement).toBe(line);
    }
    expect(ran).toEqual([]);
    document.getElementById('b')?.focus();
    c.press(key(' '));
    expect(document.activeElement?.id).toBe('b');
    c.press(key('q', { ctrlKey: true }));
    expect(document.activeElement?.id).toBe('b');
  });

  it('do nothing behind a dialog', () => {
    const { c, ran } = registry();
    document.body.innerHTML += '<div role="dialog"></div>';
    c.press(key('z', { ctrlKey: true }));
    c.press(key('='));
    expect(ran).toEqual([]);
  });

  it('can be changed; whoever had the key loses it, and the change is kept', () => {
    const { c, ran } = registry();
    c.add({ id: 'sheet', says: 'sheet', scope: 'Plan', keys: ['$mod+Enter'], run: () => ran.push('sheet') });
    c.remap('sheet', '=');
    c.press(key('='));
    expect(ran).toEqual(['sheet']);
    expect(c.shown('fix')).toBe('');
    expect(new Commands().changed('sheet')).toBe(true);
    c.remap('sheet', undefined);
    c.remap('fix', undefined);
    c.press(key('='));
    expect(ran).toEqual(['sheet', 'fix']);
  });

  it('that are a sign can be switched off', () => {
    const { c, ran } = registry();
    c.setSigns(false);
    c.press(key('='));
    c.press(key('z', { ctrlKey: true }));
    expect(ran).toEqual(['undo']);
  });

  it('are taken away with the view that brought them', () => {
    const { c } = registry();
    const run = vi.fn();
    const away = c.add({ id: 'search', says: 's', scope: 'Find', keys: ['/'], run });
    away();
    c.press(key('/'));
    expect(run).not.toHaveBeenCalled();
  });
});

describe('the words for a key', () => {
  it('are those on the keyboard', () => {
    expect(keyWords('$mod+Shift+z')).toBe('Ctrl Shift Z');
    expect(keyWords('Alt+Digit1')).toBe('Alt 1');
    expect(keyShortcut('$mod+Enter')).toBe('Control+Enter');
  });

  it('are read from what was pressed', () => {
    expect(written(key('J', { ctrlKey: true, shiftKey: true }))).toBe('$mod+Shift+j');
    expect(written(key('Shift'))).toBe('');
    expect(written(key('1', { altKey: true, code: 'Digit1' }))).toBe('Alt+Digit1');
    expect(written(key('§'))).toBe('§');
  });
});
