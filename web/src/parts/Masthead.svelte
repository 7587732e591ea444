<script lang="ts">
  import type { Snippet } from 'svelte';
  import { tinykeys } from 'tinykeys';
  import { singleKeys, typing } from '$lib/keys.svelte';
  import { theme } from '$lib/theme.svelte';
  import { views, type ViewName } from '$lib/views';
  import { navigate } from '../router';

  /** The head of every view: where one is, where one can go, and what the view puts there. */
  let { current, children }: { current: ViewName; children?: Snippet } = $props();

  $effect(() =>
    tinykeys(
      window,
      Object.fromEntries(
        views.map((v) => [
          `g ${v.key}`,
          (e: KeyboardEvent) => {
            if (typing(e) || !singleKeys.on) return;
            e.preventDefault();
            void navigate(v.path);
          },
        ]),
      ),
    ),
  );
</script>

<header
  class="sticky top-0 z-10 flex h-[46px] items-stretch gap-3 border-b-2 border-bold bg-paper px-6 after:absolute after:inset-x-0 after:-bottom-[5px] after:border-b after:border-bold max-desk:h-auto max-desk:flex-wrap max-desk:gap-y-0 max-desk:px-4 print:hidden"
>
  <a
    class="self-center text-[19px] font-[760] tracking-tight no-underline max-desk:h-[46px] max-desk:leading-[46px]"
    href="/">Mnemos</a
  >
  <nav
    aria-label="Views"
    class="ml-6 flex max-desk:order-last max-desk:ml-0 max-desk:h-11 max-desk:w-full max-desk:gap-2"
  >
    {#each views as v (v.path)}
      <a
        href={v.path}
        aria-current={v.name === current ? 'page' : undefined}
        title="g {v.key}"
        class="relative flex items-center px-2.5 no-underline max-desk:px-1 {v.name === current
          ? 'font-strong after:absolute after:inset-x-2.5 after:-bottom-[5px] after:z-10 after:h-1.5 after:bg-ink max-desk:after:inset-x-1'
          : 'text-ink2 hover:text-ink'}">{v.name}</a
      >
    {/each}
  </nav>
  {#if children}{@render children()}{:else}
    <button
      type="button"
      class="ml-auto self-center px-1.5 py-1.5 text-label text-ink2 hover:bg-hover"
      aria-label="Theme: {theme.current}"
      title="Change between day, night and red"
      onclick={() => {
        theme.next();
      }}>{theme.current}</button
    >
  {/if}
</header>
