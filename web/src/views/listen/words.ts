export const days = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'] as const;

/** How much of ten: 0.48 is 4.8. */
export const ten = (share: number): string => (10 * share).toFixed(1);

/** Seconds, with a tenth below a minute. */
export const seconds = (s: number | undefined): string =>
  s === undefined ? 'never' : s < 99.95 ? `${s.toFixed(1)} s` : minutes(s);

export const minutes = (s: number): string =>
  s < 3600 ? `${String(Math.round(s / 60))} min` : `${(s / 3600).toFixed(1)} h`;

/** A number without more figures than it is worth. */
export const round = (x: number): string => (x > 0 && x < 0.95 ? x.toFixed(1) : Math.round(x).toLocaleString('en'));

const lead = (x: number): string => String(x).padStart(2, '0');
export const hour = (day: number, h: number): string => `${days[day] ?? ''} ${lead(h)}:00`;

/** The next time that it is that hour of the week, from now on. */
export function next(now: Date, day: number, h: number): string {
  const t = new Date(now);
  t.setHours(h, 0, 0, 0);
  t.setDate(t.getDate() + ((day - t.getDay() + 7) % 7));
  if (t.getTime() < now.getTime()) t.setDate(t.getDate() + 7);
  const off = -t.getTimezoneOffset();
  const zone = `${off < 0 ? '-' : '+'}${lead(Math.floor(Math.abs(off) / 60))}:${lead(Math.abs(off) % 60)}`;
  return `${String(t.getFullYear())}-${lead(t.getMonth() + 1)}-${lead(t.getDate())}T${lead(h)}:00:00${zone}`;
}

/** How a scan goes on, in a word or two. */
export const goes = (resume: string, stay: number): string =>
  resume === 'time'
    ? `stays ${String(Math.round(stay * 10) / 10)} s`
    : resume === 'carrier'
      ? `stays while it lasts, and ${String(Math.round(stay * 10) / 10)} s`
      : 'stays until you press a key';
