import { afterEach, describe, expect, it, vi } from 'vitest';
import { browser, isNumbers, isTexts } from './storage.svelte';

afterEach(() => {
  vi.restoreAllMocks();
  localStorage.clear();
});

const damaged = ['{', '[', 'null', '"x"', '7', '[1,"2"]', '{"a":1}', '[1.5]', 'undefined', '[[]]', '[null]', '\u0000'];

describe('what is kept in the browser', () => {
  it('is there again', () => {
    browser.keep('a', '1');
    expect(localStorage.getItem('a')).toBe('1');
    expect(browser.text('a')).toBe('1');
    browser.keep('a', undefined);
    expect(browser.text('a')).toBeUndefined();
    expect(browser.lasting).toBe(true);
  });

  it('is kept by the page where there is no room, says so, and goes to the browser when there is', () => {
    const full = vi.spyOn(localStorage, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    browser.write('a', [1]);
    expect(browser.read('a', isNumbers, [])).toEqual([1]);
    expect(browser.lasting).toBe(false);
    full.mockRestore();
    browser.write('a', [2]);
    expect(localStorage.getItem('a')).toBe('[2]');
    expect(browser.lasting).toBe(true);
  });

  it('is nothing where the browser forbids to look', () => {
    vi.spyOn(localStorage, 'getItem').mockImplementation(() => {
      throw new DOMException('denied', 'SecurityError');
    });
    expect(browser.text('a')).toBeUndefined();
    expect(browser.read('a', isNumbers, [3])).toEqual([3]);
  });

  it.each(damaged)('is nothing where it is damaged: %s', (text) => {
    localStorage.setItem('a', text);
    expect(browser.read('a', isNumbers, [])).toEqual([]);
    expect(browser.read('a', isTexts, {})).toEqual({});
  });
});
