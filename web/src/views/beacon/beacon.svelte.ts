import { api, must, type BeaconTrip, type BeaconView } from '$lib/api/client';
import type { Desk } from '$session/desk.svelte';
import { say } from '$session/say.svelte';

export type Frame = BeaconView['shown'][number];
export type Part = Frame['parts'][number];
export type Line = BeaconView['bill'][number];

/** What is kept of a station. */
export interface Station {
  profile: string;
  from: string;
  symbol: string;
  source: string;
  lat: number | null;
  lon: number | null;
  ambiguity: number;
  format: string;
  back: number;
  words: string;
  path: string;
  key_up: number;
  every: number;
  smart: boolean;
  steer: Record<string, number>;
  status: string;
  object: string;
  to: string;
  text: string;
  says: number;
  stations: number;
  circles: readonly unknown[];
  switched: string;
}

/** What somebody does with a station; it is kept at once, and undone with the rest. */
export class BeaconState {
  /** The field that is pointed at, in the line and in the time alike. */
  at = $state('');
  /** Which of the frames is shown. */
  kind = $state(0);
  faults = $state.raw<Record<string, string>>({});
  trouble = $state('');
  trip = $state.raw<BeaconTrip>();
  driving = $state(false);

  constructor(private readonly desk: Desk) {}

  ask(load: number): Promise<BeaconView> {
    return api.GET('/api/loads/{load}/beacon', { params: { path: { load } } }).then(must);
  }

  set(load: number, set: Record<string, unknown>, says: string): Promise<boolean> {
    return this.#send(load, { set }, says);
  }

  act(load: number, act: string, value: string, says: string): Promise<boolean> {
    return this.#send(load, { act, value }, says);
  }

  async #send(load: number, body: Record<string, unknown>, says: string): Promise<boolean> {
    this.faults = {};
    this.trouble = '';
    const { done, problem } = await this.desk.ask(
      {
        method: 'PUT',
        path: '/api/loads/{load}/beacon',
        params: { path: { load } },
        body: { ...body, revision: latest },
        load,
        says,
      },
      body.set !== undefined, // what is set waits; an act may mean another thing by then
    );
    if (!done) {
      this.faults = Object.fromEntries((problem?.errors ?? []).map((f) => [f.field, f.message]));
      this.trouble = problem?.errors?.map((f) => f.message).join('. ') ?? problem?.detail ?? problem?.title ?? '';
      say.failed(this.trouble);
    }
    return done;
  }

  /** Drives a track with the station as it is set. */
  async drive(load: number, text: string): Promise<void> {
    this.driving = true;
    this.trouble = '';
    const { data, error } = await api.POST('/api/loads/{load}/beacon/track', {
      params: { path: { load } },
      body: { text },
    });
    this.driving = false;
    if (data) this.trip = data;
    else say.failed((this.trouble = error.errors?.map((f) => f.message).join('. ') ?? error.title));
  }
}

/** What is set is merged into whatever there is: nobody else’s setting is lost by it. */
const latest = Number.MAX_SAFE_INTEGER;
