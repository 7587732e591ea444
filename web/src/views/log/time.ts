/** Now, as it is told. */
export const stamp = (): string => new Date().toISOString();

/** What is left of the minutes until the callsign is due, in seconds; undefined for nothing said yet. */
export function left(first: string, minutes: number, now: number): number | undefined {
  if (!first) return undefined;
  const s = minutes * 60 - (now - Date.parse(first)) / 1000;
  return s > 0 ? s : undefined;
}
