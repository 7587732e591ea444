// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from '@testing-library/svelte';
import { createRawSnippet } from 'svelte';
import { afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import { link } from '$lib/api/link.svelte';
import Button from './Button.svelte';
import Field from './Field.svelte';
import Progress from './Progress.svelte';
import TypedCell from '../views/plan/TypedCell.svelte';

const words = (text: string) => createRawSnippet(() => ({ render: () => `<span>${text}</span>` }));

beforeAll(() => {
  vi.stubGlobal('matchMedia', () => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  }));
});
afterEach(() => {
  cleanup();
  link.back();
});

describe('a button', () => {
  it('is called what it does, not by its key, and says its key to those who ask', async () => {
    const run = vi.fn();
    render(Button, { key: '$mod+Enter', onclick: run, children: words('Keypad sheet') });
    const b = screen.getByRole('button', { name: 'Keypad sheet' });
    expect(b.getAttribute('aria-keyshortcuts')).toBe('Control+Enter');
    expect(b.querySelector('kbd')?.textContent).toBe('Ctrl Enter');
    await fireEvent.click(b);
    expect(run).toHaveBeenCalledOnce();
  });

  it('does nothing while it cannot', async () => {
    const run = vi.fn();
    render(Button, { disabled: true, onclick: run, children: words('Store') });
    await fireEvent.click(screen.getByRole('button'));
    expect(run).not.toHaveBeenCalled();
  });
});

describe('a field', () => {
  it('says what is wrong with it beside it, and keeps what was typed', () => {
    render(Field, { name: 'place', label: 'place', value: 'somewhere', fault: 'write a locator' });
    const f = screen.getByLabelText<HTMLInputElement>('place');
    expect(f.value).toBe('somewhere');
    expect(f.getAttribute('aria-invalid')).toBe('true');
    expect(document.getElementById(f.getAttribute('aria-describedby') ?? '')?.textContent).toBe('write a locator');
  });

  it('tells of what is typed, and of what was left', async () => {
    const [typed, changed] = [vi.fn(), vi.fn()];
    render(Field, { name: 'n', label: 'name', value: '', typed, changed });
    const f = screen.getByLabelText('name');
    await fireEvent.input(f, { target: { value: 'x' } });
    expect(typed).toHaveBeenCalledOnce();
    await fireEvent.change(f);
    expect(changed).toHaveBeenCalledOnce();
  });

  it('with choices shows the one that is chosen, under its label', () => {
    const options = [
      { value: 'us', label: 'United States' },
      { value: 'uk', label: 'United Kingdom' },
    ];
    render(Field, { name: 'region', label: 'band plan', value: 'uk', options });
    const trigger = document.getElementById('region');
    expect(trigger?.dataset.value).toBe('uk');
    expect(trigger?.getAttribute('aria-label')).toBe('band plan: United Kingdom');
    expect(trigger?.textContent.trim()).toBe('United Kingdom');
  });

  it('that cannot be changed is text', () => {
    render(Field, { name: 'x', label: 'slots', value: '1-200', disabled: true });
    expect(screen.queryByRole('textbox')).toBeNull();
    expect(screen.getByText('1-200')).toBeTruthy();
  });
});

it('progress is told in hundredths', () => {
  render(Progress, { label: 'How far it is', share: 0.425 });
  const bar = screen.getByRole('progressbar', { name: 'How far it is' });
  expect([bar.getAttribute('aria-valuenow'), bar.getAttribute('aria-valuemax')]).toEqual(['43', '100']);
});

describe('a cell that is not saved', () => {
  const typed = { slot: 7, column: 'transmit_tone' as const, text: '88.5', why: 'Brid changed it' };

  it('shows what was typed while it waits', () => {
    render(TypedCell, {
      typed: { ...typed, state: 'waiting' },
      theirs: vi.fn(),
      mine: vi.fn(),
      children: words('127.3'),
    });
    expect(document.body.textContent).toContain('88.5, not saved yet');
    expect(document.body.textContent).not.toContain('127.3');
  });

  it('shows theirs and mine where it was refused', async () => {
    const [theirs, mine] = [vi.fn(), vi.fn()];
    render(TypedCell, { typed: { ...typed, state: 'refused' }, theirs, mine, children: words('127.3') });
    expect(screen.getByRole('alert').textContent).toContain('Not saved, tone out: Brid changed it');
    await fireEvent.click(screen.getByRole('button', { name: /keep what is there: *127.3/ }));
    await fireEvent.click(screen.getByRole('button', { name: 'use mine: 88.5' }));
    expect([theirs.mock.calls.length, mine.mock.calls.length]).toEqual([1, 1]);
  });
});
