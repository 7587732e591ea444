import { createRouter } from 'sv-router';
import Find from './views/find/Find.svelte';
import Plan from './views/plan/Plan.svelte';
import Radios from './views/radios/Radios.svelte';
import Settings from './views/settings/Settings.svelte';
import Sheet from './views/sheet/Sheet.svelte';

export const { p, navigate, isActive, route } = createRouter({
  '/': Plan,
  '/find': Find,
  '/radios': Radios,
  '/radios/:radio': Radios,
  '/settings': Settings,
  '/keypad/:load/:slot': Sheet,
});
