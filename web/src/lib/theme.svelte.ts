import { browser } from '$lib/storage.svelte';
const themes = ['day', 'night', 'red'] as const;
export type Theme = (typeof themes)[number];

const dark = matchMedia('(prefers-color-scheme: dark)');

/** The theme that somebody chose; none follows the system. */
function stored(): Theme | undefined {
  return themes.find((x) => x === browser.text('theme'));
}

/** The theme of the page; night and red are for use in the dark. public/first-paint.js sets it before the first paint. */
class ThemeState {
  current = $state<Theme>(stored() ?? (dark.matches ? 'night' : 'day'));
  /** Nobody chose: it goes by the system. */
  follows = $state(stored() === undefined);

  constructor() {
    dark.addEventListener('change', () => {
      if (!stored()) this.#show(dark.matches ? 'night' : 'day');
    });
  }

  next(): void {
    this.set(themes[(themes.indexOf(this.current) + 1) % themes.length] ?? 'day');
  }

  set(t: Theme): void {
    browser.keep('theme', t);
    this.follows = false;
    this.#show(t);
  }

  /** Goes by the system again. */
  follow(): void {
    browser.keep('theme', undefined);
    this.follows = true;
    this.#show(dark.matches ? 'night' : 'day');
  }

  #show(t: Theme): void {
    this.current = t;
    document.documentElement.dataset.theme = t;
  }
}

export const theme = new ThemeState();
