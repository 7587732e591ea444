import { vi } from 'vitest';

/** What a browser keeps, for tests that have no browser. */
class Shelf {
  #kept = new Map<string, string>();
  getItem = (k: string) => this.#kept.get(k) ?? null;
  setItem = (k: string, v: string) => void this.#kept.set(k, v);
  removeItem = (k: string) => void this.#kept.delete(k);
  clear = () => {
    this.#kept.clear();
  };
}

vi.stubGlobal('localStorage', new Shelf());
vi.stubGlobal('sessionStorage', new Shelf());
