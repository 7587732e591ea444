import type { QueryClient } from '@tanstack/svelte-query';
import { chosen } from '$lib/api/chosen.svelte';
import { imports } from '$session/imports.svelte';
import { api, ApiError, did, must, type ImportPreview, type ImportState } from '$lib/api/client';

/** A listing on its way in: the file, how it is understood, and how far it is. */
export class BringState {
  preview = $state<ImportPreview>();
  source = $state('');
  /** Whose TX it is, where the person said so. */
  viewpoint = $state<'' | 'operator' | 'repeater'>('');
  busy = $state(false);
  trouble = $state('');
  faults = $state<Record<string, string>>({});
  /** The import that was begun; how far it is, is told of. */
  #running = $state('');
  #first = $state<ImportState>();
  #told = false;

  constructor(private readonly client: QueryClient) {}

  async take(content: Blob, name: string): Promise<void> {
    await this.#try(async () => {
      const res = await fetch(
        `/api/imports?name=${encodeURIComponent(name)}${chosen.plan ? `&plan=${String(chosen.plan)}` : ''}`,
        {
          method: 'POST',
          headers: {
            'Content-Type': 'application/octet-stream',
            ...(chosen.person ? { 'Mnemos-Person': String(chosen.person) } : {}),
          },
          body: content,
        },
      );
      const answer = (await res.json()) as ImportPreview & ApiError['problem'];
      if (!res.ok) throw new ApiError(answer);
      this.preview = answer;
      this.source = answer.source;
      this.viewpoint = '';
    });
  }

  get progress(): ImportState | undefined {
    return this.#running ? (imports.states[this.#running] ?? this.#first) : undefined;
  }

  /** Called when it has changed: in the end everything is read again. */
  followed(): void {
    if (!this.over || this.#told) return;
    this.#told = true;
    void this.client.invalidateQueries();
  }

  /** Whether the import has ended, one way or another. */
  get over(): boolean {
    return ['done', 'failed', 'cancelled', 'doubted', 'held'].includes(this.progress?.state ?? '');
  }

  get #form() {
    const p = this.preview;
    return {
      source: this.source,
      prose: p?.prose ?? false,
      columns: (p?.columns ?? []).map(({ role, unit, order, side }) => ({ role, unit, order, side })),
      viewpoint: this.viewpoint,
    };
  }

  /** Called when a column is said to hold something else. */
  async look(): Promise<void> {
    const p = this.preview;
    if (!p) return;
    await this.#try(async () => {
      const next = must(
        await api.POST('/api/imports/{import}/preview', { params: { path: { import: p.id } }, body: this.#form }),
      );
      this.preview = { ...next, remembered: false };
    });
  }

  /** Says whose TX it is: all columns that depend on it are turned together. */
  async turn(to: '' | 'operator' | 'repeater'): Promise<void> {
    this.viewpoint = to;
    await this.look();
  }

  async run(acceptLosses = false): Promise<void> {
    const p = this.preview;
    if (!p) return;
    await this.#try(async () => {
      imports.forget(p.id);
      this.#first = must(
        await api.POST('/api/imports/{import}/run', {
          params: { path: { import: p.id } },
          body: { ...this.#form, accept_losses: acceptLosses, hold: true },
        }),
      );
      this.#told = false;
      this.#running = p.id;
    });
  }

  async cancel(): Promise<void> {
    const p = this.preview;
    if (!p) return;
    await this.#try(async () => {
      did(await api.DELETE('/api/imports/{import}', { params: { path: { import: p.id } } }));
    });
  }

  /** Forgets the file, so that another one can be brought in. */
  again(): void {
    const state = this.progress?.state;
    if (this.preview && (state === undefined || state === 'doubted' || state === 'held')) void this.cancel();
    this.preview = undefined;
    this.#running = '';
    this.trouble = '';
    this.faults = {};
  }

  async #try(f: () => Promise<void>): Promise<void> {
    this.trouble = '';
    this.faults = {};
    this.busy = true;
    try {
      await f();
    } catch (e) {
      if (e instanceof ApiError) {
        this.faults = Object.fromEntries((e.problem.errors ?? []).map((x) => [x.field, x.message]));
        this.trouble = (e.problem.errors ?? []).map((x) => x.message).join('; ') || e.message;
      } else {
        this.trouble = 'The application does not answer. Start it again, then try again.';
      }
    } finally {
      this.busy = false;
    }
  }
}
