<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import Button from '$parts/Button.svelte';
  import Dialog from '$parts/Dialog.svelte';
  import Select from '$parts/Select.svelte';
  import { api, must, type Comparison, type LoadInfo, type Pasted } from '$lib/api/client';
  import { chosen } from '$lib/api/chosen.svelte';
  import { client } from '$lib/client';
  import { say } from '$session/say.svelte';
  import Differences from './Differences.svelte';
  import type { PlanState } from './plan.svelte';
  import { runs } from './runs';
  import { download, encoded, formats, type Format } from './files';

  /** The plan as a file, and files into the plan: what is lost is said before, and what differs after. */
  interface Props {
    plan: PlanState;
    id: number;
    name: string;
    load: LoadInfo;
    close: () => void;
  }
  let { plan, id, name, load, close }: Props = $props();
  let of = $state('plan');
  let format = $state<string>('json');
  const file = createQuery(() => ({
    queryKey: ['history', 'file', id, load.id, of, format, plan.ledger?.revision],
    queryFn: async () => {
      const query = { format: format as Format };
      return of === 'plan'
        ? must(await api.GET('/api/plans/{id}/file', { params: { path: { id }, query } }))
        : must(await api.GET('/api/loads/{load}/file', { params: { path: { load: load.id }, query } }));
    },
  }));
  const lost = $derived(file.data?.lost ?? []);

  let picked = $state.raw<{ name: string; data: string }>();
  let found = $state.raw<Comparison>();
  let taken = $state<number[]>([]);
  let viewpoint = $state<'operator' | 'repeater'>();
  let ask = $state.raw<Pasted['ask']>(null);
  let trouble = $state('');
  let busy = $state(false);
  const first = $derived(plan.selected ?? load.radio.slots.first);

  async function pick(list: FileList | null) {
    const f = list?.[0];
    if (!f) return;
    if (f.size > 10_000_000) {
      trouble = `${f.name} has ${String(Math.round(f.size / 1e6))} MB: a plan has up to 10. A listing is imported under Find.`;
      return;
    }
    picked = { name: f.name, data: encoded(await f.arrayBuffer()) };
    viewpoint = undefined;
    found = undefined;
    ask = null;
    trouble = '';
  }

  async function act(f: () => Promise<void>) {
    trouble = '';
    busy = true;
    try {
      await f();
    } catch (e) {
      trouble = e instanceof Error ? e.message : 'The application does not answer. Start it again.';
    } finally {
      busy = false;
    }
  }
  const body = () => ({
    name: picked?.name ?? '',
    data: picked?.data ?? '',
    slot: first,
    ...(viewpoint ? { viewpoint } : {}),
    revision: plan.ledger?.revision ?? 0,
  });
  const bring = () =>
    act(async () => {
      const b = must(await api.POST('/api/loads/{load}/bring', { params: { path: { load: load.id } }, body: body() }));
      ask = b.pasted?.ask ?? null;
      if (ask) return;
      await client.invalidateQueries();
      if (b.workspace) {
        chosen.plan = b.workspace.plan.id;
        say.done(`${b.workspace.plan.name} is a plan beside the others now; Ctrl+Z takes it away again`);
        close();
      } else if (b.pasted) {
        say.done(`${String(b.pasted.slots.length)} channels in ${runs(b.pasted.slots)}`);
        if (b.pasted.left.length > 0) plan.several.pasting = { text: '', slot: first, over: false, pasted: b.pasted };
        close();
      }
    });
  const against = () =>
    act(async () => {
      found = must(await api.POST('/api/loads/{load}/against', { params: { path: { load: load.id } }, body: body() }));
      taken = [];
    });
  const take = () =>
    act(async () => {
      must(
        await api.POST('/api/loads/{load}/take', {
          params: { path: { load: load.id } },
          body: {
            data: picked?.data ?? '',
            parts: taken,
            revision: plan.ledger?.revision ?? 0,
            ...(viewpoint ? { viewpoint } : {}),
          },
        }),
      );
      await client.invalidateQueries();
      say.done(`Took ${taken.length === 1 ? '1 channel' : `${String(taken.length)} channels`} from the file`);
      close();
    });
</script>

<Dialog
  bind:open={
    () => true,
    (o) => {
      if (!o) close();
    }
  }
  title="Files"
  wide="middle"
>
  <section aria-label="Save" class="pb-4">
    <h3 class="text-[15px] font-strong">Save</h3>
    <div class="flex flex-wrap items-center gap-x-4 gap-y-2 py-2">
      <span class="w-72"
        ><Select
          bind:value={of}
          label="What"
          options={[
            { value: 'plan', label: `the plan ${name}` },
            { value: 'load', label: `${load.unit.name}, as it will hold it` },
          ]}
        /></span
      >
      <span class="w-64"><Select bind:value={format} label="Format" options={formats(of === 'load')} /></span>
      <Button
        onclick={() => {
          close();
          plan.columns = true;
        }}>Columns of your own…</Button
      >
      <Button
        kind="main"
        disabled={!file.data}
        onclick={() => {
          if (file.data) download(file.data);
        }}>Save {file.data?.name ?? ''}</Button
      >
    </div>
    {#if file.isError}<p role="alert" class="text-stop">{file.error.message}</p>
    {:else if file.data}
      <p role="status" class="text-ink2">
        {#if lost.length === 0}Nothing is lost: read back, it is the same plan.{:else}What is not in it as planned:{/if}
      </p>
      <ul>
        {#each lost as l, i (i)}<li class="border-b border-rule py-0.5 text-small">{l}</li>{/each}
      </ul>
    {/if}
  </section>
  <section aria-label="Open" class="border-t border-rule2 pt-3">
    <h3 class="text-[15px] font-strong">Open</h3>
    <p class="text-ink2">
      A plan becomes a plan beside this one. A table or lines in words become channels of {load.unit.name}, from slot {first}
      on.
    </p>
    <div class="flex flex-wrap items-center gap-x-4 gap-y-2 py-2">
      <label
        class="inline-flex min-h-7 cursor-pointer items-center rounded-[2px] border border-rule2 bg-sheet px-3 text-[13.5px] focus-within:outline-2 focus-within:outline-accent max-desk:min-h-11"
        >Choose a file…<input
          type="file"
          id="plan-file"
          class="sr-only"
          onchange={(e) => void pick(e.currentTarget.files)}
        /></label
      >
      {#if picked}
        <Button kind="main" disabled={busy} onclick={() => void bring()}>Import {picked.name}</Button>
        <Button disabled={busy} onclick={() => void against()}>Compare it with {load.unit.name}</Button>
      {/if}
    </div>
    {#if ask}
      <p>Whose TX is it? The table does not prove it. Choose the sentence that is true:</p>
      <div class="flex flex-col items-start gap-2 py-2">
        {#each [['operator', ask.operator], ['repeater', ask.repeater]] as const as [v, says] (v)}
          <Button
            onclick={() => {
              viewpoint = v;
              void bring();
            }}>{says}</Button
          >
        {/each}
      </div>
    {/if}
    {#if trouble}<p role="alert" class="text-stop">{trouble}</p>{/if}
    {#if found}
      <Differences {found} bind:taken />
      {#if found.differences.length > 0}<div class="pt-2">
          <Button
            fix={taken.length > 0 ? 'live' : undefined}
            disabled={taken.length === 0 || busy}
            onclick={() => void take()}
            >{taken.length === 0
              ? 'Tick what to take'
              : `Take ${taken.length === 1 ? '1 channel' : `${String(taken.length)} channels`} from the file`}</Button
          >
        </div>{/if}
    {/if}
  </section>
</Dialog>
