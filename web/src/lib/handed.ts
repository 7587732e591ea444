import type { StatementID } from '$lib/api/client';

/** A field of a published record that somebody came to know better elsewhere. */
export interface Known {
  id: StatementID;
  field: string;
  value: string;
  note: string;
}

/** What one view hands to the next; it is taken once. */
class Handed {
  #known: Known | undefined;

  give(known: Known): void {
    this.#known = known;
  }

  /** The record that is to be looked at. */
  get record(): StatementID | undefined {
    return this.#known?.id;
  }

  /** What is known of a field of a record, one of whose statements has this name. */
  take(ids: readonly StatementID[], field: string): Known | undefined {
    const k = this.#known;
    if (k?.field !== field || !ids.some((id) => id.source === k.id.source && id.key === k.id.key)) return undefined;
    this.#known = undefined;
    return k;
  }
}

export const handed = new Handed();
