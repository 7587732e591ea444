import { createRouter } from 'sv-router';
import Plan from './views/plan/Plan.svelte';
import Sheet from './views/sheet/Sheet.svelte';

export const { p, navigate, isActive, route } = createRouter({
  '/': Plan,
  '/keypad/:load/:slot': Sheet,
});
