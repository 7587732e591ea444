<script lang="ts">
  import Select from '$parts/Select.svelte';
  import type { RadioForm } from '$lib/api/client';
  import type { RadiosState } from './radios.svelte';

  interface Props {
    radio: RadiosState;
    /** The key of the field. */
    of: string;
    /** Shown instead of the bare value where nothing is edited. */
    shown?: string;
  }
  /** A value in a sentence, edited where it stands. */
  let { radio, of, shown }: Props = $props();
  const field = $derived(radio.form?.fields.find((f): f is RadioForm['fields'][number] => f.key === of));
  const value = $derived(radio.texts[of] ?? '');
  const fault = $derived(radio.faults[of]);
  const own = $derived(radio.form?.own ?? false);
  const options = $derived(field?.options?.map((o, i) => ({ value: o, label: (field.says?.[i] ?? o) || 'none' })));
  const says = $derived(shown ?? options?.find((o) => o.value === value)?.label ?? value);
</script>

<span class="box"
  >{#if !own}<b>{says || '–'}</b>{:else if options}<span class="choice"
      ><Select
        id={of}
        label={field?.label ?? of}
        {options}
        {fault}
        described={fault ? `${of}-fault` : undefined}
        bind:value={
          () => value,
          (v) => {
            radio.texts[of] = v;
            radio.typed();
          }
        }
      /></span
    >{:else}<input
      id={of}
      aria-label={field?.label ?? of}
      placeholder={field?.hint}
      autocomplete="off"
      spellcheck="false"
      size={Math.max(2, value.length)}
      aria-invalid={fault !== undefined}
      aria-describedby={fault ? `${of}-fault` : undefined}
      bind:value={
        () => value,
        (v) => {
          radio.texts[of] = v;
        }
      }
      oninput={() => {
        radio.typed();
      }}
    />{/if}{#if fault}<span id="{of}-fault" class="fault">{fault}</span>{/if}</span
>

<style>
  .box {
    display: inline-flex;
    flex-wrap: wrap;
    align-items: baseline;
    max-width: 100%;
    min-width: 0;
    vertical-align: baseline;
  }
  b,
  input,
  .choice :global(button) {
    font: var(--w-strong) 15px/20px var(--figs);
    text-decoration: underline dotted;
    text-decoration-color: var(--rule2);
    text-underline-offset: 4px;
    text-decoration-thickness: 1px;
  }
  input {
    field-sizing: content;
    min-width: 2ch;
    max-width: 100%;
    min-height: 24px;
    padding: 0 2px;
    background: transparent;
    border: 0;
    color: var(--ink);
  }
  input:hover,
  .choice :global(button:hover) {
    background: var(--hover);
  }
  input:focus {
    background: var(--water);
    text-decoration: none;
  }
  .choice :global(button) {
    width: auto;
    height: 24px;
    padding: 0 2px;
    border: 0;
    background: transparent;
    font-family: var(--text);
  }
  .fault {
    flex-basis: 100%;
    font-size: var(--t-label);
    color: var(--stop);
  }
  @media (max-width: 45em) {
    input,
    .choice :global(button) {
      min-height: 44px;
    }
  }
</style>
