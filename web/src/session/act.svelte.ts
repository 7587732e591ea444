import { ApiError } from '$lib/api/client';
import { client } from '$lib/client';
import { say } from './say.svelte';

/** What a form does: nothing typed is lost where it fails, and what is wrong is said beside it. */
export class Act {
  faults = $state<Record<string, string>>({});
  trouble = $state('');
  busy = $state(false);

  async try(act: () => Promise<void>, done = ''): Promise<boolean> {
    this.faults = {};
    this.trouble = '';
    this.busy = true;
    try {
      await act();
      await client.invalidateQueries();
      if (done) say.done(done);
      return true;
    } catch (e) {
      const problem = e instanceof ApiError ? e.problem : undefined;
      if (problem?.errors) this.faults = Object.fromEntries(problem.errors.map((f) => [f.field, f.message]));
      this.trouble = problem
        ? problem.errors
          ? 'Check the marked fields.'
          : e instanceof Error
            ? e.message
            : ''
        : 'The application does not answer. What you typed is kept here; start it, and try again.';
      if (problem?.status === 409) await client.invalidateQueries(); // what it is now
      return false;
    } finally {
      this.busy = false;
    }
  }
}
