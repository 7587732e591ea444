<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import Button from '$parts/Button.svelte';
  import Dialog from '$parts/Dialog.svelte';
  import Select from '$parts/Select.svelte';
  import { api, must, type ColumnTemplate, type LoadInfo, type TemplateColumn } from '$lib/api/client';
  import { client } from '$lib/client';
  import { Act } from '$session/act.svelte';
  import { say } from '$session/say.svelte';
  import { download, encoded } from './files';
  import type { PlanState } from './plan.svelte';
  import { runs } from './runs';

  /** Columns for anybody's tool: which, in which order and words, with a sample of what comes of them. */
  interface Props {
    plan: PlanState;
    load: LoadInfo;
    close: () => void;
  }
  let { plan, load, close }: Props = $props();
  const act = new Act();
  const templates = createQuery(() => ({
    queryKey: ['templates'],
    queryFn: async () => must(await api.GET('/api/templates')),
  }));
  const fields = $derived(templates.data?.fields ?? []);
  const kept = $derived(templates.data?.templates ?? []);
  const fresh = (): ColumnTemplate => ({
    name: '',
    comma: false,
    divide: ',',
    heading: true,
    columns: [
      { of: 'slot', heading: 'slot' },
      { of: 'name', heading: 'name' },
      { of: 'receive', heading: 'receive', unit: 'MHz', decimals: 4 },
      { of: 'transmit', heading: 'transmit', unit: 'MHz', decimals: 4 },
      { of: 'tone out', heading: 'tone sent' },
    ],
  });
  let t = $state(fresh());
  let id = $state(0);
  let revision = 0;
  let was = $state(JSON.stringify(fresh()));
  const sample = createQuery(() => ({
    queryKey: ['history', 'sample', load.id, JSON.stringify({ ...t, name: t.name || 'sample' }), plan.ledger?.revision],
    queryFn: async () =>
      must(
        await api.POST('/api/loads/{load}/sample', {
          params: { path: { load: load.id } },
          body: { ...$state.snapshot(t), name: t.name || 'sample' },
        }),
      ),
    placeholderData: (old) => old,
  }));
  const faults = $derived(sample.data?.faults ?? []);
  const faultOf = (i: number) => faults.find((f) => f.field === `columns.${String(i)}`)?.message;
  const rows = $derived(sample.data?.rows.slice(0, 6) ?? []);
  const info = (of: string) => fields.find((f) => f.of === of);

  function open(which: string) {
    const k = kept.find((x) => String(x.id) === which);
    t = k ? (structuredClone(k.template) as ColumnTemplate) : fresh();
    id = k?.id ?? 0;
    revision = k?.revision ?? 0;
    was = JSON.stringify(t);
  }
  function of(c: TemplateColumn, field: string) {
    const now = info(field);
    c.of = field;
    c.words = {};
    if (now?.frequency) {
      c.unit ??= 'MHz';
      c.decimals ??= 4;
    }
  }
  function swap(i: number, by: -1 | 1) {
    const [a, b] = [t.columns[i], t.columns[i + by]];
    if (a && b) [t.columns[i], t.columns[i + by]] = [b, a];
  }
  async function keep() {
    await act.try(async () => {
      const all = must(await api.POST('/api/templates', { body: { id, template: $state.snapshot(t), revision } }));
      client.setQueryData(['templates'], all);
      const mine = all.templates.find((x) => x.template.name === t.name.trim());
      if (mine) open(String(mine.id));
    }, 'Columns kept');
  }
  async function drop() {
    await act.try(async () => {
      client.setQueryData(
        ['templates'],
        must(await api.DELETE('/api/templates/{id}', { params: { path: { id }, query: { revision } } })),
      );
      open('0');
    }, 'Columns removed; Ctrl+Z undoes it');
  }
  async function read(list: FileList | null) {
    const f = list?.[0];
    if (!f) return;
    await act.try(async () => {
      const slot = plan.selected ?? load.radio.slots.first;
      const b = must(
        await api.POST('/api/loads/{load}/bring', {
          params: { path: { load: load.id } },
          body: {
            name: f.name,
            data: encoded(await f.arrayBuffer()),
            slot,
            template: id,
            revision: plan.ledger?.revision ?? 0,
          },
        }),
      );
      if (!b.pasted) return;
      say.done(`${String(b.pasted.slots.length)} channels in ${runs(b.pasted.slots)}`);
      if (b.pasted.left.length > 0) plan.several.pasting = { text: '', slot, over: false, pasted: b.pasted };
      close();
    });
  }
  const box = 'h-7 min-w-0 border border-rule2 bg-sheet px-2 max-desk:h-11';
</script>

<Dialog
  bind:open={
    () => true,
    (o) => {
      if (!o) close();
    }
  }
  title="Columns of your own"
  says="For a tool that wants its own table: say which columns, in which order and words. What they cannot say is listed; what must not transmit is left out where no column says so."
  wide="full"
>
  <div class="flex flex-wrap items-center gap-x-4 gap-y-2 pb-2">
    {#if kept.length > 0}<span class="w-56"
        ><Select
          value={String(id)}
          label="Columns"
          options={[
            { value: '0', label: 'new columns' },
            ...kept.map((k) => ({ value: String(k.id), label: k.template.name })),
          ]}
          changed={open}
        /></span
      >{/if}
    <input
      bind:value={t.name}
      aria-label="Name of the columns"
      placeholder="name, such as: club sheet"
      maxlength="40"
      autocomplete="off"
      class="{box} w-56"
    />
    <span class="flex items-center gap-2"
      >cells divided by <span class="w-32"
        ><Select
          bind:value={t.divide}
          label="Cells divided by"
          options={[
            { value: ',', label: 'comma' },
            { value: ';', label: 'semicolon' },
            { value: '\t', label: 'tab' },
          ]}
        /></span
      ></span
    >
    <label class="flex items-center gap-1.5 max-desk:min-h-11"
      ><input type="checkbox" bind:checked={t.comma} /> decimal comma</label
    >
    <label class="flex items-center gap-1.5 max-desk:min-h-11"
      ><input type="checkbox" bind:checked={t.heading} /> row of headings</label
    >
  </div>
  <ol class="max-h-[34vh] overflow-y-auto border-t border-rule" aria-label="Columns">
    {#each t.columns as c, i (i)}
      {@const f = info(c.of)}
      <li class="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule py-1">
        <span class="w-5 text-right font-figs text-small text-ink2">{i + 1}</span>
        <span class="w-72"
          ><Select
            value={c.of}
            label="Column {i + 1} says"
            options={fields.map((x) => ({ value: x.of, label: x.says }))}
            changed={(v) => {
              of(c, v);
            }}
          /></span
        >
        {#if t.heading}<input
            bind:value={c.heading}
            aria-label="Heading of column {i + 1}"
            placeholder="heading"
            autocomplete="off"
            class="{box} w-36"
          />{/if}
        {#if f?.frequency}
          <span class="w-24"
            ><Select
              bind:value={() => c.unit ?? 'MHz', (v) => (c.unit = v)}
              label="Unit of column {i + 1}"
              options={['MHz', 'kHz', 'Hz'].map((u) => ({ value: u, label: u }))}
            /></span
          >
          <label class="flex items-center gap-1.5"
            ><input
              type="number"
              min="0"
              max="6"
              bind:value={() => c.decimals ?? 0, (v) => (c.decimals = Number(v))}
              class="{box} w-14 font-figs"
            /> decimals</label
          >
        {/if}
        {#if c.of === 'text'}<input
            bind:value={() => c.text ?? '', (v) => (c.text = v)}
            aria-label="Text of column {i + 1}"
            placeholder="text"
            autocomplete="off"
            class="{box} w-36"
          />{/if}
        {#each f?.words ?? [] as w, nth (nth)}
          <label class="flex items-center gap-1.5 text-small"
            ><span class="text-ink2">{w}</span><input
              bind:value={() => c.words?.[w] ?? w, (v) => (c.words = { ...c.words, [w]: v })}
              autocomplete="off"
              class="{box} w-20"
            /></label
          >
        {/each}
        <span class="ml-auto flex gap-3">
          <button
            type="button"
            class="link max-desk:min-h-11"
            disabled={i === 0}
            onclick={() => {
              swap(i, -1);
            }}
            aria-label="Move column {i + 1} up">up</button
          >
          <button
            type="button"
            class="link max-desk:min-h-11"
            disabled={i === t.columns.length - 1}
            onclick={() => {
              swap(i, 1);
            }}
            aria-label="Move column {i + 1} down">down</button
          >
          <button
            type="button"
            class="link max-desk:min-h-11"
            onclick={() => (t.columns = t.columns.filter((_, n) => n !== i))}
            aria-label="Remove column {i + 1}">remove</button
          >
        </span>
        {#if faultOf(i)}<p role="alert" class="w-full pl-8 text-small text-stop">{faultOf(i)}</p>{/if}
      </li>
    {/each}
  </ol>
  <div class="py-2">
    <Button onclick={() => (t.columns = [...t.columns, { of: 'lock', heading: 'receive only' }])}>Add a column</Button>
  </div>
  {#each faults.filter((f) => f.field === 'columns') as f, nth (nth)}<p role="alert" class="text-stop">
      {f.message}
    </p>{/each}
  {#if act.faults.columns ?? act.faults.name ?? act.trouble}<p role="alert" class="text-stop">
      {act.faults.columns ?? act.faults.name ?? act.trouble}
    </p>{/if}
  <section aria-label="Sample" class="border-t border-rule2 pt-2">
    <h3 class="text-[15px] font-strong">{load.unit.name} in these columns</h3>
    {#if rows.length > 0}
      <div class="overflow-x-auto">
        <table class="font-figs text-small">
          <tbody>
            {#each rows as row, n (n)}
              <tr class="border-b border-rule {n === 0 && t.heading ? 'text-ink2' : ''}">
                {#each row as cell, k (k)}<td class="pr-5 whitespace-nowrap">{cell}</td>{/each}
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
      <p class="pt-1 text-small text-ink2" role="status">
        {(sample.data?.rows.length ?? 0) - (t.heading ? 1 : 0)} rows{(sample.data?.lost.length ?? 0) > 0
          ? '; not in them as planned:'
          : ', nothing lost'}
      </p>
      <ul class="text-small">
        {#each sample.data?.lost ?? [] as l, n (n)}<li class="border-b border-rule py-0.5">{l}</li>{/each}
      </ul>
    {/if}
  </section>
  {#snippet acts()}
    <Button
      kind="main"
      disabled={act.busy || faults.length > 0 || JSON.stringify(t) === was}
      onclick={() => void keep()}>Keep these columns</Button
    >
    <Button
      disabled={!sample.data?.file}
      onclick={() => {
        if (sample.data?.file) download(sample.data.file);
      }}>Save the file</Button
    >
    {#if id !== 0}
      <label
        class="inline-flex min-h-7 cursor-pointer items-center rounded-[2px] border border-rule2 bg-sheet px-3 text-[13.5px] focus-within:outline-2 focus-within:outline-accent max-desk:min-h-11"
        >Read such a file…<input
          type="file"
          id="columns-file"
          class="sr-only"
          onchange={(e) => void read(e.currentTarget.files)}
        /></label
      >
      <Button onclick={() => void drop()}>Remove</Button>
    {/if}
  {/snippet}
</Dialog>
