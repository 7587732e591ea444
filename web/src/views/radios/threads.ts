import type { Preview } from '$lib/api/client';

type Row = Preview['rows'][number];

/** How the channels come through the radio, part by part: who leaves where, and what is left. */
export interface Threads {
  total: number;
  /** For each part in their order: those it loses, those it holds otherwise, and how many go on. */
  at: { part: string; lost: Row[]; half: Row[]; left: number }[];
  whole: Row[];
  part: Row[];
}

export const parts = ['bands', 'slots', 'shift', 'tones', 'names'] as const;

export function threadsOf(rows: readonly Row[]): Threads {
  let left = rows.length;
  const at = parts.map((part) => {
    const lost = rows.filter((r) => r.lost === part);
    const half = rows.filter((r) => r.lost === '' && (r.half === part || (part === 'names' && r.half === 'rest')));
    left -= lost.length;
    return { part, lost, half, left };
  });
  return {
    total: rows.length,
    at,
    whole: rows.filter((r) => r.lost === '' && r.half === ''),
    part: rows.filter((r) => r.lost === '' && r.half !== ''),
  };
}

/** Why a channel is held otherwise, in a few words. */
export function halfWords(r: Row): string {
  const l = r.losses[0];
  return l ? `${l.held === 'nothing' ? 'without' : l.held} for ${l.wanted}` : '';
}
