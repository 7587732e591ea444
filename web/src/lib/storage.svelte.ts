/**
 * What is kept in the browser, be it that it has no room, forbids it or holds
 * something damaged: then it is kept for as long as the page is there, and
 * `lasting` says so. Nothing else touches the storage of the browser.
 */
class Shelf {
  /** Whether what is kept outlives the page. */
  lasting = $state(true);
  /** What the browser did not take; undefined for what it did not let go. */
  readonly #here = new Map<string, string | undefined>();

  constructor(private readonly place: () => Storage) {}

  text(name: string): string | undefined {
    if (this.#here.has(name)) return this.#here.get(name);
    try {
      return this.place().getItem(name) ?? undefined;
    } catch {
      return undefined;
    }
  }

  keep(name: string, value: string | undefined): void {
    try {
      if (value === undefined) this.place().removeItem(name);
      else this.place().setItem(name, value);
      this.#here.delete(name);
      this.lasting = this.#here.size === 0;
    } catch {
      this.#here.set(name, value);
      this.lasting = false;
    }
  }

  /** What was kept as JSON, if it is what it should be; else what stands for none. */
  read<T>(name: string, fits: (v: unknown) => v is T, none: T): T {
    try {
      const v: unknown = JSON.parse(this.text(name) ?? 'null');
      return fits(v) ? v : none;
    } catch {
      return none;
    }
  }

  write(name: string, value: unknown): void {
    this.keep(name, JSON.stringify(value));
  }
}

/** For this browser, and for this tab. */
export const browser = new Shelf(() => localStorage);
export const tab = new Shelf(() => sessionStorage);

export const isRecord = (v: unknown): v is Record<string, unknown> =>
  typeof v === 'object' && v !== null && !Array.isArray(v);

export const isTexts = (v: unknown): v is Record<string, string> =>
  isRecord(v) && Object.values(v).every((x) => typeof x === 'string');

export const isNumbers = (v: unknown): v is number[] =>
  Array.isArray(v) && v.every((x) => typeof x === 'number' && Number.isSafeInteger(x));
