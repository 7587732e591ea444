import type { QueryClient } from '@tanstack/svelte-query';
import { api, ApiError, must, type Settings } from '$lib/api/client';

export interface Form {
  region: string;
  person: string;
  place: string;
  height_m: string;
  radius_km: string;
  tone_policy: string;
  licence: string;
  services: string[];
  bands: string[];
}

/** The settings as texts, to be typed over. */
export function formOf(s: Settings): Form {
  return {
    region: s.region,
    person: s.person,
    place: s.place,
    height_m: String(s.height_m),
    radius_km: String(s.radius_km),
    tone_policy: s.tone_policy,
    licence: s.licence,
    services: [...s.services],
    bands: [...s.bands],
  };
}

/** Settings are saved as each field is left; the state before can be brought back. */
export class SettingsState {
  form = $state<Form>();
  faults = $state<Record<string, string>>({});
  message = $state('');
  before = $state<Form>();
  #saved: Form | undefined;
  #revision = 0;

  constructor(private readonly client: QueryClient) {}

  take(s: Settings): void {
    this.form = formOf(s);
    this.#saved = formOf(s);
    this.#revision = s.revision;
  }

  async save(): Promise<void> {
    if (!this.form) return;
    const sent = JSON.stringify(this.form);
    if (this.#saved && sent === JSON.stringify(this.#saved)) {
      this.faults = {};
      return;
    }
    const old = this.#saved;
    try {
      const s = must(await api.PUT('/api/settings', { body: { ...this.form, revision: this.#revision } }));
      this.faults = {};
      this.before = old;
      this.message = 'Saved. Every channel has been checked again.';
      // What was typed meanwhile stays.
      if (JSON.stringify(this.form) === sent) this.form = formOf(s);
      this.#saved = formOf(s);
      this.#revision = s.revision;
      this.client.setQueryData(['settings'], s);
      await this.client.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'settings' });
    } catch (e) {
      this.message = 'Not saved yet.';
      const theirs = e instanceof ApiError ? e.problem.settings : undefined;
      if (theirs) {
        // What was typed stays; leaving a field once more puts it over theirs.
        this.#saved = formOf(theirs);
        this.#revision = theirs.revision;
        this.faults = {};
        this.message = `Not saved: ${e instanceof ApiError ? e.message : ''}. What you typed is kept; leave a field again to save it over theirs.`;
        return;
      }
      const errors = e instanceof ApiError ? e.problem.errors : undefined;
      this.faults = errors
        ? Object.fromEntries(errors.map((f) => [f.field, f.message]))
        : { person: 'The application does not answer. What you typed is kept here; try again.' };
    }
  }

  async back(): Promise<void> {
    if (!this.before) return;
    this.form = { ...this.before };
    await this.save();
    this.before = undefined;
    this.message = 'Undone.';
  }
}
