import { api, must, type SetInfo } from '$lib/api/client';
import { client } from '$lib/client';
import { say } from '$session/say.svelte';
import type { PlanState } from './plan.svelte';

/** Puts channels into a set, or takes them out. */
export async function joined(
  plan: PlanState,
  set: SetInfo,
  channels: readonly number[],
  how: { out?: boolean; priority?: boolean } = {},
): Promise<void> {
  if (channels.length === 0) return;
  try {
    must(
      await api.POST('/api/plans/{id}/sets/{set}/members', {
        params: { path: { id: plan.ledger?.plan ?? 0, set: set.id } },
        body: { channels: [...channels], ...how },
      }),
    );
    await Promise.all([client.invalidateQueries({ queryKey: ['sets'] }), plan.desk.again(plan.load)]);
    const n = channels.length === 1 ? '1 channel' : `${String(channels.length)} channels`;
    say.done(how.out ? `Took ${n} out of ${set.name}` : `${n} in ${set.name}`);
  } catch (e) {
    plan.fail(e);
  }
}
