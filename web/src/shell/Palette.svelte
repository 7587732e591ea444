<script lang="ts">
  import { Command, Dialog } from 'bits-ui';
  import { client } from '$lib/client';
  import { chosen } from '$lib/api/chosen.svelte';
  import type { Workspace } from '$lib/api/client';
  import { commands } from '$session/commands.svelte';
  import { keyWords } from '$session/keys';
  import { shell } from './shell.svelte';

  /** Every command with its key: type a part of it. */
  const w = client.getQueryData<Workspace>(['workspace', chosen.plan, chosen.person]);
  const list = $derived([
    ...commands.list
      .filter((c) => c.listed !== false && (c.can?.() ?? true))
      .map((c) => ({
        id: c.id,
        says: c.says,
        scope: c.scope as string,
        key: commands.keys(c)[0],
        run: () => {
          c.run();
        },
      })),
    ...(w?.plans ?? [])
      .filter((p) => p.id !== w?.plan.id)
      .map((p) => ({
        id: `plan-${String(p.id)}`,
        says: `Open the plan ${p.name}`,
        scope: 'Plans',
        key: undefined,
        run: () => {
          chosen.plan = p.id;
        },
      })),
    ...(w?.loads ?? [])
      .filter((l) => l.id !== chosen.load)
      .map((l) => ({
        id: `radio-${String(l.id)}`,
        says: `Show the radio ${l.unit.name}`,
        scope: 'Radios',
        key: undefined,
        run: () => {
          chosen.load = l.id;
        },
      })),
    ...(w?.people ?? [])
      .filter((p) => p.id !== w?.me.id)
      .map((p) => ({
        id: `be-${String(p.id)}`,
        says: `Switch to ${p.name}`,
        scope: 'People',
        key: undefined,
        run: () => {
          shell.be(p.id);
        },
      })),
  ]);
  const scopes = $derived([...new Set(list.map((c) => c.scope))]);

  function run(act: () => void) {
    shell.open = '';
    // The focus goes back first: many commands act on what has it.
    requestAnimationFrame(act);
  }
</script>

<Dialog.Root
  open
  onOpenChange={(o) => {
    if (!o) shell.open = '';
  }}
>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-30 bg-[color-mix(in_srgb,var(--paper)_70%,transparent)]" />
    <Dialog.Content
      class="fixed top-[12vh] left-1/2 z-40 flex max-h-[76vh] w-[min(640px,94vw)] -translate-x-1/2 flex-col border-2 border-bold bg-paper"
    >
      <Dialog.Title class="sr-only">All commands</Dialog.Title>
      <Dialog.Description class="sr-only"
        >Type a part of a command, choose it with the arrows and press Enter.</Dialog.Description
      >
      <Command.Root class="flex min-h-0 flex-col" label="All commands" loop>
        <Command.Input
          class="h-12 flex-none border-b border-bold bg-sheet px-4 text-[18px] outline-none"
          placeholder="what do you want to do?"
          aria-label="Command"
        />
        <Command.List class="min-h-0 overflow-y-auto pb-2" tabindex={0}>
          <Command.Viewport>
            <Command.Empty class="px-4 py-3 text-ink2"
              >Nothing is called that. Try undo, plan, radio or theme.</Command.Empty
            >
            {#each scopes as scope (scope)}
              <Command.Group value={scope}>
                <Command.GroupHeading class="px-4 pt-2 text-label text-ink2">{scope}</Command.GroupHeading>
                <Command.GroupItems>
                  {#each list.filter((c) => c.scope === scope) as c (c.id)}
                    <Command.Item
                      value={c.id}
                      keywords={[c.says, scope]}
                      class="flex min-h-8 cursor-pointer items-center gap-3 px-4 data-selected:bg-water max-desk:min-h-11"
                      onSelect={() => {
                        run(c.run);
                      }}
                    >
                      <span>{c.says}</span>
                      {#if c.key}<kbd class="ml-auto font-figs text-small text-ink2" aria-hidden="true"
                          >{keyWords(c.key)}</kbd
                        >{/if}
                    </Command.Item>
                  {/each}
                </Command.GroupItems>
              </Command.Group>
            {/each}
          </Command.Viewport>
        </Command.List>
      </Command.Root>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
