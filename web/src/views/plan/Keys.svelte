<script lang="ts">
  import { Dialog } from 'bits-ui';
  import { singleKeys } from '$lib/keys.svelte';

  /** The list of keys, opened with "?". */
  let { open = $bindable(false) }: { open?: boolean } = $props();
  const groups = [
    {
      name: 'Everywhere',
      keys: [
        ['/', 'go to the entry line'],
        ['.', 'apply the first fix of the selected slot'],
        ['Alt 2…9', 'apply a further fix'],
        ['Ctrl Z', 'take the last change back'],
        ['Ctrl Shift Z', 'do it again'],
        ['g f, g p, g r, g s', 'to find, the plan, the radios, the settings'],
        ['?', 'this list'],
      ],
    },
    {
      name: 'On the entry line',
      keys: [
        ['Enter', 'store in the slot shown'],
        ['Shift Enter', 'store over what is in the slot'],
        ['=', 'apply the first fix: as published'],
        ['Escape', 'clear the line'],
      ],
    },
    {
      name: 'In the slots',
      keys: [
        ['↑ ↓', 'choose a slot'],
        ['← →', 'choose a cell'],
        ['Enter', 'edit the cell; in an empty slot, write there'],
        ['Alt ↑ ↓', 'move the channel'],
        ['Delete', 'empty the slot'],
        ['k', 'keypad sheet'],
      ],
    },
  ];
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-30 bg-[color-mix(in_srgb,var(--paper)_70%,transparent)]" />
    <Dialog.Content
      class="fixed top-1/2 left-1/2 z-40 max-h-[90vh] w-[min(880px,92vw)] -translate-x-1/2 -translate-y-1/2 overflow-y-auto border-2 border-bold bg-sheet p-6"
    >
      <Dialog.Title class="text-head font-strong">Keys</Dialog.Title>
      <Dialog.Description class="mb-4 text-ink2">Single keys work outside text fields only.</Dialog.Description>
      <div class="grid grid-cols-3 gap-6 max-desk:grid-cols-1">
        {#each groups as g (g.name)}
          <section>
            <h3 class="mb-1 border-b border-bold font-strong">{g.name}</h3>
            <dl class="grid grid-cols-[104px_1fr] gap-y-1">
              {#each g.keys as [k, what] (k)}
                <dt><kbd class="font-figs text-small">{k}</kbd></dt>
                <dd>{what}</dd>
              {/each}
            </dl>
          </section>
        {/each}
      </div>
      <label class="mt-5 flex items-center gap-2">
        <input
          type="checkbox"
          checked={singleKeys.on}
          onchange={() => {
            singleKeys.toggle();
          }}
        />
        Single keys such as / and . act (keys with Ctrl or Alt always do)
      </label>
      <Dialog.Close class="mt-5 rounded-[2px] border border-rule2 px-3 py-1">Close</Dialog.Close>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
