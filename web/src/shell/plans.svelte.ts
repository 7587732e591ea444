import { api, ApiError, must, type PlanInfo, type Workspace } from '$lib/api/client';
import { chosen } from '$lib/api/chosen.svelte';
import { Act } from '$session/act.svelte';

/** The plans: made, named, copied, put away and removed. */
export class PlansState extends Act {
  #opened = (w: Workspace) => {
    chosen.plan = w.plan.id;
  };

  make(form: { name: string; season: string; region: string; place: string; radio: string }): Promise<boolean> {
    return this.try(async () => {
      this.#opened(must(await api.POST('/api/plans', { body: form })));
    }, `The plan ${form.name.trim()} is open`);
  }

  change(p: PlanInfo, form: { name?: string; season?: string; archived?: boolean }, done: string): Promise<boolean> {
    return this.try(async () => {
      must(
        await api.PATCH('/api/plans/{id}', { params: { path: { id: p.id } }, body: { ...form, revision: p.revision } }),
      );
      if (form.archived && chosen.plan === p.id) chosen.plan = 0;
    }, done);
  }

  copy(p: PlanInfo, name: string): Promise<boolean> {
    return this.try(async () => {
      this.#opened(must(await api.POST('/api/plans/{id}/copy', { params: { path: { id: p.id } }, body: { name } })));
    }, `The plan ${name} is open`);
  }

  remove(p: PlanInfo): Promise<boolean> {
    return this.try(async () => {
      const { error } = await api.DELETE('/api/plans/{id}', {
        params: { path: { id: p.id }, query: { revision: p.revision } },
      });
      if (error) throw new ApiError(error);
      if (chosen.plan === p.id) chosen.plan = 0;
    }, `The plan ${p.name} is removed; Undo restores it`);
  }

  demo(): Promise<boolean> {
    return this.try(async () => {
      this.#opened(must(await api.POST('/api/demo')));
    }, 'The demonstration is open: everything in it is invented');
  }
}
