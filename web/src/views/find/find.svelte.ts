import type { QueryClient } from '@tanstack/svelte-query';
import { SvelteSet } from 'svelte/reactivity';
import { api, ApiError, did, must, type FoundRepeater, type StatementID } from '$lib/api/client';

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

  constructor(private readonly client: QueryClient) {}

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

  /** Takes the chosen repeaters into the radio that the plan shows. */
  async add(list: FoundRepeater[]): Promise<void> {
    const chosen = this.chosen(list);
    if (chosen.length === 0) return;
    await this.#try(async () => {
      const loads = must(await api.GET('/api/workspace')).loads;
      const shown = Number(localStorage.getItem('load'));
      const load = loads.find((l) => l.id === shown) ?? loads[0];
      if (!load) return;
      const { revision } = must(await api.GET('/api/loads/{load}', { params: { path: { load: load.id } } }));
      const out = must(
        await api.POST('/api/loads/{load}/found', {
          params: { path: { load: load.id } },
          body: { ids: chosen.map((r) => r.id), revision },
        }),
      );
      const taken =
        out.slots.length > 0
          ? `In ${load.radio.name}, slot ${out.slots.join(', ')}. Ctrl+Z on the plan undoes it.`
          : '';
      const title = (id: StatementID) =>
        chosen.find((c) => c.id.source === id.source && c.id.key === id.key)?.title ?? id.key;
      const skipped =
        out.skipped.length > 0 ? `Not added: ${out.skipped.map((s) => `${title(s.id)}, ${s.why}`).join('; ')}.` : '';
      this.message = [taken, skipped].filter(Boolean).join(' ');
      this.picked.clear();
      await this.client.invalidateQueries();
    });
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
