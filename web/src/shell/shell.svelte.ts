import { client } from '$lib/client';
import { chosen } from '$lib/api/chosen.svelte';

/** Which dialog of the shell is open. */
export type Open = '' | 'palette' | 'help' | 'plans' | 'new plan' | 'people' | 'units';

class Shell {
  open = $state<Open>('');
  /** Something has the whole screen of a phone. */
  bare = $state(false);

  /** Somebody else sits down: undo and the licence are theirs. */
  be(person: number): void {
    chosen.person = person;
    void client.invalidateQueries();
  }
}

export const shell = new Shell();
