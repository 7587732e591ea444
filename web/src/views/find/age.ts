/** How long a record has not been confirmed, on a rule from a week to four years. */
export const width = 76;
const [first, last] = [7, 1460];

/** Where so many days stand on the rule. */
export function ageAt(days: number): number {
  return (width * Math.log(Math.max(first, Math.min(last, days)) / first)) / Math.log(last / first);
}

/** Whole days from one date to another; null without a date, or for one to come. */
export function daysSince(updated: string | null, today: string): number | null {
  if (!updated) return null;
  const days = Math.round((Date.parse(today) - Date.parse(updated)) / 86_400_000);
  return days < -1 ? null : Math.max(0, days);
}

const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** A date as people write it; with its year where that is another one: "26 Oct", "26 Oct 2024". */
export function dateWords(date: string, today: string): string {
  const [year = '', month = '', day = ''] = date.split('-');
  const words = `${String(Number(day))} ${months[Number(month) - 1] ?? month}`;
  return today.startsWith(year) ? words : `${words} ${year}`;
}
