import { browser, isNumbers } from '$lib/storage.svelte';
/** A number that was kept; 0 for none, or for something damaged. */
function number(name: string): number {
  const n = Number(browser.text(name) ?? 0);
  return Number.isSafeInteger(n) && n > 0 ? n : 0;
}

function keep(name: string, value: number): void {
  browser.keep(name, value === 0 ? undefined : String(value));
}

/**
 * What this browser works with: who sits at it, which plan, which radio of it,
 * and which other radios get what is added too. Zero is the first one.
 */
class Chosen {
  #person = $state(number('person'));
  #plan = $state(number('plan'));
  #load = $state(number('load'));
  #also = $state<readonly number[]>(browser.read('also', isNumbers, []));

  get person(): number {
    return this.#person;
  }
  set person(id: number) {
    keep('person', (this.#person = id));
  }

  get plan(): number {
    return this.#plan;
  }
  /** Another plan has other radios. */
  set plan(id: number) {
    if (id === this.#plan) return;
    keep('plan', (this.#plan = id));
    this.load = 0;
    this.also = [];
  }

  get load(): number {
    return this.#load;
  }
  set load(id: number) {
    keep('load', (this.#load = id));
  }

  get also(): readonly number[] {
    return this.#also;
  }
  set also(ids: readonly number[]) {
    this.#also = ids;
    browser.write('also', ids);
  }
}

export const chosen = new Chosen();
