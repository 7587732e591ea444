import type { Component } from 'svelte';
import { createRouter } from 'sv-router';
import Unreachable from './parts/Unreachable.svelte';
import Plan from './views/plan/Plan.svelte';

/** In place of a view that cannot be loaded stands what to do. */
const failed = () => ({ default: Unreachable as Component });

// Plan is what opens; the others are loaded when somebody goes there.
export const { p, navigate, isActive, route } = createRouter({
  '/': Plan,
  '/find': () => import('./views/find/Find.svelte').catch(failed),
  '/radios': () => import('./views/radios/Radios.svelte').catch(failed),
  '/radios/:radio': () => import('./views/radios/Radios.svelte').catch(failed),
  '/listen': () => import('./views/listen/Listen.svelte').catch(failed),
  '/relay': () => import('./views/relay/Relay.svelte').catch(failed),
  '/beacon': () => import('./views/beacon/Beacon.svelte').catch(failed),
  '/load': () => import('./views/load/Load.svelte').catch(failed),
  '/log': () => import('./views/log/Log.svelte').catch(failed),
  '/settings': () => import('./views/settings/Settings.svelte').catch(failed),
  '/keypad/:load/:slot': () => import('./views/sheet/Sheet.svelte').catch(failed),
});
