<script lang="ts">
  import Select from './Select.svelte';

  interface Props {
    label: string;
    value: string;
    hint?: string;
    fault?: string | undefined;
    /** What can be chosen; without it anything can be typed. */
    options?: readonly { value: string; label: string; detail?: string }[] | undefined;
    disabled?: boolean;
    name: string;
    /** Called when the person leaves the field with another value. */
    changed?: () => void;
    /** Called at every keystroke. */
    typed?: () => void;
  }
  let {
    label,
    value = $bindable(),
    hint = '',
    fault,
    options,
    disabled = false,
    name,
    changed,
    typed,
  }: Props = $props();
  /** A text that cannot be changed is shown whole. */
  const plain = $derived(disabled && !options);
  const described = $derived(fault ? `${name}-fault` : undefined);
  const box =
    'h-[30px] w-full min-w-0 rounded-[2px] border bg-sheet px-2 disabled:border-transparent disabled:bg-transparent disabled:px-0 disabled:text-ink max-desk:h-11';
</script>

<div class="grid grid-cols-[minmax(120px,42%)_1fr] items-baseline gap-x-3 border-b border-rule py-1">
  {#if plain}<span class="text-ink2">{label}</span>
  {:else}<label for={name} class="text-ink2">{label}</label>{/if}
  <div class="min-w-0">
    {#if options}
      <Select
        id={name}
        {label}
        {options}
        {disabled}
        {fault}
        {described}
        bind:value
        changed={() => {
          typed?.();
          changed?.();
        }}
      />
    {:else if plain}
      <p id={name} class="min-h-[30px] py-1 break-words">{value || '–'}</p>
    {:else}
      <input
        id={name}
        class="{box} {fault ? 'border-stop' : 'border-rule2'}"
        placeholder={hint}
        autocomplete="off"
        spellcheck="false"
        aria-invalid={fault !== undefined}
        aria-describedby={described}
        bind:value
        oninput={typed}
        onchange={changed}
      />
    {/if}
    {#if fault}<p id={described} class="pt-0.5 text-label text-stop">{fault}</p>{/if}
  </div>
</div>
