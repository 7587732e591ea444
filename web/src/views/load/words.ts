import type { SheetAct, SheetStep } from '$lib/api/client';

/** The menu of a step as people say it: "menu 12"; empty where there is none. */
export function menu(s: SheetStep): string {
  const [key, ...digits] = s.acts.find((a) => a.verb === 'press')?.keys ?? [];
  return key && digits.length > 0 && digits.every((d) => /^\d$/.test(d))
    ? `${key.toLowerCase()} ${digits.join('')}`
    : '';
}

/** What stands large: the value of a step in parts, the strong ones first. */
export function large(s: SheetStep): { strong: string; rest: string; unit: string; word: boolean } {
  const value = s.value ?? '';
  const m = /^([+−]?\d+)(\.\d+)?$/.exec(value);
  if (m && s.unit) return { strong: m[1] ?? '', rest: m[2] ?? '', unit: s.unit, word: false };
  return { strong: value, rest: '', unit: s.unit ?? '', word: !/^[A-Z0-9 +−/-]+$/.test(value) };
}

/** A step in words for somebody who listens. */
export function spoken(s: SheetStep, of: number): string {
  return `Step ${String(s.number)} of ${String(of)}, ${[s.do, s.value, s.unit].filter(Boolean).join(' ')}: ${s.keys}.`;
}

/** How often a name's letter is turned in: the letter, and the presses of the letter key. */
export function letters(a: SheetAct, characters: string): { letter: string; presses: number }[] {
  return [...a.text].map((letter) => ({ letter, presses: Math.max(0, [...characters].indexOf(letter)) }));
}

/** "1 press", "53 presses". */
export function presses(n: number): string {
  return n === 1 ? '1 press' : `${n.toLocaleString('en-GB')} presses`;
}
