import { chosen } from '$lib/api/chosen.svelte';
import { api, must } from '$lib/api/client';
import { Act } from '$session/act.svelte';

/** What somebody may send: everything, the bands that they chose, or nothing yet. */
export type Permits = 'all' | 'some' | 'none';

/** The three answers of somebody who begins with an empty folder, as they are typed. */
export class FirstState extends Act {
  name = $state('');
  place = $state('');
  region = $state('us');
  permits = $state<Permits>('all');
  bands = $state<string[]>([]);
  radio = $state('');
  plan = $state('My plan');

  /** A band is talked on, or only listened to. A click on one means that the person chooses. */
  toggle(band: string, all: string[]): void {
    if (this.permits !== 'some') {
      this.bands = this.permits === 'none' ? [] : [...all];
      this.permits = 'some';
    }
    this.bands = this.bands.includes(band) ? this.bands.filter((b) => b !== band) : [...this.bands, band];
  }

  talks(band: string): boolean {
    return this.permits === 'all' || (this.permits === 'some' && this.bands.includes(band));
  }

  /** Makes the plan. What was typed stays where it is until the program has it. */
  async begin(): Promise<boolean> {
    if (this.permits === 'some' && this.bands.length === 0) {
      this.faults = { bands: 'Choose a band, or "none yet".' };
      return false;
    }
    return this.try(async () => {
      must(
        await api.POST('/api/start', {
          body: {
            person: {
              name: this.name,
              bands: this.permits === 'some' ? this.bands : [],
              unlicensed: this.permits === 'none',
            },
            plan: { name: this.plan, region: this.region, place: this.place, radio: this.radio },
          },
        }),
      );
    });
  }

  /** Opens the demonstration, for somebody who only wants to look. */
  async demo(): Promise<boolean> {
    return this.try(async () => {
      must(
        await api.POST('/api/start', {
          body: {
            person: { name: this.name.trim() || 'operator' },
            plan: { name: this.plan, region: this.region, place: this.place, radio: this.radio || 'trail' },
          },
        }),
      );
      const w = must(await api.POST('/api/demo'));
      chosen.plan = w.plan.id;
    });
  }
}
