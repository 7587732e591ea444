import type { QueryClient } from '@tanstack/svelte-query';
import { SvelteSet } from 'svelte/reactivity';
import { chosen } from '$lib/api/chosen.svelte';
import { api, ApiError, did, type Added, type FoundRepeater, type LoadInfo, type StatementID } from '$lib/api/client';
import { putsWords } from '$lib/puts';
import type { Desk } from '$session/desk.svelte';

/** What narrows a search, in the words of the contract and of the screen. */
export const narrowing = [
  { value: 'new', label: 'not in my plan' },
  { value: 'tone', label: 'tone known' },
  { value: 'on-air', label: 'on the air' },
  { value: 'open', label: 'open to all' },
  { value: 'fresh', label: 'confirmed lately' },
  { value: 'digital', label: 'digital too' },
  { value: 'no-place', label: 'no place' },
] as const;

export type Only = (typeof narrowing)[number]['value'];
export type Box = [south: number, west: number, north: number, east: number];

/** Names a statement in one text. */
export const idText = (id: StatementID): string => `${id.source}\n${id.key}`;

/** What the Find view holds: the search, what is selected and picked, and what is done with it. */
export class FindState {
  text = $state('');
  band = $state('');
  opens = $state<'' | 'carrier' | 'tone' | 'code' | 'burst' | 'dtmf'>('');
  /** The name of a listing, or all of them. */
  source = $state('');
  only = $state<Only[]>([]);
  within = $state('');
  sort = $state<'distance' | 'reach' | 'frequency'>('distance');
  box = $state<Box>();
  selected = $state('');
  picked = new SvelteSet<string>();
  message = $state('');
  trouble = $state('');

  constructor(
    private readonly client: QueryClient,
    private readonly desk: Desk,
  ) {}

  get query() {
    return {
      ...(this.text.trim() ? { text: this.text.trim() } : {}),
      ...(this.band ? { band: this.band } : {}),
      ...(this.opens ? { opens: this.opens } : {}),
      ...(this.source ? { source: this.source } : {}),
      ...(this.only.length > 0 ? { only: [...this.only] } : {}),
    };
  }

  pick(id: string): void {
    if (!this.picked.delete(id)) this.picked.add(id);
  }

  /** The repeaters that an action is about: those picked, or else the selected one. */
  chosen(list: FoundRepeater[]): FoundRepeater[] {
    const picked = list.filter((r) => this.picked.has(idText(r.id)));
    return picked.length > 0 ? picked : list.filter((r) => idText(r.id) === this.selected);
  }

  /** Adds the chosen repeaters to a radio, and to the others that were ticked. */
  async add(list: FoundRepeater[], load: LoadInfo): Promise<void> {
    const picked = this.chosen(list);
    if (picked.length === 0) return;
    this.trouble = '';
    const ledger = this.desk.ledger(load.id) ?? (await this.desk.again(load.id));
    const { done, problem, data } = await this.desk.ask({
      method: 'POST',
      path: '/api/loads/{load}/found',
      params: { path: { load: load.id } },
      body: { ids: picked.map((r) => r.id), revision: ledger?.revision ?? 0, also: [...chosen.also] },
      load: load.id,
      says: `add ${String(picked.length)} to ${load.unit.name}`,
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
      picked.find((c) => c.id.source === id.source && c.id.key === id.key)?.title ?? id.key;
    const skipped = out?.skipped ?? [];
    const left = skipped.length > 0 ? `Not added: ${skipped.map((s) => `${title(s.id)}, ${s.why}`).join('; ')}.` : '';
    this.message = [taken, left].filter(Boolean).join(' ');
    this.picked.clear();
  }

  /** Says that statements speak of one repeater, or of two. */
  async decide(a: StatementID, b: StatementID, same: boolean): Promise<void> {
    await this.#try(async () => {
      did(await api.POST('/api/decisions', { body: { a, b, same } }));
      this.message = same ? 'Joined into one repeater.' : 'Split into two repeaters.';
      this.picked.clear();
      await this.client.invalidateQueries();
    });
  }

  /** Says what a repeater really has in a field; nothing takes that back. */
  async correct(of: StatementID, field: string, value: string, note: string): Promise<boolean> {
    let kept = false;
    await this.#try(async () => {
      did(await api.POST('/api/corrections', { body: { of, field, value, note } }));
      this.message = value ? 'Saved: it applies until a newer edition says something else.' : 'Undone.';
      kept = true;
      await this.client.invalidateQueries();
    });
    return kept;
  }

  async drop(source: string): Promise<void> {
    await this.#try(async () => {
      did(await api.DELETE('/api/sources/{source}', { params: { path: { source } } }));
      this.message = `${source} is removed.`;
      await this.client.invalidateQueries();
    });
  }

  async #try(f: () => Promise<void>): Promise<void> {
    this.trouble = '';
    try {
      await f();
    } catch (e) {
      this.trouble =
        e instanceof ApiError ? e.message : 'The application does not answer. Start it again, then try again.';
    }
  }
}
