<script lang="ts">
  import { Redo2, Undo2 } from '@lucide/svelte';
  import type { Ledger, Workspace } from '$lib/api/client';
  import { chosen } from '$lib/api/chosen.svelte';
  import { theme } from '$lib/theme.svelte';
  import { elsewhere, here, views, viewOf } from '$lib/views';
  import Menu from '$parts/Menu.svelte';
  import Swatch from '$parts/Swatch.svelte';
  import { commands } from '$session/commands.svelte';
  import { keyShortcut, keyWords } from '$session/keys';
  import { route } from '../router';
  import { navigate } from '../router';
  import { shell } from './shell.svelte';
  import StatusLine from './StatusLine.svelte';

  /** The head of every view: where one is, with which plan, as whom, with which radio, and whether all is saved. */
  let { workspace, ledger }: { workspace: Workspace | undefined; ledger: Ledger | undefined } = $props();
  const current = $derived(viewOf(route.pathname)?.name);
  const plans = $derived(
    workspace?.plans
      .filter((x) => !x.archived || x.id === workspace.plan.id)
      .map((x) => ({
        value: String(x.id),
        label: x.name,
        detail: [x.season, x.demo ? 'invented' : '', x.archived ? 'archived' : ''].filter(Boolean).join(', '),
      })) ?? [],
  );
  const load = $derived(workspace?.loads.find((l) => l.id === chosen.load));
  const radios = $derived(
    workspace?.loads.map((l) => ({
      value: String(l.id),
      label: l.unit.name,
      detail: `${l.radio.form}, ${String(l.radio.slots.first)}–${String(l.radio.slots.last)}`,
    })) ?? [],
  );
  /** The files of a plan are opened in Plan. */
  async function files() {
    if (current !== 'Plan') await navigate('/');
    setTimeout(() => {
      commands.run('files');
    }, 60);
  }
  const people = $derived(workspace?.people.map((x) => ({ value: String(x.id), label: x.name })) ?? []);
  const icon =
    'p-1.5 hover:bg-hover disabled:text-rule2 max-desk:min-w-11 max-desk:min-h-11 inline-flex items-center justify-center';
  const key = (id: string) => (commands.key(id) ? ` (${commands.shown(id)})` : '');
  /** The views that a narrow head has no room for. */
  const others = elsewhere.map((v) => ({ label: v.name, run: () => void navigate(v.path) }));
  // On a phone the last word holds everything that the head has no room for.
  const more = $derived([
    ...others,
    {
      label: ledger?.undo ? `Undo: ${ledger.undo}` : 'Undo',
      run: () => {
        commands.run('undo');
      },
    },
    {
      label: ledger?.redo ? `Redo: ${ledger.redo}` : 'Redo',
      run: () => {
        commands.run('redo');
      },
    },
    {
      label: `Theme: ${theme.current}`,
      run: () => {
        theme.next();
      },
    },
    {
      label: 'Plans…',
      run: () => {
        shell.open = 'plans';
      },
    },
    {
      label: 'People…',
      run: () => {
        shell.open = 'people';
      },
    },
    {
      label: 'Radios of this plan…',
      run: () => {
        shell.open = 'units';
      },
    },
    {
      label: 'All commands…',
      run: () => {
        shell.open = 'palette';
      },
    },
  ]);
</script>

{#snippet words(classes: string, mark: string, list: readonly (typeof views)[number][])}
  {#each list as v (v.path)}
    <a
      href={v.path}
      aria-current={v.name === current ? 'page' : undefined}
      aria-keyshortcuts={keyShortcut(commands.key(`go-${v.name}`))}
      title={keyWords(commands.key(`go-${v.name}`))}
      class="relative flex items-center no-underline {classes} {v.name === current
        ? `font-strong after:absolute after:z-10 after:h-1.5 after:bg-ink ${mark}`
        : 'text-ink2 hover:text-ink'}">{v.name}</a
    >
  {/each}
{/snippet}

<header
  class:walking={shell.bare}
  class="sticky top-0 z-20 flex h-[46px] items-stretch gap-2 border-b-2 border-bold bg-paper px-6 after:absolute after:inset-x-0 after:-bottom-[5px] after:border-b after:border-bold max-desk:h-[52px] max-desk:gap-1 max-desk:px-4 print:hidden"
>
  <a class="self-center text-[19px] font-[760] tracking-tight no-underline" href="/">Mnemos</a>
  <nav aria-label="Views" class="ml-3 flex max-desk:hidden">
    <span class="flex max-wide:hidden">
      {@render words('px-[7px]', 'after:inset-x-[7px] after:-bottom-[5px]', views)}
    </span>
    <span class="flex wide:hidden">
      {@render words('px-2.5', 'after:inset-x-2.5 after:-bottom-[5px]', here)}
      <Menu label="More views" acts={others}><span class="text-ink2">more</span></Menu></span
    >
  </nav>
  <div class="ml-auto flex min-w-0 items-center gap-2 max-desk:ml-2 max-desk:flex-1 max-desk:gap-1">
    {#if workspace}
      <div class="flex min-w-0 items-center max-desk:block max-desk:flex-1">
        <Menu
          label="Plan: {workspace.plan.name}{workspace.plan.demo ? ', invented' : ''}"
          choices={plans}
          value={String(workspace.plan.id)}
          choose={(v) => (chosen.plan = Number(v))}
          acts={[
            { label: 'New plan…', run: () => (shell.open = 'new plan') },
            { label: 'Rename, duplicate, archive…', run: () => (shell.open = 'plans') },
            { label: 'Files: save, import, compare…', run: () => void files() },
          ]}
        >
          <span class="min-w-0 truncate font-strong">{workspace.plan.name}</span>
        </Menu>
        <p class="-mt-3.5 truncate px-1.5 text-note text-ink2 desk:hidden">
          {workspace.plan.demo ? 'invented, ' : ''}<StatusLine {ledger} />
        </p>
      </div>
      {#if workspace.plan.demo}<span
          class="text-label whitespace-nowrap text-ink2 max-wide:hidden"
          title="The demonstration: its islands, repeaters and callsigns are invented">invented</span
        >{/if}
      <span class="max-desk:hidden"><StatusLine {ledger} /></span>
    {/if}
    <div class="flex items-center max-desk:hidden">
      <button
        type="button"
        class={icon}
        disabled={!ledger?.undo}
        title={ledger?.undo ? `Undo: ${ledger.undo}${key('undo')}` : 'Nothing to undo'}
        aria-label="Undo"
        onclick={() => {
          commands.run('undo');
        }}><Undo2 size={16} aria-hidden="true" /></button
      >
      <button
        type="button"
        class={icon}
        disabled={!ledger?.redo}
        title={ledger?.redo ? `Redo: ${ledger.redo}${key('redo')}` : 'Nothing to redo'}
        aria-label="Redo"
        onclick={() => {
          commands.run('redo');
        }}><Redo2 size={16} aria-hidden="true" /></button
      >
      <button
        type="button"
        class="px-1.5 py-1.5 text-label text-ink2 hover:bg-hover"
        aria-label="Theme: {theme.current}"
        title="Change between day, night and red{key('theme')}"
        onclick={() => {
          theme.next();
        }}>{theme.current}</button
      >
      <button
        type="button"
        class="px-1.5 py-1.5 text-label text-ink2 hover:bg-hover"
        title="Keys{key('help')}"
        onclick={() => {
          commands.run('help');
        }}>keys</button
      >
    </div>
    {#if workspace}
      <div class="max-desk:hidden">
        <Menu
          label="You are {workspace.me.name}"
          choices={people}
          value={String(workspace.me.id)}
          choose={(v) => {
            shell.be(Number(v));
          }}
          acts={[{ label: 'People…', run: () => (shell.open = 'people') }]}
        >
          <Swatch colour={workspace.me.colour} /><span class="max-w-28 truncate">{workspace.me.name}</span>
        </Menu>
      </div>
      <Menu
        label="Radio: {load?.unit.name ?? ''}"
        framed
        choices={radios}
        value={String(chosen.load)}
        choose={(v) => (chosen.load = Number(v))}
        acts={[{ label: 'Radios of this plan…', run: () => (shell.open = 'units') }]}
      >
        <span class="text-label text-ink3 max-desk:hidden">radio</span>
        <b class="max-w-36 truncate font-strong max-desk:max-w-24">{load?.unit.name ?? '–'}</b>
      </Menu>
    {/if}
  </div>
</header>
<nav
  aria-label="Views, below"
  class:walking={shell.bare}
  class="fixed inset-x-0 bottom-0 z-20 flex h-14 items-stretch justify-between border-t-2 border-bold bg-paper px-4 desk:hidden print:hidden"
>
  {@render words('min-w-11 justify-center', 'after:inset-x-0 after:-top-[2px]', here)}
  <Menu label="More" acts={more}><span class="text-ink2">more</span></Menu>
</nav>

<style>
  /* on a phone that is propped up beside a radio the step has the whole screen */
  @media (max-width: 45em) {
    .walking {
      display: none;
    }
  }
</style>
