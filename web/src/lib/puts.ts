import type { Put } from './api/client';

/** Where something went in the other radios, in words. */
export function putsWords(puts: readonly Put[] | undefined): string {
  const went = new Set(puts?.filter((p) => !p.why).map((p) => p.load)).size;
  const why = [...new Set(puts?.flatMap((p) => (p.why ? [p.why] : [])))];
  const and = went > 0 ? `, and in ${String(went)} other ${went === 1 ? 'radio' : 'radios'}` : '';
  return and + (why.length > 0 ? `; not everywhere: ${why.join('; ')}` : '');
}
