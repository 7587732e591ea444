import type { ImportState } from '$lib/api/client';
import type { Told } from './stream';

/** How far the imports are, as they are told of. */
export class Imports {
  states = $state<Record<string, ImportState>>({});
  /** Those that were under way when the application was started again: they are over. */
  #epoch = '';

  take(t: Told): void {
    const epoch = t.id.split('-')[0] ?? '';
    if (epoch && this.#epoch && epoch !== this.#epoch) {
      for (const [id, s] of Object.entries(this.states))
        if (s.state === 'reading' || s.state === 'waiting')
          this.states[id] = { ...s, state: 'failed', error: 'Mnemos was restarted meanwhile', seconds_left: null };
    }
    this.#epoch = epoch || this.#epoch;
    const { import: id, state } = t.data;
    if (t.kind === 'import' && id && state) this.states[id] = state;
  }

  /** Forgets how far one was, because it is begun again. */
  forget(id: string): void {
    this.states = Object.fromEntries(Object.entries(this.states).filter(([k]) => k !== id));
  }
}

export const imports = new Imports();
