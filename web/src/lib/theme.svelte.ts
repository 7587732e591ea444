const themes = ['day', 'night', 'red'] as const;
export type Theme = (typeof themes)[number];

function stored(): Theme {
  const t = localStorage.getItem('theme');
  return themes.find((x) => x === t) ?? 'day';
}

/** The theme of the page; night and red are for use in the dark. */
class ThemeState {
  current = $state<Theme>(stored());

  next(): void {
    this.set(themes[(themes.indexOf(this.current) + 1) % themes.length] ?? 'day');
  }

  set(t: Theme): void {
    this.current = t;
    localStorage.setItem('theme', t);
    this.apply();
  }

  apply(): void {
    document.documentElement.dataset.theme = this.current;
  }
}

export const theme = new ThemeState();
