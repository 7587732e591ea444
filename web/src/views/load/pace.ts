import { browser, isRecord } from '$lib/storage.svelte';
/** What a press takes until the person's own pace is known. Common practice, no source. */
export const stated = 1.2;
/** The same key once more, or the next click of a knob, takes this share of it. Common practice, no source. */
const again = 0.25;
/** How many presses the stated pace weighs: after as many of one's own they count alike. */
const weight = 40;
/** Only the last so many presses are remembered: people become quicker. */
const last = 600;
/** Longer than this for a press was a pause, and not a press. */
const pause = 12;
/** And quicker than this somebody leafed through the steps. */
const leafed = 0.12;

/** What a hand does: how often it presses, and how much of that repeats the press before. */
export interface Effort {
  presses: number;
  repeats: number;
}

/** Presses as they take time: one that repeats another is quick. */
export function beats(...efforts: readonly Effort[]): number {
  return efforts.reduce((n, e) => n + e.presses - (1 - again) * e.repeats, 0);
}

/** How long a person takes for a press, learned from the steps. */
export interface Pace {
  presses: number;
  seconds: number;
}

const shelf = 'pace';

const isPace = (v: unknown): v is Pace =>
  isRecord(v) && typeof v.presses === 'number' && typeof v.seconds === 'number' && v.presses >= 0 && v.seconds >= 0;

export function readPace(): Pace {
  return browser.read(shelf, isPace, { presses: 0, seconds: 0 });
}

/** The pace after a step that took so long. */
export function learn(pace: Pace, effort: Effort, seconds: number): Pace {
  const presses = beats(effort);
  if (presses < 1 || seconds / presses > pause || seconds / presses < leafed) return pace;
  const keep = Math.min(1, last / (pace.presses + presses));
  const next = { presses: (pace.presses + presses) * keep, seconds: (pace.seconds + seconds) * keep };
  browser.write(shelf, next);
  return next;
}

/** Seconds a press: the stated pace, corrected by one's own. */
export function seconds(pace: Pace): number {
  return (stated * weight + pace.seconds) / (weight + pace.presses);
}

/** "16 min", "less than a minute". */
export function minutes(s: number): string {
  return s < 60 ? 'less than a minute' : `${String(Math.round(s / 60))} min`;
}
