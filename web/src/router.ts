import { createRouter } from 'sv-router';
import Plan from './views/plan/Plan.svelte';

// Plan is what opens; the other views are loaded when somebody goes there.
export const { p, navigate, isActive, route } = createRouter({
  '/': Plan,
  '/find': () => import('./views/find/Find.svelte'),
  '/radios': () => import('./views/radios/Radios.svelte'),
  '/radios/:radio': () => import('./views/radios/Radios.svelte'),
  '/settings': () => import('./views/settings/Settings.svelte'),
  '/keypad/:load/:slot': () => import('./views/sheet/Sheet.svelte'),
});
