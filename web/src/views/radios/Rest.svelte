<script lang="ts">
  import Field from '$parts/Field.svelte';
  import type { RadiosState } from './radios.svelte';

  /** The rows that can wait, folded: what they say in a line, and all of them where somebody asks. */
  let { radio }: { radio: RadiosState } = $props();
  let open = $state(false);
  /** Those that the drawing has already. */
  const drawn = [
    'name',
    'checked',
    'receive',
    'transmit',
    'slots',
    'special_slots',
    'entry',
    'automatic_region',
    'offset_max',
    'offset_resolution',
    'ctcss',
    'separate_tones',
    'burst',
    'dcs',
    'inverted_dcs',
    'name_length',
    'name_keypad',
    'name_characters',
  ];
  const fields = $derived((radio.form?.fields ?? []).filter((f) => !drawn.includes(f.key)));
  const groups = $derived([...new Set(fields.map((f) => f.group))]);
  const t = $derived(radio.texts);
  const faulty = $derived(fields.some((f) => radio.faults[f.key] !== undefined));
  const shown = $derived(open || faulty);
  const receivers: Record<string, string> = {
    one: 'one receiver',
    'dual watch': 'dual watch',
    'dual receive': 'two receivers',
  };
  const sum = $derived(
    [
      t.watts ? `power ${t.watts} W` : '',
      t.steps ? `steps ${t.steps} kHz` : '',
      t.widths ?? '',
      receivers[t.receivers ?? ''] ?? '',
      t.scan_rate && t.scan_rate !== '0' ? `${t.scan_rate} channels a second` : '',
      t.timeout && t.timeout !== '0' ? `${t.timeout} min time-out` : 'no time-out',
    ].filter(Boolean),
  );
</script>

<p class="also">
  {fields.length} more rows can wait: {sum.join(' · ')}.
  <button type="button" class="link max-desk:min-h-11" aria-expanded={shown} onclick={() => (open = !open)}
    >{shown ? 'Fold them' : 'Show them'}</button
  >
</p>
{#if shown}
  <div class="groups">
    {#each groups as group (group)}
      <section aria-label="More: {group}">
        <h2 class="border-b border-rule2 pt-3 pb-1 font-strong">
          {group === 'crib' ? 'what to press, printed on the keypad sheet' : group}
        </h2>
        {#each fields.filter((f) => f.group === group) as f (f.key)}
          <Field
            name={f.key}
            label={f.label}
            hint={f.hint}
            options={f.options?.map((o, i) => ({ value: o, label: (f.says?.[i] ?? o) || 'none' }))}
            disabled={!(radio.form?.own ?? false)}
            fault={radio.faults[f.key]}
            typed={() => {
              radio.typed();
            }}
            bind:value={
              () => radio.texts[f.key] ?? '',
              (v) => {
                radio.texts[f.key] = v;
              }
            }
          />
        {/each}
      </section>
    {/each}
  </div>
{/if}

<style>
  .also {
    padding: 8px 0 10px 28px;
    border-top: var(--hair);
    font-size: var(--t-small);
    color: var(--ink2);
    line-height: 1.45;
    max-width: 668px;
  }
  .groups {
    columns: 2 340px;
    column-gap: 32px;
    padding-bottom: 24px;
  }
  .groups section {
    break-inside: avoid;
  }
  @media (max-width: 45em) {
    .also {
      padding-left: 0;
    }
  }
</style>
