/** Slots as people say them: "3, 5 and 30–33". */
export function runs(slots: readonly number[]): string {
  const s = [...new Set(slots)].sort((a, b) => a - b);
  const parts: string[] = [];
  for (let i = 0; i < s.length;) {
    let j = i;
    while (s[j + 1] === (s[j] ?? 0) + 1) j++;
    if (j - i < 2) for (; i <= j; i++) parts.push(String(s[i]));
    else parts.push(`${String(s[i])}–${String(s[j])}`);
    i = j + 1;
  }
  if (parts.length > 6) return `${parts.slice(0, 5).join(', ')} and ${String(parts.length - 5)} more`;
  return parts.length < 2 ? parts.join('') : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1) ?? ''}`;
}
