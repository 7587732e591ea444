// Before the first paint: the theme that was chosen, else that of the system;
// and the size of letters that the browser is set to, for which everything grows.
(function () {
  const root = document.documentElement;
  let chosen = null;
  try {
    chosen = localStorage.getItem('theme');
  } catch {
    // The browser forbids it: the theme goes by the system.
  }
  const dark = matchMedia('(prefers-color-scheme: dark)').matches;
  root.dataset.theme = chosen === 'day' || chosen === 'night' || chosen === 'red' ? chosen : dark ? 'night' : 'day';
  const probe = document.createElement('span');
  probe.style.fontSize = 'medium';
  root.appendChild(probe);
  const grown = Math.min(3, Math.max(1, parseFloat(getComputedStyle(probe).fontSize) / 16 || 1));
  probe.remove();
  if (grown === 1) return;
  root.style.zoom = String(grown);
  root.style.setProperty('--grown', String(grown));
})();
