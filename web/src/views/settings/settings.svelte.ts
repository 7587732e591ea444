import type { QueryClient } from '@tanstack/svelte-query';
import { chosen } from '$lib/api/chosen.svelte';
import { api, must, type Settings } from '$lib/api/client';
import type { Writes } from '$session/writes.svelte';

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
  unlicensed: boolean;
  marks: string;
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
    unlicensed: s.unlicensed,
    marks: s.marks,
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
  #plan = '';
  #saving = false;

  constructor(
    private readonly client: QueryClient,
    private readonly writes: Writes,
  ) {}

  get #dirty(): boolean {
    return this.form !== undefined && JSON.stringify(this.form) !== JSON.stringify(this.#saved);
  }

  /** Shows the settings as they stand, unless something is typed that is not saved. */
  follow(s: Settings): void {
    const plan = `${String(chosen.plan)} ${String(chosen.person)}`;
    if (this.#plan === plan && (this.#dirty || s.revision < this.#revision)) return;
    if (this.#plan !== plan) {
      this.before = undefined;
      this.message = '';
      this.faults = {};
    }
    this.#plan = plan;
    this.#take(s);
  }

  /** What the licence permits, as it is asked: everything, some bands, or nothing yet. */
  get permits(): 'all' | 'some' | 'none' {
    if (this.form?.unlicensed) return 'none';
    return (this.form?.bands.length ?? 0) > 0 ? 'some' : 'all';
  }

  talks(band: string): boolean {
    return this.permits === 'all' || (this.permits === 'some' && (this.form?.bands.includes(band) ?? false));
  }

  /** Says what the licence permits, and saves it; of some bands all are ticked at first. */
  permit(what: 'all' | 'some' | 'none', bands: readonly string[]): void {
    if (!this.form) return;
    this.form.unlicensed = what === 'none';
    this.form.bands = what === 'some' ? [...bands] : [];
    void this.save();
  }

  /** Talks on a band, or only listens there. Without any band there is nothing left to send on. */
  toggle(band: string, bands: readonly string[]): void {
    const on = bands.filter((b) => (b === band ? !this.talks(b) : this.talks(b)));
    if (on.length === 0) this.permit('none', bands);
    else this.permit(on.length === bands.length ? 'all' : 'some', on);
  }

  #take(s: Settings): void {
    this.form = formOf(s);
    this.#saved = formOf(s);
    this.#revision = s.revision;
  }

  /** Takes a position, and saves it. */
  place(place: string): void {
    if (!this.form) return;
    this.form.place = place;
    void this.save();
  }

  /** Saves what was typed; what is typed meanwhile is saved after it. */
  async save(): Promise<void> {
    if (this.#saving) return;
    this.#saving = true;
    try {
      for (let last = ''; this.#dirty && JSON.stringify(this.form) !== last;) last = await this.#save();
    } finally {
      this.#saving = false;
    }
    if (!this.#dirty) this.faults = {};
  }

  /** Saves once; returns what was sent. */
  async #save(): Promise<string> {
    const sent = JSON.stringify(this.form);
    const old = this.#saved;
    const { data, error } = await this.writes.ask({
      method: 'PUT',
      path: '/api/settings',
      params: { path: {}, ...(chosen.plan ? { query: { plan: chosen.plan } } : {}) },
      body: { ...(JSON.parse(sent) as Form), revision: this.#revision },
      person: chosen.person,
      load: 0,
      says: 'the settings',
    });
    if (error) {
      this.message = 'Not saved yet.';
      this.faults = {};
      if (error.settings) {
        // What was typed stays; leaving a field once more puts it over theirs.
        this.#saved = formOf(error.settings);
        this.#revision = error.settings.revision;
        this.message = `Not saved: ${error.detail ?? error.title} What you typed is kept; leave a field again to save it over theirs.`;
      } else if (error.errors) this.faults = Object.fromEntries(error.errors.map((f) => [f.field, f.message]));
      else this.message = error.detail ?? error.title;
      return sent;
    }
    const s = (data as Settings | undefined) ?? must(await api.GET('/api/settings'));
    this.before = old;
    this.message = 'Saved. Every channel has been checked again.';
    this.faults = {}; // at once: nothing may move under a hand later
    if (JSON.stringify(this.form) === sent) this.form = formOf(s);
    this.#saved = formOf(s);
    this.#revision = s.revision;
    this.client.setQueryData(['settings', chosen.plan, chosen.person], s);
    await this.client.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'settings' });
    return sent;
  }

  async back(): Promise<void> {
    if (!this.before) return;
    this.form = { ...this.before };
    await this.save();
    this.before = undefined;
    this.message = 'Undone.';
  }
}
