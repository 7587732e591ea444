// The file stands alone: what is ticked stays in this browser, under what the channel was when it was made.
'use strict';
const shelf = 'mnemos ' + document.body.dataset.key;
let ticks = {};
try { ticks = JSON.parse(localStorage.getItem(shelf) || '{}'); } catch { ticks = {}; }
const all = [...document.querySelectorAll('details')];
const boxes = [...document.querySelectorAll('li input')];
function show(d) {
  const own = [...d.querySelectorAll('li input')];
  d.classList.toggle('done', own.length > 0 && own.every((b) => b.checked));
}
for (const b of boxes) {
  b.checked = ticks[b.id] === 1;
  b.addEventListener('change', () => {
    if (b.checked) ticks[b.id] = 1;
    else delete ticks[b.id];
    try { localStorage.setItem(shelf, JSON.stringify(ticks)); } catch { /* this browser keeps nothing for files */ }
    show(b.closest('details'));
  });
}
all.forEach(show);
const search = document.querySelector('#search');
search.addEventListener('input', () => {
  const words = search.value.toLowerCase().replace(',', '.').split(/\s+/).filter(Boolean);
  let n = 0;
  for (const d of all) {
    d.hidden = !words.every((w) => d.dataset.words.includes(w));
    if (!d.hidden) n++;
  }
  document.querySelector('#none').hidden = n > 0;
});
const themes = ['day', 'night', 'red'];
document.querySelector('#theme').addEventListener('click', (e) => {
  const now = document.documentElement.dataset.theme;
  const next = themes[(themes.indexOf(now) + 1) % themes.length];
  document.documentElement.dataset.theme = next;
  e.target.textContent = next;
});
