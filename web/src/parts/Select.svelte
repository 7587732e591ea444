<script lang="ts">
  import { ChevronDown } from '@lucide/svelte';
  import { Select } from 'bits-ui';

  interface Props {
    value: string;
    options: readonly { value: string; label: string; detail?: string }[];
    /** Its name, where no label stands beside it. */
    label?: string;
    id?: string;
    disabled?: boolean;
    fault?: string | undefined;
    described?: string | undefined;
    changed?: ((value: string) => void) | undefined;
  }
  let { value = $bindable(), options, label, id, disabled = false, fault, described, changed }: Props = $props();
  const shown = $derived(options.find((o) => o.value === value)?.label ?? '');
</script>

<Select.Root
  type="single"
  {disabled}
  bind:value={
    () => value,
    (v) => {
      if (v === value) return;
      value = v;
      changed?.(v);
    }
  }
>
  <Select.Trigger
    {id}
    aria-label={label ? `${label}: ${shown}` : undefined}
    aria-invalid={fault !== undefined}
    aria-describedby={described}
    data-value={value}
    class="flex h-[30px] w-full min-w-0 items-center justify-between gap-2 rounded-[2px] border bg-sheet pr-1.5 pl-2 text-left disabled:border-transparent disabled:bg-transparent disabled:px-0 max-desk:h-11 {fault
      ? 'border-stop'
      : 'border-rule2'}"
  >
    <span class="truncate">{shown}</span>
    {#if !disabled}<ChevronDown size={15} class="flex-none" aria-hidden="true" />{/if}
  </Select.Trigger>
  <Select.Portal>
    <Select.Content
      class="z-50 max-h-[min(420px,60vh)] max-w-[min(560px,92vw)] min-w-(--bits-select-anchor-width) overflow-y-auto border border-rule2 bg-sheet py-1"
      align="start"
      sideOffset={2}
    >
      {#each options as o (o.value)}
        <Select.Item
          value={o.value}
          label={o.label}
          class="flex min-h-8 cursor-pointer items-center gap-3 px-3 py-1 data-highlighted:bg-water data-selected:font-strong max-desk:min-h-11"
        >
          <span>{o.label}</span>{#if o.detail}<span class="text-label text-ink2">{o.detail}</span>{/if}
        </Select.Item>
      {/each}
    </Select.Content>
  </Select.Portal>
</Select.Root>
