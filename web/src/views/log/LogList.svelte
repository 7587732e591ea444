<script lang="ts">
  import Frequency from '$parts/Frequency.svelte';
  import Mark from '$parts/Mark.svelte';
  import type { LogBook } from '$lib/api/client';
  import { sentTone, when } from '$lib/format';

  import type { Brought } from './log.svelte';

  /** What happened on the air, newest first. */
  interface Props {
    book: LogBook;
    load: number;
    find: string;
    choose: (slot: number) => void;
    drop: (id: number) => void;
    edit: (id: number, form: { answer?: string; note: string; station: string; spot: string }) => Promise<boolean>;
    bring: (file: File) => void;
    /** What came of a file of contacts. */
    brought: Brought | undefined;
  }
  let { book, load, find = $bindable(), choose, drop, edit, bring, brought }: Props = $props();
  let most = $state(40);
  let open = $state(0);
  let form = $state({ answer: '', note: '', station: '', spot: '' });
  const file = (as: string) => `/api/loads/${String(load)}/log/file?as=${as}`;
</script>

<div class="head">
  <h2>The log</h2>
  {#if book.tries.length > 0 || find}
    <label class="sr-only" for="log-find">Find in the log</label>
    <input id="log-find" bind:value={find} placeholder="a name, a word, reply, nothing" autocomplete="off" />
    <p>
      <Mark kind="agrees" />
      {book.answered} answered <Mark kind="unverified" />
      {book.silent} silent
    </p>
  {:else}<p>Nothing yet. Choose a channel above and test it; or bring the contacts of another log.</p>{/if}
  <p class="files">
    {#if book.tries.length > 0}<a class="link" href={file('csv')} download="log.csv">CSV</a>
      <a class="link" href={file('adi')} download="contacts.adi">ADI, contacts only</a>
      <button
        type="button"
        class="link"
        onclick={() => {
          print();
        }}>print</button
      >{/if}
    <label class="link bring"
      >bring contacts (ADI)<input
        type="file"
        accept=".adi,.adif,text/plain"
        class="sr-only"
        onchange={(e) => {
          const f = e.currentTarget.files?.[0];
          if (f) bring(f);
          e.currentTarget.value = '';
        }}
      /></label
    >
  </p>
</div>
{#if brought}
  <div class="brought" role="status">
    <p>
      {brought.added === 1 ? '1 contact is' : `${String(brought.added)} contacts are`} in the log now{brought.known > 0
        ? `, ${String(brought.known)} were there already`
        : ''}. A contact proves no channel: nobody knows how the radio was set.
    </p>
    {#if brought.losses.length > 0}<details>
        <summary
          >{brought.losses.length === 1 ? '1 thing was' : `${String(brought.losses.length)} things were`} not carried over</summary
        >
        <ul class="losses">
          {#each brought.losses as l, i (i)}<li>{l}</li>{/each}
        </ul>
      </details>{/if}
  </div>
{/if}
{#if book.tries.length > 0 || find}
  <ul class="lines">
    {#each book.tries.slice(0, most) as t (t.id)}
      <li>
        {#if t.kind === 'switch'}<a class="slot" href="/beacon"><span class="n"></span> {t.name}</a>
        {:else}<button
            type="button"
            class="slot"
            onclick={() => {
              choose(t.slot);
            }}
            title="test it again"><span class="n">{t.slot || ''}</span> {t.name}</button
          >{/if}
        <span class="rx"
          >{#if t.receive_hz > 0}<Frequency hz={t.receive_hz} />{/if}</span
        >
        <span class="tone"
          >{t.kind === 'search' || t.kind === 'contact' || t.kind === 'switch' ? '' : sentTone(t.setting.tone)}</span
        >
        <span class="came"
          >{#if t.kind !== 'switch'}<Mark
              kind={(t.kind === 'key' ? t.answer !== 'nothing' : t.yes || t.kind === 'contact')
                ? 'agrees'
                : 'unverified'}
            />{/if}
          {t.says}{#if t.note}<i>{t.note}</i>{/if}</span
        >
        <span class="with">{t.spot || t.setting.where}</span>
        <span class="time">{when(t.at)}</span>
        <span class="do"
          ><button
            type="button"
            class="link"
            aria-expanded={open === t.id}
            onclick={() => {
              open = open === t.id ? 0 : t.id;
              form = { answer: t.answer, note: t.note, station: t.station, spot: t.spot };
            }}>edit</button
          ></span
        >
        {#if open === t.id}
          <form
            onsubmit={(e) => {
              e.preventDefault();
              const { answer, ...rest } = form;
              void edit(t.id, t.kind === 'key' ? { answer, ...rest } : rest).then((done) => {
                if (done) open = 0;
              });
            }}
          >
            {#if t.kind === 'key'}<label>came back <input bind:value={form.answer} list="log-answers" /></label>{/if}
            <label>who answered <input bind:value={form.station} /></label>
            <label>where <input bind:value={form.spot} /></label>
            <label>note <input bind:value={form.note} /></label>
            <button type="submit" class="link">set</button>
            <button
              type="button"
              class="link"
              onclick={() => {
                drop(t.id);
              }}>take it out</button
            >
          </form>
        {/if}
      </li>
    {/each}
  </ul>
  <datalist id="log-answers"
    >{#each ['tail', 'ident', 'weak', 'reply', 'nothing'] as a (a)}<option value={a}></option>{/each}</datalist
  >
  {#if book.tries.length === 0}<p class="py-2 text-ink2">Nothing in the log has these words.</p>{/if}
  {#if book.tries.length > most}<button type="button" class="link my-2" onclick={() => (most += 100)}
      >show more of {book.tries.length}</button
    >{/if}
{/if}

<style>
  .head {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
    align-items: baseline;
    border-top: 1px solid var(--rule2);
    margin-top: 14px;
    padding: 8px 0 4px;
  }
  h2 {
    font-weight: var(--w-strong);
    padding-left: 40px;
  }
  .head p {
    font-size: 13px;
    color: var(--ink2);
  }
  .files {
    margin-left: auto;
    display: flex;
    gap: 12px;
  }
  input {
    height: 28px;
    border: 1px solid var(--rule2);
    border-radius: 2px;
    background: var(--sheet);
    padding: 0 8px;
    min-width: 0;
  }
  .lines li {
    display: grid;
    grid-template-columns: 190px 76px 80px minmax(0, 1fr) 96px 92px 36px;
    align-items: baseline;
    min-height: 24px;
    border-bottom: 1px solid var(--rule);
    font-size: 13.5px;
  }
  .bring {
    cursor: pointer;
    position: relative;
  }
  .bring input {
    left: 0;
    width: 1px;
    height: 1px;
    padding: 0;
  }
  .bring:focus-within {
    outline: 2px solid var(--accent);
    outline-offset: 2px;
  }
  .brought {
    padding: 4px 0 6px 40px;
    font-size: 13.5px;
  }
  .losses {
    color: var(--ink2);
    padding: 2px 0 0 16px;
    list-style: disc;
  }
  summary {
    cursor: pointer;
  }
  .slot {
    text-align: left;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    min-height: 24px;
  }
  .slot:hover {
    text-decoration: underline;
  }
  .n {
    display: inline-block;
    width: 36px;
    padding-left: 4px;
    font-family: var(--figs);
    color: var(--ink2);
  }
  .came i {
    font-style: normal;
    color: var(--ink2);
    margin-left: 8px;
  }
  .with,
  .time,
  .tone {
    color: var(--ink2);
    font-size: 13px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .do {
    text-align: right;
  }
  form {
    grid-column: 1 / -1;
    display: flex;
    flex-wrap: wrap;
    gap: 6px 12px;
    align-items: baseline;
    padding: 4px 0 8px 40px;
  }
  @media (max-width: 45em) {
    h2 {
      padding-left: 0;
    }
    .lines li {
      grid-template-columns: minmax(0, 1fr) auto auto;
      column-gap: 12px;
      padding: 4px 0;
    }
    .rx,
    .tone,
    .with {
      display: none;
    }
    .slot,
    .link {
      min-height: 44px;
    }
    a.slot {
      line-height: 44px;
    }
    .came {
      grid-column: 1 / -1;
      order: 5;
    }
    form {
      order: 6;
      padding-left: 0;
    }
    input {
      height: 44px;
    }
  }
</style>
