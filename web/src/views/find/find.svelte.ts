import type { QueryClient } from '@tanstack/svelte-query';
import { SvelteSet } from 'svelte/reactivity';
import { chosen } from '$lib/api/chosen.svelte';
import {
  api,
  ApiError,
  did,
  must,
  type Added,
  type Completion,
  type FindGroup,
  type Found,
  type FoundRepeater,
  type LoadInfo,
  type StatementID,
} from '$lib/api/client';
import { putsWords } from '$lib/puts';
import type { Desk } from '$session/desk.svelte';

/** Names a statement in one text. */
export const idText = (id: StatementID): string => `${id.source}\n${id.key}`;

/** What the Find view holds: the line, what is chosen and picked, and what is done with it. */
export class FindState {
  line = $state('');
  selected = $state<StatementID>();
  picked = new SvelteSet<string>();
  message = $state('');
  trouble = $state('');
  completions = $state.raw<readonly Completion[]>([]);
  /** Which completion the keys have reached; -1 for none. */
  at = $state(-1);
  #asked = 0;

  constructor(
    private readonly client: QueryClient,
    private readonly desk: Desk,
  ) {}

  /** Takes over what is typed, and asks what the word may become. */
  async type(text: string, caret: number, load: number): Promise<void> {
    this.line = text;
    this.at = -1;
    const asked = ++this.#asked;
    const word = [...text].slice(0, caret).join('');
    if (!/\S$/.test(word)) {
      this.completions = [];
      return;
    }
    await new Promise((done) => setTimeout(done, 40)); // who types on asks once
    if (asked !== this.#asked) return;
    const found = await api.GET('/api/find/complete', { params: { query: { line: text, caret, load } } });
    if (asked === this.#asked) this.completions = found.data?.completions ?? [];
  }

  /** Takes a completion over, and says where the caret stands then. */
  complete(c: Completion): number {
    const runes = [...this.line];
    const rest = runes.slice(c.to).join('');
    const text = c.text.endsWith(' ') ? c.text : `${c.text} `;
    this.line = runes.slice(0, c.from).join('') + text + rest.replace(/^ /, '');
    this.close();
    return c.from + text.length;
  }

  close(): void {
    this.#asked++;
    this.completions = [];
    this.at = -1;
  }

  /**
   * Puts a word of the menu into the line, in the place of another choice of its
   * group; again takes it out. What the line says counts, and not what the last
   * answer was about.
   */
  choose(word: string, group: FindGroup, words: Found['words']): void {
    const others = [
      ...words.filter((w) => w.menu === group.name).map((w) => w.text),
      ...group.choices.map((c) => c.word),
    ];
    let line = ` ${this.line.replace(/\s+/g, ' ')} `;
    const there = line.toLowerCase().includes(` ${word.toLowerCase()} `);
    for (const other of others) {
      const at = line.toLowerCase().indexOf(` ${other.toLowerCase()} `);
      if (at >= 0) line = `${line.slice(0, at)} ${line.slice(at + other.length + 2)}`;
    }
    this.line = [line.trim(), there ? '' : word].filter(Boolean).join(' ');
    this.close();
  }

  pick(id: string): void {
    if (!this.picked.delete(id)) this.picked.add(id);
  }

  /** Adds repeaters to a radio, and to the others that were ticked. */
  async add(some: readonly FoundRepeater[], load: LoadInfo): Promise<void> {
    if (some.length === 0) return;
    this.trouble = this.message = '';
    const ledger = this.desk.ledger(load.id) ?? (await this.desk.again(load.id));
    const { done, problem, data } = await this.desk.ask({
      method: 'POST',
      path: '/api/loads/{load}/found',
      params: { path: { load: load.id } },
      body: { ids: some.map((r) => r.id), revision: ledger?.revision ?? 0, also: [...chosen.also] },
      load: load.id,
      says: `add ${String(some.length)} to ${load.unit.name}`,
    });
    if (!done) {
      this.trouble = problem?.detail ?? problem?.title ?? '';
      return;
    }
    const out = data as Added | undefined;
    const slots = out?.slots ?? [];
    const taken =
      slots.length > 0
        ? `In ${load.unit.name}, slot ${slots.join(', ')}${putsWords(out?.puts)}. Ctrl+Z undoes it.`
        : '';
    const title = (id: StatementID) =>
      some.find((c) => c.id.source === id.source && c.id.key === id.key)?.title ?? id.key;
    const skipped = out?.skipped ?? [];
    const left = skipped.length > 0 ? `Not added: ${skipped.map((s) => `${title(s.id)}, ${s.why}`).join('; ')}.` : '';
    this.message = [taken, left].filter(Boolean).join(' ');
    this.picked.clear();
    await this.client.invalidateQueries({ queryKey: ['find'] });
  }

  /** Makes a held channel as it is published. */
  async fix(load: number, slot: number, id: string, label: string): Promise<void> {
    this.trouble = this.message = '';
    const ledger = this.desk.ledger(load) ?? (await this.desk.again(load));
    const { done, problem } = await this.desk.ask({
      method: 'POST',
      path: '/api/loads/{load}/entries/{slot}/fix',
      params: { path: { load, slot } },
      body: { id, revision: ledger?.revision ?? 0 },
      load,
      says: `${label} in slot ${String(slot)}`,
    });
    if (done) this.message = `${label}: done in slot ${String(slot)}. Ctrl+Z undoes it.`;
    else this.trouble = problem?.detail ?? problem?.title ?? '';
    await this.client.invalidateQueries({ queryKey: ['find'] });
  }

  /** Says that statements speak of one repeater, or of two. */
  async decide(a: StatementID, b: StatementID, same: boolean): Promise<void> {
    await this.#try(async () => {
      did(await api.POST('/api/decisions', { body: { a, b, same } }));
      this.message = same ? 'Joined into one repeater.' : 'Split into two repeaters.';
      this.picked.clear();
    });
  }

  /** Says what a repeater really has in a field; an empty value takes that back. */
  async correct(of: StatementID, field: string, value: string, note: string): Promise<boolean> {
    return this.#try(async () => {
      did(await api.POST('/api/corrections', { body: { of, field, value, note } }));
      this.message = value ? 'Saved: it applies until a newer edition says something else.' : 'Undone.';
    });
  }

  /** Takes back what was corrected, or decided. */
  async takeBack(what: 'correction' | 'decision', id: number, revision: number): Promise<void> {
    await this.#try(async () => {
      const params = { path: { id }, query: { revision } };
      did(
        what === 'correction'
          ? await api.DELETE('/api/corrections/{id}', { params })
          : await api.DELETE('/api/decisions/{id}', { params }),
      );
      this.message = 'Undone.';
    });
  }

  async drop(source: string): Promise<void> {
    await this.#try(async () => {
      did(await api.DELETE('/api/sources/{source}', { params: { path: { source } } }));
      this.message = `${source} is removed.`;
    });
  }

  /** What is said of one repeater, seen closely. */
  look = async (id: StatementID, line: string, load: number) =>
    must(await api.GET('/api/find/look', { params: { query: { ...id, line, load } } }));

  async #try(f: () => Promise<void>): Promise<boolean> {
    this.trouble = this.message = '';
    try {
      await f();
      await this.client.invalidateQueries();
      return true;
    } catch (e) {
      this.trouble =
        e instanceof ApiError ? e.message : 'The application does not answer. Start it again, then try again.';
      return false;
    }
  }
}
