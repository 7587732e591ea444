<script lang="ts">
  import { ChevronDown } from '@lucide/svelte';
  import { DropdownMenu } from 'bits-ui';
  import type { Snippet } from 'svelte';

  interface Props {
    /** The name of the button that opens it. */
    label: string;
    /** The choices of which one is in force. */
    choices?: readonly { value: string; label: string; detail?: string }[];
    value?: string;
    choose?: (value: string) => void;
    /** What can be done besides. */
    acts?: readonly { label: string; run: () => void }[];
    children: Snippet;
    framed?: boolean;
  }
  let { label, choices = [], value = '', choose, acts = [], children, framed = false }: Props = $props();
  const item =
    'flex min-h-8 cursor-pointer items-center gap-3 px-3 py-1 whitespace-nowrap data-highlighted:bg-water max-desk:min-h-11';
</script>

<DropdownMenu.Root>
  <DropdownMenu.Trigger
    aria-label={label}
    class="flex h-[30px] min-w-0 items-center gap-1.5 self-center rounded-[2px] whitespace-nowrap hover:bg-hover max-desk:h-11 {framed
      ? 'border border-rule2 bg-sheet pr-2 pl-2.5'
      : 'px-1.5'}"
  >
    {@render children()}
    <ChevronDown size={15} class="flex-none" aria-hidden="true" />
  </DropdownMenu.Trigger>
  <DropdownMenu.Portal>
    <DropdownMenu.Content
      class="z-50 max-h-[80vh] max-w-[94vw] min-w-48 overflow-y-auto border border-rule2 bg-sheet py-1"
      align="end"
      sideOffset={2}
    >
      {#if choices.length > 0}
        <DropdownMenu.RadioGroup {value} onValueChange={(v) => choose?.(v)} aria-label={label}>
          {#each choices as c (c.value)}
            <DropdownMenu.RadioItem value={c.value} class="{item} {c.value === value ? 'font-strong' : ''}">
              <span class="w-3 flex-none" aria-hidden="true">{c.value === value ? '●' : ''}</span>
              <span class="truncate">{c.label}</span>
              {#if c.detail}<span class="ml-auto pl-4 text-label font-normal text-ink2">{c.detail}</span>{/if}
            </DropdownMenu.RadioItem>
          {/each}
        </DropdownMenu.RadioGroup>
        {#if acts.length > 0}<DropdownMenu.Separator class="my-1 border-t border-rule" />{/if}
      {/if}
      {#each acts as a (a.label)}
        <DropdownMenu.Item class={item} onSelect={a.run}><span class="w-3 flex-none"></span>{a.label}</DropdownMenu.Item
        >
      {/each}
    </DropdownMenu.Content>
  </DropdownMenu.Portal>
</DropdownMenu.Root>
