<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { untrack, type Snippet } from 'svelte';
  import { ApiError } from '$lib/api/client';
  import { chosen } from '$lib/api/chosen.svelte';
  import { client } from '$lib/client';
  import { ledgerQuery, workspaceQuery } from '$lib/queries';
  import { viewOf } from '$lib/views';
  import Broken from '$parts/Broken.svelte';
  import { commands } from '$session/commands.svelte';
  import { say } from '$session/say.svelte';
  import { route } from '../router';
  import { everywhere } from './commands';
  import Masthead from './Masthead.svelte';
  import NotSaved from './NotSaved.svelte';
  import { shell } from './shell.svelte';

  /** What is around every view. */
  let { children }: { children: Snippet } = $props();
  const workspace = createQuery(workspaceQuery);
  const ledger = createQuery(() => ledgerQuery(client, chosen.load));
  const view = $derived(viewOf(route.pathname));

  // The radio that was chosen last, while it is in the plan; else the first one.
  $effect(() => {
    const loads = workspace.data?.loads;
    if (!loads || workspace.isPlaceholderData) return;
    if (!loads.some((l) => l.id === chosen.load)) chosen.load = loads[0]?.id ?? 0;
    const also = chosen.also.filter((id) => loads.some((l) => l.id === id) && id !== chosen.load);
    if (also.length !== chosen.also.length) chosen.also = also;
  });
  // A plan or a person that is there no more: the first one.
  $effect(() => {
    if (!(workspace.error instanceof ApiError) || workspace.error.problem.status !== 404) return;
    if (chosen.person !== 0) shell.be(0);
    else if (chosen.plan !== 0) chosen.plan = 0;
  });
  $effect(() => untrack(() => commands.add(...everywhere())));
  // What was said is true of one view, and not for ever.
  $effect(() => {
    if (!say.text) return;
    const timer = setTimeout(() => (say.text = ''), 8000);
    return () => {
      clearTimeout(timer);
    };
  });
</script>

<svelte:document
  onfocusin={() => {
    if (say.trouble && document.activeElement?.closest('main')) say.trouble = '';
  }}
/>

{#if view}
  <Masthead workspace={workspace.data} ledger={ledger.data} />
  <NotSaved />
  {#if say.trouble}<p
      role="alert"
      class="border-b border-stop bg-sheet px-6 py-1.5 font-strong text-stop max-desk:px-4"
    >
      {say.trouble}
    </p>{/if}
{/if}
{#key view?.path}
  <svelte:boundary>
    {@render children()}
    {#snippet failed(error, reset)}<Broken {error} {reset} />{/snippet}
  </svelte:boundary>
{/key}
<p role="status" class="said" class:shown={say.text !== '' && view !== undefined}>{say.text}</p>
{#if shell.open === 'palette'}
  {#await import('./Palette.svelte') then { default: Palette }}<Palette />{/await}
{:else if shell.open === 'help'}
  {#await import('./Help.svelte') then { default: Help }}<Help />{/await}
{:else if (shell.open === 'plans' || shell.open === 'new plan') && workspace.data}
  {#await import('./Plans.svelte') then { default: Plans }}<Plans workspace={workspace.data} />{/await}
{:else if shell.open === 'people' && workspace.data}
  {#await import('./People.svelte') then { default: People }}<People workspace={workspace.data} />{/await}
{:else if shell.open === 'units' && workspace.data}
  {#await import('./Units.svelte') then { default: Units }}<Units workspace={workspace.data} />{/await}
{/if}

<style>
  .said {
    position: fixed;
    left: 50%;
    bottom: 12px;
    z-index: 25;
    max-width: min(640px, 92vw);
    transform: translateX(-50%);
    padding: 4px 12px;
  }
  .said:not(.shown) {
    width: 1px;
    height: 1px;
    padding: 0;
    overflow: hidden;
    clip-path: inset(50%);
  }
  .shown {
    background: var(--sheet);
    border: var(--line);
  }
  @media (max-width: 45em) {
    .said {
      bottom: 64px;
    }
  }
</style>
