<script lang="ts">
  import type { Region } from '$lib/api/client';

  /** The bands of a region side by side; each can be pressed to talk on it or only to listen. */
  interface Props {
    region: Region;
    talks: (band: string) => boolean;
    toggle: (band: string) => void;
  }
  let { region, talks, toggle }: Props = $props();
</script>

<ul class="flex flex-wrap gap-x-2 gap-y-3" aria-label="Bands">
  {#each region.bands as b (b.name)}
    {@const on = talks(b.name)}
    <li class="min-w-[76px] flex-1">
      <button
        type="button"
        aria-pressed={on}
        class="block w-full text-left max-desk:min-h-11"
        onclick={() => {
          toggle(b.name);
        }}
      >
        <span class={on ? 'font-strong' : 'text-ink3 line-through'}>{b.name}</span>
        <span class="mt-1 block {on ? 'border-t-4 border-ink' : 'border-t-2 border-dotted border-rule2'}"></span>
        <span class="block text-label text-ink2">{on ? 'talk and listen' : 'listen'}</span>
        <span class="block font-figs text-label text-ink3">{b.limits}</span>
      </button>
    </li>
  {/each}
</ul>
