<script lang="ts">
  interface Props {
    legend: string;
    note: string;
    options: { value: string; label: string; detail?: string }[];
    chosen: string[];
    changed: () => void;
  }
  let { legend, note, options, chosen = $bindable(), changed }: Props = $props();

  function set(value: string, on: boolean) {
    chosen = on ? [...chosen, value] : chosen.filter((v) => v !== value);
    changed();
  }
</script>

<fieldset class="border-b border-rule py-2">
  <legend class="float-left w-full pb-1 text-ink2">{legend} <span class="text-label">{note}</span></legend>
  <div class="clear-both flex flex-wrap gap-x-5 gap-y-1">
    {#each options as o (o.value)}
      <label class="flex min-h-7 items-center gap-2 max-desk:min-h-11 {o.detail ? 'w-full' : ''}">
        <input
          type="checkbox"
          checked={chosen.includes(o.value)}
          onchange={(e) => {
            set(o.value, e.currentTarget.checked);
          }}
        />
        {o.label}{#if o.detail}<span class="text-label text-ink2">{o.detail}</span>{/if}
      </label>
    {/each}
  </div>
</fieldset>
