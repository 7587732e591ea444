import { isRecord, isTexts, tab } from '$lib/storage.svelte';
import type { QueryClient } from '@tanstack/svelte-query';
import { chosen } from '$lib/api/chosen.svelte';
import { link } from '$lib/api/link.svelte';
import type { Writes } from '$session/writes.svelte';
import { api, ApiError, must, type Preview, type RadioForm } from '$lib/api/client';

interface Draft {
  revision: number;
  texts: Record<string, string>;
}

/** The edits that are not saved, by profile. */
const isDrafts = (v: unknown): v is Record<string, Draft> =>
  isRecord(v) && Object.values(v).every((d) => isRecord(d) && isTexts(d.texts));
const kept = () => tab.read('radios', isDrafts, {});

/** The profile that is being looked at or edited, with a preview of what it would hold. */
export class RadiosState {
  form = $state<RadioForm>();
  texts = $state<Record<string, string>>({});
  preview = $state<Preview>();
  faults = $state<Record<string, string>>({});
  message = $state('');
  trouble = $state('');
  /** The YAML of a profile that was deleted, so that it can be brought back. */
  gone = $state('');
  /** Which profiles have edits that are not saved. They are kept while other views are looked at. */
  drafts = $state<readonly string[]>(Object.keys(kept()));
  #asked = 0;
  #wanted = '';
  #timer = 0;

  constructor(
    private readonly client: QueryClient,
    private readonly writes: Writes,
  ) {}

  get dirty(): boolean {
    const f = this.form;
    return f !== undefined && f.fields.some((x) => this.texts[x.key] !== f.texts[x.key]);
  }

  /** Shows a profile; one that is shown already stays as it was typed. */
  async open(id: string): Promise<void> {
    if (id === this.#wanted) return;
    this.#wanted = id;
    if (!this.gone) this.message = '';
    await this.#try(async () => {
      const form = must(await api.GET('/api/radios/{radio}', { params: { path: { radio: id } } }));
      if (id === this.#wanted) this.#show(form);
    });
  }

  /** Keeps what is not saved of the profile that is shown, or drops it where it is as it was, or was saved. */
  #keep(saved?: string): void {
    const form = this.form;
    const all = kept();
    const drop = saved ?? (this.dirty ? undefined : form?.id);
    if (form && this.dirty && saved !== form.id) all[form.id] = { revision: form.revision, texts: { ...this.texts } };
    const left = Object.fromEntries(Object.entries(all).filter(([id]) => id !== drop));
    tab.write('radios', left);
    this.drafts = Object.keys(left);
  }

  /** Puts everything back as it was saved. */
  revert(): void {
    if (!this.form) return;
    this.texts = { ...this.form.texts };
    this.faults = {};
    this.#keep();
    void this.look();
  }

  /** Called at every keystroke; the preview follows a moment later. */
  typed(): void {
    this.#keep();
    window.clearTimeout(this.#timer);
    this.#timer = window.setTimeout(() => void this.look(), 150);
  }

  async look(): Promise<void> {
    const form = this.form;
    if (!form) return;
    const asked = ++this.#asked;
    this.trouble = '';
    try {
      const v = must(
        await api.POST('/api/radios/{radio}/preview', {
          params: { path: { radio: form.id } },
          body: { texts: this.texts },
        }),
      );
      if (asked !== this.#asked) return; // typed on meanwhile
      this.faults = Object.fromEntries(v.faults.map((f) => [f.field, f.message]));
      if (v.faults.length === 0) this.preview = v;
    } catch (e) {
      this.#wrong(e);
      if (e instanceof ApiError) return;
      await link.again(15_000);
      if (asked === this.#asked) await this.look();
    }
  }

  async copy(): Promise<string | undefined> {
    const id = this.form?.id ?? this.#wanted; // the key may come before the form
    if (id) return this.#make({ copy: id }, 'Copied. Change what is different on yours, then save.');
    return undefined;
  }

  async bring(yaml: string): Promise<string | undefined> {
    const id = await this.#make({ yaml }, 'Imported.');
    return id;
  }

  async save(): Promise<void> {
    const form = this.form;
    if (!form?.own) return;
    if (this.saving) return;
    this.trouble = '';
    const { data, error } = await this.writes.ask({
      method: 'PUT',
      path: '/api/radios/{radio}',
      params: { path: { radio: form.id } },
      body: { texts: { ...this.texts }, revision: form.revision },
      person: chosen.person,
      load: 0,
      says: `the radio ${form.name}`,
    });
    if (error) {
      this.#wrong(new ApiError(error));
      return;
    }
    this.#keep(form.id); // what was typed is saved now
    if (this.form?.id === form.id)
      this.#show(
        (data as RadioForm | undefined) ??
          must(await api.GET('/api/radios/{radio}', { params: { path: { radio: form.id } } })),
      );
    this.message = 'Saved.';
    this.gone = '';
    await this.#refresh();
  }

  /** Whether this radio is being saved, or waits to be. */
  get saving(): boolean {
    return this.writes.queue.some((w) => w.path === '/api/radios/{radio}');
  }

  async remove(): Promise<boolean> {
    const form = this.form;
    if (!form) return false;
    let done = false;
    await this.#try(async () => {
      const old = must(await api.DELETE('/api/radios/{radio}', { params: { path: { radio: form.id } } }));
      this.gone = old.yaml;
      this.message = `${old.name} is deleted.`;
      this.form = undefined;
      done = true;
      await this.#refresh();
    });
    return done;
  }

  async use(fill = false): Promise<void> {
    const form = this.form;
    if (!form) return;
    await this.#try(async () => {
      const l = must(
        await api.POST('/api/radios/{radio}/use', { params: { path: { radio: form.id }, query: { fill } } }),
      );
      this.message = `In the plan, with ${String(l.rows.length)} channels. Ctrl+Z undoes it.`;
      this.form = { ...form, load: l.load };
      await this.#refresh();
      chosen.load = l.load;
    });
  }

  async leave(): Promise<void> {
    const form = this.form;
    if (!form) return;
    await this.#try(async () => {
      must(await api.DELETE('/api/radios/{radio}/use', { params: { path: { radio: form.id } } }));
      this.message = 'Out of the plan. Ctrl+Z undoes it.';
      this.form = { ...form, load: null };
      await this.#refresh();
    });
  }

  async #make(body: { copy?: string; yaml?: string }, message: string): Promise<string | undefined> {
    let id: string | undefined;
    await this.#try(async () => {
      const f = must(await api.POST('/api/radios', { body }));
      this.#wanted = f.id; // the address follows; what is typed until then stays
      this.#show(f);
      this.message = message;
      this.gone = '';
      id = f.id;
      await this.#refresh();
    });
    return id;
  }

  #show(form: RadioForm): void {
    this.form = form;
    const draft = kept()[form.id];
    this.texts = { ...form.texts, ...(draft && draft.revision === form.revision ? draft.texts : {}) };
    this.#keep();
    this.faults = {};
    this.trouble = '';
    void this.look();
  }

  async #refresh(): Promise<void> {
    await this.client.invalidateQueries();
  }

  async #try(f: () => Promise<void>): Promise<void> {
    this.trouble = '';
    try {
      await f();
    } catch (e) {
      this.#wrong(e);
    }
  }

  #wrong(e: unknown): void {
    if (e instanceof ApiError && e.problem.errors) {
      this.faults = Object.fromEntries(e.problem.errors.map((x) => [x.field, x.message]));
    }
    this.trouble =
      e instanceof ApiError ? e.message : 'The application does not answer. What you typed is kept here; try again.';
  }
}
